// npm run restore: the company in ATELIER_DATA (./data by default) put back from an archive.
import path from 'node:path'
import { ensurePackages, root, runTypeScript } from './lib.mjs'

await ensurePackages()
const env = { ATELIER_DATA: path.resolve(root, process.env.ATELIER_DATA ?? 'data') }
process.exit(await runTypeScript('scripts/restore.ts', process.argv.slice(2), { env }))
