import type { VerdictKind } from '@/core/hours'

/** Verdicts as a person says them, at the head of the judge's own sentence. */
export const verdictWords: Record<VerdictKind, string> = {
  first: 'First reading',
  fits: 'Fits',
  high: 'High',
  low: 'Low',
  impossible: 'Cannot be',
  slip: 'Looks like a slip',
  newMeter: 'Looks like a new meter',
  rollOver: 'May have gone through zero',
}
