import 'server-only'
import type { WinterRow } from '@/core/winter'
import { kept } from '@/db/house'
import { now } from '../house'
import { loadBasis, watchKeeps } from './campaign'
import { rowOf } from './rows'

/** Machines that the outlook threatens, and those that work on and were not confirmed: for the morning. */
export function frostWatch(): Promise<WinterRow[]> {
  return kept(`frost watch ${Math.floor(Date.parse(now()) / watchKeeps)}`, loadWatch)
}

async function loadWatch(): Promise<WinterRow[]> {
  const basis = await loadBasis()
  return basis.machines
    .map((each) => rowOf(basis, each, null))
    .filter(
      ({ alarm, evening, state }) =>
        alarm !== null || evening?.wanted === true || state === 'void' || state === 'exposed',
    )
}
