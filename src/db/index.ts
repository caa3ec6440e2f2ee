export { closeDatabase, database, databaseFile, dataFolder, write } from './connection'
export { checkDatabase, migrate } from './migrate'
export { Op } from './table'
