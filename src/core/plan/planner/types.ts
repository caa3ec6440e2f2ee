/**
 * What the planner is asked, as plain data. Days are integers, 0 is today; a plan holds the days
 * 0 to `horizonDays - 1`. Minutes are of work, money is in any one unit.
 */
export type PlanProblem = {
  horizonDays: number
  /** What a minute of anybody costs. */
  labourRatePerMinute: number
  /** What a day with a visit costs besides, because the machine stands. */
  downtimeCostPerDay?: number
  crew: PlanCrew[]
  /** Minutes one way between yards; where only one direction is given it holds for both. */
  travelMinutes?: Record<string, Record<string, number>>
  /** Visits that a yard has room for on one day; yards that are not named have room for all. */
  benches?: { yard: string; places: number }[]
  /** Special tools that few of are there; one that is not named is no limit. */
  tools?: { id: string; count: number }[]
  /** Pieces free by each day, all of those before counted in; a part that is not named is no limit. */
  stock?: { part: string; byDay: number[] }[]
  machines: PlanMachine[]
  tasks: PlanTask[]
  /** Booked or pinned: never moved. They use what they use and count in the cost; tasks may join one. */
  fixed?: { machine: string; day: number; crew: string; helpers?: string[]; tasks: string[] }[]
  /** What is planned now and may move, at a cost each. */
  present?: { machine: string; day: number; crew: string; tasks: string[]; moveCost: number }[]
}

export type PlanCrew = {
  id: string
  /** Minutes of work on each day; none beyond the end of the list. */
  minutesByDay: number[]
  skills: string[]
  yard?: string
}

export type PlanMachine = {
  id: string
  yard?: string
  visitFixedCost: number
  /** Days on which it cannot be worked on. */
  blockedDays: number[]
  /** Minutes to open, and close again, each node of its access tree. */
  accessMinutes: Record<string, number>
}

export type PlanTask = {
  id: string
  machine: string
  /** Every node on its path; opened once for all tasks of a visit. */
  access: string[]
  minutes: number
  earliest: number
  /** Its best day; may lie in the past, or after the horizon: then it is done only where that pays. */
  due: number
  latest: number
  earlyCostPerDay: number
  lateCostPerDay: number
  /** What each day costs, where that is no straight line; days that it does not tell follow the two above. */
  costByDay?: number[]
  skill?: string
  tool?: string
  /** More special tools besides. */
  moreTools?: string[]
  /** How many people; the lead is one of them. */
  people?: number
  /** What each helper spends on it; without it, as long as the visit takes. */
  helperMinutes?: number
  /** The first day on which its parts are there. */
  partsFromDay?: number
  parts?: { part: string; quantity: number }[]
  /** Tasks that come before it: on the same visit, or on an earlier day. */
  after?: string[]
  /** Tasks that are done on the same visit. */
  implies?: string[]
  /** Done on day d it comes again with due day d + this, as `id~2`, `id~3`. */
  repeatEveryDays?: number
  /** How far a repeat's window reaches; the first one's reach where not given. */
  earlyDays?: number
  lateDays?: number
  /** For each day from the last time it is done to the end of the horizon. */
  endCostPerDay?: number
}

export type PlannedVisit = {
  machine: string
  day: number
  /** Who leads it. */
  crew: string
  helpers: string[]
  tasks: string[]
  /** One person's, without travel. */
  minutes: number
}

/** The rules that a plan keeps, by the word that answers tell. */
export type PlanRule =
  | 'minutes'
  | 'skill'
  | 'blocked'
  | 'bench'
  | 'tool'
  | 'parts'
  | 'after'
  | 'implies'
  | 'window'
  | 'crew'
  | 'helpers'
  | 'once'
  | 'fixed'
  | 'horizon'
  | 'unknown'

export type PlanViolation = {
  rule: PlanRule
  says: string
  machine?: string
  day?: number
  crew?: string
  task?: string
  tool?: string
  yard?: string
}

export type PlanCost = {
  total: number
  visits: number
  labour: number
  early: number
  late: number
  moves: number
  downtime: number
}

export type Unplaced = {
  task: string
  rule: PlanRule
  /** Which rule stops it, in words. */
  reason: string
}

export type PlanResult = {
  visits: PlannedVisit[]
  unplaced: Unplaced[]
  cost: PlanCost
  /** No plan of the placed tasks costs less than this. */
  lowerBound: number
  /** The cost is the lower bound: there is no better plan. */
  proven: boolean
  /** What the fixed visits break by themselves. */
  fixedFaults: PlanViolation[]
}

export type PlanProgress = {
  /** Steps done, of how many. */
  done: number
  of: number
  /** Of the best plan so far, and the required tasks that it leaves out. */
  cost: number
  unplaced: number
}

export type PlanOptions = {
  /** The same problem and seed give the same plan. */
  seed: number
  onProgress?: (progress: PlanProgress) => void
  /** Asked now and then; once true, the best plan so far is the answer. */
  shouldStop?: () => boolean
  /** How hard it looks, against the usual: 0.1 is a tenth of the steps. */
  effort?: number
}
