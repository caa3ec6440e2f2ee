export {
  type RetireToolInput,
  type ToolBooking,
  type ToolInput,
  answersTo,
  rangeFault,
  retireToolSchema,
  toolClashes,
  toolKinds,
  toolSchema,
} from './tools'
export type { ToolPage, ToolView } from './views'
