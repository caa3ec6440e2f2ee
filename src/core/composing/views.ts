import type { CompanyPractices } from '../practices'
import type { PumpModel } from '../models'
import type { Wrench } from '../torque'

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
  settled: { words: string; answer: string }[]
}
