export {
  listOpenSigns,
  reopenBySheet,
  reopenSign,
  reportSign,
  settleBySheet,
  settleSign,
  signsOf,
} from './signs'
export { loadForwardSigns } from './signsLoading'
