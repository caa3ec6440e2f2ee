import type { ModelChange } from './changes'
import type { ModelCheck } from './checks'

/** A check of a model; a doubt carries what somebody found out about it. */
export type CheckView = ModelCheck & { settled: { answer: string; by: string; day: string } | null }

/** What publishing some data would do, or why it cannot be. */
export type PublishPreview = {
  /** One sentence by path; empty where the data reads well. */
  faults: { path: string; words: string }[]
  /** One for each size of a family. */
  models: {
    title: string
    /** 0: the library does not have it yet. */
    newest: number
    pumps: number
    /** Visits to come that keep the version they were booked with. */
    openVisits: number
    changes: ModelChange[]
  }[]
  checks: ModelCheck[]
}
