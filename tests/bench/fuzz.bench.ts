import { readFileSync, readdirSync, rmSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { checkDatabase } from '@/db/house'
import { demoEnv, makeDemo, startApp } from '../support/app'
import { openBrowser, Person } from '../support/browser'

/**
 * Ten thousand bad requests to every page, route and action, as every role and as nobody: how many were
 * answered with a fault of ours, how long the slowest took, and whether the database is sound afterwards.
 */
const requests = Number(process.env.FUZZ_REQUESTS ?? 10_000)
const atOnce = 6
const root = process.cwd()

// The same requests each time: what was found once is found again.
let seed = 20261014
function random(): number {
  seed = (seed + 0x6d2b79f5) | 0
  let mixed = Math.imul(seed ^ (seed >>> 15), 1 | seed)
  mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
}
const pick = <T>(list: T[]): T => list[Math.floor(random() * list.length)]!

const odd: unknown[] = [
  null,
  '',
  ' ',
  'x'.repeat(5000),
  '1'.repeat(80_000),
  `1${' '.repeat(20_000)}x`,
  0,
  -1,
  1e308,
  true,
  [],
  {},
  '\0',
  '__proto__',
  'constructor',
  '../../etc/passwd',
  '%00',
  '%E0%A4%A',
  '2026-02-30',
  '+275760-09-13',
  "'; DROP TABLE readings; --",
  '<script>alert(1)</script>',
  '00000000-0000-4000-8000-000000000000',
  { id: '00000000-0000-4000-8000-000000000000', version: 1 },
  { id: { $gt: '' }, version: 'x', meterId: [], typed: {}, reason: 'x', decision: 'withdraw' },
  JSON.parse('{"__proto__":{"polluted":1},"id":"__proto__"}') as unknown,
]

function addresses(): string[] {
  const files = readdirSync(path.join(root, 'src/app'), { recursive: true, encoding: 'utf8' })
  return files
    .filter((file) => /(^|\/)(page|route)\.tsx?$/.test(file))
    .map((file) => `/${file}`.replace(/\/\([^)]*\)/g, '').replace(/\/(page|route)\.tsx?$/, '') || '/')
}

/** Each action's number, and what it is called in the code. */
const actionNames = () =>
  Object.fromEntries(
    Object.entries(
      (
        JSON.parse(readFileSync(path.join(root, '.next/server/server-reference-manifest.json'), 'utf8')) as {
          node: Record<string, { exportedName: string }>
        }
      ).node,
    ).map(([id, { exportedName }]) => [id, exportedName]),
  )

async function main() {
  const data = mkdtempSync(path.join(tmpdir(), 'atelier-fuzz-'))
  await makeDemo(data)
  const app = await startApp(data, demoEnv)
  const browser = await openBrowser()
  const cookies = ['']
  for (const role of ['coordinator', 'technician', 'viewer'] as const) {
    const person = await Person.at(browser, app.url)
    await person.signInAs(role)
    const own = await person.page.browserContext().cookies()
    cookies.push(own.map(({ name, value }) => `${name}=${value}`).join('; '))
  }
  await browser.close()

  const [all, named] = [addresses(), actionNames()]
  const ids = Object.keys(named)
  const words = () => encodeURIComponent(String(pick(odd)).slice(0, 300)).replaceAll('%25', '%')
  const place = () => pick(all).replace(/\[[^\]]+\]/g, () => pick(['T-04', 'P-04', 'x', words()]) || 'x')
  const counts = new Map<number, number>()
  const faults: string[] = []
  const slow: [number, string][] = []
  let sent = 0
  async function one(nth: number) {
    const headers: Record<string, string> = {
      cookie: pick(cookies),
      origin: pick([app.url, app.url, 'http://elsewhere.example']),
    }
    const kind = random()
    const address = `${place()}?${new URLSearchParams({ week: String(pick(odd)).slice(0, 200), after: String(pick(odd)).slice(0, 40), id: String(pick(odd)).slice(0, 80), format: 'csv' })}`
    const body = JSON.stringify(kind < 0.6 ? [pick(odd), pick(odd)] : pick(odd))
    const action = kind < 0.6
    if (action) {
      headers['next-action'] = pick(ids)
      headers['content-type'] = 'text/plain;charset=UTF-8'
    } else headers['content-type'] = 'application/json'
    const method = action ? 'POST' : pick(['GET', 'GET', 'POST', 'PUT', 'DELETE'])
    const started = performance.now()
    const answer = await fetch(app.url + address, {
      method,
      headers,
      redirect: 'manual',
      ...(method === 'GET' ? {} : { body }),
    }).catch((error: unknown) => ({ status: 0, text: async () => String(error) }))
    await answer.text()
    const took = performance.now() - started
    counts.set(answer.status, (counts.get(answer.status) ?? 0) + 1)
    const what = `#${nth} ${answer.status} ${method} ${address.slice(0, 90)} ${named[headers['next-action'] ?? ''] ?? ''} ${body.slice(0, 60)}`
    if (answer.status === 0 || answer.status >= 500) faults.push(what)
    slow.push([took, what])
  }
  await Promise.all(
    Array.from({ length: atOnce }, async () => {
      while ((sent += 1) <= requests) await one(sent)
    }),
  )
  const logged = (app.output().match(/Something went wrong|TypeError|SequelizeDatabaseError/g) ?? []).length
  await app.stop()
  process.env.ATELIER_DATA = data
  slow.sort((a, b) => b[0] - a[0])
  console.log(`${requests} requests to ${all.length} addresses and ${ids.length} actions, ${atOnce} at once`)
  console.log(
    [...counts]
      .sort(([a], [b]) => a - b)
      .map(([status, count]) => `${status}: ${count}`)
      .join('   '),
  )
  console.log(
    `faults of ours: ${faults.length}; unforeseen in the log: ${logged}; the database: ${await checkDatabase()}`,
  )
  console.log(`over a second: ${slow.filter(([took]) => took > 1000).length}`)
  for (const fault of faults.slice(0, 12)) console.log(`  ${fault}`)
  for (const [took, what] of slow.slice(0, 8)) console.log(`  ${took.toFixed(0)} ms  ${what}`)
  rmSync(data, { recursive: true, force: true })
}

main().then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(error)
    process.exit(1)
  },
)
