import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { v7 as uuid } from 'uuid'
import type { SentEntry } from '@/core/sheet'

/** An entry that waits on this device, and why the server would not have it, if so. */
export type Queued = SentEntry & { sheetId: string; refused: string }

/** A photo that waits with its entry until both have reached the server. */
export type WaitingPhoto = { id: string; sheetId: string; name: string; blob: Blob }

type Store = DBSchema & {
  photos: { key: string; value: WaitingPhoto }
  outbox: { key: string; value: Queued; indexes: { sheet: string } }
  device: { key: string; value: { name: string; id: string; seq: number } }
}

/**
 * What was written on this device and has not reached the server yet. It lies in the browser's own
 * database, so that a reload, a dead battery or a server that is away loses nothing.
 */
export class Outbox {
  private constructor(private readonly db: IDBPDatabase<Store> | null) {}
  private kept = new Map<string, Queued>()
  private photos = new Map<string, WaitingPhoto>()
  private device = { id: uuid(), seq: 0 }

  /** Opens it; where the browser allows no database it keeps things in memory, and `lasting` is false. */
  static async open(): Promise<Outbox> {
    try {
      const db = await openDB<Store>('atelier', 2, {
        upgrade(fresh, from) {
          if (from < 1) {
            fresh.createObjectStore('outbox', { keyPath: 'id' }).createIndex('sheet', 'sheetId')
            fresh.createObjectStore('device', { keyPath: 'name' })
          }
          if (from < 2) fresh.createObjectStore('photos', { keyPath: 'id' })
        },
        // A page of an older version must not keep this one from opening.
        blocking: (_now, _next, event) => (event.target as IDBDatabase).close(),
      })
      return new Outbox(db)
    } catch {
      return new Outbox(null)
    }
  }

  get lasting(): boolean {
    return this.db !== null
  }

  async waiting(sheetId: string): Promise<Queued[]> {
    const all = this.db
      ? await this.db.getAllFromIndex('outbox', 'sheet', sheetId)
      : [...this.kept.values()].filter((entry) => entry.sheetId === sheetId)
    return all.sort((a, b) => a.deviceSeq - b.deviceSeq)
  }

  /** Numbers an entry and keeps it, in one step: two tabs never share a number. */
  async add(entry: Omit<Queued, 'id' | 'deviceId' | 'deviceSeq' | 'refused'>): Promise<Queued> {
    if (!this.db) {
      this.device.seq += 1
      const queued = {
        ...entry,
        id: uuid(),
        deviceId: this.device.id,
        deviceSeq: this.device.seq,
        refused: '',
      }
      this.kept.set(queued.id, queued)
      return queued
    }
    const work = this.db.transaction(['device', 'outbox'], 'readwrite')
    const known = await work.objectStore('device').get('self')
    const device = { name: 'self', id: known?.id ?? uuid(), seq: (known?.seq ?? 0) + 1 }
    const queued = { ...entry, id: uuid(), deviceId: device.id, deviceSeq: device.seq, refused: '' }
    await work.objectStore('device').put(device)
    await work.objectStore('outbox').put(queued)
    await work.done
    return queued
  }

  async remove(ids: string[]): Promise<void> {
    for (const id of ids) {
      this.kept.delete(id)
      await this.db?.delete('outbox', id)
    }
  }

  async markRefused(id: string, message: string): Promise<void> {
    const entry = this.db ? await this.db.get('outbox', id) : this.kept.get(id)
    if (!entry) return
    const marked = { ...entry, refused: message }
    if (this.db) await this.db.put('outbox', marked)
    else this.kept.set(id, marked)
  }

  async keepPhoto(photo: WaitingPhoto): Promise<void> {
    if (this.db) await this.db.put('photos', photo)
    else this.photos.set(photo.id, photo)
  }

  async photo(id: string): Promise<WaitingPhoto | null> {
    return (this.db ? await this.db.get('photos', id) : this.photos.get(id)) ?? null
  }

  async dropPhoto(id: string): Promise<void> {
    this.photos.delete(id)
    await this.db?.delete('photos', id)
  }
}
