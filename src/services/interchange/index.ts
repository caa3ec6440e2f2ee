export { type Download, type Format, exportParts, exportRecord } from './exports'
