export {
  addAssembly,
  getAssembly,
  listAssemblies,
  retireAssembly,
  returnAssembly,
  saveAssembly,
} from './assemblies'
export { addDocument, documentsOf, readDocument, removeDocument } from './documents'
export { getMachine, listMachines } from './fleet'
export { addMachine, retireMachine, returnMachine, saveMachine } from './machineEdits'
export { changeDuty, moveAssembly, undoMove } from './moves'
export { listYards, removeYard, saveYard } from './yards'
export { listChanges } from './changes'
