'use server'

import type { HandInput, SnoozeInput } from '@/core/planning'
import * as marks from '@/services/marks'
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
