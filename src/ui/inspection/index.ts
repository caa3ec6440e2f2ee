export { EarlyCheckDialog } from './EarlyCheckDialog'
export { EarlyStrip } from './EarlyStrip'
export { SettleSign } from './SettleSign'
