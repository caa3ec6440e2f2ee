import type { Verdict, MeterEvent, MeterFace, Standing } from '../hours'

/** One meter on the round, with what the judge needs to judge it in the browser. */
export type RoundRow = {
  meterId: string
  meterName: string
  /** Whether the machine has others, so that the meter has to be named. */
  several: boolean
  machineId: string
  number: string
  name: string
  yardName: string
  bay: string
  crew: string
  face: MeterFace
  /** Accepted readings of the last half year, packed, which is all the judge looks at: see `historyOf`. */
  history: { readings: string; events: MeterEvent[]; standing: Standing[] }
  last: { at: string; value: number; day: string; ageDays: number; readBy: string } | null
  owes: boolean
  /** "laid up until 1 Mar", or blank: it owes nothing then. */
  laidUp: string
  /** "Laid up for winter: do not start", or blank: it is read all the same, since a reading tells that it ran. */
  hold: string
  doubts: number
  /** Use of the last eight weeks up to the last reading, oldest first. */
  weeks: (number | null)[]
  /** Why it was skipped today, or blank. */
  skipped: string
}

/** A due day that a reading of the round moved. */
export type RoundMove = {
  machine: string
  service: string
  where: string
  before: string | null
  after: string | null
  /** Past its limit now and not before. */
  passed: boolean
}

/** What became of a reading of the round. */
export type RoundSaved = {
  id: string
  status: 'accepted' | 'doubted' | 'superseded'
  shown: string
  verdict: Verdict
  moves: RoundMove[]
}
