// npm run demo: everything from a fresh clone to the demo company in the browser.
import { rmSync } from 'node:fs'
import {
  demoFolder,
  demoToday,
  ensureBuild,
  ensurePackages,
  giveUp,
  requireFreePort,
  runTypeScript,
  say,
  serve,
} from './lib.mjs'

const port = Number(process.env.PORT ?? 3000)
const today = process.env.ATELIER_TODAY ?? demoToday
const env = { ATELIER_DATA: demoFolder, ATELIER_TODAY: today }

await requireFreePort(port, 'npm run demo')
await ensurePackages()
await ensureBuild()
say('making the demo company (about half a minute) …')
rmSync(demoFolder, { recursive: true, force: true })
if ((await runTypeScript('scripts/makeDemo.ts', [], { env })) !== 0)
  giveUp('the demo data could not be made; the reason is above.')

const code = await serve({
  port,
  env: { ...env, ATELIER_DEMO: '1' },
  ready: () => {
    say(`the demo is running on http://localhost:${port} (it is ${today} there). Sign in as`)
    console.log('           coordinator  lindqvist / demo-coordinator')
    console.log('           technician   osei      / demo-technician')
    console.log('           viewer       coyle     / demo-viewing-only')
    say('every start makes it anew; Ctrl+C ends it.')
  },
})
process.exit(code)
