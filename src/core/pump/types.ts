/**
 * A pump model: the maker's data that everything is composed from. One structure answers which parts
 * wear where, how the pump comes apart, what each service takes, and when it is due.
 * `docs/models.md` says how each kind of pump is written down in it.
 */
export type PumpModel = {
  format: 1
  maker: string
  name: string
  /** What kind of pump it is, in a few words. */
  design: string
  /** Stands on everything made from it; demo data says that it must not be used on a real pump. */
  notice: string
  usage: 'h' | 'strokes'
  /** What repeats: cylinders, heads, valve bores, set screws. */
  repeats: Repeat[]
  /** Parts of the body in order, for drawing: manifold, seal case, crank end. */
  zones: { key: string; name: string }[]
  positions: Position[]
  parts: Part[]
  tools: Tool[]
  fasteners: Fastener[]
  /** The way in. The root is "made safe on its machine"; parents may stand anywhere in the list. */
  access: AccessNode[]
  tasks: Task[]
  makeSafe: Step[]
  makeSafeMinutes: number
  prove: Step[]
  proveMinutes: number
}

export type Repeat = { key: string; name: string; count: number; labels?: string[] }

export const positionSorts = ['valve', 'seal', 'plunger', 'oilSeal', 'oil', 'filter', 'other'] as const
export type PositionSort = (typeof positionSorts)[number]

/** One place where one wearing part sits; with `repeat`, one of them per cylinder, head or bore. */
export type Position = {
  key: string
  name: string
  zone: string
  /** What kind of thing wears there: hard duty touches some and not others. */
  sort: PositionSort
  repeat: string | null
  /** The part that sits there, and how many pieces of it. Oil is a position too: pieces are then litres. */
  part: string | null
  pieces: number
  synonyms: string[]
}

export type Part = {
  key: string
  name: string
  unit: 'piece' | 'L' | 'mL'
  synonyms: string[]
  material: string
  doubt: string
}

export type Tool = {
  key: string
  name: string
  /** Few and shared: a visit reserves it. */
  special: boolean
  /** Goes in and must come out: counted back before closing. */
  temporary: boolean
  removalOnly: boolean
}

/** A torque as stated, or in plain words why there is none. Nothing is ever blank or zero. */
export type Torque =
  | { state: 'stated'; value: number; unit: string; stages: number[]; source: string; verified: boolean }
  | { state: 'handTight' | 'byFeel' | 'notGiven'; source: string }

export type Treatment = {
  kind: 'none' | 'threadLubricant' | 'threadlocker' | 'sealant' | 'assemblyLubricant' | 'grease'
  product: string
  amount: string
  setsMinutes: number | null
  curesMinutes: number | null
}

export type Fastener = {
  key: string
  name: string
  count: number
  torque: Torque
  treatment: Treatment
  pattern: 'crissCross' | 'centreOut' | 'asNumbered' | 'single'
  /** Where each bolt sits, in millimetres from the plate's middle, in the maker's own numbering. */
  layout: { x: number; y: number }[]
  /** Tighten the first one again at the end. */
  retapFirst: boolean
}

export type AccessNode = {
  key: string
  name: string
  /** Null for what opens straight from the pump made safe on its machine. */
  parent: string | null
  repeat: string | null
  openMinutes: number
  closeMinutes: number
  open: Step[]
  close: Step[]
  /** What opening destroys: always renewed. */
  consumes: Use[]
}

/** So much of a part at a spot; two tasks that need it at the same spot use it once. */
export type Use = { part: string; quantity: number; spot: string }

export type Limit = {
  hours: number | null
  days: number | null
  firstHours: number | null
  firstDays: number | null
}

export type Task = {
  key: string
  name: string
  kind: 'renew' | 'inspect' | 'change' | 'adjust'
  /** The node that must be open for it; null: nothing needs opening. */
  at: string | null
  /** What it renews, or looks at. */
  positions: string[]
  limit: Limit
  /** Shares of the limit: how early costs only wasted life, how late only risk. */
  tolerance: { early: number; late: number }
  /** For each position instance. */
  minutes: number
  steps: Step[]
  uses: Use[]
}

export type Phase = 'makeSafe' | 'stripDown' | 'inspect' | 'renew' | 'rebuild' | 'prove'

export const orientationFaces = [
  'lip',
  'spring',
  'groove',
  'taper',
  'concave',
  'tab',
  'label',
  'letter',
  'ball',
  'flat',
] as const
export const orientationTowards = [
  'pressure',
  'crankcase',
  'motor',
  'cap',
  'pump',
  'slot',
  'eitherWay',
  'asItCameOut',
] as const

export type Step = {
  key: string
  text: string
  phase: Phase
  /** A tick for each cylinder, bore, screw or hose; "repeat for the others" is never one tick. */
  repeat: string | null
  tools: string[]
  part: string | null
  orientation: {
    face: (typeof orientationFaces)[number]
    towards: (typeof orientationTowards)[number]
  } | null
  treatment: Treatment | null
  /** Stands at the step where it matters. */
  caution: string
  timer: { kind: 'soak' | 'sets' | 'cured'; minutes: number } | null
  measure: { what: string; unit: string; min: number | null; max: number | null } | null
  /** So many turns, taps or pulls. */
  count: { what: string; min: number; max: number } | null
  /** What tells that it is right: a click, flush, moves freely, clear colour. */
  cue: string
  fastener: string | null
  /** The stage of the fastener's torque, from 1. */
  stage: number | null
  crank: string
  photo: boolean
  people: number
  /** Must be confirmed before anything after it. */
  gate: boolean
  /** Only where the answer to an earlier question is this. */
  when: { question: string; is: string } | null
  asks: { question: string; answers: string[] } | null
  /** To be done together with the next step: turn the shaft while drawing the halves together. */
  withNext: boolean
  /** A temporary tool that goes in, or comes out. */
  temporary: { tool: string; goes: 'in' | 'out' } | null
  undo: string
  media: string
  doubt: string
  /** Added by the company; the manual does not say it. */
  own: boolean
}
