// What the other scripts share. Plain Node only: it runs before anything is installed.
import { spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import {
  cpSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')
export const demoFolder = path.join(root, '.demo-data')
export const demoToday = '2026-10-14'

export const say = (line) => console.log(`Atelier: ${line}`)

/** Ends the script with what is wrong and what to do about it. */
export function giveUp(problem, remedy) {
  console.error(`\nAtelier: ${problem}`)
  if (remedy) console.error(`         ${remedy}`)
  process.exit(1)
}

/** Runs a command to its end; its output goes to the console, or is gathered in `said` where it is piped. */
export function run(command, args, { said = [], ...options } = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      cwd: root,
      stdio: 'inherit',
      ...options,
      env: { ...process.env, ...options.env },
    })
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (chunk) => said.push(chunk))
    child.on('error', () => resolve(127))
    child.on('close', (code) => resolve(code ?? 1))
  })
}

export const runNode = (args, options) => run(process.execPath, args, options)

/** Runs a TypeScript script. The condition makes `server-only` harmless outside Next. */
export const runTypeScript = (script, args = [], options = {}) =>
  runNode(
    ['--conditions=react-server', bin('tsx/dist/cli.mjs'), '--conditions=react-server', script, ...args],
    options,
  )

export const bin = (file) => path.join(root, 'node_modules', file)

const [major, minor] = process.versions.node.split('.').map(Number)

function requireNode() {
  if (major > 20 || (major === 20 && minor >= 19)) return
  giveUp(
    `this is Node.js ${process.versions.node}; Atelier needs 20.19 or newer.`,
    'Install a newer Node.js and run the same command again.',
  )
}

const stampFile = path.join(root, 'node_modules', '.atelier-installed')

/** Installs the packages the lock file names, unless they are there already. */
export async function ensurePackages() {
  requireNode()
  const lock = createHash('sha256')
    .update(readFileSync(path.join(root, 'package-lock.json')))
    .update(process.versions.modules)
    .digest('hex')
  const installed = existsSync(stampFile) && readFileSync(stampFile, 'utf8') === lock
  if (!installed) {
    say('installing packages (a few minutes the first time; sqlite3 may be compiled) …')
    const npm = process.platform === 'win32' ? 'npm.cmd' : 'npm'
    const code = await run(npm, ['ci', '--include=dev', '--no-audit', '--no-fund'])
    if (code !== 0) {
      giveUp(
        'the packages could not be installed; npm’s own words are above.',
        'If it was sqlite3: no ready-made file fits this machine, and compiling it needs Python 3, make and a C++ compiler (Debian: apt-get install python3 make g++).',
      )
    }
  }
  const works = spawnSync(process.execPath, ['-e', 'require("sqlite3")'], { cwd: root })
  if (works.status !== 0) {
    say('compiling sqlite3 for this Node.js (about 3 minutes) …')
    if ((await run('npm', ['rebuild', 'sqlite3'])) !== 0) {
      giveUp(
        'sqlite3 does not load and could not be compiled.',
        'It needs Python 3, make and a C++ compiler (Debian: apt-get install python3 make g++). Then run the same command again.',
      )
    }
  }
  writeFileSync(stampFile, lock)
}

function* filesBelow(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const file = path.join(folder, entry.name)
    if (entry.isDirectory()) yield* filesBelow(file)
    else yield file
  }
}

/** A fingerprint of what some files and folders hold. */
function fingerprint(names) {
  const hash = createHash('sha256')
  for (const name of names) {
    const all = path.join(root, name)
    for (const file of statSync(all).isDirectory() ? [...filesBelow(all)].sort() : [all])
      hash.update(path.relative(root, file)).update(readFileSync(file))
  }
  return hash.digest('hex')
}

