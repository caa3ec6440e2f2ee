import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { v7 as uuid } from 'uuid'
import type { SentEntry } from '@/core/sheets'

export type Author = { id: string; name: string }

/**
 * An entry that waits on this device: who made it, and why the server would not have it, if so. What was
 * kept before entries had an author has none (`authorId` blank) until somebody says whose it is.
 */
export type Queued = SentEntry & { sheetId: string; authorName: string; refused: string }

/** A photo that waits with its entry until both have reached the server. */
export type WaitingPhoto = { id: string; sheetId: string; name: string; blob: Blob }

type Store = DBSchema & {
  photos: { key: string; value: WaitingPhoto }
  outbox: { key: string; value: Queued; indexes: { sheet: string } }
  /** One tablet in two people's hands is two devices: neither has seen what the other has not sent. */
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
  private devices = new Map<string, { id: string; seq: number }>()

  /** Opens it; where the browser allows no database it keeps things in memory, and `lasting` is false. */
  static async open(): Promise<Outbox> {
    try {
      const db = await openDB<Store>('atelier', 3, {
        async upgrade(fresh, from, _to, work) {
          if (from < 1) {
            fresh.createObjectStore('outbox', { keyPath: 'id' }).createIndex('sheet', 'sheetId')
            fresh.createObjectStore('device', { keyPath: 'name' })
          }
          if (from < 2) fresh.createObjectStore('photos', { keyPath: 'id' })
          if (from >= 1 && from < 3) {
            const store = work.objectStore('outbox')
            for (const entry of await store.getAll())
              await store.put({ ...entry, authorId: '', authorName: '' })
          }
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

  /** What waits for one sheet, or for all of them, in the order it was written. */
  async waiting(sheetId?: string): Promise<Queued[]> {
    const all = this.db
      ? await (sheetId === undefined
          ? this.db.getAll('outbox')
          : this.db.getAllFromIndex('outbox', 'sheet', sheetId))
      : [...this.kept.values()].filter((entry) => sheetId === undefined || entry.sheetId === sheetId)
    return all.sort((a, b) => a.deviceTime.localeCompare(b.deviceTime) || a.deviceSeq - b.deviceSeq)
  }

  /** Numbers an entry and keeps it, in one step: two tabs never share a number. */
  async add(
    entry: Omit<Queued, 'id' | 'deviceId' | 'deviceSeq' | 'refused' | 'authorId' | 'authorName'>,
    author: Author,
  ): Promise<Queued> {
    const made = { ...entry, id: uuid(), authorId: author.id, authorName: author.name, refused: '' }
    if (!this.db) {
      const known = this.devices.get(author.id)
      const device = { id: known?.id ?? uuid(), seq: (known?.seq ?? 0) + 1 }
      this.devices.set(author.id, device)
      const queued = { ...made, deviceId: device.id, deviceSeq: device.seq }
      this.kept.set(queued.id, queued)
      return queued
    }
    const work = this.db.transaction(['device', 'outbox'], 'readwrite')
    const name = `author ${author.id}`
    const known = await work.objectStore('device').get(name)
    const device = { name, id: known?.id ?? uuid(), seq: (known?.seq ?? 0) + 1 }
    const queued = { ...made, deviceId: device.id, deviceSeq: device.seq }
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

  async markRefused(id: string, refused: string): Promise<void> {
    await this.change([id], { refused })
  }

  /** Says whose some entries are that were kept before entries had an author. */
  async claim(ids: string[], author: Author): Promise<void> {
    await this.change(ids, { authorId: author.id, authorName: author.name, refused: '' })
  }

  private async change(ids: string[], values: Partial<Queued>): Promise<void> {
    for (const id of ids) {
      const entry = this.db ? await this.db.get('outbox', id) : this.kept.get(id)
      if (!entry) continue
      const changed = { ...entry, ...values }
      if (this.db) await this.db.put('outbox', changed)
      else this.kept.set(id, changed)
    }
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
