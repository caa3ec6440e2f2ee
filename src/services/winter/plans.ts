import 'server-only'
import { titleOf, type PumpModel } from '@/core/models'
import { check, notFound } from '@/core/problem'
import { resolvePractice, type PracticeKey } from '@/core/practices'
import {
  circuitSchema,
  methodsFor,
  planMachine,
  templateFor,
  zonesOf,
  type CircuitElement,
  type CircuitInput,
  type FuelWay,
  type MachinePlan,
  type Method,
  type Turning,
  type Zone,
} from '@/core/winter'
import { derived, write } from '@/db/house'
import { assemblies, fittings, machines, type MachineRow } from '@/db/fleet'
import { pumpModelVersions } from '@/db/models'
import { wetCircuits, type WetCircuitRow } from '@/db/winter'
import { editRow, now, recordChange, requirePermission, type Actor } from '../house'
import { companyPractices } from '../practices'
import { loadYards, type YardFrost } from './climates'
import { chosenProduct, type Product } from './products'
import { loadTerms, ratesOf, type Terms } from './terms'

/** The practice that decides how a zone is made safe. */
export const practiceOfZone: Readonly<Record<Zone, PracticeKey>> = {
  tanks: 'winterTanks',
  pump: 'winterPump',
  bypass: 'winterBypass',
  coil: 'winterCoil',
  hose: 'winterHose',
  chemical: 'winterChemical',
}

/** What is fitted to a machine and holds water. */
export type WetAssembly = { id: string; number: string; model: PumpModel | null; kind: string }

export type MachineWinter = {
  machine: MachineRow
  frost: YardFrost | null
  /** It freezes where it stands at or below so many °C outside; null never. */
  standsC: number | null
  circuit: CircuitElement[]
  /** Nobody has looked at the circuit yet: it is the template of its kind. */
  isTemplate: boolean
  row: WetCircuitRow | null
  methods: Partial<Record<Zone, { method: Method; from: string; isOwn: boolean }>>
  turning: Turning
  fuel: FuelWay
  proof: 'refractometer' | 'colour'
  marginC: number
  plan: MachinePlan
  wet: WetAssembly[]
  /** What freezing all of it would cost, in cents. */
  valueCents: number
}

export type WinterBasis = {
  terms: Terms
  product: Product | null
  yards: YardFrost[]
  machines: MachineWinter[]
}

/** Every machine in use with its circuit, its methods and what making it safe takes. */
export async function loadMachines(only?: string): Promise<WinterBasis> {
  const [rows, circuits, terms, product, frosts, practices, wetOf] = await Promise.all([
    machines.every(),
    wetCircuits.every(),
    loadTerms(),
    chosenProduct(),
    loadYards(),
    companyPractices(),
    wetAssemblies(),
  ])
  const circuitOf = new Map(circuits.map((row) => [row.id, row]))
  const list = rows
    .filter((row) => row.retiredOn === null && (only === undefined || row.id === only))
    .sort((a, b) => (a.number < b.number ? -1 : 1))
    .map((machine): MachineWinter => {
      const frost = frosts.find(({ yard }) => yard.id === machine.yardId) ?? null
      const row = circuitOf.get(machine.id) ?? null
      const wet = wetOf.get(machine.id) ?? none
      const rest = derived(
        `winter of ${machine.id}`,
        [machine, row, wet, product, practices, frost?.designLowC ?? null, JSON.stringify(ratesOf(terms))],
        () => {
          const circuit = row?.elements ?? templateOf(machine, wet)
          const { methods, proof, petrol } = methodsOf(circuit, row, wet, practices)
          return {
            circuit,
            isTemplate: row === null,
            row,
            methods,
            turning: row?.turning ?? usualTurning[machine.drive],
            fuel: machine.drive === 'petrol' ? petrol : machine.drive === 'diesel' ? 'winterDiesel' : 'none',
            proof,
            plan: planMachine({
              circuit,
              methods,
              product,
              designLowC: frost?.designLowC ?? usualDesignLowC,
              rates: ratesOf(terms),
            }),
            valueCents: circuit.reduce((sum, element) => sum + (element.costCents ?? 0), 0),
          } as const
        },
      )
      return {
        machine,
        frost,
        marginC: terms.marginC,
        standsC: frost ? frost.stands[machine.storage].standsC : 0,
        wet,
        ...rest,
      }
    })
  return { terms, product, yards: frosts, machines: list }
}

const none: WetAssembly[] = []
/** Where nobody knows the frost of a yard, so that a plan can be looked at all the same; said beside it. */
export const usualDesignLowC = -15

const usualTurning: Readonly<Record<MachineRow['drive'], Turning>> = {
  petrol: 'cord',
  diesel: 'pulley',
  electric: 'motor',
  vehicle: 'hub',
}

