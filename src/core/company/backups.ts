/** One archive of the whole company, as the settings list it. */
export type BackupView = { name: string; bytes: number; day: string; time: string }
