// npm test: types, lint, layer rules, then unit, service and e2e tests. The last line counts them all.
import { Buffer } from 'node:buffer'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { performance } from 'node:perf_hooks'
import { bin, ensureBuild, ensureChromium, ensureDemo, ensurePackages, runNode, say } from './lib.mjs'

let passed = 0
let failed = 0
/** Where the time goes: what took how many seconds. */
const took = []
async function timed(name, work) {
  const started = performance.now()
  const result = await work()
  took.push(`${name} ${Math.round((performance.now() - started) / 1000)} s`)
  return result
}

await timed('packages', ensurePackages)

/** One check; two lanes run at once, so what it says is told in one piece when it is done. */
async function step(name, file, args) {
  const said = []
  const code = await timed(name, () =>
    runNode([bin(file), ...args], { stdio: ['ignore', 'pipe', 'pipe'], said }),
  )
  say(`${name} ${code === 0 ? 'hold' : 'do not hold'}`)
  if (said.length > 0 && code !== 0) console.log(Buffer.concat(said).toString())
  if (code === 0) passed += 1
  else failed += 1
}

async function jest(projects, extra = [], env = {}) {
  const name = projects.join(' and ')
  say(`${name} tests …`)
  const folder = mkdtempSync(path.join(tmpdir(), 'atelier-results-'))
  const file = path.join(folder, 'results.json')
  const args = ['--selectProjects', ...projects, '--json', `--outputFile=${file}`, ...extra]
  const code = await timed(`${name} tests`, () =>
    runNode([bin('jest/bin/jest.js'), ...args], { stdio: ['ignore', 'ignore', 'inherit'], env }),
  )
  try {
    const results = JSON.parse(readFileSync(file, 'utf8'))
    passed += results.numPassedTests
    // A file that could not run at all counts as one failure.
    failed += results.numFailedTests + results.numRuntimeErrorTestSuites
    if (code !== 0 && results.numFailedTests + results.numRuntimeErrorTestSuites === 0) failed += 1
  } catch {
    failed += 1
  }
  rmSync(folder, { recursive: true, force: true })
}

// What the checks found out about files that have not changed since.
const kept = 'node_modules/.cache/atelier'
let demo = ''
let chromium = ''

say('types and the build; the demo company, lint, formatting and layer rules …')
/** What stands by itself, the longest first. */
const others = [
  async () => {
    chromium = await ensureChromium()
    // Made once for all browser tests, each works on its own copy.
    demo = await timed('demo company', () =>
      ensureDemo('2026-10-14', { stdio: ['ignore', 'ignore', 'inherit'] }),
    )
  },
  () =>
    step('lint rules', 'eslint/bin/eslint.js', [
      '.',
      ...['--cache', '--cache-strategy', 'content', '--cache-location', `${kept}/lint`],
    ]),
  () =>
    step('formatting rules', 'prettier/bin/prettier.cjs', [
      ...['--check', '--log-level', 'warn'],
      ...['--cache', '--cache-strategy', 'content', '--cache-location', `${kept}/formatting`],
      '.',
    ]),
  () =>
    step('layer rules', 'dependency-cruiser/bin/dependency-cruise.mjs', [
      ...['src', 'scripts'],
      ...['--config', '.dependency-cruiser.cjs'],
    ]),
]
const work = async () => {
  for (let next = others.shift(); next; next = others.shift()) await next()
}
await Promise.all([
  work(),
  (async () => {
    await runNode([bin('next/dist/bin/next'), 'typegen'], { stdio: 'ignore' })
    await step('types', 'typescript/bin/tsc', [
      '--noEmit',
      ...['--project', 'tsconfig.check.json', '--incremental', '--tsBuildInfoFile', `${kept}/types`],
    ])
    await timed('build', ensureBuild)
    await work()
  })(),
])
// Jest leaves a core free by itself; nothing else runs beside these.
await jest(['core', 'services'], ['--maxWorkers=100%'])
await jest(['e2e'], ['--maxWorkers=3'], { CHROMIUM_PATH: chromium, ATELIER_MADE_DEMO: demo })

say(`${took.join(', ')}; ${Math.round(performance.now() / 1000)} s in all`)
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
