export { attempt, closeDatabase, database, databaseFile, dataFolder, kept, write } from './connection'
export { checkDatabase, migrate } from './migrate'
export { Op } from './table'
