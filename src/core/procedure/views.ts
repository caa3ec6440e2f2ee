import type { CompanyPractices } from '../practices'
import type { PumpModel } from '../pump'
import type { Wrench } from '../torque'

/** What composing on one pump needs in the browser. */
export type ComposePage = {
  modelId: string
  modelVersion: number
  model: PumpModel
  practices: CompanyPractices
  wrenches: Wrench[]
  stock: { part: string; number: string; bin: string; onHand: number }[]
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
