import {
  hoursOrMinutes,
  inSentence,
  indicesOf,
  positionName,
  repeatName,
  titleOf,
  type NodeInstance,
  type PositionKey,
  type PumpModel,
  type Step,
} from '../models'
import { placeOf, type Chosen } from './chosen'
import type { PractisedModel } from './practised'
import type { SheetStep } from './types'
import { outsideIn, type Stretch, type Walk } from './walk'

/** What is composed for one assembly. */
export type Part = { id: string; practised: PractisedModel; walk: Walk }

/**
 * The steps of one assembly. The whole is opened from the outside in; then what goes one at a time, each
 * opened, worked and closed, as soon as it can be reached; the whole's own work goes from the inside
 * out, inspections first; closing is in reverse, so that it never covers what is still to be done.
 */
export function assemblySteps(part: Part): SheetStep[] {
  const { whole, apart } = part.walk
  const at = (level: number) =>
    apart
      .filter((each) => each.level === level)
      .flatMap(({ stretch }) => {
        const name = `${part.id}/${stretch.nodes[0]?.key ?? ''}`
        return stretchSteps(part, stretch).map((step) => ({ ...step, stretch: name }))
      })
  const steps = [
    ...whole.nodes.flatMap((node) => nodeSteps(part, node, 'open')),
    ...workSteps(part, whole),
    ...at(whole.nodes.length),
  ]
  for (let level = whole.nodes.length - 1; level >= 0; level -= 1)
    steps.push(...nodeSteps(part, whole.nodes[level]!, 'close'), ...at(level))
  return steps
}

function stretchSteps(part: Part, stretch: Stretch): SheetStep[] {
  return [
    ...stretch.nodes.flatMap((node) => nodeSteps(part, node, 'open')),
    ...workSteps(part, stretch),
    ...[...stretch.nodes].reverse().flatMap((node) => nodeSteps(part, node, 'close')),
  ]
}

function nodeSteps(part: Part, { node, index, key }: NodeInstance, side: 'open' | 'close'): SheetStep[] {
  const { model } = part.practised
  const where = index === null || node.repeat === null ? '' : repeatName(model, node.repeat, index)
  // The practised model's node, whose steps are those of the chosen practices.
  const own = model.access.find((each) => each.key === node.key) ?? node
  const list = side === 'close' ? [...countBack(model, own.stack), ...own.close] : own.open
  return list.flatMap((step) =>
    repeated(model, step, node.repeat, index).map(({ suffix, label }) => ({
      key: [part.id, key, side, suffix, step.key].filter(Boolean).join('/'),
      assemblyId: part.id,
      phase: step.phase,
      heading: node.name,
      where: [where, label].filter(Boolean).join(', '),
      task: null,
      position: null,
      step,
    })),
  )
}

/** Inspections first, then the rest from the inside out. */
function workSteps(part: Part, stretch: Stretch): SheetStep[] {
  const { model } = part.practised
  const order = outsideIn(model)
  const depth = ({ task }: Chosen) => (task.at === null ? -1 : order.indexOf(task.at))
  const inward = [...stretch.work].sort((a, b) => depth(b.chosen) - depth(a.chosen))
  const all = inward.flatMap(({ chosen, positions }) =>
    positions.flatMap((position) => taskSteps(part, chosen, position)),
  )
  return [
    ...all.filter((step) => step.phase === 'inspect'),
    ...all.filter((step) => step.phase !== 'inspect'),
  ]
}

function taskSteps(part: Part, { task, path }: Chosen, position: PositionKey): SheetStep[] {
  const { model } = part.practised
  const { repeat, index } = placeOf(part.practised, position)
  const where = index === null || repeat === null ? '' : repeatName(model, repeat, index)
  const name = task.positions.length > 1 ? positionName(model, position) : where
  const make = (step: Step, way: string): SheetStep[] =>
    repeated(model, step, repeat, index).map(({ suffix, label }) => ({
      key: [part.id, task.at ?? 'outside', task.key, position, way, suffix, step.key]
        .filter(Boolean)
        .join('/'),
      assemblyId: part.id,
      phase: step.phase,
      heading: path ? `${task.name}: ${inSentence(path.name)}` : task.name,
      where: [name, label].filter(Boolean).join(', '),
      task: task.key,
      position,
      step,
    }))
  return [
    ...task.steps.flatMap((step) => make(step, '')),
    ...(path?.steps ?? []).flatMap((step) => make(step, path!.key)),
  ]
}

/**
 * Making safe and proving are done once for the visit. What a second model says in just the same words is
 * not said twice; what it says besides, such as its own pressure, is.
 */