/** Builds the application, unless the build is of just these sources. */
export async function ensureBuild() {
  const digest = fingerprint(['src', 'package.json', 'package-lock.json', 'next.config.ts', 'tsconfig.json'])
  const stamp = path.join(root, '.next', 'atelier-build')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return
  say('building the application (about half a minute) …')
  const code = await runNode([bin('next/dist/bin/next'), 'build'], {
    env: { NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  })
  if (code !== 0) giveUp('the application could not be built; the reason is above.')
  mkdirSync(path.dirname(stamp), { recursive: true })
  writeFileSync(stamp, digest)
}

/**
 * The demo company, made where none is kept that was made of just this code for this day, and then kept.
 * @returns the folder it lies in: copy it, and leave it as it is
 */
export async function ensureDemo(today, options = {}) {
  const made = fingerprint([
    ...['core', 'db', 'services', 'demo'].map((layer) => `src/${layer}`),
    ...['scripts/makeDemo.ts', 'package-lock.json'],
  ])
  // It is told up to a day; the time of day is the server's business.
  const day = today.slice(0, 10)
  const name = `${day}-${made.slice(0, 20)}`
  const folder = path.join(demoFolder, name)
  if (existsSync(folder)) return folder
  say('making the demo company (one to two minutes; it is kept for the next time) …')
  const stage = `${folder}.making`
  rmSync(stage, { recursive: true, force: true })
  const env = { ATELIER_DATA: stage, ATELIER_TODAY: today }
  if ((await runTypeScript('scripts/makeDemo.ts', [], { ...options, env })) !== 0)
    giveUp('the demo data could not be made; the reason is above.')
  // Those of other code or other days are of no more use; there in full, or not at all.
  for (const other of readdirSync(demoFolder))
    if (other !== path.basename(stage) && other !== inUse)
      rmSync(path.join(demoFolder, other), { recursive: true, force: true })
  renameSync(stage, folder)
  return folder
}

/** Where the demo works: a copy of the one that is kept. */
const inUse = 'in-use'

/** A fresh copy of the demo company to work with; what was done in the last one is gone. */
export async function freshDemo(today) {
  const made = await ensureDemo(today)
  const folder = path.join(demoFolder, inUse)
  rmSync(folder, { recursive: true, force: true })
  cpSync(made, folder, { recursive: true })
  return folder
}

export async function requireFreePort(port, command) {
  const free = await new Promise((resolve) => {
    const probe = createServer()
    probe.once('error', () => resolve(false))
    probe.listen(port, () => probe.close(() => resolve(true)))
  })
  if (!free)
    giveUp(
      `port ${port} is taken by another program.`,
      `Stop that program, or choose another port: PORT=${port + 1} ${command}`,
    )
}

/**
 * How the server is run. Left to itself the heap of a program that has the machine to itself grows to
 * twice what is in use before it is tidied, and every thread keeps a stock of memory of its own.
 */
const server = JSON.parse(readFileSync(path.join(root, 'scripts/server.json'), 'utf8'))

/** The flags that this Node.js knows: it would not start with one that it does not. */
const knownFlags = () =>
  server.flags.filter((flag) => spawnSync(process.execPath, [flag, '--eval', '0']).status === 0)

/** Starts the built application and stays until it ends. */
export async function serve({ port, env, ready }) {
  const next = [bin('next/dist/bin/next'), 'start', '--port', String(port)]
  const child = spawn(process.execPath, [...knownFlags(), ...next], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, ...server.env, ...env },
  })
  const stop = () => child.kill('SIGTERM')
  process.once('SIGINT', stop)
  process.once('SIGTERM', stop)
  child.stdout.on('data', (data) => {
    const text = String(data)
    for (const line of text.split('\n')) if (line.startsWith('Atelier')) console.log(line)
    if (text.includes('Ready in')) ready()
  })
  return new Promise((resolve) => child.on('close', (code) => resolve(code ?? 0)))
}

export const chromiumPlaces = [
  process.env.CHROMIUM_PATH,
  // Draws nothing to a window, so it needs a seventh less time where it is there.
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
  '/Applications/Chromium.app/Contents/MacOS/Chromium',
  '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
].filter(Boolean)

export const findChromium = () =>
  chromiumPlaces.find((place) => existsSync(place) && statSync(place).isFile())

/** Finds Chromium, installing Debian's where that can be done; otherwise says how. */
export async function ensureChromium() {
  let chromium = findChromium()
  const mayInstall =
    process.platform === 'linux' && process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')
  if (!chromium && mayInstall) {
    say('installing Chromium from Debian …')
    await run('apt-get', ['update', '-qq'])
    for (const name of ['chromium-headless-shell', 'chromium']) {
      await run('apt-get', ['install', '-y', '-qq', name], { env: { DEBIAN_FRONTEND: 'noninteractive' } })
      chromium = findChromium()
      if (chromium) break
    }
  }
  if (!chromium) {
    giveUp(
      'no Chromium was found; the tests drive one.',
      'Install it (Debian: apt-get install chromium) or set CHROMIUM_PATH to a Chromium or Chrome, then run the same command again.',
    )
  }
  return chromium
}
