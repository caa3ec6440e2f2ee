'use server'

import type { ReadingInput, ReplacedInput, SkipInput } from '@/core/hours'
import * as round from '@/services/round'
import { act } from '../../access/act'

export async function recordInRound(input: ReadingInput) {
  return act((actor) => round.recordInRound(actor, input))
}
export async function recordReplaced(input: ReplacedInput) {
  return act((actor) => round.recordReplaced(actor, input))
}
export async function undoInRound(readingId: string) {
  return act((actor) => round.undoInRound(actor, readingId))
}
export async function skipInRound(input: SkipInput) {
  return act((actor) => round.skipInRound(actor, input))
}
