import type { Torque } from '../torque'
import type { ManualWord, PracticeKey } from '../practices'

/**
 * A pump model: the maker's data that everything is composed from. One structure answers which parts
 * wear where, how the pump comes apart, what each service takes, and when it is due.
 * `docs/models.md` says how each kind of pump is written down in it.
 */
export type PumpModel = {
  format: 1
  maker: string
  name: string
  /** A pump, what drives or heats it, or an accessory; each with positions, tasks and lives of its own. */
  kind: ModelKind
  /** What kind of pump it is, in a few words. */
  design: string
  /** Stands on everything made from it; demo data says that it must not be used on a real pump. */
  notice: string
  /** The manual and its edition. */
  source: string
  usage: 'h' | 'strokes'
  /** A family of sizes that share one procedure. Empty where the model is one size. */
  sizes: Size[]
  /** Which size this is, once a family has been resolved; null before, and where there is one size. */
  size: string | null
  /** What the manual says where workshops differ: it wins over the company's choice. */
  manual: ManualWord[]
  /** What differs from unit to unit, found out once. */
  facts: Fact[]
  /** What of the wet end freezes; null where nothing does. */
  wet: Wet | null
  /** What repeats: cylinders, heads, valve bores, set screws. */
  repeats: Repeat[]
  /** Parts of the body in order, for drawing: manifold, seal case, crank end. */
  zones: { key: string; name: string }[]
  positions: Position[]
  parts: Part[]
  fluids: Fluid[]
  kits: ModelKit[]
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

export const modelKinds = ['pump', 'accessory', 'engine', 'motor', 'heater'] as const
export type ModelKind = (typeof modelKinds)[number]

/**
 * Something that differs from unit to unit of one model and is found out once: the housing's variant, the
 * hand of the shaft, the kind of engine. It is kept with the unit; where nobody knows it yet, the sheet asks.
 */
export type Fact = { key: string; name: string; question: string; answers: string[] }

/** Where a step or a use stands only for units of which a fact is known to be so. */
export type OnlyForFact = { key: string; is: string[] } | null

/** Water in the pump end, for winter: how much it holds, and how much of that runs out by itself. */
export type Wet = { litres: number; drains: number; traps: string; source: string }

/** What a person must be qualified for before taking a step; by local codes, not by Atelier. */
export const qualifications = ['electrical', 'lifting', 'ultraHighPressure', 'fuel'] as const
export type Qualification = (typeof qualifications)[number]

/** One size of a family: its name, and where it differs, by paths of keys such as `fasteners.plungerBolt.torque.value`. */
export type Size = { key: string; name: string; differs: Record<string, unknown> }

export type Repeat = {
  key: string
  name: string
  count: number
  labels?: string[]
  /** The look-alike parts of one must never meet those of another: one at a time, whatever the practice. */
  oneAtATime: boolean
  /** Which of another repeat each of these belongs to: valve bores 1 and 2 to head 1. */
  inside: { repeat: string; at: number[] } | null
}

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

export const partUnits = ['piece', 'L', 'mL', 'g'] as const
export type PartUnit = (typeof partUnits)[number]

export type Part = {
  key: string
  name: string
  unit: PartUnit
  synonyms: string[]
  material: string
  /** It can be fitted the wrong way round: every step that fits it says which way. */
  oriented: boolean
  /** Used up from a bottle: in no kit. */
  consumable: boolean
  doubt: string
}

/** Oil and the like: grade, amount, and the mark it is filled to. */
export type Fluid = {
  key: string
  name: string
  position: string
  grade: string
  litres: number
  /** How its level is judged: "to the dot, pump level and cold". */
  level: string
  source: string
  doubt: string
}

/** A kit as the maker sells it: pieces for so many positions, which need not match the pump. */
export type ModelKit = {
  key: string
  name: string
  makersNumber: string
  holds: { part: string; quantity: number }[]
}

export type Tool = {
  key: string
  name: string
  /** Few and shared: a visit reserves it. */
  special: boolean
  /** Goes in and must come out: counted back before closing. */
  temporary: boolean
  removalOnly: boolean
  /** A torque wrench: which one, the company's register says, by range and calibration. */
  torqueWrench: boolean
  /** Taken along in case it is needed: an extractor for a seal that stays behind. */
  contingency: boolean
}

export const treatmentKinds = [
  'none',
  'dry',
  'threadLubricant',
  'threadlocker',
  'sealant',
  'assemblyLubricant',
  'siliconeGrease',
  'grease',
  'oil',
] as const

export type Treatment = {
  /** `none`: nothing is stated. `dry` is stated. */
  kind: (typeof treatmentKinds)[number]
  product: string
  amount: string
  /** Where it goes: "on the rod end", "lip and outer wall". */
  surface: string
  /** Of a locker or sealant: 0 where it is stated that there is nothing to wait for, as with tape. */
  setsMinutes: number | null
  curesMinutes: number | null
  /** What one application takes, and which of the model's parts it is taken from; null: not known. */
  takes: { quantity: number; unit: 'mL' | 'g'; part: string | null } | null
}

export const patterns = ['crissCross', 'centreOut', 'asNumbered', 'single', 'notStated'] as const
export type Pattern = (typeof patterns)[number]

export type Fastener = {
  key: string
  name: string
  count: number
  torque: Torque
  treatment: Treatment
  /** `notStated`: the company's practice says. */
  pattern: Pattern
  /** Where each bolt sits, in millimetres from the plate's middle, in the maker's own numbering. */
  layout: { x: number; y: number }[]
  /** Tighten the first one again at the end. */
  retapFirst: boolean
  /** All are run in by hand before the first stage. */
  snugFirst: boolean
  /** Bolts whose places guide pins take: they go in last, in a small pass of their own (`Step.places`). */
  pinned: number[]
  /** The practice that decides the treatment where the manual states none. */
  treatedBy: PracticeKey | null
  /** Where a crow-foot or extension is needed: its length along the wrench, in millimetres. */
  extensionMm: number | null
  /** Looked at once more with the wrench after the first run; never where locker has set. */
  recheck: boolean
  doubt: string
}

export type AccessNode = {
  key: string
  name: string
  /** Null for what opens straight from the pump made safe on its machine. */
  parent: string | null
  /** Other nodes that must be open before this one, besides its parent. */
  needs: string[]
  repeat: string | null
  /** Only opened where this practice is chosen so; otherwise the way leads past it. */
  practice: { key: PracticeKey; is: string[] } | null
  openMinutes: number
  closeMinutes: number
  open: Step[]
  close: Step[]
  /** What lies in the bore, innermost first. */
  stack: StackItem[]
  /** What the inner end of the bore is nearest to, so that the stack is drawn in its lasting frame. */
  innermost: 'pressure' | 'crankcase' | null
  /** What is built on the bench first, and fitted as one; one of them may be a piece of another. */
  bench: { key: string; name: string; of: string[] }[]
  /** What opening destroys or unseats. */
  consumes: (Use & { practice: PracticeKey | null })[]
  /** Positions that opening destroys or unseats, and what becomes of them. */
  disturbs: { position: string; rule: 'renew' | 'onCondition' | 'keep'; why: string }[]
}

export type StackItem = { part: string; pieces: number; orientation: Orientation | null; note: string }

/**
 * So much of a part at a spot; two tasks that need it at the same spot use it once. `onCondition`: taken
 * along, and used only where something is found so.
 */
export type Use = {
  part: string
  quantity: number
  spot: string
  rule: 'always' | 'onCondition'
  fact: OnlyForFact
}

export type Limit = {
  hours: number | null
  days: number | null
  firstHours: number | null
  firstDays: number | null
}

/**
 * `condition`: it looks at every position and renews only what is found bad. Looking has a clock of its
 * own; only a renewal begins a new life.
 */
export const taskKinds = ['renew', 'inspect', 'change', 'adjust', 'condition'] as const
export type TaskKind = (typeof taskKinds)[number]

export type Task = {
  key: string
  name: string
  kind: TaskKind
  /** The node that must be open for it; null: nothing needs opening. */
  at: string | null
  /** Of work on condition: the node further in that is opened only for what is found bad; null: none. */
  renewsAt: string | null
  /** What it renews, or looks at. */
  positions: string[]
  limit: Limit
  /** Shares of the limit: how early costs only wasted life, how late only risk. */
  tolerance: { early: number; late: number }
  /** For each position instance. */
  minutes: number
  steps: Step[]
  uses: Use[]
  /** Who may do it at all; null: anybody trained on the pump. */
  qualification: Qualification | null
  /** Ways of doing it: swap the assembly, or strip, inspect and rebuild it. Empty: there is one way. */
  paths: TaskPath[]
}

/** One way of doing a task: its steps come after the task's own, its minutes and uses on top of them. */
export type TaskPath = {
  key: string
  name: string
  minutes: number
  /** `always`: a new life begins. `onCondition`: only where the finding says so; reuse restarts nothing. */
  renews: 'always' | 'onCondition'
  /** Chosen by this choice of a practice. */
  practice: { key: PracticeKey; choice: string } | null
  steps: Step[]
  uses: Use[]
}

export type Phase =
  | 'makeSafe'
  | 'stripDown'
  | 'inspect'
  | 'renew'
  | 'rebuild'
  | 'prove'
  // Of winter work, which no model states: `secure` is making safe after a run.
  | 'run'
  | 'secure'
  | 'drain'
  | 'protect'
  | 'finish'

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
  'cup',
  'tip',
] as const
export const orientationTowards = [
  'pressure',
  'crankcase',
  'motor',
  'cap',
  'pump',
  'slot',
  'flow',
  'againstFlow',
  'eitherWay',
  'asItCameOut',
] as const

