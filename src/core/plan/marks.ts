/** What a row of Today was like when it was put off or handed on. */
export type MarkedAs = {
  /** The positions of its service; none for what is no service. */
  positions: string[]
  /** How bad it stands; more is worse. */
  severity: number
  /** What it stands there for besides its own state: signs, bins to count. */
  grounds: string[]
}

/** Names a service of a pump, on some positions, for what is put off or handed on. */
export function serviceSubject(assemblyId: string, task: string, positions: string[]): string {
  return `service:${assemblyId}:${task}:${positions[0]}`
}

type Marked = { subject: string; about: MarkedAs | null }
type Row = { subject: string } & MarkedAs

/**
 * Whether a mark is about a row. A mark on a service belongs to its task and the positions it had then:
 * to a row with some of these, since a cylinder may get a row of its own, and to none with any other.
 */
export function markOn(mark: Marked, row: Row): boolean {
  if (!row.subject.startsWith('service:') || mark.about === null) return mark.subject === row.subject
  const { positions } = mark.about
  return (
    taskOf(mark.subject) === taskOf(row.subject) && row.positions.every((each) => positions.includes(each))
  )
}

/**
 * Why a row that was put off comes back before its day: something new stands there, such as a sign, or it
 * is worse than it was then. Null while the mark holds.
 *
 * @param mark one that is about the row, by `markOn`
 */
export function endedBy(mark: Marked, row: Row): 'new' | 'worse' | null {
  const { grounds = [], severity = Infinity } = mark.about ?? {}
  if (row.grounds.some((each) => !grounds.includes(each))) return 'new'
  return row.severity > severity ? 'worse' : null
}

const taskOf = (subject: string) => subject.slice(0, subject.lastIndexOf(':'))

/** One thing that is put off or handed on. */
export type Marking = { id: string; subject: string; label: string; about?: MarkedAs | null }

/** Puts a row of Today off until a day, with the reason. */
export type SnoozeInput = Marking & {
  also?: Marking[]
  until: string
  reason: string
}

/** Hands a row of Today to somebody. */
export type HandInput = Marking & {
  also?: Marking[]
  toId: string
  note: string
}

/** How a row of Today was put off or handed on. */
export type Mark = {
  id: string
  subject: string
  label: string
  about: MarkedAs | null
  kind: 'snooze' | 'hand'
  until: string | null
  reason: string
  to: string | null
  by: string
  day: string
}
