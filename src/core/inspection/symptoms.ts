import type { PositionSort } from '../models'

/** What a first check looks at; `positions` are opened last. */
export type FirstCheck = {
  key: string
  text: string
  minutes: number
  /** `look`: machine off and pressure relieved; `running`: beside a machine that runs; `opening`: something is taken apart. */
  risk: 'look' | 'running' | 'opening'
  caution: string
}

/** Somewhere the trouble may sit: positions of a sort, or a thing beside the pump. */
export type Suspect = { sort: PositionSort | null; name: string; weight: number; why: string }

export type Symptom = {
  name: string
  /** A figure that says how bad it is. */
  asks: 'drips' | 'flow' | null
  suspects: Suspect[]
  checks: string[]
  /** Days within which somebody should have looked; ours, changed as it is entered. */
  withinDays: number
  /** Why the machine should not run on; blank where it may. */
  stop: string
}

const relieved = 'Engine off, ignition disabled, pressure relieved at the gun and zero verified first.'
const beside =
  'Hands and face off hoses and joints: a jet injects fluid through skin, and any injection wound is an emergency.'
const authorised = 'By trained people and the maker’s manual; isolate and lock out every energy source first.'

/** Every first check there is; a symptom names those that tell something about it. */
export const checks: Record<string, Omit<FirstCheck, 'key'>> = {
  askCrew: {
    text: 'Ask the crew: since when, at which work, what was changed before it began?',
    minutes: 5,
    risk: 'look',
    caution: '',
  },
  tankLevel: {
    text: 'Water supply: tank level, valves open, float free, hose not kinked.',
    minutes: 5,
    risk: 'look',
    caution: '',
  },
  strainer: { text: 'Inlet strainer: take it out, clean it.', minutes: 10, risk: 'look', caution: relieved },
  suction: {
    text: 'Suction hose: length, bore, clamps and joints; any place where it draws air.',
    minutes: 10,
    risk: 'look',
    caution: '',
  },
  inletTemp: {
    text: 'Inlet water temperature against the maker’s limit.',
    minutes: 5,
    risk: 'look',
    caution: '',
  },
  nozzle: {
    text: 'Nozzle: size number against the job, bore round and sharp; try the known nozzle.',
    minutes: 10,
    risk: 'look',
    caution: relieved,
  },
  gauge: {
    text: 'Gauge: back to zero without pressure; try another.',
    minutes: 10,
    risk: 'look',
    caution: relieved,
  },
  dripCount: {
    text: 'Wipe it dry and count drips in a minute, each weep hole for itself.',
    minutes: 5,
    risk: 'running',
    caution: beside,
  },
  bypassLine: {
    text: 'By-pass line with the gun open: it should carry nothing. Flow there: unloader.',
    minutes: 10,
    risk: 'running',
    caution: beside,
  },
  flowAtPressure: {
    text: 'Flow and pressure with the known nozzle on; compare both with the nozzle’s own curve.',
    minutes: 20,
    risk: 'running',
    caution: `${beside} Never a live jet into a bucket.`,
  },
  listen: {
    text: 'Listen at each cylinder: one that beats differently is the one to open.',
    minutes: 5,
    risk: 'running',
    caution: beside,
  },
  oilLook: {
    text: 'Oil at the glass: colour, level against its mark, before it is run.',
    minutes: 5,
    risk: 'look',
    caution: '',
  },
  oilDrain: {
    text: 'Drain the oil into a clean pan: water at the bottom, metal on a magnet.',
    minutes: 20,
    risk: 'opening',
    caution: 'Hot oil burns: let it cool. Catch it and dispose of it by local rules.',
  },
  washing: {
    text: 'Was the crankcase steamed or pressure washed? That alone puts water past the seals.',
    minutes: 5,
    risk: 'look',
    caution: '',
  },
  breather: { text: 'Breather and filler cap: free and dry.', minutes: 5, risk: 'look', caution: '' },
  screws: {
    text: 'Manifold screws: any loose by hand? Do not tighten further: undone, cleaned and torqued at the service.',
    minutes: 10,
    risk: 'look',
    caution: relieved,
  },
  caps: {
    text: 'Caps and plugs: which one is wet? Its O-ring is renewed, the cap is not pulled tighter.',
    minutes: 10,
    risk: 'look',
    caution: relieved,
  },
  unloaderFree: {
    text: 'Unloader: spring handle at its mark, tip moves freely, no scale.',
    minutes: 20,
    risk: 'opening',
    caution: `${relieved} Springs under load are released evenly. Note the set pressure before it is touched.`,
  },
  drive: {
    text: 'Belt or coupling: tension, alignment, guard on again.',
    minutes: 15,
    risk: 'look',
    caution: authorised,
  },
  touchTemp: {
    text: 'Crankcase temperature with a thermometer after half an hour of work.',
    minutes: 10,
    risk: 'running',
    caution: `${beside} Hot metal burns.`,
  },
  engine: {
    text: 'Engine: does it hold its speed under load?',
    minutes: 10,
    risk: 'running',
    caution: beside,
  },
  openGun: {
    text: 'Start with the gun open: does it turn over easily without pressure?',
    minutes: 5,
    risk: 'running',
    caution: beside,
  },
  valvesOut: {
    text: 'Valves out one by one: pitting, broken spring, dirt under the seat; each back to its own bore.',
    minutes: 40,
    risk: 'opening',
    caution: authorised,
  },
  manifoldOff: {
    text: 'Manifold off: seals, plungers and what is on them; renew what access disturbs.',
    minutes: 90,
    risk: 'opening',
    caution: authorised,
  },
}

