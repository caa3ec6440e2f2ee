'use client'

import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import { showAmount, type ComingNeed } from '@/core/stores'
import { ButtonLink } from '../frame/ButtonLink'
import { StockMark } from '../stores'
import { type Shown, Line, listed } from './Line'

export function PartRow({ row: { part, coming, actBy }, today, marks }: Shown<'part'>) {
  const wanted = part.short > 0 || part.missing > 0 || part.below
  const late = actBy !== null && actBy < today
  return (
    <Line
      className="part-row"
      mark={part.short > 0 ? 'doubted' : part.tooLate ? 'atRisk' : 'waiting'}
      who={
        <>
          <Link href={`/stores/${encodeURIComponent(part.number)}`} className="strong">
            {part.number}
          </Link>
          <span className="second block">{showAmount(part.onHand, part.unit)} on hand</span>
        </>
      }
      what={
        <>
          {part.name}
          {coming && (
            <span className="second block">
              about {showAmount(Math.ceil(coming.expected), part.unit)} wanted in a quarter for{' '}
              {listed(coming.for)}; {shortWords(coming, part.unit, today)}
            </span>
          )}
        </>
      }
      graphic={wanted ? <StockMark part={part} /> : undefined}
      when={
        coming ? (
          <>
            <span className={`strong ${late ? 'oxide' : 'brass'}`}>
              order {late ? 'now' : `by ${showDay(coming.orderBy, today)}`}
            </span>
            <span className="second block">
              {showAmount(coming.quantity, part.unit)}, {part.leadDays} days to come
            </span>
          </>
        ) : (
          <span className={part.missing > 0 && part.short === 0 ? 'oxide strong' : 'second'}>
            {part.short > 0 || part.missing === 0
              ? 'today'
              : actBy !== null && actBy < today
                ? `order now, late since ${showDay(actBy, today)}`
                : `order by ${showDay(actBy ?? today, today)}`}
          </span>
        )
      }
      action={
        <>
          <ButtonLink href={`/stores/${encodeURIComponent(part.number)}`}>
            {part.short > 0 ? 'Count' : 'Look'}
          </ButtonLink>
          {marks}
        </>
      }
    />
  )
}

function shortWords({ minimum, chanceShort, shortFrom }: ComingNeed, unit: string, today: string): string {
  const short = minimum > 0 ? `below the ${showAmount(minimum, unit)} to keep` : 'short'
  const chance = Math.round(chanceShort * 100)
  if (shortFrom <= today && chance >= 100) return `${short} already`
  return `${short} ${chance < 100 ? `with a chance of ${chance}\u00a0% ` : ''}by ${showDay(shortFrom, today)}`
}
