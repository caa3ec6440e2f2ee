import { readFileSync } from 'node:fs'
import type { CompanyPractices } from '@/core/practices'
import { composeSheet, type ChosenTask } from '@/core/composing'
import { parsePumpModel, type PumpModel } from '@/core/models'
import {
  openedPlaces,
  refusal as refusalOf,
  sheetPositions,
  sheetState,
  type Done,
  type EntryKind,
  type Finding,
  type Payloads,
  type SheetContent,
  type SheetEntry,
  type SheetState,
} from '@/core/sheets'
import { plainFinding } from '../../support/finding'

export const readModel = (file: string): PumpModel =>
  parsePumpModel(JSON.parse(readFileSync(`src/demo/models/${file}.json`, 'utf8')))
export const triplex = readModel('ostrel-p3-200')

/** What a sheet of one pump would be opened with, as the service composes it. */
export function contentFor(
  model: PumpModel,
  tasks: ChosenTask[],
  practices?: CompanyPractices,
): SheetContent {
  const facts = { drive: 'diesel' }
  const composed = composeSheet({ assemblies: [{ id: 'pump', model, tasks, facts }] }, practices)
  return {
    trigger: 'planned',
    trouble: '',
    stripOrder: 'itemByItem',
    meters: [{ id: 'meter', name: 'Engine hours', unit: 'h' }],
    assemblies: [
      {
        id: 'pump',
        number: 'P-04',
        title: `${model.maker} ${model.name}`,
        serial: '20917',
        unit: 'h',
        modelId: 'model',
        modelVersionId: 'version',
        modelVersion: 1,
        notice: model.notice,
        tasks: [...tasks, ...composed.implied].map(({ task: key, positions }) => {
          const task = model.tasks.find((each) => each.key === key)!
          return { task: key, name: task.name, kind: task.kind, positions, where: '' }
        }),
        positions: sheetPositions(model),
        parts: model.parts,
        fasteners: model.fasteners,
        nodes: openedPlaces(model, composed.steps),
        duties: [],
      },
    ],
    steps: composed.steps,
    parts: composed.parts,
    spares: composed.spares,
    torques: composed.fasteners.map((need) => ({ ...need, wrenches: [] })),
    practices: composed.practices,
    tools: composed.tools,
    minutes: composed.minutes,
  }
}

let count = 0
/** Numbers entries anew from here. */
export const restart = (at = 0) => {
  count = at
}
export const soFar = () => count

export function entry<Kind extends EntryKind>(
  kind: Kind,
  payload: Payloads[Kind],
  more: Partial<SheetEntry<Kind>> = {},
): SheetEntry {
  count += 1
  return {
    id: `entry-${count}`,
    sequence: count,
    deviceId: 'bench',
    deviceSeq: count,
    seenUpTo: count - 1,
    deviceTime: '2026-10-14T08:00:00.000Z',
    at: '2026-10-14T08:00:00.000Z',
    stepKey: null,
    kind,
    payload,
    byId: 'osei',
    byName: 'M. Osei',
    late: false,
    ...more,
  } as SheetEntry
}
export const nothing: Done = { measure: null, torque: null, answer: '', reason: '' }
export const done = (stepKey: string, payload: Partial<Done> = {}, more: Partial<SheetEntry<'done'>> = {}) =>
  entry('done', { ...nothing, ...payload }, { stepKey, ...more })
export const finding = (position: string, more: Partial<Finding> = {}) =>
  entry('finding', plainFinding('pump', position, more))
export const read = () =>
  entry('reading', { meterId: 'meter', typed: '1846.2', unreadable: '', vouched: false })
export const safe = () => entry('madeSafe', { name: 'M. Osei' })
export const lockOn = (name = 'M. Osei') => entry('lock', { name, goes: 'on', reason: '' })
export const fold = (...entries: SheetEntry[]): SheetState => sheetState(entries)!
export const stepLike = (state: SheetState, words: string) =>
  state.steps.find(({ step }) => `${step.key} ${step.step.text}`.includes(words))!

export const refusal = (
  state: SheetState,
  sent: Parameters<typeof refusalOf>[1],
  writing = { byName: 'M. Osei', now: '2026-10-14T08:00:00.000Z' },
) => refusalOf(state, sent, writing)

/** A sheet whose meter is read and whose pump is made safe and locked. */
export const madeSafe = (content: SheetContent) => [
  entry('composed', content),
  read(),
  lockOn(),
  ...content.steps.filter((step) => step.phase === 'makeSafe').map((step) => done(step.key)),
  safe(),
]

/** Everything done up to the step whose key contains the words. */
export function doneUntil(content: SheetContent, words: string): SheetEntry[] {
  const at = content.steps.findIndex(({ key }) => key.includes(words))
  const before = content.steps.slice(0, at).filter(({ phase, step }) => phase !== 'makeSafe' && !step.when)
  return [
    ...madeSafe(content),
    ...before.map((step) => done(step.key, { answer: step.step.asks?.answers[0] ?? '' })),
  ]
}
