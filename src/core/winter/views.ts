import type { Day } from '../calendar'
import type { MachinePlan, Method } from './methods'
import type { CircuitElement, Zone } from './circuit'
import type { FuelWay, Turning } from './sheet'
import type { ToldEvent, ZoneStanding, ZoneState } from './state'
import type { FrostAlarm } from './watch'

/** How far what is put in goes along the water, for a line drawn from tank to nozzle. */
export type Reach = {
  zone: Zone
  method: Method
  state: ZoneState
}[]

export type WinterRow = {
  machineId: string
  number: string
  name: string
  where: string
  standsC: number | null
  state: ZoneState
  says: string
  reach: Reach
  litres: number
  waterLitres: number
  minutes: number
  cents: number
  valueCents: number
  /** The day on which it is to be safe: booked, or as the order of work has it. */
  day: Day | null
  booked: { visitId: string; number: number; lead: string } | null
  /** Chance that frost reaches it before its day, 0 to 1; null where nothing is known of the frost. */
  risk: number | null
  /** What stands in the way of a plan. */
  troubles: string[]
  isTemplate: boolean
  /** It works on: what is done every evening, and when somebody last said so. */
  evening: { name: string; confirmedOn: Day | null; wanted: boolean } | null
  onJobUntil: Day | null
  alarm: FrostAlarm | null
}

export type WinterYard = {
  id: string
  name: string
  hasClimate: boolean
  climateSays: string
  designLowC: number | null
  outlookSays: string
  outlook: { day: Day; minC: number }[]
  curve: { day: Day; chance: number }[]
  /** Days by which frost has come with these chances, this winter. */
  odds: { chance: number; day: Day | null }[]
  finish: Day | null
  finishRisk: number | null
  latestStart: Day | null
  exposedCents: number
  crewSays: string
  rows: WinterRow[]
}

export type WinterFluid = {
  product: string | null
  inStoresLitres: number | null
  toGoLitres: number
  waterLitres: number
  packs: number
  packLitres: number
  cents: number
  leftLitres: number
  /** The day by which it has to be ordered, and the day on which it runs short. */
  orderBy: Day | null
  shortOn: Day | null
  partNumber: string | null
}

export type WhatIf = {
  name: string
  finish: Day | null
  exposedCents: number
  litres: number
  minutes: number
  cents: number
}

export type WinterPage = {
  yards: WinterYard[]
  fluid: WinterFluid
  counts: { machines: number; safe: number; waiting: number; atRisk: number; working: number }
  whatIf: WhatIf[]
  riskPercent: number
  proof: string
}

export type ZoneChoice = {
  zone: Zone
  methods: { method: Method; isChosen: boolean; plan: MachinePlan['zones'][number] }[]
}

export type MachineWinterPage = {
  machineId: string
  number: string
  name: string
  yard: string
  storage: string
  standsC: number | null
  designLowC: number | null
  circuit: CircuitElement[]
  template: CircuitElement[]
  isTemplate: boolean
  version: number | null
  litres: number
  unknown: string[]
  ownMethods: Partial<Record<Zone, { method: Method; reason: string }>>
  plan: MachinePlan
  choices: ZoneChoice[]
  product: string | null
  turning: Turning
  fuel: FuelWay
  fuelTankLitres: number | null
  evening: '' | 'indoors' | 'drained' | 'fluid'
  eveningReason: string
  zones: Partial<Record<Zone, ZoneStanding>>
  worst: ZoneState
  /** The steps as they would stand on a sheet today. */
  steps: { key: string; heading: string; where: string; text: string; caution: string }[]
  history: {
    id: string
    day: string
    time: string
    event: ToldEvent
    by: string
    sheetId: string | null
  }[]
  today: string
}

export type MethodsPage = {
  machines: number
  product: string | null
  /** Of each zone and method: what the whole fleet would take. */
  zones: {
    zone: Zone
    machines: number
    methods: {
      method: Method
      chosen: number
      litres: number
      minutes: number
      cents: number
      unprotected: number
      cannot: number
      dries: string
      droplets: string
    }[]
  }[]
  total: { litres: number; minutes: number; cents: number }
}

/** One zone of one machine in the report of a season. */
export type SeasonLine = {
  number: string
  name: string
  yard: string
  zone: string
  method: Method
  /** What was done; blank where nothing was. */
  done: string
  state: ZoneState
  day: Day | null
  by: string
  litres: number | null
  downToC: number | null
  proof: string
  provedOn: Day | null
  cents: number
  says: string
  damage: string
}
export type SeasonReport = { today: Day; currency: string; lines: SeasonLine[] }
