export { attempt, closeDatabase, database, databaseFile, dataFolder, kept, write } from './connection'
export { copyTo, inspectDatabase, knownShape, shapeOf } from './copies'
export { checkDatabase, migrate } from './migrate'
export { Op } from './table'
