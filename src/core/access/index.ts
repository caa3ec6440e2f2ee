export * from './permissions'
export * from './schema'
