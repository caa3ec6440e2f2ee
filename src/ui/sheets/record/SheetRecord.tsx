import type { ReactNode } from 'react'
import { Link } from '../../frame/Link'
import { showDay } from '@/core/calendar'
import { showMinutes, visitNumber } from '@/core/plan'
import type { Outcome } from '@/core/problem'
import {
  sheetState,
  positionLines,
  recordLines,
  workersOf,
  type CorrectionInput,
  type RecordKind,
  type SheetPage,
  correctableIn,
} from '@/core/sheets'
import { showNumber } from '@/core/units'
import { Note } from '../../feedback/States'
import { Facts, Page, Part } from '../../frame/Page'
import { CorrectDialog } from './CorrectDialog'
import { PrintButton } from './PrintButton'
import { LineTable, PositionTable } from './RecordTables'
import { clockTime } from '../words'
import { Table, TableBody, TableCell, TableRow } from '../../table/Table'

type Props = {
  sheet: SheetPage
  today: string
  timeZone: string
  company: string
  correct: ((input: CorrectionInput) => Promise<Outcome>) | null
  /** What still waits on this device for it. */
  waiting?: ReactNode
}

const sections: { title: string; kinds: RecordKind[] }[] = [
  { title: 'What it points to', kinds: ['cause'] },
  { title: 'Torque pulled', kinds: ['torqueSet', 'torque'] },
  { title: 'Measured', kinds: ['measure'] },
  { title: 'Parts used', kinds: ['part', 'notUsed'] },
  { title: 'Counted back and put back', kinds: ['counted', 'setting'] },
  { title: 'Found on the way', kinds: ['found'] },
  { title: 'Work added', kinds: ['extra'] },
  { title: 'Signed against', kinds: ['against'] },
  { title: 'Other tools used', kinds: ['substitute'] },
  { title: 'Steps skipped', kinds: ['skipped'] },
  { title: 'Remarks', kinds: ['remark'] },
  { title: 'Locks and hands', kinds: ['lock', 'handOver'] },
]

