export { backupFile, backupsOf, makeBackup, makeNightly, startBackup } from './backups'
export { UnsoundArchive, restoreArchive, runningFile } from './restoring'