/** What a machine's record and the models of its pumps say of its water. */
export function templateOf(machine: MachineRow, wet: WetAssembly[]): CircuitElement[] {
  const named = (list: WetAssembly[]) =>
    list.map(({ id, number, model }) => ({
      id,
      name: list.length > 1 ? number : '',
      litres: model?.wet?.litres ?? null,
      drainsLitres: model?.wet?.drains ?? null,
      traps: model?.wet?.traps ?? '',
    }))
  return templateFor({
    kind: machine.kind,
    tankLitres: machine.tankVolume ? machine.tankVolume.si * 1000 : null,
    hoseBoreMm: machine.hoseBore ? machine.hoseBore.si * 1000 : null,
    hoseLengthM: machine.hoseLength ? machine.hoseLength.si : null,
    hasBypass: machine.bypass !== 'none',
    pumps: named(wet.filter(({ kind }) => kind === 'pump')),
    coils: named(wet.filter(({ kind }) => kind === 'heater')),
  })
}

/** The manual's word, then this machine's own, then the model's and the company's choice, then ours. */
function methodsOf(
  circuit: CircuitElement[],
  row: WetCircuitRow | null,
  wet: WetAssembly[],
  practices: Awaited<ReturnType<typeof companyPractices>>,
) {
  const pump = wet.find(({ kind }) => kind === 'pump')?.model
  const heater = wet.find(({ kind }) => kind === 'heater')?.model
  const by = (model: PumpModel | null | undefined, key: PracticeKey) =>
    resolvePractice(
      key,
      model ? { title: titleOf(model), manual: model.manual } : { title: '', manual: [] },
      practices,
    )
  const methods: MachineWinter['methods'] = {}
  for (const zone of zonesOf(circuit)) {
    const word = by(zone === 'coil' ? (heater ?? pump) : pump, practiceOfZone[zone])
    const own = row?.methods[zone]
    if (own && word.from !== 'manual') {
      methods[zone] = { method: own.method, from: `this machine: ${own.reason}`, isOwn: true }
      continue
    }
    const from = {
      manual: `the manual, ${word.because}`,
      model: `this model: ${word.because}`,
      company: `company practice${word.because ? `: ${word.because}` : ''}`,
      default: 'ours, nobody has chosen',
    }[word.from]
    const method = methodsFor[zone].find((each) => each === word.choice) ?? methodsFor[zone][0]!
    methods[zone] = { method, from, isOwn: false }
  }
  return {
    methods,
    proof: by(pump, 'winterProof').choice as 'refractometer' | 'colour',
    petrol: by(pump, 'winterFuel').choice as FuelWay,
  }
}

/** What is fitted to each machine and holds water or drives it, by machine. */
async function wetAssemblies(): Promise<Map<string, WetAssembly[]>> {
  const [rows, versions] = await Promise.all([assemblies.every(), pumpModelVersions.every()])
  const wanted = rows.filter(
    ({ kind, retiredOn }) => (kind === 'pump' || kind === 'heater') && retiredOn === null,
  )
  const moves = await fittings.everyOf(wanted.map(({ id }) => id))
  const from = [rows, versions, moves.size, ...wanted.map(({ id }) => moves.get(id))]
  return derived('wet assemblies', from, () => {
    const modelOf = new Map(versions.map((version) => [version.id, version.data]))
    const byMachine = new Map<string, WetAssembly[]>()
    for (const { id, number, kind, modelVersionId } of [...wanted].sort((a, b) =>
      a.number < b.number ? -1 : 1,
    )) {
      const at = (moves.get(id) ?? [])
        .filter(({ status }) => status === 'active')
        .sort((a, b) => (a.at < b.at ? -1 : 1))
        .at(-1)
      if (!at?.machineId) continue
      const model = (modelVersionId && modelOf.get(modelVersionId)) || null
      byMachine.set(at.machineId, [...(byMachine.get(at.machineId) ?? []), { id, number, kind, model }])
    }
    return byMachine
  })
}

/** Keeps the water side of a machine as somebody looked at it. */
export async function saveCircuit(actor: Actor, input: CircuitInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { machineId, version, ...values } = check(circuitSchema, input)
  await write(async () => {
    const machine = await machines.byId(machineId)
    if (!machine) throw notFound('This machine')
    const elements = values.elements.map(({ cost, ...element }) =>
      cost == null ? element : { ...element, costCents: Math.round(cost * 100) },
    )
    const stamped = { ...values, elements, recordedAt: now(), recordedById: actor.id || null }
    const row = await wetCircuits.byId(machineId)
    const summary = `Wet circuit of ${machine.number} ${row ? 'changed' : 'looked at'}`
    if (row) {
      await editRow(
        actor,
        wetCircuits,
        { entity: 'wetCircuit', name: `the wet circuit of ${machine.number}` },
        { id: machineId, version: version ?? 0 },
        stamped,
        { machineId, action: 'changed', summary },
      )
      return
    }
    await wetCircuits.insert({ id: machineId, ...stamped, version: 1 })
    await recordChange(actor, {
      entity: 'wetCircuit',
      entityId: machineId,
      entityVersion: 1,
      machineId,
      action: 'added',
      summary,
      after: values,
    })
  })
}
