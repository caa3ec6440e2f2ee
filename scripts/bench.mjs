// npm run bench: measures; asserts nothing.
import { readdirSync } from 'node:fs'
import { ensurePackages, runTypeScript, say } from './lib.mjs'

await ensurePackages()
const wanted = process.argv.slice(2)
const benches = readdirSync('tests/bench').filter((file) => file.endsWith('.bench.ts'))
for (const file of benches.filter(
  (name) => wanted.length === 0 || wanted.some((word) => name.includes(word)),
)) {
  say(`bench ${file}`)
  const code = await runTypeScript(`tests/bench/${file}`)
  if (code !== 0) process.exit(code)
}
