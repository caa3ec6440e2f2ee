// npm test: types, lint, layer rules, then unit, service and e2e tests. The last line counts them all.
import { Buffer } from 'node:buffer'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { bin, ensureBuild, ensureChromium, ensurePackages, runNode, runTypeScript, say } from './lib.mjs'

await ensurePackages()
let passed = 0
let failed = 0

/** One check; two lanes run at once, so what it says is told in one piece when it is done. */
async function step(name, file, args) {
  const said = []
  const code = await runNode([bin(file), ...args], { stdio: ['ignore', 'pipe', 'pipe'], said })
  say(`${name} ${code === 0 ? 'hold' : 'do not hold'}`)
  if (said.length > 0 && code !== 0) console.log(Buffer.concat(said).toString())
  if (code === 0) passed += 1
  else failed += 1
}

async function jest(project, extra = [], env = {}) {
  say(`${project} tests …`)
  const folder = mkdtempSync(path.join(tmpdir(), 'atelier-results-'))
  const file = path.join(folder, 'results.json')
  const code = await runNode(
    [bin('jest/bin/jest.js'), '--selectProjects', project, '--json', `--outputFile=${file}`, ...extra],
    {
      stdio: ['ignore', 'ignore', 'inherit'],
      env,
    },
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

const demo = mkdtempSync(path.join(tmpdir(), 'atelier-demo-'))
let chromium = ''

say('types and the build; lint, formatting, layer rules and the demo company …')
await Promise.all([
  (async () => {
    await runNode([bin('next/dist/bin/next'), 'typegen'], { stdio: 'ignore' })
    await step('types', 'typescript/bin/tsc', ['--noEmit', '--project', 'tsconfig.check.json'])
    await ensureBuild()
  })(),
  (async () => {
    await step('lint rules', 'eslint/bin/eslint.js', ['.'])
    await step('formatting rules', 'prettier/bin/prettier.cjs', ['--check', '--log-level', 'warn', '.'])
    await step('layer rules', 'dependency-cruiser/bin/dependency-cruise.mjs', [
      'src',
      'scripts',
      '--config',
      '.dependency-cruiser.cjs',
    ])
    chromium = await ensureChromium()
    // The demo company takes a minute to make: once for all browser tests, each works on its own copy.
    await runTypeScript('scripts/makeDemo.ts', [], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ATELIER_DATA: demo, ATELIER_TODAY: '2026-10-14T08:00:00Z' },
    })
  })(),
])
// Jest leaves a core free by itself; nothing else runs beside these.
await jest('core', ['--maxWorkers=100%'])
await jest('services', ['--maxWorkers=100%'])
await jest('e2e', ['--maxWorkers=3'], { CHROMIUM_PATH: chromium, ATELIER_MADE_DEMO: demo })
rmSync(demo, { recursive: true, force: true })

console.log(`${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
