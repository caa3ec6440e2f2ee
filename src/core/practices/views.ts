import type { Practice, PracticeChoice, PracticeKey } from './catalogue'
import type { Product } from './resolve'

export type ChosenView = {
  choice: string
  reason: string
  product: Product | null
  by: string
  day: string
  version: number
}

export type PracticeView = Omit<Practice, 'choices' | 'key'> & {
  key: PracticeKey
  choices: PracticeChoice[]
  /** Null while nobody chose: the default then holds. */
  chosen: ChosenView | null
  overrides: (ChosenView & { modelId: string; model: string })[]
  /** Models whose manual says what is done: the company's choice does not reach them. */
  manuals: { model: string; choice: string; source: string }[]
}

export type PracticesPage = { practices: PracticeView[]; models: { value: string; label: string }[] }
