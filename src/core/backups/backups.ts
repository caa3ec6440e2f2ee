/** One archive of the whole company, as the settings list it. */
export type BackupView = { name: string; bytes: number; day: string; time: string }

/** What the settings tell of backups; `fault` is blank where the last one was made. */
export type BackupsView = { backups: BackupView[]; making: boolean; fault: string }

/**
 * Which archives go when one more was made: those of the newest day beyond the newest few, those of
 * another day but its newest, and the days beyond the newest few.
 *
 * @param names archives as `atelier-YYYYMMDD-HHMMSS.tar.gz`, newest first
 * @param kept how many of the newest day, and how many days
 */
export function superfluousBackups(names: string[], kept: number): string[] {
  const days = new Map<string, string[]>()
  for (const name of names) {
    const day = name.slice(0, 'atelier-YYYYMMDD'.length)
    days.set(day, [...(days.get(day) ?? []), name])
  }
  return [...days.values()].flatMap((ofDay, at) => ofDay.slice(at === 0 ? kept : at < kept ? 1 : 0))
}
