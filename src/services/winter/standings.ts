import 'server-only'
import { v7 as uuid } from 'uuid'
import { storageKinds } from '@/core/fleet'
import { check, conflict, invalid, notFound } from '@/core/problem'
import type { CumulativeLine } from '@/core/hours'
import {
  dayOfWinter,
  inThisWinter,
  isFilled,
  winterOf,
  usualPlaces,
  methodNames,
  winterNoteNames,
  winterNoteSchema,
  winterState,
  workOnHeldWords,
  worstState,
  zoneNames,
  zonesOf,
  type DamageEvent,
  type EveningEvent,
  type WinterEvent,
  type WinterNoteInput,
  type Zone,
  type ZoneStanding,
  type ZoneState,
} from '@/core/winter'
import { derived, write } from '@/db/house'
import { machines } from '@/db/fleet'
import { meters, type SpellRow } from '@/db/hours'
import { winterEvents, type WinterEventRow } from '@/db/winter'
import {
  groupBy,
  instantOf,
  now,
  ourCompany,
  present,
  recordChange,
  requirePermission,
  type Actor,
} from '../house'
import { linesOf, spellsByMachine } from '../hours'
import { loadYards } from './climates'
import { loadMachines, type MachineWinter } from './plans'

const isState = (event: WinterEventRow['event']): event is WinterEvent =>
  event.kind !== 'evening' && event.kind !== 'damage'

export type MachineStanding = {
  zones: Partial<Record<Zone, ZoneStanding>>
  worst: ZoneState
  events: WinterEventRow[]
  evenings: EveningEvent[]
  damage: DamageEvent[]
}

/** How every machine stands against the frost, from what was told and from what its meters and jobs say. */
export async function loadStandings(list: MachineWinter[]): Promise<Map<string, MachineStanding>> {
  const ids = list.map(({ machine }) => machine.id)
  const [eventsOf, meterRows, spells, company] = await Promise.all([
    winterEvents.everyOf(ids),
    meters.every(),
    spellsByMachine(),
    ourCompany(),
  ])
  const { today } = present(company)
  const metersOf = derived('winter meters', [meterRows], () =>
    groupBy(
      meterRows.filter(({ retiredOn }) => retiredOn === null),
      ({ machineId }) => machineId,
    ),
  )
  const touched = list.filter(({ machine }) => (eventsOf.get(machine.id) ?? []).length > 0)
  const lines = await linesOf(
    touched.flatMap(({ machine }) => (metersOf.get(machine.id) ?? []).map(({ id }) => id)),
  )
  return new Map(
    list.map((each) => {
      const { machine, circuit } = each
      const rows = eventsOf.get(machine.id) ?? noRows
      const own = (metersOf.get(machine.id) ?? []).map(({ id }) => ({ id, line: lines.get(id) }))
      const jobs = spells.get(machine.id) ?? noSpells
      const from = [rows, circuit, jobs, today, company.timeZone, ...own.map(({ line }) => line)]
      return [
        machine.id,
        derived(`winter standing ${machine.id}`, from, (): MachineStanding => {
          const told = rows.map(({ event }) => event)
          const events = [...told.filter(isState), ...jobEvents(jobs, today, company.timeZone)]
          const zones = inThisWinter(
            winterState([...withClosing(events, own), ...readingEvents(own, events)], zonesOf(circuit)),
            dayOfWinter(winterOf(today), 0),
          )
          return {
            zones,
            worst: worstState(zones),
            events: [...rows].sort((a, b) => (a.at < b.at ? -1 : 1)),
            evenings: told.filter((event): event is EveningEvent => event.kind === 'evening'),
            damage: told.filter((event): event is DamageEvent => event.kind === 'damage'),
          }
        }),
      ]
    }),
  )
}

const noRows: WinterEventRow[] = []
const noSpells: SpellRow[] = []

type OwnMeter = { id: string; line: CumulativeLine | undefined }

/** Hours on the line of a meter at its last reading up to an instant. */
function closingHours(line: CumulativeLine | undefined, at: string): number | null {
  return line?.points.findLast((point) => point.at <= at)?.hours ?? null
}

