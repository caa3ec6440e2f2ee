/** What of the horizon is chosen. */
export type Selected =
  | { kind: 'visit'; visitId: string; day: number; leadId: string }
  | { kind: 'lens'; machineId: string; keys: string[] }
  | { kind: 'over'; machineId: string }
  | { kind: 'day'; machineId: string; day: number }
