import { inSentence } from '../units'
import {
  elementKinds,
  elementLitres,
  residualLitres,
  zoneOf,
  zones,
  type CircuitElement,
  type Zone,
} from './circuit'
import { recipe, type Antifreeze, type Recipe } from './recipe'

/** How a zone is made safe. Good workshops differ; each is somebody's practice. */
export const methodNames = {
  through: 'Antifreeze through',
  toNozzle: 'Antifreeze through to the nozzle',
  protector: 'Screw-on protector',
  blowOut: 'Blow out',
  drain: 'Drain',
  leave: 'Leave',
} as const
export type Method = keyof typeof methodNames

/** What can be done to each zone; the usual first. Ours, where the company has not chosen. */
export const methodsFor: Readonly<Record<Zone, readonly Method[]>> = {
  tanks: ['drain', 'leave'],
  pump: ['through', 'protector', 'blowOut', 'drain', 'leave'],
  bypass: ['through', 'blowOut', 'drain', 'leave'],
  coil: ['through', 'blowOut', 'leave'],
  hose: ['drain', 'toNozzle', 'blowOut', 'leave'],
  chemical: ['through', 'drain', 'leave'],
}

/** Whether something that does not freeze is put in. */
export const isFilled = (method: Method): boolean =>
  method === 'through' || method === 'toNozzle' || method === 'protector'

/** What each leaves to chance, in words; blank for nothing. */
const leaves: Readonly<Record<Method, { dries: string; droplets: string }>> = {
  through: { dries: '', droplets: '' },
  toNozzle: { dries: '', droplets: '' },
  protector: { dries: '', droplets: 'It fills what it reaches: the inlet side; look at the outlet too.' },
  blowOut: {
    dries: 'Seals and O-rings stand dry: they may stick at the first start.',
    droplets: 'Droplets stay under valves and in low points.',
  },
  drain: {
    dries: 'What runs empty stands dry.',
    droplets: 'Water stays in pockets and low points that do not drain.',
  },
  leave: { dries: '', droplets: '' },
}

/** What the company reckons with; ours until it has measured. */
export type WinterRates = {
  /** Cents for an hour of a technician. */
  hourCents: number
  /** Cents for a protector that is used up with the fluid in it, or what one use of a refillable one costs without. */
  protectorCents: number
  refillable: boolean
  marginC: number
  runOn: number
}
export const usualRates: WinterRates = {
  hourCents: 6000,
  protectorCents: 1500,
  refillable: false,
  marginC: 5,
  runOn: 0.5,
}

/** Minutes that a method takes in a zone, ours until one's own sheets say better. */
const minutes: Readonly<Record<Zone, Partial<Record<Method, number>>>> = {
  tanks: { drain: 12, leave: 1 },
  pump: { through: 18, protector: 8, blowOut: 12, drain: 8, leave: 1 },
  bypass: { through: 8, blowOut: 8, drain: 6, leave: 1 },
  coil: { through: 12, blowOut: 15, leave: 1 },
  hose: { drain: 12, toNozzle: 15, blowOut: 18, leave: 1 },
  chemical: { through: 15, drain: 12, leave: 1 },
}
/** Running the season's fuel and clean water through, making safe, plugs, labels and meters. Ours. */
export const commonMinutes = { run: 15, secure: 8, finish: 10 }

/** One zone of one machine, made safe in one way: what it takes and what it leaves. */
export type ZonePlan = {
  zone: Zone
  method: Method
  /** Who says so: the maker's manual, this machine, the model, the company, or nobody yet. */
  from: string
  holdsLitres: number
  /** Of that, what fluid has to fill: tanks are drained. */
  fillsLitres: number
  /** Pieces of which nobody knows what they hold: the litres below are too few. */
  unknown: string[]
  residualLitres: number
  /** Where something is put in. */
  recipe: Recipe | null
  /** Of that, what comes out of one's own cans: a protector that is used up brings its own. */
  ownLitres: number
  ownWaterLitres: number
  minutes: number
  cents: number
  /** What stays unprotected, by name. */
  unprotected: string[]
  dries: string
  droplets: string
}

export type MachinePlan = {
  zones: ZonePlan[]
  /** Of what is sold: the concentrate, or the ready mix. */
  productLitres: number
  waterLitres: number
  minutes: number
  cents: number
  /** Why it cannot be done like this, by zone; empty where it can. */
  troubles: { zone: Zone; why: string }[]
}

const named = (element: CircuitElement) => element.name || elementKinds[element.kind]

/** How a piece stands before something is put into its zone, or where nothing is. */
const emptiedBy = (method: Method) =>
  method === 'leave' ? ('full' as const) : method === 'blowOut' ? ('blown' as const) : ('drained' as const)

