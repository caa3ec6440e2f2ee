import type { ReactNode } from 'react'
import { showDay } from '@/core/calendar'
import { showMoney } from '@/core/units'
import type { WinterRow, WinterYard } from '@/core/winter'
import { Note } from '../feedback/States'
import { Link } from '../frame/Link'
import { PostMark } from '../graphics/PostMark'
import { Table, TableBody, TableCell, TableHead, TableRow, HeadCell } from '../table/Table'
import { FrostCurve } from './FrostCurve'
import { ReachLine } from './ReachLine'
import { showDegrees, showLitres, showRisk, stateInk, stateMarks, stateNames } from './words'

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
      <Table>
        <TableHead>
          <TableRow>
            <HeadCell>Machine</HeadCell>
            <HeadCell>How far it goes</HeadCell>
            <HeadCell className="right">Fluid</HeadCell>
            <HeadCell>Measured, or planned</HeadCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {yard.rows.map((row) => (
            <TableRow key={row.machineId}>
              <TableCell>
                <span className="winter-name">
                  <PostMark state={stateMarks[row.state]} silent />
                  <span>
                    <Link href={`/winter/${row.machineId}`} className="strong">
                      {row.number}
                    </Link>{' '}
                    {row.name}
                    {row.state !== 'inUse' && (
                      <span className={`second ${stateInk[row.state]}`}> {stateNames[row.state]}</span>
                    )}
                  </span>
                </span>
              </TableCell>
              <TableCell>
                <ReachLine reach={row.reach} />
              </TableCell>
              <TableCell className="right nowrap">{row.litres > 0 ? showLitres(row.litres) : '–'}</TableCell>
              <TableCell>
                <When row={row} today={today} />
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
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

function When({ row, today }: { row: WinterRow; today: string }) {
  if (row.alarm)
    return (
      <span className="oxide strong">
        {showDegrees(row.alarm.minC)} on {showDay(row.alarm.night, today)}
        {row.alarm.quickest && (
          <span className="second">
            {' '}
            {row.alarm.quickest.name.toLowerCase()}, {row.alarm.quickest.minutes} min
          </span>
        )}
      </span>
    )
  if (row.evening)
    return (
      <span className={row.evening.wanted ? 'oxide' : ''}>
        {row.evening.name.replace('Works on: ', '')}
        <span className="second">
          {' '}
          {row.evening.confirmedOn
            ? `confirmed ${showDay(row.evening.confirmedOn, today)}`
            : 'never confirmed'}
        </span>
      </span>
    )
  if (row.state === 'protected' || row.state === 'left' || row.state === 'returned')
    return <span className={stateInk[row.state]}>{row.says || stateNames[row.state]}</span>
  const bad = row.state === 'void' || row.state === 'failed' || row.state === 'exposed'
  return (
    <span>
      {bad && <span className="oxide strong">{row.says} </span>}
      {row.onJobUntil && <span className="brass">out until {showDay(row.onJobUntil, today)} </span>}
      {row.day === null ? (
        <span className="second">
          {row.standsC === null ? 'never freezes here' : row.evening ? '' : 'not in reach'}
        </span>
      ) : row.booked ? (
        <Link href={`/plan/${String(row.booked.number).padStart(4, '0')}`}>
          {showDay(row.day, today)}, {row.booked.lead}
        </Link>
      ) : (
        showDay(row.day, today)
      )}
      {row.risk !== null && row.day !== null && <span className="second"> {showRisk(row.risk)}</span>}
    </span>
  )
}
