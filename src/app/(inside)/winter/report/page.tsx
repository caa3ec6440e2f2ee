import type { Metadata } from 'next'
import { showDay } from '@/core/calendar'
import { methodNames } from '@/core/winter'
import { showMoney } from '@/core/units'
import { seasonReport } from '@/services/winter'
import { Page } from '@/ui/frame/Page'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '@/ui/table/Table'
import { PrintButton } from '@/ui/stores'
import { WinterTabs } from '@/ui/winter/WinterTabs'
import { showDegrees, showLitres, stateInk, stateNames } from '@/ui/winter/words'
import { requireActor } from '../../../access/session'

export const metadata: Metadata = { title: 'Season report' }

export default async function ReportPage() {
  const actor = await requireActor('/winter/report')
  const { lines, today, currency } = await seasonReport(actor)
  const done = lines.filter(({ state }) => state === 'protected')
  const litres = lines.reduce((sum, line) => sum + (line.litres ?? 0), 0)
  const cents = lines.reduce((sum, line) => sum + line.cents, 0)
  const damage = lines.filter((line) => line.damage !== '').length
  return (
    <Page
      title="Season report"
      summary={`${done.length} of ${lines.length} zones protected and proved, ${showLitres(litres)} put in, ${showMoney(cents, currency)}, ${damage === 0 ? 'no damage found' : `${damage} damaged`}.`}
      actions={
        <>
          <PrintButton label="Print" />
          <a className="plain-link no-print" href="/api/winter?format=csv" download>
            CSV
          </a>
          <a className="plain-link no-print" href="/api/winter?format=json" download>
            JSON
          </a>
        </>
      }
    >
      <WinterTabs active="report" />
      <div className="scrolls">
        <Table>
          <TableHead>
            <TableRow>
              <HeadCell>Machine</HeadCell>
              <HeadCell>Zone</HeadCell>
              <HeadCell>Method</HeadCell>
              <HeadCell>State</HeadCell>
              <HeadCell>Done</HeadCell>
              <HeadCell className="right">Litres</HeadCell>
              <HeadCell>Proof</HeadCell>
              <HeadCell>Damage, or why</HeadCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {lines.map((line, at) => (
              <TableRow key={`${line.number} ${line.zone}`}>
                <TableCell>
                  {lines[at - 1]?.number !== line.number && (
                    <>
                      <span className="strong">{line.number}</span>{' '}
                      <span className="second">{line.yard}</span>
                    </>
                  )}
                </TableCell>
                <TableCell>{line.zone}</TableCell>
                <TableCell>
                  {line.done || <span className="second">{methodNames[line.method]}, open</span>}
                </TableCell>
                <TableCell className={stateInk[line.state]}>{stateNames[line.state]}</TableCell>
                <TableCell>{line.day ? `${showDay(line.day, today)}, ${line.by}` : ''}</TableCell>
                <TableCell className="right nowrap">
                  {line.litres === null ? '' : showLitres(line.litres)}
                  {line.downToC !== null && <span className="second"> to {showDegrees(line.downToC)}</span>}
                </TableCell>
                <TableCell>{line.proof}</TableCell>
                <TableCell className={line.damage ? 'oxide' : ''}>{line.damage || line.says}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </div>
    </Page>
  )
}
