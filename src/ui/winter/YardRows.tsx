'use client'

import { showDay } from '@/core/calendar'
import type { WinterRow } from '@/core/winter'
import { Link } from '../frame/Link'
import { unpack, type Packed } from '../frame/packed'
import { PostMark } from '../graphics/PostMark'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'
import { ReachLine } from './ReachLine'
import { showDegrees, showLitres, showRisk, stateInk, stateMarks, stateNames } from './words'

/** The machines of a yard in their order of work. All of them stand there: the list is printed for the yard. */
export function YardRows({ packed, today }: { packed: Packed<WinterRow[]>; today: string }) {
  return (
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
        {unpack(packed).map((row) => (
          <TableRow key={row.machineId}>
            <TableCell>
              <span className="winter-name">
                <PostMark state={stateMarks[row.state]} silent />
                <span>
                  <Link href={`/winter/${encodeURIComponent(row.number)}`} className="strong">
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
