import type { Day } from '../calendar'

export const toolKinds = {
  torqueWrench: 'Torque wrench',
  special: 'Special tool',
  other: 'Other',
} as const
export type ToolKind = keyof typeof toolKinds

export type ToolInput = {
  id: string
  version?: number
  number: string
  name: string
  kind: ToolKind
  /** How many of it there are. */
  count: number
  rangeFrom: number | null
  rangeTo: number | null
  rangeUnit: string
  /** From the middle of the drive to the middle of the grip. */
  leverMm: number | null
  calibrationDue: string | null
  yardId: string | null
  place: string
  /** Names by which pump models ask for it. */
  serves: string[]
  note: string
}

/** Faults that belong to one field but need two to tell. Null where there are none. */
export function rangeFault(input: {
  kind: string
  rangeFrom: number | null
  rangeTo: number | null
}): Record<string, string> | null {
  if (input.kind !== 'torqueWrench') return null
  if (input.rangeFrom === null) return { rangeFrom: 'Enter the least it measures.' }
  if (input.rangeTo === null) return { rangeTo: 'Enter the most it measures.' }
  return input.rangeFrom < input.rangeTo ? null : { rangeTo: 'This must be more than where it begins.' }
}

export type RetireToolInput = { id: string; version: number; reason: string }

/** What one visit takes with it. */
export type ToolBooking = { visitId: string; number: string; day: Day; yard: string; tools: string[] }

/** Whether a tool of the register is meant by a name that a pump model asks for. */
export function answersTo(tool: { name: string; serves: string[] }, name: string): boolean {
  return tool.name === name || tool.serves.includes(name)
}

export type ToolClash = { tool: string; day: Day; have: number; visits: string[] }

/**
 * Special tools that more visits of one day ask for than there are.
 *
 * @param register number of pieces by tool name, and the names it serves by
 * @example // one slide hammer, two visits on 16 Oct: [{ tool: 'Slide hammer', have: 1, visits: ['0104', '0107'] }]
 */
export function toolClashes(
  bookings: ToolBooking[],
  register: { name: string; serves: string[]; count: number }[],
): ToolClash[] {
  const clashes: ToolClash[] = []
  for (const tool of register) {
    const byDay = new Map<Day, ToolBooking[]>()
    for (const booking of bookings)
      if (booking.tools.some((name) => answersTo(tool, name)))
        byDay.set(booking.day, [...(byDay.get(booking.day) ?? []), booking])
    for (const [day, asking] of byDay)
      if (asking.length > tool.count)
        clashes.push({ tool: tool.name, day, have: tool.count, visits: asking.map(({ number }) => number) })
  }
  return clashes.sort((a, b) => a.day.localeCompare(b.day) || a.tool.localeCompare(b.tool))
}
