import { readFileSync } from 'node:fs'
import path from 'node:path'
import { sealData } from 'iron-session'
import type { CookieData } from 'puppeteer-core'
import sqlite3 from 'sqlite3'
import { v7 as uuid } from 'uuid'
import type { SessionContent } from '@/services/access'

/**
 * The cookie of somebody who has signed in at a server on these data, so that a test which is about something
 * else need not go through the sign-in page; that page has its own tests.
 */
export async function cookieOf(folder: string, signInName: string): Promise<CookieData> {
  const { id: personId, sessionEpoch: epoch } = await personCalled(
    path.join(folder, 'atelier.sqlite'),
    signInName,
  )
  const content: SessionContent = { id: uuid(), personId, epoch, startedAt: Date.now() }
  const password = readFileSync(path.join(folder, 'session-secret'), 'utf8').trim()
  const value = await sealData(content, { password, ttl: 86_400 })
  return { name: 'atelier', value, domain: 'localhost', path: '/', httpOnly: true, sameSite: 'Strict' }
}

function personCalled(file: string, signInName: string): Promise<{ id: string; sessionEpoch: number }> {
  return new Promise((resolve, reject) => {
    const database = new sqlite3.Database(file, sqlite3.OPEN_READONLY)
    database.get(
      'SELECT id, "sessionEpoch" FROM people WHERE "signInName" = ?',
      [signInName],
      (error: Error | null, row: { id: string; sessionEpoch: number } | undefined) => {
        database.close()
        if (row) resolve(row)
        else reject(error ?? new Error(`Nobody signs in as ${signInName}.`))
      },
    )
  })
}
