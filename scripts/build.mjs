// npm run build: the production build, where the sources changed.
import { ensureBuild, ensurePackages } from './lib.mjs'

await ensurePackages()
await ensureBuild()
