export {
  addAssembly,
  getAssembly,
  listAssemblies,
  retireAssembly,
  returnAssembly,
  saveAssembly,
} from './assemblies'
export { addDocument, documentsOf, readDocument, removeDocument } from './documents'
export { addMachine, getMachine, listMachines, retireMachine, returnMachine, saveMachine } from './fleet'
export { changeDuty, moveAssembly, undoMove } from './moves'
export { listYards, removeYard, saveYard } from './yards'
