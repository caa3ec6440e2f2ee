import 'server-only'
import { v7 as uuid } from 'uuid'
import { addDays } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import type { SheetState } from '@/core/sheets'
import { methodNames, zoneNames, type DamageEvent, type WinterEvent, type Zone } from '@/core/winter'
import { dayOf, now, ourCompany, present, timeOf, type Actor } from '../../house'
import { endLayUp, layUp, recordReading } from '../../hours'
import { checkPumps } from '../../wear'
import { keepWinter, winterStanding } from '../../winter'

/** What a signed sheet says of its machine's winter: closing readings, and each zone as it was left. */
export async function tellWinter(
  actor: Actor,
  sheet: { id: string; number: number; machineId: string | null; assemblyIds: string[] },
  state: SheetState,
): Promise<void> {
  const { winter } = state.content
  if (sheet.machineId === null) return
  if (!winter) return ranAfterwards(actor, sheet, sheet.machineId, state)
  await readClosing(actor, state)
  const { today } = present(await ourCompany())
  if (winter.kind === 'lay') await layUp(actor, sheet.machineId, uuid(), addDays(today, 1))
  else {
    await endLayUp(actor, sheet.machineId, today)
    // What stood dry or in fluid for months is looked at after its first hours.
    const { earlyCheckHours } = await ourCompany()
    await checkPumps(actor, sheet.id, now(), sheet.assemblyIds, Number(earlyCheckHours))
  }
  const at = Date.parse(now())
  const events = winter.kind === 'lay' ? laidUp(actor, state) : returned(actor, state)
  // One after the other, in the order in which they are told.
  await keepWinter(
    actor,
    sheet.machineId,
    sheet.id,
    events.map((event, index) => ({ ...event, at: new Date(at + index).toISOString() })),
  )
}

/** Any other sheet that proved its work ran the machine: what had been made safe is so no more. */
async function ranAfterwards(
  actor: Actor,
  sheet: { id: string; number: number },
  machineId: string,
  state: SheetState,
): Promise<void> {
  const ran = state.steps.some(({ step, state: is }) => step.phase === 'prove' && is === 'done')
  if (!ran || (await winterStanding(actor, machineId)) === null) return
  const says = `It ran on sheet ${visitNumber(sheet.number)}.`
  await keepWinter(actor, machineId, sheet.id, [{ kind: 'service', at: now(), says, ran }])
}

/** What the meters show at the end closes the protection: whatever rises above it voids it. */
async function readClosing(actor: Actor, state: SheetState): Promise<void> {
  const { timeZone } = await ourCompany()
  for (const [key, meterId] of Object.entries(state.content.winter!.meters)) {
    const by = state.steps.find(({ step }) => step.key === key)?.by
    const measure = by?.kind === 'done' ? by.payload.measure : null
    if (!measure) continue
    const at = now()
    await recordReading(actor, {
      id: uuid(),
      meterId,
      day: dayOf(at, timeZone),
      time: timeOf(at, timeZone),
      typed: String(measure.value),
      readBy: '',
      note: 'closing the winter work',
      vouched: true,
    })
  }
}

type Told = (WinterEvent | DamageEvent) & { at: string }

function laidUp(actor: Actor, state: SheetState): Told[] {
  const winter = state.content.winter!
  const by = actor.name
  const stepOf = (key: string) => state.steps.find(({ step }) => step.key === key)
  const lots = state.uses
    .filter(({ payload }) => payload.part?.startsWith('poured-'))
    .map(({ payload }) => payload.lot)
    .filter((lot) => lot !== undefined && lot !== null)
  return winter.zones.flatMap(({ zone, method, downToC, litres }): Told[] => {
    if (method === 'leave') return [{ kind: 'left', at: '', zone, by: `${by}: ${leftWhy(state, zone)}` }]
    const done: Told = {
      kind: 'protected',
      at: '',
      zone,
      method: methodNames[method],
      downToC,
      by,
      ...(litres !== null && { litres }),
      ...(downToC !== null && winter.product && { product: winter.product.name }),
      ...(downToC !== null && lots.length > 0 && { lot: lots.join(', ') }),
    }
    const key = Object.keys(winter.proofs).find((each) => winter.proofs[each]!.zone === zone)
    if (!key) {
      const own = state.steps.filter(({ step }) => step.key.startsWith(`winter/drain/${zone}/`))
      const whole = own.every(({ state: is }) => is === 'done')
      return whole
        ? [done, { kind: 'proof', at: '', zone, passed: true, says: 'drained, piece by piece', by }]
        : [done]
    }
    const failed = state.measures
      .filter(({ stepKey }) => stepKey === key)
      .map(({ payload, byName }): Told => ({
        kind: 'proof',
        at: '',
        zone,
        passed: false,
        says: payload.unit === '°C' ? degrees(payload.value) : payload.words,
        measuredC: payload.unit === '°C' ? payload.value : null,
        by: byName,
      }))
    const proof = stepOf(key)?.by
    const passed: Told[] =
      proof?.kind === 'done'
        ? [
            {
              kind: 'proof',
              at: '',
              zone,
              passed: true,
              says: proof.payload.measure ? degrees(proof.payload.measure.value) : proof.payload.answer,
              measuredC: proof.payload.measure?.value ?? null,
              by: proof.byName,
            },
          ]
        : []
    return [done, ...failed, ...passed]
  })
}

const degrees = (value: number) => `${String(value).replace('-', '−')}\u00a0°C`

function leftWhy(state: SheetState, zone: Zone): string {
  const by = state.steps.find(({ step }) => step.key === `winter/protect/${zone}/leave`)?.by
  return by?.kind === 'done' ? by.payload.answer : 'not said'
}

function returned(actor: Actor, state: SheetState): Told[] {
  const look = state.steps.find(({ step }) => step.key === 'return/look')?.by
  const found = look?.kind === 'done' && look.payload.answer === 'damage found'
  const words = state.remarks.map(({ payload }) => payload.text).join('; ')
  const damage: Told[] = found
    ? [
        {
          kind: 'damage',
          at: '',
          zone: '',
          says: words || 'found before it was connected: see the sheet',
          by: actor.name,
          method: state.content
            .winter!.zones.map(
              ({ zone, method }) => `${zoneNames[zone].toLowerCase()} ${methodNames[method].toLowerCase()}`,
            )
            .join(', '),
        },
      ]
    : []
  return [...damage, { kind: 'returned', at: '', by: actor.name }]
}
