'use client'

import { useState } from 'react'
import { addDays, showDay, showFarDay } from '@/core/calendar'
import { showAmount, type OrderAdvice, type PartAhead } from '@/core/stores'
import { showNumber } from '@/core/units'
import { Link } from '../frame/Link'
import { unpack, type Packed } from '../frame/packed'
import { useHydrated } from '../frame/useHydrated'
import { StockChart } from '../graphics/StockChart'
import { leadWords } from './leadWords'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'

type Props = { packed: Packed<PartAhead>; unit: string; minimum: number; leadDays: number; today: string }

const few = 6

/** What will be wanted of a part, how its stock then stands, and whether and why to order. */
export function StockAhead({ packed, unit, minimum, leadDays, today }: Props) {
  const { weeks, advice, risk, uses, supplier, lead } = unpack(packed)
  const [all, setAll] = useState(false)
  const hydrated = useHydrated()
  const shown = all ? uses : uses.slice(0, few)
  const advised = advice && (
    <p>
      <span
        className={`strong ${advice.late ? 'oxide' : advice.orderBy <= addDays(today, 7) ? 'brass' : ''}`}
      >
        {orderWords(advice, unit, today)}
      </span>
      <span className="second block">
        {supplier !== null && `From ${supplier}${lead ? `, ${leadWords(lead)}` : ''}. `}
        {whyWords(advice, lead?.days ?? leadDays, today)}
      </span>
    </p>
  )
  if (uses.length === 0)
    return (
      <>
        {advised}
        <p className="second">
          No visit and no service takes any within half a year, by what is known today.
        </p>
      </>
    )
  return (
    <>
      {advised ?? (
        <p className="second">
          What is there lasts for half a year: the chance of running short stays within{' '}
          {showNumber(risk * 100)}&nbsp;%.
        </p>
      )}
      {hydrated ? (
        <StockChart
          weeks={weeks}
          unit={unit}
          minimum={minimum}
          shortFrom={advice?.shortFrom ?? null}
          today={today}
        />
      ) : (
        <div className="chart-room" />
      )}
      <Table className="plain">
        <caption className="visually-hidden">What takes it, soonest first</caption>
        <TableHead>
          <TableRow>
            <HeadCell>What takes it</HeadCell>
            <HeadCell className="num">About</HeadCell>
            <HeadCell className="num">Chance</HeadCell>
            <HeadCell className="num">Takes</HeadCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {shown.map((use) => (
            <TableRow key={use.key}>
              <TableCell>
                <Link href={use.visitId ? `/plan/${use.visitId}` : `/fleet/pumps/${use.assemblyId}`}>
                  {use.words}
                </Link>
              </TableCell>
              <TableCell className="num nowrap">{dayWords(use, today)}</TableCell>
              <TableCell className="num nowrap">
                {use.visitId ? 'booked' : `${showNumber(Math.round(use.chance * 100))}\u00a0%`}
              </TableCell>
              <TableCell className="num nowrap strong">{showAmount(use.quantity, unit)}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {uses.length > few && (
        <button type="button" className="plain-button" onClick={() => setAll(!all)}>
          {all ? 'Show the nearest only' : `Show all ${uses.length}`}
        </button>
      )}
      <p className="second">
        A service takes its whole set or nothing, with the chance that it falls due within half a year. Band:
        5 to 95&nbsp;%.
      </p>
    </>
  )
}

/** What is past its limit is wanted now; a visit keeps its day. */
const dayWords = ({ day, visitId }: PartAhead['uses'][number], today: string) =>
  day === null ? '–' : visitId === null && day < today ? 'now' : showFarDay(day, today)

function orderWords({ quantity, orderBy, late }: OrderAdvice, unit: string, today: string): string {
  const amount = showAmount(quantity, unit)
  if (late) return `Order ${amount} now: the last day was ${showDay(orderBy, today)}.`
  return `Order ${amount} by ${showDay(orderBy, today)}.`
}

function whyWords(advice: OrderAdvice, leadDays: number, today: string): string {
  const chance = Math.round(advice.chanceShort * 100)
  const short =
    chance >= 100
      ? `It runs short on ${showDay(advice.shortFrom, today)}`
      : `By ${showDay(advice.shortFrom, today)} it would be short with a chance of ${chance}\u00a0%`
  const because = advice.because.map(
    (word) =>
      ({
        pack: 'in whole packs',
        minimumOrder: 'the least the supplier sends',
        shelfLife: 'no more than is used while it keeps',
      })[word],
  )
  return `${[`${short}, and it takes ${leadDays} days to come`, ...because].join('; ')}. So much lasts a quarter from then on.`
}
