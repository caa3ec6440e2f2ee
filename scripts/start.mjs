// npm start: a company's own data, from ATELIER_DATA (./data by default).
import path from 'node:path'
import { ensureBuild, ensurePackages, requireFreePort, root, say, serve } from './lib.mjs'

const port = Number(process.env.PORT ?? 3000)
const folder = path.resolve(root, process.env.ATELIER_DATA ?? 'data')

await requireFreePort(port, 'npm start')
await ensurePackages()
await ensureBuild()
const code = await serve({
  port,
  env: { ATELIER_DATA: folder },
  ready: () => say(`running on http://localhost:${port}, data in ${folder}. Ctrl+C ends it.`),
})
process.exit(code)
