// npm test: types, lint, layer rules, then unit, service and e2e tests. The last line counts them all.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { bin, ensureBuild, ensureChromium, ensurePackages, runNode, runTypeScript, say } from './lib.mjs'

await ensurePackages()
let passed = 0
let failed = 0

async function step(name, file, args) {
  say(`${name} …`)
  const code = await runNode([bin(file), ...args])
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

await runNode([bin('next/dist/bin/next'), 'typegen'], { stdio: 'ignore' })
await step('types', 'typescript/bin/tsc', ['--noEmit', '--project', 'tsconfig.check.json'])
await step('lint', 'eslint/bin/eslint.js', ['.'])
await step('formatting', 'prettier/bin/prettier.cjs', ['--check', '--log-level', 'warn', '.'])
await step('layer rules', 'dependency-cruiser/bin/dependency-cruise.mjs', [
  'src',
  'scripts',
  '--config',
  '.dependency-cruiser.cjs',
])
// Jest leaves a core free by itself; nothing else runs beside these.
await jest('core', ['--maxWorkers=100%'])
await jest('services', ['--maxWorkers=100%'])
await ensureBuild()
const chromium = await ensureChromium()
// The demo company takes a minute to make: once for all browser tests, each works on its own copy.
const demo = mkdtempSync(path.join(tmpdir(), 'atelier-demo-'))
say('the demo company …')
await runTypeScript('scripts/makeDemo.ts', [], {
  stdio: ['ignore', 'ignore', 'inherit'],
  env: { ATELIER_DATA: demo, ATELIER_TODAY: '2026-10-14T08:00:00Z' },
})
await jest('e2e', ['--maxWorkers=2'], { CHROMIUM_PATH: chromium, ATELIER_MADE_DEMO: demo })
rmSync(demo, { recursive: true, force: true })

console.log(`${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
