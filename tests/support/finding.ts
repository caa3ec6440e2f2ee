import type { Finding } from '@/core/sheets'

/** A finding of nothing on a seal that is renewed, but for what is said otherwise. */
export const plainFinding = (assemblyId: string, position: string, more: Partial<Finding> = {}): Finding => ({
  assemblyId,
  position,
  what: '',
  sort: 'seal',
  damages: [],
  extent: '',
  disposition: 'renew',
  words: '',
  ...more,
})
