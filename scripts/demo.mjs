// npm run demo: everything from a fresh clone to the demo company in the browser.
import { demoToday, ensureBuild, ensurePackages, freshDemo, requireFreePort, say, serve } from './lib.mjs'

const port = Number(process.env.PORT ?? 3000)
const today = process.env.ATELIER_TODAY ?? demoToday

await requireFreePort(port, 'npm run demo')
await ensurePackages()
await ensureBuild()
const env = { ATELIER_DATA: await freshDemo(today), ATELIER_TODAY: today }

const code = await serve({
  port,
  env: { ...env, ATELIER_DEMO: '1' },
  ready: () => {
    say(`the demo is running on http://localhost:${port} (it is ${today} there). Sign in as`)
    console.log('           coordinator  lindqvist / demo-coordinator')
    console.log('           technician   osei      / demo-technician')
    console.log('           viewer       coyle     / demo-viewing-only')
    say('every start begins with a fresh copy of it; Ctrl+C ends it.')
  },
})
process.exit(code)
