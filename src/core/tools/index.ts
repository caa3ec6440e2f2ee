export {
  type RetireToolInput,
  type ToolBooking,
  type ToolInput,
  answersTo,
  rangeFault,
  toolClashes,
  toolKinds,
} from './tools'
export { retireToolSchema, toolSchema } from './toolsSchema'
export type { ToolPage, ToolView } from './views'
