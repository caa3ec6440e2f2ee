export { exportPumpModel, previewPumpModel, publishPumpModel, withLookedUp } from './publishing'
export {
  deletePumpModel,
  getPumpModel,
  listPumpModels,
  newestVersionId,
  savePumpModel,
  settleDoubt,
} from './pumpModels'
