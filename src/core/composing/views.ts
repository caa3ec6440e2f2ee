import type { CompanyPractices } from '../practices'
import type { PumpModel } from '../models'
import type { Wrench } from '../torque'
import type { Renewals } from '../wear'
import type { UnitFacts } from './practised'

/** What composing on one pump needs in the browser. */
export type ComposePage = {
  modelId: string
  modelVersion: number
  model: PumpModel
  practices: CompanyPractices
  wrenches: Wrench[]
  /** What serves as each part of the model, and how much of it nobody has reserved until today. */
  stock: { part: string; number: string; bin: string; free: number }[]
  specialTools: {
    number: string
    name: string
    serves: string[]
    count: number
    place: string
    taken: { number: string; day: string; yard: string }[]
  }[]
  /** What is known of this pump, as far as its model asks. */
  facts: UnitFacts
  /** Of each task on condition: how often it was looked at, and renewed. */
  renewals: Record<string, Renewals>
  settled: { words: string; answer: string }[]
}
