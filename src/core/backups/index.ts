export { type BackupView, type BackupsView, superfluousBackups } from './backups'
