// npm run dev: the application with live reloading, on its own data or on ATELIER_DATA.
import { bin, ensurePackages, requireFreePort, runNode, say } from './lib.mjs'

const port = Number(process.env.PORT ?? 3000)
await requireFreePort(port, 'npm run dev')
await ensurePackages()
say(`developing on http://localhost:${port}; every piece of the interface is on /styleguide.`)
process.exit(
  await runNode([bin('next/dist/bin/next'), 'dev', '--port', String(port)], {
    env: { NEXT_TELEMETRY_DISABLED: '1' },
  }),
)
