import 'server-only'
import type { PartNeed, SheetStep } from '@/core/composing'
import { conflict, notFound } from '@/core/problem'
import {
  commonMinutes,
  isFilled,
  pouredPart,
  returnSteps,
  winterSteps,
  zoneNames,
  type SheetWinter,
  type WinterEvent,
  type WinterStep,
  type DamageEvent,
} from '@/core/winter'
import { winterEvents } from '@/db/winter'
import { now, type Actor } from '../house'
import { workOf } from './machine'
import { loadMachines } from './plans'

export type WinterPart = {
  steps: SheetStep[]
  parts: PartNeed[]
  minutes: number
  helperMinutes: number
  winter: SheetWinter
}

/** The pumps that are on a machine now. */
export async function pumpsOn(machineId: string): Promise<string[]> {
  const [own] = (await loadMachines(machineId)).machines
  return own?.wet.filter(({ kind }) => kind === 'pump').map(({ id }) => id) ?? []
}

/**
 * The winter part of a sheet on a machine.
 *
 * @param before the steps of other services that stand on it before
 * @throws `conflict` where it cannot be done like this, with why
 */
export async function winterPart(
  machineId: string,
  kind: 'lay' | 'return',
  meters: { id: string; name: string; unit: 'h' | 'strokes' }[],
  before: SheetStep[],
): Promise<WinterPart> {
  const servicesBefore = before.length > 0
  const locked = before.findLast(({ step }) => step.locks !== null)?.step.locks === 'on'
  const { machines, product, terms } = await loadMachines(machineId)
  const [own] = machines
  if (!own) throw notFound('This machine')
  const zones = own.plan.zones.map(({ zone, method, recipe }) => ({
    zone,
    method,
    downToC: isFilled(method) && recipe?.ok ? recipe.freezesAtC : null,
    litres: recipe?.ok ? Math.round((recipe.concentrateLitres + recipe.waterLitres) * 10) / 10 : null,
  }))
  const bare = { proofs: {}, zones, product: product && { id: product.id, name: product.name }, meters: {} }
  if (kind === 'return') {
    const steps = returnSteps({ circuit: own.circuit, zones, drive: own.machine.drive })
    return {
      steps: steps.map((step) => asSheetStep(step, machineId, servicesBefore)),
      parts: [],
      minutes: 45,
      helperMinutes: 0,
      winter: { kind, ...bare },
    }
  }
  const [trouble] = own.plan.troubles
  if (trouble)
    throw conflict(
      `${zoneNames[trouble.zone]} of ${own.machine.number}: ${trouble.why} Put it right under Winter first.`,
    )
  const { steps, proofs } = winterSteps(workOf(own, product, terms.marginC, meters, locked))
  const poured = own.plan.zones.filter(({ recipe }) => recipe?.ok)
  return {
    steps: steps.map((step) => asSheetStep(step, machineId, servicesBefore)),
    parts:
      product && own.plan.productLitres > 0
        ? [
            {
              assemblyId: machineId,
              part: pouredPart(product.id),
              name: product.name,
              unit: 'L',
              quantity: Math.ceil(own.plan.productLitres * 10) / 10,
              spots: poured.map(({ zone }) => zoneNames[zone].toLowerCase()),
            },
          ]
        : [],
    minutes: own.plan.minutes,
    helperMinutes: steps.reduce((sum, { step }) => sum + (step.helperMinutes ?? 0), 0),
    winter: {
      kind,
      ...bare,
      proofs,
      meters: Object.fromEntries(meters.map(({ id }) => [`winter/finish/meter/${id}`, id])),
    },
  }
}

/** Where nothing was made safe before, the sheet's own making safe is the one after the run. */
function asSheetStep(
  { key, phase, heading, where, step }: WinterStep,
  machineId: string,
  servicesBefore: boolean,
): SheetStep {
  const own =
    phase === 'secure' && !servicesBefore && key.startsWith('winter/stop')
      ? 'makeSafe'
      : phase === 'makeSafe' && servicesBefore
        ? 'secure'
        : phase
  return {
    key,
    assemblyId: machineId,
    phase: own,
    heading,
    where,
    task: null,
    position: null,
    step: { ...step, phase: own },
  }
}

/** What of the stores a winter visit takes: for its reservation. */
export async function pouredOn(machineId: string): Promise<{ partId: string; quantity: number }[]> {
  const { machines, product } = await loadMachines(machineId)
  const litres = machines[0]?.plan.productLitres ?? 0
  return product?.partId && litres > 0
    ? [{ partId: product.partId, quantity: Math.ceil(litres * 10) / 10 }]
    : []
}

/** Minutes of the winter part alone. */
export async function winterMinutes(machineId: string, kind: 'lay' | 'return'): Promise<number> {
  const [own] = (await loadMachines(machineId)).machines
  return kind === 'return'
    ? 45
    : (own?.plan.minutes ?? commonMinutes.run + commonMinutes.secure + commonMinutes.finish)
}

/** Writes down what a signed sheet did, inside its `write()`. */
export async function keepWinter(
  actor: Actor,
  machineId: string,
  sheetId: string,
  events: (WinterEvent | DamageEvent)[],
): Promise<void> {
  await winterEvents.insertMany(
    events.map((event, at) => ({
      id: `${sheetId.slice(0, 30)}-w${String(at).padStart(3, '0')}`,
      machineId,
      at: event.at,
      event,
      sheetId,
      recordedAt: now(),
      recordedById: actor.id,
    })),
  )
}
