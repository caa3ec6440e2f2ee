import type { LeadTime } from '@/core/stores'

/** How long something takes, and whose word that is. */
export function leadWords({ days, from, deliveries }: LeadTime): string {
  return from === 'supplier'
    ? `${days}\u00a0days by its word${deliveries > 0 ? `, ${deliveries} of our own so far` : ''}`
    : `${days}\u00a0days by ${deliveries} of our own deliveries`
}
