export { TimeZoneEntry } from './TimeZoneEntry'
export { UnitEntries } from './UnitEntries'
