export { type ToolRow, tools } from './tools'
