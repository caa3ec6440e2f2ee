'use server'

import type { EarlyCheckInput, SettleSignInput } from '@/core/inspection'
import type { HandInput, SnoozeInput } from '@/core/plan'
import * as earlyChecks from '@/services/wear'
import * as marks from '@/services/plan'
import * as signs from '@/services/inspection'
import { act } from '../../access/act'

export async function snooze(input: SnoozeInput) {
  return act((actor) => marks.snooze(actor, input))
}
export async function handOn(input: HandInput) {
  return act((actor) => marks.handOn(actor, input))
}
export async function clearMark(id: string) {
  return act((actor) => marks.clearMark(actor, id))
}
export async function settleSign(input: SettleSignInput) {
  return act((actor) => signs.settleSign(actor, input))
}
export async function recordEarlyCheck(input: EarlyCheckInput) {
  return act((actor) => earlyChecks.recordEarlyCheck(actor, input))
}
