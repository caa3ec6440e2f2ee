import 'server-only'
import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'
import { slowDown } from '@/core/problem'

const cost: ScryptOptions = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }
const keyLength = 32

/** Hashing takes a thread of the pool that the database works in: one at a time leaves it the others. */
const mostWaiting = 40
const globals = globalThis as unknown as { atelierHashing?: { last: Promise<unknown>; waiting: number } }

/** @throws `slowDown` where too many wait already */
async function derive(password: string, salt: Buffer): Promise<Buffer> {
  const queue = (globals.atelierHashing ??= { last: Promise.resolve(), waiting: 0 })
  if (queue.waiting >= mostWaiting)
    throw slowDown('Too many people are signing in. Try again in a moment.', 5)
  queue.waiting += 1
  const own = queue.last.then(() => hash(password, salt))
  queue.last = own.catch(() => undefined)
  try {
    return await own
  } finally {
    queue.waiting -= 1
  }
}

function hash(password: string, salt: Buffer): Promise<Buffer> {
  return new Promise((resolve, reject) =>
    scrypt(password.normalize('NFKC'), salt, keyLength, cost, (error, key) =>
      error ? reject(error) : resolve(key),
    ),
  )
}

/** A salted scrypt hash as one line of text: `scrypt$<salt>$<key>`, both base64. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password, salt)
  return `scrypt$${salt.toString('base64')}$${key.toString('base64')}`
}

/** Whether a password is the one that was hashed. Takes as long for an unknown person as for a known one. */
export async function isPassword(password: string, hash: string | null): Promise<boolean> {
  const [, salt = '', key = ''] = (hash ?? `scrypt$${'A'.repeat(22)}==$`).split('$')
  const derived = await derive(password, Buffer.from(salt, 'base64'))
  const expected = Buffer.from(key, 'base64')
  return expected.length === derived.length && timingSafeEqual(expected, derived)
}
