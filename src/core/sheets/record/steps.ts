import { showNumber } from '../../units'
import { fateWords } from '../bench/counts'
import { told, type RecordLine, type Teller } from './teller'
import type { SheetState, StepState } from '../state'
import type { SheetEntry } from '../types'

/** What each step of a sheet says: skipped, counted, set, measured, pulled, found, and that it was done. */
export function stepLines(state: SheetState, teller: Teller): RecordLine[] {
  return state.steps.flatMap((each) => {
    if (each.by?.kind === 'skipped' && each.state === 'skipped') {
      const { step } = each.step
      return [
        teller.line('skipped', each.by, {
          ...placeOf(each, teller),
          item: step.text,
          detail: each.by.payload.reason,
        }),
      ]
    }
    return each.by?.kind === 'done' && each.state === 'done' ? doneLines(each, each.by, teller) : []
  })
}

const placeOf = ({ step }: StepState, { pumpOf }: Teller) => ({
  pump: pumpOf(step.assemblyId),
  where: [step.heading, step.where].filter(Boolean).join(', '),
})

function doneLines(each: StepState, by: SheetEntry<'done'>, teller: Teller): RecordLine[] {
  const { step, assemblyId } = each.step
  const { measure, torque, answer, reason, setting, pieces, ownBores } = by.payload
  const { bolts } = each
  const line = (kind: RecordLine['kind'], rest: Partial<RecordLine> & { item: string }) =>
    teller.line(kind, by, { ...placeOf(each, teller), ...rest })
  const lines: RecordLine[] = []
  if (pieces?.length)
    lines.push(line('counted', { item: fateWords(pieces, (key) => teller.partIn(assemblyId, key)) }))
  if (ownBores?.length)
    lines.push(
      line('counted', {
        item: `Back in their own bores: ${ownBores.map((key) => boreName(key, teller)).join('; ')}`,
      }),
    )
  if (setting)
    lines.push(
      line('setting', {
        item: `${step.setting?.what ?? 'Setting'}: ${setting}`,
        detail: step.setting?.goes === 'putBack' ? 'put back' : 'noted before',
      }),
    )
  if (step.timer && reason) lines.push(line('against', { item: step.text, detail: reason }))
  if (measure)
    lines.push(
      line('measure', {
        item: step.measure?.what ?? '',
        value: measure.value,
        unit: measure.unit,
        detail: told(measure.how, reason),
      }),
    )
  const pulled = torque ?? bolts[0]?.payload.torque ?? null
  if (pulled)
    lines.push(
      line('torque', {
        item: step.text,
        value: pulled.value,
        unit: pulled.unit,
        detail: told(boltWords(bolts), reason),
      }),
    )
  if (answer) lines.push(line('found', { item: answer, detail: reason }))
  lines.push(line('step', { item: step.text, detail: measure || torque || answer ? '' : reason }))
  return lines
}

function boreName(key: string, { nameOf }: Teller): string {
  const [assemblyId = '', position = ''] = key.split('/')
  return nameOf(assemblyId, position)
}

/** "8 bolts in order; bolt 5 at 27 N·m: the second wrench", or blank where they were pulled as one. */
function boltWords(bolts: SheetEntry<'bolt'>[]): string {
  if (bolts.length === 0) return ''
  const first = bolts[0]!.payload.torque
  const other = bolts.filter(
    ({ payload }) =>
      payload.reason !== '' || payload.torque?.value !== first?.value || payload.torque?.unit !== first?.unit,
  )
  return [
    `${bolts.length} ${bolts.length === 1 ? 'bolt' : 'bolts'} in order`,
    ...other.map(
      ({ payload: { place, torque, reason } }) =>
        `bolt ${place}${torque ? ` at ${showNumber(torque.value)}\u00a0${torque.unit}` : ''}${reason ? `: ${reason}` : ''}`,
    ),
  ].join('; ')
}