/** The record of a sheet: a page that a stranger understands, on screen and on paper. */
export function SheetRecord({ sheet, today, timeZone, company, correct, waiting }: Props) {
  const state = sheetState(sheet.entries)!
  const lines = recordLines(state)
  const of = (...kinds: RecordKind[]) => lines.filter((line) => kinds.includes(line.kind))
  const { content, signed } = state
  const positions = positionLines(state)
  const workers = workersOf(sheet.entries)
  const next = signed?.payload.next ?? []
  const notices = [...new Set(content.assemblies.map((assembly) => assembly.notice))].filter(Boolean)
  const where = sheet.machineNumber ? `${sheet.machineNumber} ${sheet.machineName}` : sheet.pumps.join(', ')
  const correctable = signed ? correctableIn(state, lines) : []
  return (
    <Page
      title={`Sheet ${visitNumber(sheet.number)}: ${where}`}
      summary={[
        sheet.services.map((service) => [service.name, service.where].filter(Boolean).join(', ')).join(' · '),
        sheet.place,
      ].join(' · ')}
      back={{ href: '/sheets', label: 'Sheets' }}
      actions={
        <>
          <a className="plain-link" href={`/api/record?sheet=${sheet.id}&format=csv`} download>
            CSV
          </a>
          <a className="plain-link" href={`/api/record?sheet=${sheet.id}&format=json`} download>
            JSON
          </a>
          <PrintButton />
          {correct && signed && <CorrectDialog sheetId={sheet.id} things={correctable} correct={correct} />}
        </>
      }
    >
      <div className="stack record">
        <p className="print-only second">{company} · service record</p>
        {waiting}
        {sheet.state === 'abandoned' && (
          <Note title="Given up: nothing on it counts.">{sheet.endReason}</Note>
        )}
        {sheet.state === 'open' && (
          <Note title="Still open.">It is being worked; it counts once it is signed.</Note>
        )}
        {notices.map((notice) => (
          <Note key={notice} tone="brass" title="Mind:">
            {notice}
          </Note>
        ))}
        {of('late').length > 0 && (
          <Note tone="brass" title="Came in after the signing, without effect:">
            {of('late')
              .map((line) => `${line.item} (${line.by})`)
              .join(' · ')}
          </Note>
        )}
        <div className="columns even">
          <Part title="Visit">
            <Facts
              facts={[
                [
                  'Machine',
                  sheet.machineNumber && (
                    <Link key="machine" href={`/fleet/${encodeURIComponent(sheet.machineNumber)}`}>
                      {where}
                    </Link>
                  ),
                ],
                [
                  'Pump',
                  content.assemblies.map((assembly) => (
                    <div key={assembly.id}>
                      <Link href={`/fleet/pumps/${encodeURIComponent(assembly.number)}`}>
                        {assembly.number}
                      </Link>{' '}
                      {assembly.title}
                      {assembly.serial && `, serial ${assembly.serial}`}
                      <span className="second"> by version {assembly.modelVersion} of its model</span>
                    </div>
                  )),
                ],
                ...of('reading').map((line): [string, React.ReactNode] => [line.item, line.detail]),
                ['Opened because', sheet.trouble],
                [
                  'Visit',
                  sheet.visitId && (
                    <Link key="visit" href={`/plan/${sheet.visitId}`}>
                      {visitNumber(sheet.visitNumber ?? 0)}
                    </Link>
                  ),
                ],
              ]}
            />
          </Part>
          <Part title="Signed">
            <Facts
              facts={[
                [
                  'Made safe',
                  state.confirmedSafe
                    .map(({ payload, at }) => `${payload.name}, ${clockTime(at, timeZone)}`)
                    .join('; once more ') || null,
                ],
                [
                  'Signed by',
                  signed && (
                    <span className="strong" key="signed">
                      {signed.byName}, {showDay(sheet.signedOn!, today)}, {clockTime(signed.at, timeZone)}
                    </span>
                  ),
                ],
                [
                  'Worked',
                  state.workedMinutes === 0
                    ? ''
                    : `${showMinutes(state.workedMinutes)} against ${showMinutes(content.minutes)} estimated, pauses left out`,
                ],
                ['Worked by', workers.join(', ')],
                [
                  'Early check',
                  signed?.payload.earlyCheckHours
                    ? `after ${showNumber(signed.payload.earlyCheckHours)}\u00a0h of work`
                    : null,
                ],
                ['Steps', `${of('step').length} done, ${of('skipped').length} skipped`],
                ['Note', signed?.payload.note],
                [
                  'Count these bins',
                  signed?.payload.toCount?.length ? (
                    <span className="brass strong" key="count">
                      {signed.payload.toCount
                        .map((part) => `${part.name}, ${part.short} beyond the book`)
                        .join('; ')}
                    </span>
                  ) : null,
                ],
              ]}
            />
          </Part>
        </div>
        {of('correction').length > 0 && (
          <Part title="Corrections" aside="entries of their own; what they correct stays readable">
            <LineTable lines={of('correction')} timeZone={timeZone} />
          </Part>
        )}
        {positions.length > 0 && (
          <Part title="What was done, position by position">
            <PositionTable lines={positions} several={content.assemblies.length > 1} />
          </Part>
        )}
        {state.photos.length > 0 && (
          <Part title="Photos" aside="upright and smaller; nothing of the camera is kept">
            <div className="record-photos">
              {state.photos.map((photo) => (
                <figure key={photo.id}>
                  <a href={`/api/photos/${photo.payload.photoId}`}>
                    <img
                      src={`/api/photos/${photo.payload.photoId}`}
                      alt={photo.payload.caption || 'Photo taken at the bench'}
                    />
                  </a>
                  <figcaption className="second">
                    {photo.payload.caption} {photo.byName}, {clockTime(photo.at, timeZone)}
                  </figcaption>
                </figure>
              ))}
            </div>
          </Part>
        )}
        <div className="columns even">
          {sections
            .filter(({ kinds }) => of(...kinds).length > 0)
            .map(({ title, kinds }) => (
              <Part key={title} title={title}>
                <LineTable lines={of(...kinds)} timeZone={timeZone} several={content.assemblies.length > 1} />
              </Part>
            ))}
        </div>
        {next.length > 0 && (
          <Part title="Next due" aside="as it stood when this was signed">
            <Table className="plain">
              <TableBody>
                {next.map((each) => (
                  <TableRow key={`${each.pump} ${each.service}`}>
                    <TableCell>
                      {content.assemblies.length > 1 && <span className="strong">{each.pump} </span>}
                      {each.service}
                    </TableCell>
                    <TableCell className="num nowrap">in {each.limit}</TableCell>
                    <TableCell className="num nowrap second">
                      {each.about ? `about ${showDay(each.about, today)}` : ''}
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Part>
        )}
        <Part title="Every step" aside="who, when">
          <LineTable lines={of('step')} timeZone={timeZone} several={content.assemblies.length > 1} />
        </Part>
        <p className="print-only signature">Signature</p>
      </div>
    </Page>
  )
}
