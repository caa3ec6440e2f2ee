'use client'

import { Link } from '../frame/Link'
import { showDay } from '@/core/calendar'
import { showAmount } from '@/core/stores'
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
              about {showAmount(coming.expected, part.unit)} wanted in eight weeks for {listed(coming.for)};
              below the {showAmount(coming.minimum, part.unit)} to keep on {showDay(coming.wantedOn, today)}
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
              {showAmount(coming.order, part.unit)}, {part.leadDays} days to come
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