export function visitSteps(parts: Part[], side: 'makeSafe' | 'prove'): SheetStep[] {
  const said = new Map<string, string>()
  return parts.flatMap(({ id, practised: { model } }, at) =>
    model[side].flatMap((step) => {
      const words = JSON.stringify(step)
      const before = said.get(step.key)
      if (before === words) return []
      said.set(step.key, before ?? words)
      return repeated(model, step, null, null).map(({ suffix, label }) => ({
        key: ['visit', side, before === undefined ? '' : id, suffix, step.key].filter(Boolean).join('/'),
        assemblyId: id,
        phase: step.phase,
        heading: side === 'makeSafe' ? 'Make safe' : 'Prove',
        where: [at > 0 ? titleOf(model) : '', label].filter(Boolean).join(', '),
        task: null,
        position: null,
        step,
      }))
    }),
  )
}

/** A step of its own for each cylinder, screw or hose, unless what it belongs to is one of those already. */
function repeated(
  model: PumpModel,
  step: Step,
  already: string | null,
  index: number | null,
): { suffix: string; label: string }[] {
  if (step.repeat === null || step.repeat === already) return [{ suffix: '', label: '' }]
  const inside = model.repeats.find((each) => each.key === step.repeat)?.inside
  return indicesOf(model, step.repeat)
    .filter((each) => index === null || inside?.repeat !== already || inside?.at[each! - 1] === index)
    .map((each) => ({
      suffix: `${step.repeat}-${each}`,
      label: each === null ? '' : repeatName(model, step.repeat!, each),
    }))
}

/** What a step says where it says nothing else. */
export const plainStep: Step = {
  key: '',
  text: '',
  phase: 'rebuild',
  repeat: null,
  tools: [],
  part: null,
  orientation: null,
  treatment: null,
  caution: '',
  timer: null,
  measure: null,
  count: null,
  cue: '',
  fastener: null,
  stage: null,
  crank: '',
  photo: false,
  people: 1,
  lift: '',
  gate: false,
  when: null,
  asks: null,
  practice: null,
  withNext: false,
  temporary: null,
  setting: null,
  cleans: null,
  builds: null,
  fits: null,
  locks: null,
  undo: '',
  media: '',
  doubt: '',
  own: false,
}

/** Before a bore is filled again, everything that came out of it is accounted for. */
function countBack(model: PumpModel, stack: NodeInstance['node']['stack']): Step[] {
  if (stack.length === 0) return []
  const pieces = stack.map(
    ({ part, pieces: count }) => `${count}\u00a0${model.parts.find(({ key }) => key === part)?.name ?? part}`,
  )
  return [
    {
      ...plainStep,
      key: 'countBack',
      text: `Count back what came out: ${pieces.join(', ')}. Each is renewed, refitted or written off; nothing is left in the bore.`,
    },
  ]
}

/** Gates before proving that follow from what was composed: the closing count, threadlocker cured. */
export function closingGates(parts: Part[], steps: SheetStep[]): SheetStep[] {
  const [first] = parts
  if (!first) return []
  const toolName = (assemblyId: string, key: string) =>
    parts.find(({ id }) => id === assemblyId)?.practised.model.tools.find((tool) => tool.key === key)?.name ??
    key
  const temporary = [
    ...new Set(
      steps.flatMap(({ assemblyId, step }) =>
        step.temporary?.goes === 'in' ? [toolName(assemblyId, step.temporary.tool)] : [],
      ),
    ),
  ]
  const gate = (step: Step): SheetStep => ({
    key: `visit/prove/${step.key}`,
    assemblyId: first.id,
    phase: 'prove',
    heading: 'Prove',
    where: '',
    task: null,
    position: null,
    step: { ...step, phase: 'prove' },
  })
  const gates: SheetStep[] = [
    gate({
      ...plainStep,
      key: 'toolsBack',
      text: `Closing count: ${
        temporary.length > 0 ? `temporary tools out (${temporary.join(', ')}); ` : ''
      }every piece renewed, refitted or written off; settings put back.`,
      gate: true,
      caution:
        temporary.length > 0
          ? 'A pin or clamp left in the pump breaks it at the first turn.'
          : 'A rag, a tool or a loose ring left in the pump breaks it at the first turn.',
    }),
  ]
  const cures = Math.max(0, ...locked(parts, steps).map(({ treatment }) => treatment.curesMinutes ?? 0))
  if (cures > 0)
    gates.push(
      gate({
        ...plainStep,
        key: 'cured',
        text: `Wait until the threadlocker has cured before the pump sees pressure: ${hoursOrMinutes(cures)}.`,
        gate: true,
        timer: { kind: 'cured', minutes: cures },
      }),
    )
  return gates
}

/** The fasteners that are tightened with threadlocker here. */
export function locked(parts: Part[], steps: SheetStep[]) {
  return parts.flatMap(({ id, practised: { model } }) =>
    model.fasteners.filter(
      (fastener) =>
        fastener.treatment.kind === 'threadlocker' &&
        steps.some(({ assemblyId, step }) => assemblyId === id && step.fastener === fastener.key),
    ),
  )
}
