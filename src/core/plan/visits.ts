export const visitStates = {
  proposed: 'Proposed',
  booked: 'Booked',
  approved: 'Approved',
  inWork: 'In work',
  waiting: 'Waiting',
  done: 'Done',
  missed: 'Missed',
  cancelled: 'Cancelled',
} as const
export type VisitState = keyof typeof visitStates

/** Whether a visit still stands, so that its services count as booked. */
export function isOpen(state: VisitState): boolean {
  return state !== 'done' && state !== 'missed' && state !== 'cancelled'
}

/** One service of a visit: a task on some positions of one assembly, by the exact version of its model. */
export type VisitItem = {
  assemblyId: string
  modelVersionId: string
  task: string
  /** The way of doing it, where it has several and one was chosen; else the company's practice says. */
  path?: string | null
  positions: string[]
}

/** What a winter visit does, as it stands among the services of its visit. */
export const winterVisits = { lay: 'Make safe for winter', return: 'Back from winter' } as const

export type BookingInput = {
  id: string
  items: { assemblyId: string; task: string; path?: string | null; positions: string[] }[]
  day: string
  startTime: string
  leadId: string
  note: string
  /** Makes a machine safe for winter after its services, or brings it back; blank for neither. */
  winter?: '' | 'lay' | 'return'
  /** Who helps the technician, where it wants more than one. */
  helpers?: string[]
  /** The machine of a winter visit, which may have no other services. */
  machineId?: string | null
}

/** The order of work of one yard, booked in one go; `id` is what its visits are named by. */
/** Books the order of work of a yard; a blank lead is whoever has the time on each day. */
export type CampaignBookingInput = { id: string; yardId: string; leadId: string; withDue: boolean }

export type VisitChangeInput = {
  id: string
  version: number
  day: string
  startTime: string
  leadId: string
  note: string
}

export type CancelInput = { id: string; version: number; reason: string }

/** `0412` */
export function visitNumber(number: number): string {
  return String(number).padStart(4, '0')
}

/** @example showMinutes(102) // '1 h 42 min' */
export function showMinutes(minutes: number): string {
  const whole = Math.round(minutes)
  const hours = Math.floor(whole / 60)
  const rest = whole % 60
  return [hours > 0 ? `${hours}\u00a0h` : '', rest > 0 || hours === 0 ? `${rest}\u00a0min` : '']
    .filter(Boolean)
    .join(' ')
}