/** What the field or a bench reports, with where it may come from. Weights are ours, for ranking only. */
export const symptoms = {
  weep: {
    name: 'Weep or drip at a weep hole',
    asks: 'drips',
    suspects: [
      { sort: 'seal', name: 'Seals', weight: 6, why: 'a weep hole carries what gets past them' },
      { sort: 'plunger', name: 'Plungers', weight: 2, why: 'a scored plunger cuts the new seal too' },
      { sort: 'oilSeal', name: 'Oil seals', weight: 1, why: 'if it is oil, not water' },
    ],
    checks: ['dripCount', 'oilLook', 'inletTemp', 'manifoldOff'],
    withinDays: 14,
    stop: '',
  },
  leakJoint: {
    name: 'Leak between manifold and crankcase',
    asks: 'drips',
    suspects: [
      { sort: 'seal', name: 'Seals', weight: 6, why: 'water past the low-pressure seal comes out here' },
      { sort: 'oilSeal', name: 'Oil seals', weight: 2, why: 'they stand in that water' },
      { sort: null, name: 'Manifold screws', weight: 2, why: 'loose ones let the manifold breathe' },
    ],
    checks: ['dripCount', 'screws', 'caps', 'oilLook', 'manifoldOff'],
    withinDays: 5,
    stop: '',
  },
  pressureLow: {
    name: 'Pressure low',
    asks: 'flow',
    suspects: [
      { sort: null, name: 'Nozzle', weight: 6, why: 'wears every hour it works' },
      {
        sort: null,
        name: 'Water supply and strainer',
        weight: 5,
        why: 'what does not come in cannot go out',
      },
      { sort: null, name: 'Unloader', weight: 4, why: 'flow slips back through the by-pass' },
      { sort: 'valve', name: 'Valves', weight: 3, why: 'worn or held open, they let flow back' },
      { sort: 'seal', name: 'Seals', weight: 2, why: 'flow is lost past them' },
    ],
    checks: [
      'askCrew',
      'tankLevel',
      'strainer',
      'nozzle',
      'gauge',
      'flowAtPressure',
      'bypassLine',
      'unloaderFree',
      'valvesOut',
      'manifoldOff',
    ],
    withinDays: 3,
    stop: '',
  },
  flowLow: {
    name: 'Flow low',
    asks: 'flow',
    suspects: [
      {
        sort: null,
        name: 'Water supply and strainer',
        weight: 6,
        why: 'what does not come in cannot go out',
      },
      { sort: null, name: 'Unloader', weight: 4, why: 'flow slips back through the by-pass' },
      { sort: 'valve', name: 'Valves', weight: 4, why: 'worn or held open, they let flow back' },
      { sort: 'seal', name: 'Seals', weight: 3, why: 'flow is lost past them' },
    ],
    checks: [
      'tankLevel',
      'strainer',
      'suction',
      'bypassLine',
      'flowAtPressure',
      'unloaderFree',
      'valvesOut',
      'manifoldOff',
    ],
    withinDays: 3,
    stop: '',
  },
  pulsing: {
    name: 'Pressure pulsing, rough running',
    asks: null,
    suspects: [
      { sort: 'valve', name: 'Valves', weight: 6, why: 'one that does not close drops every third stroke' },
      {
        sort: null,
        name: 'Inlet: air or starvation',
        weight: 5,
        why: 'cavitation pits valves and tears seals',
      },
      { sort: 'seal', name: 'Seals', weight: 2, why: 'one cylinder that sucks air' },
    ],
    checks: ['tankLevel', 'strainer', 'suction', 'inletTemp', 'listen', 'valvesOut'],
    withinDays: 3,
    stop: '',
  },
  oilLeak: {
    name: 'Oil leak',
    asks: 'drips',
    suspects: [
      { sort: 'oilSeal', name: 'Oil seals', weight: 6, why: 'oil at the weep holes or the shaft' },
      {
        sort: null,
        name: 'Crankcase cover and breather',
        weight: 3,
        why: 'a blocked breather presses oil out',
      },
    ],
    checks: ['oilLook', 'breather', 'dripCount', 'touchTemp'],
    withinDays: 4,
    stop: '',
  },
  milkyOil: {
    name: 'Milky oil',
    asks: null,
    suspects: [
      {
        sort: 'seal',
        name: 'Seals',
        weight: 5,
        why: 'water past the low-pressure seal stands at the oil seals',
      },
      { sort: 'oilSeal', name: 'Oil seals', weight: 5, why: 'water came past them' },
      { sort: 'oil', name: 'Crankcase oil', weight: 4, why: 'it no longer carries the bearings' },
    ],
    checks: ['oilLook', 'washing', 'breather', 'dripCount', 'oilDrain'],
    withinDays: 1,
    stop: 'Water in the oil takes the bearings: better not run it until the oil is changed and the seals are looked at.',
  },
  oilRising: {
    name: 'Oil level rises',
    asks: null,
    suspects: [
      { sort: 'oilSeal', name: 'Oil seals', weight: 5, why: 'water comes in past them' },
      { sort: 'seal', name: 'Seals', weight: 5, why: 'and past the low-pressure seals before' },
      { sort: 'oil', name: 'Crankcase oil', weight: 3, why: 'thinned by water' },
    ],
    checks: ['oilLook', 'washing', 'dripCount', 'oilDrain'],
    withinDays: 1,
    stop: 'A rising level is water: better not run it until the oil is changed and the seals are looked at.',
  },
  metalInOil: {
    name: 'Metal in the oil',
    asks: null,
    suspects: [
      { sort: null, name: 'Bearings and crank', weight: 6, why: 'that is where the metal comes from' },
      { sort: 'oil', name: 'Crankcase oil', weight: 3, why: 'level, grade, age' },
    ],
    checks: ['oilLook', 'oilDrain', 'touchTemp'],
    withinDays: 1,
    stop: 'Better not run it until somebody qualified has looked at the bearings.',
  },
  hotCrankcase: {
    name: 'Hot crankcase',
    asks: null,
    suspects: [
      { sort: 'oil', name: 'Crankcase oil', weight: 5, why: 'too little, too much or the wrong grade' },
      { sort: null, name: 'Bearings', weight: 4, why: 'they heat before they fail' },
      { sort: null, name: 'Drive', weight: 2, why: 'a belt too tight loads them' },
    ],
    checks: ['oilLook', 'touchTemp', 'drive', 'oilDrain'],
    withinDays: 1,
    stop: 'Let it cool; better not run it until the oil is checked.',
  },
  knocking: {
    name: 'Knocking',
    asks: null,
    suspects: [
      { sort: null, name: 'Inlet: air or starvation', weight: 5, why: 'cavitation knocks too' },
      { sort: 'valve', name: 'Valves', weight: 3, why: 'a broken spring or a loose cage' },
      { sort: null, name: 'Bearings and drive', weight: 4, why: 'a slow, regular knock' },
    ],
    checks: ['tankLevel', 'strainer', 'suction', 'listen', 'oilLook', 'drive', 'valvesOut'],
    withinDays: 1,
    stop: 'A knock from the crankcase: better not run it until it is found.',
  },
  bypassHolds: {
    name: 'By-pass does not release',
    asks: null,
    suspects: [{ sort: null, name: 'Unloader', weight: 6, why: 'stuck tip, scale, spring handle moved' }],
    checks: ['askCrew', 'nozzle', 'bypassLine', 'unloaderFree'],
    withinDays: 1,
    stop: 'Pressure stays in the hose with the gun closed: do not use it until the unloader is put right.',
  },
  hardStart: {
    name: 'Hard starting',
    asks: null,
    suspects: [
      { sort: null, name: 'Unloader or start assist', weight: 5, why: 'the engine starts against pressure' },
      { sort: null, name: 'Engine', weight: 3, why: 'not the pump at all' },
    ],
    checks: ['openGun', 'engine', 'unloaderFree'],
    withinDays: 7,
    stop: '',
  },
  watch: {
    name: 'Found at a service: watch',
    asks: null,
    suspects: [],
    checks: ['askCrew', 'dripCount', 'oilLook'],
    withinDays: 30,
    stop: '',
  },
  other: {
    name: 'Something else',
    asks: null,
    suspects: [],
    checks: ['askCrew', 'oilLook', 'listen'],
    withinDays: 3,
    stop: '',
  },
} as const satisfies Record<string, Symptom>
export type SymptomKey = keyof typeof symptoms
export const symptomKeys = Object.keys(symptoms) as SymptomKey[]
