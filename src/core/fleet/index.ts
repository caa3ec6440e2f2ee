export * from './schema'
export { nextNumber } from './numbers'
