export * from './schema'
