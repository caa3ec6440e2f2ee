// npm run shots: takes the pictures in docs/screenshots anew, from fresh demo data.
import { ensureBuild, ensureChromium, ensurePackages, runTypeScript } from './lib.mjs'

await ensurePackages()
await ensureBuild()
const chromium = await ensureChromium()
process.exit(
  await runTypeScript('scripts/shots.ts', process.argv.slice(2), { env: { CHROMIUM_PATH: chromium } }),
)
