import type { ToolClash, ToolInput } from './tools'

export type ToolView = Omit<ToolInput, 'version'> & {
  version: number
  retiredOn: string | null
  retiredReason: string
  yard: string
  outOfCalibration: boolean
  /** Open visits that take it. */
  visits: { visitId: string; number: string; day: string; yard: string }[]
}

export type ToolPage = {
  tools: ToolView[]
  clashes: ToolClash[]
  /** What visits ask for by a name that no tool of the register serves. */
  missing: { name: string; visits: string[] }[]
  yards: { value: string; label: string }[]
}
