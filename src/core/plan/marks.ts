import { Joi, day, id, line, optionalLine } from '../problem'

/** What a row of Today is about: `service:…`, `sign:…`, `reading:…`, `doubt:…`, `slip:…`, `earlyCheck:…`, `part:…`. */
const subject = () =>
  Joi.string()
    .max(200)
    .pattern(/^(service|sign|slip|reading|doubt|earlyCheck|part):/)
    .required()

/** What a row of Today was like when it was put off or handed on. */
export type MarkedAs = {
  /** The positions of its service; none for what is no service. */
  positions: string[]
  /** How bad it stands; more is worse. */
  severity: number
  /** What it stands there for besides its own state: signs, bins to count. */
  grounds: string[]
}

const about = () =>
  Joi.object<MarkedAs>({
    positions: Joi.array().items(Joi.string().max(60)).max(500).required(),
    severity: Joi.number().min(0).max(1e9).required(),
    grounds: Joi.array().items(Joi.string().max(80)).max(200).required(),
  })
    .allow(null)
    .default(null)

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

const marking = {
  id: id().required(),
  subject: subject(),
  label: line(200).required(),
  about: about(),
}
/** A row that stands for several things marks each of them, in one act. */
const also = () => Joi.array().items(Joi.object<Marking>(marking)).max(100).default([])

/** Puts a row of Today off until a day, with the reason. */
export type SnoozeInput = Marking & {
  also?: Marking[]
  until: string
  reason: string
}

export const snoozeSchema = Joi.object<SnoozeInput>({
  ...marking,
  also: also(),
  until: day().required(),
  reason: line(300).required().messages({ 'string.empty': 'Say why it can wait.' }),
})

/** Hands a row of Today to somebody. */
export type HandInput = Marking & {
  also?: Marking[]
  toId: string
  note: string
}

export const handSchema = Joi.object<HandInput>({
  ...marking,
  also: also(),
  toId: id()
    .required()
    .messages({ 'string.empty': 'Choose who takes it.', 'any.required': 'Choose who takes it.' }),
  note: optionalLine(300),
})

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
