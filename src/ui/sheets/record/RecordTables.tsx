import type { PositionLine, RecordLine } from '@/core/sheets'
import { showNumber } from '@/core/units'
import { clockTime } from '../words'
import { Table, TableBody, TableCell, TableRow } from '../../table/Table'

/** Every position with what was seen on it, decided, and done. */
export function PositionTable({ lines, several }: { lines: PositionLine[]; several: boolean }) {
  return (
    <table className="record-grid">
      <thead>
        <tr>
          <th scope="col">Position</th>
          <th scope="col">Seen</th>
          <th scope="col">Decided</th>
          <th scope="col">Done</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <tr key={`${line.pump} ${line.name}`}>
            <th scope="row">
              {several && <span className="strong">{line.pump} </span>}
              {line.name}
            </th>
            <td>{line.seen}</td>
            <td>{line.decided}</td>
            <td>
              <span className="strong">{line.done}</span>
              {line.reached !== null && ` after ${showNumber(line.reached)}\u00a0${line.unit}`}
              {(line.why || line.words) && (
                <div className="second">{[line.why, line.words].filter(Boolean).join(' · ')}</div>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Lines of a record: what, how much, by whom and when. */
export function LineTable({
  lines,
  timeZone,
  several = false,
}: {
  lines: RecordLine[]
  timeZone: string
  several?: boolean
}) {
  return (
    <Table className="plain">
      <TableBody>
        {lines.map((line, index) => (
          <TableRow key={`${line.entryId} ${index}`}>
            <TableCell>
              {several && line.pump && <span className="strong">{line.pump} </span>}
              {line.item}
              {(line.where || line.detail) && (
                <div className="second">
                  {[line.where, line.kind === 'photo' ? '' : line.detail].filter(Boolean).join(' · ')}
                </div>
              )}
            </TableCell>
            <TableCell className="num nowrap strong">
              {line.value !== null &&
                `${line.kind === 'renewed' ? 'after ' : ''}${showNumber(line.value)}${line.unit === 'piece' ? '' : `\u00a0${line.unit}`}`}
            </TableCell>
            <TableCell className="num nowrap second">
              {line.by}, {clockTime(line.at, timeZone)}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
