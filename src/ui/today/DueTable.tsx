import { showDay, showFarDay } from '@/core/calendar'
import type { DueLine } from '@/core/wear'
import { inkOf, stateWords, bandWords, leftWords, usedWords } from '../wear'

/** The due list as a plain table: reads on a wall as on the screen. */
export function DueTable({ lines, today }: { lines: DueLine[]; today: string }) {
  if (lines.length === 0) return <p className="second">Nothing comes due within thirty days.</p>
  return (
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
          <th scope="col">State</th>
          <th scope="col" className="num">
            Reached
          </th>
          <th scope="col">Parts</th>
          <th scope="col">Visit</th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ clock, visit, ...line }) => (
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
            </td>
            <td className={inkOf[clock.state]}>{stateWords[clock.state]}</td>
            <td className="num nowrap">
              {leftWords(clock, line.unit, today)}
              <span className="second block">{bandWords(clock, today)}</span>
            </td>
            <td>
              {clock.leadTime.parts.length === 0
                ? 'ready'
                : `${clock.leadTime.days} days: ${clock.leadTime.parts.join(', ')}`}
            </td>
            <td>{visit ? `${visit.number}, ${showDay(visit.day, today)}, ${visit.lead}` : '–'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
