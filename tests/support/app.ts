import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { cpSync, existsSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import path from 'node:path'
import server from '../../scripts/server.json'

const root = process.cwd()
/** Node.js would not start with a flag that it does not know. */
const known = (flags: string[]) =>
  flags.filter((flag) => spawnSync(process.execPath, [flag, '--eval', '0']).status === 0)
/**
 * A server for tests draws each page a few times: it is not worth its while to keep its heap small, or to have
 * the compiler look for what could be quicker.
 */
const brief = ['--min-semi-space-size=32', '--max-semi-space-size=64', '--interrupt-budget=1000000']

export type RunningApp = {
  url: string
  port: number
  pid: number
  /** Ends the server at once, as a power cut would. */
  kill: () => Promise<void>
  stop: () => Promise<void>
}

/** One that this process has started. */
export type StartedApp = RunningApp & {
  /** Everything the server printed. */
  output: () => string
  isRunning: () => boolean
  /** Has it serve other data, at another time of its clock; for a server that prepares nothing. */
  open: (data: string, today: string) => Promise<void>
}

async function freePort(): Promise<number> {
  return new Promise((resolve) => {
    const probe = createServer()
    probe.listen(0, () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })
}

/** Starts the built application on some data, at a free port or a given one, and waits until it answers. */
export async function startApp(
  data: string,
  env: Record<string, string> = {},
  at?: number,
): Promise<StartedApp> {
  const port = at ?? (await freePort())
  let printed = ''
  const child: ChildProcess = spawn(
    process.execPath,
    [
      ...known(env.ATELIER_LAZY ? brief : server.flags),
      path.join(root, 'node_modules/next/dist/bin/next'),
      ...['start', '--port', String(port)],
    ],
    {
      cwd: root,
      env: { ...process.env, ...server.env, NODE_ENV: 'production', ATELIER_DATA: data, ...env },
      stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
    },
  )
  const ended = new Promise<void>((resolve) => child.on('close', () => resolve()))
  await new Promise<void>((resolve, reject) => {
    const hear = (chunk: Buffer) => {
      printed += String(chunk)
      if (printed.includes('Ready in')) resolve()
    }
    child.stdout!.on('data', hear)
    child.stderr!.on('data', hear)
    child.on('close', () => reject(new Error(`The application did not start:\n${printed}`)))
  })
  const end = (signal: NodeJS.Signals) => async () => {
    child.kill(signal)
    await ended
  }
  // The port is open before start-up has finished: wait for a real answer.
  const url = `http://localhost:${port}`
  for (let answered = false; !answered;) {
    if (child.exitCode !== null) throw new Error(`The application ended:\n${printed}`)
    answered = await fetch(`${url}/sign-in`).then(
      (answer) => answer.ok,
      () => false,
    )
    if (!answered) await new Promise((resolve) => setTimeout(resolve, 100))
  }
  return {
    url,
    port,
    pid: child.pid!,
    output: () => printed,
    kill: end('SIGKILL'),
    stop: end('SIGTERM'),
    isRunning: () => child.exitCode === null && child.signalCode === null,
    open: (folder, today) =>
      new Promise((resolve, reject) => {
        child.once('message', (said: { failed?: string }) =>
          said.failed ? reject(new Error(said.failed)) : resolve(),
        )
        child.send({ folder, today })
      }),
  }
}

/** A folder of its own for some data; gone after `remove`. */
export function dataFolder(): { folder: string; remove: () => void } {
  const folder = mkdtempSync(path.join(tmpdir(), 'atelier-e2e-'))
  return { folder, remove: () => rmSync(folder, { recursive: true, force: true }) }
}

/** Makes the demo company in a folder, as `npm run demo` does; made once a run and copied after that. */
export async function makeDemo(folder: string): Promise<void> {
  // One made before can be named, to save the minute while working on a test.
  const made = process.env.ATELIER_MADE_DEMO ?? path.join(tmpdir(), `atelier-demo-${process.pid}`)
  if (!existsSync(made)) {
    process.once('exit', () => rmSync(made, { recursive: true, force: true }))
    const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs')
    const args = ['--conditions=react-server', tsx, '--conditions=react-server', 'scripts/makeDemo.ts']
    const child = spawn(process.execPath, args, {
      cwd: root,
      env: { ...process.env, ATELIER_DATA: made, ATELIER_TODAY: demoStart },
    })
    let printed = ''
    child.stderr.on('data', (chunk) => (printed += String(chunk)))
    const code = await new Promise((resolve) => child.on('close', resolve))
    if (code !== 0) {
      rmSync(made, { recursive: true, force: true })
      throw new Error(printed)
    }
  }
  cpSync(made, folder, { recursive: true })
}

/** The demo's clock in tests: a fixed instant on its first day, whatever the real time is. */
export const demoStart = '2026-10-14T08:00:00Z'
/** A server for a test draws no page before it is asked for one: most would never be looked at. */
export const demoEnv = { ATELIER_TODAY: demoStart, ATELIER_DEMO: '1', ATELIER_LAZY: '1' }