/** In a frame that survives the bench: a face of the part, and what it points towards; never "up". */
export type Orientation = {
  face: (typeof orientationFaces)[number]
  towards: (typeof orientationTowards)[number]
}

export type Step = {
  key: string
  text: string
  phase: Phase
  /** A tick for each cylinder, bore, screw or hose; "repeat for the others" is never one tick. */
  repeat: string | null
  tools: string[]
  part: string | null
  orientation: Orientation | null
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
  /** It only runs the bolts in until they touch: no torque is pulled yet. */
  snug: boolean
  /** Which of the fastener's places: those free of guide pins, those the pins took, or all. */
  places: 'all' | 'free' | 'pinned'
  crank: string
  photo: boolean
  people: number
  /** Minutes of the second person, where the step needs one for only a part of the work. */
  helperMinutes: number | null
  qualification: Qualification | null
  /** Heavy or awkward: how it is lifted. */
  lift: string
  /** Must be confirmed before anything after it. */
  gate: boolean
  /** Only where the answer to an earlier question is this, or one of these. */
  when: { question: string; is: string | string[] } | null
  asks: { question: string; answers: string[] } | null
  /** Only where this practice is chosen so. */
  practice: { key: PracticeKey; is: string[] } | null
  /** Only for units that are so. */
  fact: OnlyForFact
  /** Only at these of what it repeats with; empty: at all. */
  only: number[]
  /** To be done together with the next step: turn the shaft while drawing the halves together. */
  withNext: boolean
  /** A temporary tool that goes in, or comes out. */
  temporary: { tool: string; goes: 'in' | 'out' } | null
  /** An adjustment that is noted before it is disturbed, and put back afterwards. */
  setting: { what: string; goes: 'noted' | 'putBack' } | null
  /**
   * Closing: the position whose piece goes in here. The step itself puts back what came out; where the job
   * renews the position, the renewing steps of its task stand in this place instead.
   */
  lays: string | null
  /** What is closed here slides over the pieces at this position: they are lubricated before. */
  slidesOver: string | null
  /** Oil or the like that runs out here, or is filled again. */
  fluid: { position: string; goes: 'out' | 'in' } | null
  /** What is cleaned here; old locker leaves both threads before new locker goes on. */
  cleans: 'threads' | 'seats' | 'bores' | null
  /** A bench sub-assembly of its node that is built here, or fitted here as one. */
  builds: string | null
  fits: string | null
  /** Where everybody's own lock goes on, and where each comes off again before energising. */
  locks: 'on' | 'off' | null
  undo: string
  media: string
  doubt: string
  /** Added by the company; the manual does not say it. */
  own: boolean
}