/** A protection without closing readings closes with the last reading of each meter before it. */
function withClosing(events: WinterEvent[], own: OwnMeter[]): WinterEvent[] {
  return events.map((event) =>
    event.kind === 'protected'
      ? {
          ...event,
          closing: own.flatMap(({ id, line }) => {
            const hours = closingHours(line, event.at)
            return hours === null ? [] : [{ meterId: id, hours }]
          }),
        }
      : event,
  )
}

/** Accepted readings since the first protection, in hours that go on across changes of a meter. */
function readingEvents(own: OwnMeter[], events: WinterEvent[]): WinterEvent[] {
  const first = events.find(({ kind }) => kind === 'protected')
  if (!first) return []
  return own.flatMap(({ id, line }) =>
    (line?.points ?? [])
      .filter((point) => point.source === 'reading' && point.at > first.at)
      .map((point): WinterEvent => ({
        kind: 'reading',
        at: point.at,
        meterId: id,
        hours: point.hours,
        accepted: true,
      })),
  )
}

/** Booked jobs that have begun: the machine went out and ran. */
function jobEvents(jobs: SpellRow[], today: string, timeZone: string): WinterEvent[] {
  return jobs
    .filter(({ kind, fromDay }) => kind !== 'layUp' && fromDay <= today)
    .map(({ fromDay, what }) => ({
      kind: 'job',
      at: instantOf(fromDay, '06:00', timeZone),
      says: `It went out: ${what}.`,
    }))
}

const degrees = (value: number) => `${String(Math.round(value * 10) / 10).replace('-', '−')}\u00a0°C`

/** What was measured, and what it had to be where it fell short. */
function proofWords(note: WinterNoteInput, own: MachineWinter): string {
  if (note.measuredC === null) return note.words
  const low = own.frost?.designLowC
  return note.passed || low == null
    ? degrees(note.measuredC)
    : `${degrees(note.measuredC)}, needs ${degrees(low - own.marginC)}`
}

/** Tells by hand what happened to a machine: what no sheet told. */
export async function recordWinter(actor: Actor, input: WinterNoteInput): Promise<void> {
  requirePermission(actor, 'sheets.work')
  const note = check(winterNoteSchema, input)
  const company = await ourCompany()
  const { today } = present(company)
  if (note.day > today) throw invalid({ day: 'This day is still to come.' })
  await write(async () => {
    if (await winterEvents.byId(note.id)) return
    const machine = await machines.byId(note.machineId)
    if (!machine) throw notFound('This machine')
    const { machines: list } = await loadMachines(machine.id)
    const [own] = list
    if (!own) throw conflict(`${machine.number} is not in use.`)
    if (note.zone !== '' && !zonesOf(own.circuit).includes(note.zone))
      throw invalid({ zone: `${machine.number} has no ${zoneNames[note.zone].toLowerCase()}.` })
    const standing = (await loadStandings([own])).get(machine.id)!
    // What is told of today happened now, what is told of a day before at its noon.
    const at = note.day === today ? now() : instantOf(note.day, '12:00', company.timeZone)
    const event = eventOf(actor, note, own, standing, at)
    await winterEvents.insert({
      id: note.id,
      machineId: machine.id,
      at,
      event,
      sheetId: null,
      recordedAt: now(),
      recordedById: actor.id,
    })
    const zone = note.zone === '' ? '' : `, ${zoneNames[note.zone].toLowerCase()}`
    await recordChange(actor, {
      entity: 'machine',
      entityId: machine.id,
      machineId: machine.id,
      action: 'winter',
      summary: `${winterNoteNames[note.kind]}: ${machine.number}${zone}`,
      reason: note.words,
    })
  })
}

