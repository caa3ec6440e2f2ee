import type { StepState, SheetPage, Place } from '@/core/sheets'
import type { SheetHandle } from './useSheet'

/** What every part of a step at the bench is given. */
export type StepProps = {
  sheet: SheetPage
  bench: SheetHandle
  step: StepState
  timeZone: string
  before: Place | null
  go: (to: Place | null) => void
  /** Opens the dialog for more work with these services chosen. */
  more: (start: { assemblyId: string; task: string; positions: string[] } | null) => void
}
