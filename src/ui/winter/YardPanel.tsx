import type { ReactNode } from 'react'
import { showDay } from '@/core/calendar'
import { showMoney } from '@/core/units'
import type { WinterYard } from '@/core/winter'
import { Note } from '../feedback/States'
import { Link } from '../frame/Link'
import { pack } from '../frame/packed'
import { FrostCurve } from './FrostCurve'
import { YardRows } from './YardRows'
import { showDegrees } from './words'

type Props = {
  yard: WinterYard
  today: string
  currency: string
  riskPercent: number
  /** Books its order of work; nothing for whoever may not. */
  book?: ReactNode
}

/** One yard: when frost comes, when its crew is done, and its machines in the order of work. */
export function YardPanel({ yard, today, currency, riskPercent, book }: Props) {
  return (
    <section className="part winter-yard" aria-label={yard.name}>
      <header>
        <h2>{yard.name}</h2>
        {book ?? <span className="second">chance that frost has come, %</span>}
      </header>
      {yard.hasClimate ? (
        <FrostCurve yard={yard} today={today} />
      ) : (
        <Note tone="brass">
          Nothing is known of its frost: <Link href="/winter/yards">enter it or import minima</Link>, and the
          order of work and its risk follow.
        </Note>
      )}
      <p className="second">{yardWords(yard, today, currency, riskPercent)}</p>
      <p className="second">{yard.outlookSays}</p>
      <YardRows packed={pack(yard.rows)} today={today} />
    </section>
  )
}

function yardWords(yard: WinterYard, today: string, currency: string, riskPercent: number): string {
  const { latestStart, finish, designLowC, crewSays, exposedCents, rows } = yard
  const waiting = rows.filter(({ risk }) => risk !== null).length
  const low = designLowC === null ? '' : `Design low ${showDegrees(designLowC)}. `
  if (!yard.hasClimate) return crewSays
  if (waiting === 0) return `${low}Nothing is left to do here. ${yard.climateSays}`
  const begin =
    latestStart === null
      ? `Even begun today, some machine runs more than ${riskPercent} %.`
      : latestStart === today
        ? `Today is the last day to begin for ${riskPercent} %.`
        : `Begun by ${showDay(latestStart, today)}, no machine runs more than ${riskPercent} %.`
  const end = finish === null ? 'The crew does not get to every machine before the winter is over.' : ''
  return `${low}${begin} ${end} Exposed value ${showMoney(exposedCents, currency)}. ${crewSays}. ${yard.climateSays}`.replace(
    / {2,}/g,
    ' ',
  )
}
