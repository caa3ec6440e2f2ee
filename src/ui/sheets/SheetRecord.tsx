import Link from 'next/link'
import { showDay } from '@/core/calendar'
import { showMinutes, visitNumber } from '@/core/planning'
import type { Outcome } from '@/core/problem/outcome'
import {
  foldSheet,
  recordKinds,
  recordLines,
  type CorrectionInput,
  type RecordKind,
  type RecordLine,
} from '@/core/sheet'
import type { SheetPage } from '@/core/sheet/views'
import { showNumber } from '@/core/units'
import { Note } from '../feedback/States'
import { Facts, Page, Part } from '../frame/Page'
import { CorrectDialog, type Correctable } from './CorrectDialog'
import { PrintButton } from './PrintButton'
import { clockTime } from './words'

type Props = {
  sheet: SheetPage
  today: string
  timeZone: string
  company: string
  correct: ((input: CorrectionInput) => Promise<Outcome>) | null
}

const first: RecordKind[] = [
  'renewed',
  'kept',
  'inspected',
  'part',
  'measure',
  'torque',
  'found',
  'substitute',
  'skipped',
  'remark',
]
const titles: Partial<Record<RecordKind, string>> = {
  renewed: 'Renewed',
  kept: 'Kept',
  part: 'Parts used',
  measure: 'Measured',
  torque: 'Torque pulled',
  found: 'Found',
  substitute: 'Other tools used',
  skipped: 'Steps skipped',
  remark: 'Remarks',
}

/** The record of a sheet: a page that a stranger understands, on screen and on paper. */
export function SheetRecord({ sheet, today, timeZone, company, correct }: Props) {
  const state = foldSheet(sheet.entries)!
  const lines = recordLines(state)
  const of = (...kinds: RecordKind[]) => lines.filter((line) => kinds.includes(line.kind))
  const { content, signed } = state
  const began = state.readings[0]?.at ?? sheet.entries[0]?.at
  const minutes = signed && began ? Math.round((Date.parse(signed.at) - Date.parse(began)) / 60_000) : null
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
                  state.madeSafe &&
                    `${state.madeSafe.payload.name}, ${clockTime(state.madeSafe.at, timeZone)}`,
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
                  'From reading to signature',
                  minutes === null
                    ? ''
                    : `${showMinutes(minutes)}; estimated ${showMinutes(content.minutes)}`,
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
            <Lines lines={of('correction')} timeZone={timeZone} />
          </Part>
        )}
        <div className="columns even">
          {first
            .filter((kind) => of(kind).length > 0)
            .map((kind) => (
              <Part key={kind} title={titles[kind] ?? recordKinds[kind]}>
                <Lines lines={of(kind)} timeZone={timeZone} several={content.assemblies.length > 1} />
              </Part>
            ))}
        </div>
        <Part title="Every step" aside="who, when">
          <Lines lines={of('step')} timeZone={timeZone} several={content.assemblies.length > 1} />
        </Part>
        <p className="print-only signature">Signature</p>
      </div>
    </Page>
  )
}

function Lines({
  lines,
  timeZone,
  several = false,
}: {
  lines: RecordLine[]
  timeZone: string
  several?: boolean
}) {
  return (
    <table className="table plain">
      <tbody>
        {lines.map((line, index) => (
          <tr key={`${line.entryId} ${index}`}>
            <td>
              {several && line.pump && <span className="strong">{line.pump} </span>}
              {line.item}
              {(line.where || line.detail) && (
                <div className="second">{[line.where, line.detail].filter(Boolean).join(' · ')}</div>
              )}
            </td>
            <td className="num nowrap strong">
              {line.value !== null &&
                `${line.kind === 'renewed' ? 'after ' : ''}${showNumber(line.value)}${line.unit === 'piece' ? '' : `\u00a0${line.unit}`}`}
            </td>
            <td className="num nowrap second">
              {line.by}, {clockTime(line.at, timeZone)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** What of a signed sheet can be corrected, each with what a correction of it would change. */
function correctableIn(state: NonNullable<ReturnType<typeof foldSheet>>, lines: RecordLine[]): Correctable[] {
  const signedId = state.signed!.id
  const nameOf = (assemblyId: string, position: string) =>
    state.content.assemblies
      .find((each) => each.id === assemblyId)
      ?.positions.find((each) => each.key === position)?.name ?? position
  return [
    ...state.uses.map((use): Correctable => ({
      about: 'part',
      of: use.id,
      label: `Part used: ${use.payload.name}`,
      quantity:
        lines.find((line) => line.entryId === use.id && line.kind === 'part')?.value ?? use.payload.quantity,
    })),
    ...state.signed!.payload.ended.map((life): Correctable => ({
      about: 'endReason',
      of: signedId,
      label: `Why it came out: ${nameOf(life.assemblyId, life.position)}`,
      assemblyId: life.assemblyId,
      position: life.position,
      endReason: life.endReason,
    })),
    ...state.positions
      .filter((each) => each.state === 'renewed')
      .map((each): Correctable => ({
        about: 'notRenewed',
        of: signedId,
        label: `Not renewed after all: ${nameOf(each.assemblyId, each.position)}`,
        assemblyId: each.assemblyId,
        position: each.position,
      })),
    ...lines
      .filter((line) =>
        [
          'reading',
          'madeSafe',
          'measure',
          'torque',
          'found',
          'substitute',
          'skipped',
          'remark',
          'step',
        ].includes(line.kind),
      )
      .map((line): Correctable => ({
        about: 'words',
        of: line.entryId,
        label: `${recordKinds[line.kind]}: ${line.item}${line.where ? ` (${line.where})` : ''}`,
      })),
    { about: 'words', of: signedId, label: 'The signature or its note' },
  ]
}