function eventOf(
  actor: Actor,
  note: WinterNoteInput,
  own: MachineWinter,
  standing: MachineStanding,
  at: string,
): WinterEventRow['event'] {
  const by = actor.name
  const zone = note.zone as Zone
  switch (note.kind) {
    case 'protected': {
      if (standing.zones[zone]?.state === 'exposed')
        throw conflict(
          'Frost met it: thaw it and look at it first. Nothing that is poured in makes it whole.',
        )
      const method = note.method as keyof typeof methodNames
      const planned = own.plan.zones.find((each) => each.zone === zone)
      const downToC = isFilled(method) ? (planned?.recipe?.ok ? planned.recipe.freezesAtC : null) : null
      return {
        kind: 'protected',
        at,
        zone,
        method: methodNames[method],
        downToC,
        by,
        ...(note.litres !== null && { litres: note.litres }),
      }
    }
    case 'proof':
      if (!standing.zones[zone]?.protection)
        throw conflict('Nothing is in this zone that could be measured: note first how it was protected.')
      return {
        kind: 'proof',
        at,
        zone,
        passed: note.passed,
        says: proofWords(note, own),
        measuredC: note.measuredC,
        by,
      }
    case 'left':
      return { kind: 'left', at, zone, by }
    case 'water':
      return {
        kind: 'water',
        at,
        says: note.words || 'Water was connected.',
        ...(note.zone !== '' && { zone }),
      }
    case 'thawed':
      if (standing.worst !== 'exposed') throw conflict('No frost is noted that met it unprotected.')
      return { kind: 'thawed', at, by }
    case 'returned':
      if (standing.worst === 'exposed')
        throw conflict('Frost met it: thaw it in a heated place and look at it before it goes back to work.')
      return { kind: 'returned', at, by, ...(note.zone !== '' && { zone }) }
    case 'evening':
      return { kind: 'evening', at, by }
    case 'damage':
      return {
        kind: 'damage',
        at,
        zone: note.zone,
        says: note.words,
        by,
        method: note.zone === '' ? '' : (standing.zones[zone]?.protection?.method ?? 'nothing'),
      }
  }
}

/** How one machine stands against the frost; null where winter never asked anything of it. */
export async function winterStanding(_actor: Actor, machineId: string): Promise<ZoneState | null> {
  if ((await winterEvents.everyOf([machineId])).get(machineId)!.length === 0) return null
  const [own] = (await loadMachines(machineId)).machines
  return own ? (await loadStandings([own])).get(machineId)!.worst : null
}

const heldStates: readonly ZoneState[] = ['protected', 'unproved', 'exposed']

/** Whether a machine in this state must not be started. */
export const isHeld = (state: ZoneState) => heldStates.includes(state)

/** What work on a machine has to mind while it must not be started; blank otherwise. */
export async function heldWords(actor: Actor, machineId: string | null): Promise<string> {
  const state = machineId === null ? null : await winterStanding(actor, machineId)
  return state !== null && isHeld(state) ? workOnHeldWords(state) : ''
}

/** The machines that must not be started now, each with how it stands. */
export async function laidUpMachines(): Promise<Map<string, ZoneState>> {
  const { machines: list } = await loadMachines()
  const standings = await loadStandings(list)
  return new Map([...standings].flatMap(([id, { worst }]) => (isHeld(worst) ? [[id, worst] as const] : [])))
}

type Stands = { yardId: string; storage: MachineWinter['machine']['storage'] }

/** A machine was moved to other storage: into the cold that voids what was done. Inside a `write()`. */
export async function recordMoved(actor: Actor, machineId: string, from: Stands, to: Stands): Promise<void> {
  if (from.yardId === to.yardId && from.storage === to.storage) return
  if ((await winterEvents.all({ machineId })).length === 0) return
  const frosts = await loadYards()
  const standsC = ({ yardId, storage }: Stands) =>
    frosts.find(({ yard }) => yard.id === yardId)?.stands[storage].standsC ?? usualPlaces[storage].standsC
  const yard = frosts.find((each) => each.yard.id === to.yardId)?.yard.name ?? ''
  const at = now()
  await winterEvents.insert({
    id: uuid(),
    machineId,
    at,
    event: {
      kind: 'moved',
      at,
      says: `It was moved: ${storageKinds[to.storage].toLowerCase()}, ${yard}.`,
      fromC: standsC(from),
      toC: standsC(to),
    },
    sheetId: null,
    recordedAt: at,
    recordedById: actor.id,
  })
}
