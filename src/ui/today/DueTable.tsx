'use client'

import { showDay, showFarDay } from '@/core/calendar'
import type { DueLine } from '@/core/wear'
import { unpack, type Packed } from '../frame/packed'
import { useHydrated } from '../frame/useHydrated'
import { inkOf, stateWords, bandWords, leftWords, usedWords } from '../wear'
import './dueTable.css'

const firstDrawn = 30

/** The due list as a plain table: reads on a wall as on the screen. */
export function DueTable({ packed, today }: { packed: Packed<DueLine[]>; today: string }) {
  const lines = unpack(packed)
  // The server draws what is in sight, the browser the rest: a due list may have hundreds of lines.
  const drawn = useHydrated() ? lines : lines.slice(0, firstDrawn)
  if (lines.length === 0) return <p className="second">Nothing comes due within thirty days.</p>
  return (
    <div className="scrolls">
      <table className="table due-table">
        <caption className="visually-hidden">Services due within thirty days</caption>
        <thead>
          <tr>
            <th scope="col">Act by</th>
            <th scope="col">Machine</th>
            <th scope="col">Service</th>
            <th scope="col" className="num">
              Used
            </th>
            <th scope="col" className="num">
              Reached
            </th>
            <th scope="col">Parts</th>
            <th scope="col">Visit</th>
          </tr>
        </thead>
        <tbody>
          {drawn.map(({ clock, visit, ...line }) => (
            <tr key={`${line.pump} ${clock.task} ${clock.positions[0]}`}>
              <td className="nowrap strong">
                {clock.lastResponsibleDay === null ? '–' : showFarDay(clock.lastResponsibleDay, today)}
              </td>
              <td>
                <span className="strong">{line.machine}</span> {line.machineName}
                <span className="second block">
                  {line.pump}, {line.model}
                </span>
              </td>
              <td>
                {clock.name}
                <span className="second block">{clock.where}</span>
              </td>
              <td className="num nowrap">
                {clock.assumed ? '~' : ''}
                {usedWords(clock, line.unit)}
                <span className={`block strong ${inkOf[clock.state]}`}>{stateWords[clock.state]}</span>
              </td>
              <td className="num nowrap">
                {leftWords(clock, line.unit, today)}
                <span className="second block">{bandWords(clock, today)}</span>
              </td>
              <td>
                {clock.leadTime.parts.length === 0 ? (
                  'ready'
                ) : (
                  <>
                    <span className="strong">{clock.leadTime.days} days to come</span>
                    {clock.leadTime.parts.map((part) => (
                      <span key={part} className="block">
                        {part}
                      </span>
                    ))}
                  </>
                )}
              </td>
              <td>
                {visit ? (
                  <>
                    <span className="strong nowrap">{showDay(visit.day, today)}</span>
                    <span className="block">{visit.lead}</span>
                    <span className="second block">visit {visit.number}</span>
                  </>
                ) : (
                  '–'
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
