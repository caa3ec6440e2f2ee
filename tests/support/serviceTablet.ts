import { v7 as uuid } from 'uuid'
import { sheetState, type SentEntry, type SheetState } from '@/core/sheets'
import type { Actor } from '@/services/house'
import { entriesOf, getSigning, signSheet } from '@/services/sheets'
import { appendEntries, type EntriesAnswer } from '@/services/sheets/bench/entries'
import { BenchTablet } from './tablet'

/** A tablet on one sheet, straight to the service. */
export class Tablet extends BenchTablet<EntriesAnswer> {
  constructor(
    override readonly actor: Actor,
    sheetId: string,
    deviceId?: string,
  ) {
    super(actor, sheetId, deviceId)
  }

  protected takeIn(entries: SentEntry[]): Promise<EntriesAnswer> {
    return appendEntries(this.actor, this.sheetId, entries, this.now())
  }

  async state(): Promise<SheetState> {
    return sheetState(await entriesOf(this.sheetId))!
  }
}

/** Signs a sheet whose work is done, every part having come out as presumed. */
export async function signAsPresumed(actor: Actor, sheetId: string, more: object = {}) {
  const view = await getSigning(actor, sheetId)
  await signSheet(actor, {
    id: uuid(),
    sheetId,
    seenUpTo: view.upTo,
    ended: view.ending.map(({ assemblyId, position, presumed }) => ({
      assemblyId,
      position,
      endReason: presumed,
      seenFailingOn: null,
    })),
    note: '',
    ...more,
  })
  return view
}
