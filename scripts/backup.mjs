// npm run backup: one archive of the company in ATELIER_DATA (./data by default).
import path from 'node:path'
import { ensurePackages, root, runTypeScript } from './lib.mjs'

await ensurePackages()
const env = { ATELIER_DATA: path.resolve(root, process.env.ATELIER_DATA ?? 'data') }
process.exit(await runTypeScript('scripts/backup.ts', process.argv.slice(2), { env }))
