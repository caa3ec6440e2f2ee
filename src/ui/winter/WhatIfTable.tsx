import { showDay } from '@/core/calendar'
import { showMoney } from '@/core/units'
import type { WhatIf } from '@/core/winter'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'
import { showLitres, showWork } from './words'

/** What would change the campaign, each beside how it is. */
export function WhatIfTable({ rows, today, currency }: { rows: WhatIf[]; today: string; currency: string }) {
  const [base] = rows
  return (
    <Table>
      <TableHead>
        <TableRow>
          <HeadCell>What if</HeadCell>
          <HeadCell>Done on</HeadCell>
          <HeadCell className="right">Exposed value</HeadCell>
          <HeadCell className="right">Fluid</HeadCell>
          <HeadCell className="right">Work</HeadCell>
          <HeadCell className="right">Cost</HeadCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {rows.map((row, at) => (
          <TableRow key={row.name}>
            <TableCell className={at === 0 ? 'strong' : ''}>{row.name}</TableCell>
            <TableCell>
              {row.finish === null ? 'not before winter is over' : showDay(row.finish, today)}
            </TableCell>
            <TableCell
              className={`right ${at > 0 && row.exposedCents < base!.exposedCents ? 'moss' : at > 0 && row.exposedCents > base!.exposedCents ? 'oxide' : ''}`}
            >
              {showMoney(row.exposedCents, currency)}
            </TableCell>
            <TableCell className="right">{showLitres(row.litres)}</TableCell>
            <TableCell className="right nowrap">{showWork(row.minutes)}</TableCell>
            <TableCell className="right">{showMoney(row.cents, currency)}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