/**
 * What one method takes in one zone of a machine, and what it leaves.
 *
 * @param circuit the whole circuit of the machine
 * @param product what is put in; null where nobody has chosen one
 * @param designLowC colder than this only in one winter of ten
 */
export function planZone(input: {
  circuit: readonly CircuitElement[]
  zone: Zone
  method: Method
  from?: string
  product: Antifreeze | null
  designLowC: number
  rates?: WinterRates
}): ZonePlan {
  const { circuit, zone, method, from = '', product, designLowC, rates = usualRates } = input
  const own = circuit.filter((element) => zoneOf[element.kind] === zone)
  const filled = isFilled(method)
  // Tanks are drained whatever the method: nobody fills one with antifreeze.
  const inside = filled ? own.filter(({ kind }) => !isTank(kind)) : own
  const holdsLitres = own.reduce((sum, element) => sum + (elementLitres(element) ?? 0), 0)
  const toFill = inside.reduce((sum, element) => sum + (elementLitres(element) ?? 0), 0)
  const residual = inside.reduce((sum, element) => sum + (residualLitres(element, emptiedBy(method)) ?? 0), 0)
  const mix =
    filled && product
      ? recipe({
          product,
          zoneLitres: toFill,
          residualWaterLitres: residual,
          designLowC,
          marginC: rates.marginC,
          runOn: method === 'protector' ? 0 : rates.runOn,
        })
      : null
  const bringsItsOwn = method === 'protector' && !rates.refillable
  const litres = mix?.ok && !bringsItsOwn ? mix.concentrateLitres : 0
  const work = minutes[zone][method] ?? 10
  const fluidCents = product ? (litres * product.packCents) / product.packLitres : 0
  return {
    zone,
    method,
    from,
    holdsLitres,
    fillsLitres: toFill,
    unknown: own.filter((element) => elementLitres(element) === null).map(named),
    residualLitres: residual,
    recipe: mix,
    ownLitres: litres,
    ownWaterLitres: mix?.ok && !bringsItsOwn ? mix.waterLitres : 0,
    minutes: work,
    cents: Math.round(
      (work * rates.hourCents) / 60 + fluidCents + (method === 'protector' ? rates.protectorCents : 0),
    ),
    unprotected:
      method === 'leave' ? own.map(named) : filled ? [] : own.filter(keepsWater(method)).map(named),
    ...leaves[method],
  }
}

const isTank = (kind: CircuitElement['kind']) => kind === 'waterTank' || kind === 'chemicalTank'

/** What keeps so much water after a method that it can freeze: its pockets and low points. */
const keepsWater = (method: Method) => (element: CircuitElement) =>
  !isTank(element.kind) &&
  ((element.traps ?? '') !== '' || (residualLitres(element, emptiedBy(method)) ?? 0) > 0.3)

/** Zones that a circuit has, in flow order. */
export const zonesOf = (circuit: readonly CircuitElement[]): Zone[] =>
  zones.filter((zone) => circuit.some((element) => zoneOf[element.kind] === zone))

/** What making a whole machine safe takes, zone by zone. */
export function planMachine(input: {
  circuit: readonly CircuitElement[]
  /** The method of each zone, with who says so. */
  methods: Partial<Record<Zone, { method: Method; from: string }>>
  product: Antifreeze | null
  designLowC: number
  rates?: WinterRates
}): MachinePlan {
  const { circuit, methods, ...rest } = input
  const planned = zonesOf(circuit).map((zone) => {
    const chosen = methods[zone] ?? { method: methodsFor[zone][0]!, from: 'ours, nobody has chosen' }
    return planZone({ circuit, zone, ...chosen, ...rest })
  })
  const common = commonMinutes.run + commonMinutes.secure + commonMinutes.finish
  const { hourCents } = rest.rates ?? usualRates
  return {
    zones: planned,
    productLitres: planned.reduce((sum, { ownLitres }) => sum + ownLitres, 0),
    waterLitres: planned.reduce((sum, { ownWaterLitres }) => sum + ownWaterLitres, 0),
    minutes: common + planned.reduce((sum, zone) => sum + zone.minutes, 0),
    cents: Math.round((common * hourCents) / 60) + planned.reduce((sum, zone) => sum + zone.cents, 0),
    troubles: planned.flatMap(({ zone, method, recipe: mix, unknown }) => {
      const why: string[] = []
      if (isFilled(method) && mix === null) why.push('No antifreeze is chosen.')
      if (mix && !mix.ok) why.push(mix.why)
      if (isFilled(method) && unknown.length > 0)
        why.push(`Nobody knows what it holds: ${unknown.map(inSentence).join(', ')}.`)
      return why.map((words) => ({ zone, why: words }))
    }),
  }
}
