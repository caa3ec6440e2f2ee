export {
  type AssemblyRow,
  type DutyShareRow,
  type FittingRow,
  assemblies,
  dutyShares,
  fittings,
} from './assemblies'
export { type DocumentRow, documents } from './documents'
export { type MachineRow, machines } from './machines'
export { yards, type YardRow } from './yards'
