import {
  fittedIn,
  hoursOrMinutes,
  indicesOf,
  instanceKey,
  positionName,
  repeatName,
  splitInstance,
  titleOf,
  treatmentNames,
  type NodeInstance,
  type PositionKey,
  type PumpModel,
  type Step,
  type Treatment,
} from '../models'
import { inSentence } from '../units'
import { placeOf, renewsForCertain, type Chosen } from './chosen'
import { plainStep } from './plainStep'
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
        return stretchSteps(part, stretch, laid).map((step) => ({ ...step, stretch: name }))
      })
  const laid = laidSteps(part)
  const steps = [...openedAndWorked(part, whole), ...at(whole.nodes.length)]
  for (let level = whole.nodes.length - 1; level >= 0; level -= 1)
    steps.push(...closeSteps(part, whole.nodes[level]!, laid), ...at(level))
  return steps
}

function stretchSteps(part: Part, stretch: Stretch, laid: Laid): SheetStep[] {
  return [
    ...openedAndWorked(part, stretch),
    ...[...stretch.nodes].reverse().flatMap((node) => closeSteps(part, node, laid)),
  ]
}

/**
 * Opened, looked at, worked. What is opened only for what is found bad comes after the looking, so that
 * nobody reads a step before the answer on which it hangs.
 */
function openedAndWorked(part: Part, stretch: Stretch): SheetStep[] {
  const isPerhaps = ({ key }: NodeInstance) => part.walk.perhaps.has(key)
  const work = workSteps(part, stretch)
  return [
    ...stretch.nodes.filter((node) => !isPerhaps(node)).flatMap((node) => openSteps(part, node)),
    ...work.filter(looks),
    ...stretch.nodes.filter(isPerhaps).flatMap((node) => openSteps(part, node)),
    ...work.filter((step) => !looks(step)),
  ]
}

/** Of what the job renews, the steps that stand in a closing place, by node and position instance. */
type Laid = Map<string, SheetStep[]>

function openSteps(part: Part, instance: NodeInstance): SheetStep[] {
  return nodeSteps(part, instance, 'open').map(({ step }) => step)
}

/**
 * Closing a place: what lies in it goes back piece by piece. Where a piece is renewed, the renewing steps
 * of its task stand in its place, so that nothing is fitted before what it lies on.
 */
function closeSteps(part: Part, instance: NodeInstance, laid: Laid): SheetStep[] {
  return nodeSteps(part, instance, 'close').flatMap(({ step: own, position }) => {
    const renewing = position === null ? undefined : laid.get(`${instance.node.key} ${position}`)
    return renewing?.map((step) => ({ ...step, laidIn: own.key })) ?? [own]
  })
}

/** A closing step as it is where nothing is renewed there: it puts back what came out. */
export function plainClosing(part: Part): Map<string, SheetStep> {
  const { whole, apart } = part.walk
  const nodes = [...whole.nodes, ...apart.flatMap(({ stretch }) => stretch.nodes)]
  return new Map(
    nodes.flatMap((node) =>
      nodeSteps(part, node, 'close').map(({ step }): [string, SheetStep] => [step.key, step]),
    ),
  )
}

/** A node's steps of one side, each with the position instance whose piece it lays in. */
function nodeSteps(
  part: Part,
  { node, index, key }: NodeInstance,
  side: 'open' | 'close',
): { step: SheetStep; position: PositionKey | null }[] {
  const { model } = part.practised
  const where = index === null || node.repeat === null ? '' : repeatName(model, node.repeat, index)
  // The practised model's node, whose steps are those of the chosen practices.
  const own = model.access.find((each) => each.key === node.key) ?? node
  const perhaps = part.walk.perhaps.get(key) ?? null
  const list = (side === 'close' ? [...countBack(model, own.stack), ...own.close] : own.open).map((step) => ({
    ...step,
    when: step.when ?? perhaps,
  }))
  return list.flatMap((step) =>
    repeated(model, step, node.repeat, index).map(({ suffix, label, at }) => ({
      step: {
        key: [part.id, key, side, suffix, step.key].filter(Boolean).join('/'),
        assemblyId: part.id,
        phase: step.phase,
        heading: node.name,
        where: [where, label].filter(Boolean).join(', '),
        task: null,
        position: null,
        step,
      },
      position: step.lays === null ? null : laidInstance(model, step.lays, [at, index]),
    })),
  )
}

/** The instance of a position that a closing step lays in: of its own repetition, or of its node's. */
function laidInstance(model: PumpModel, key: string, indices: (number | null)[]): PositionKey {
  const repeats = model.positions.find((each) => each.key === key)?.repeat ?? null
  return instanceKey(key, repeats === null ? null : (indices.find((each) => each !== null) ?? null))
}

/** Whether a task fits what it renews while its node is closed, because a closing step says where. */
function laysIn(model: PumpModel, { task }: Chosen, position: PositionKey): boolean {
  const node = model.access.find((each) => each.key === fittedIn(task))
  const { key } = splitInstance(position)
  return node !== undefined && node.close.some((step) => step.lays === key)
}

const fits = ({ phase }: { phase: Step['phase'] }) => phase === 'renew' || phase === 'rebuild'

function laidSteps(part: Part): Laid {
  const laid: Laid = new Map()
  const renewed = new Set(part.walk.tasks.filter(renewsForCertain).flatMap(({ positions }) => positions))
  for (const chosen of part.walk.tasks)
    for (const position of chosen.positions) {
      if (!laysIn(part.practised.model, chosen, position)) continue
      // What is renewed for certain is not renewed on condition besides.
      if (!renewsForCertain(chosen) && renewed.has(position)) continue
      const steps = taskSteps(part, chosen, position)
        .filter(fits)
        .map((step) => ({ ...step, phase: 'rebuild' as const }))
      const key = `${fittedIn(chosen.task)} ${position}`
      if (steps.length > 0) laid.set(key, [...(laid.get(key) ?? []), ...steps])
    }
  return laid
}

/** Drawn, looked at side by side, then the rest from the inside out. */
function workSteps(part: Part, stretch: Stretch): SheetStep[] {
  const { model } = part.practised
  const order = outsideIn(model)
  const depth = ({ task }: Chosen) => (task.at === null ? -1 : order.indexOf(task.at))
  const inward = [...stretch.work].sort((a, b) => depth(b.chosen) - depth(a.chosen))
  const all = inward.flatMap(({ chosen, positions }) =>
    positions.flatMap((position) => {
      const steps = taskSteps(part, chosen, position)
      return laysIn(model, chosen, position) ? steps.filter((step) => !fits(step)) : steps
    }),
  )
  return [
    ...all.filter((step) => step.phase === 'stripDown'),
    ...all.filter((step) => step.phase === 'inspect'),
    ...all.filter((step) => !looks(step)),
  ]
}

/** What comes before anything is fitted: drawing a part, and looking at it. */
const looks = ({ phase }: SheetStep) => phase === 'stripDown' || phase === 'inspect'

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
): { suffix: string; label: string; at: number | null }[] {
  const stands = (at: number | null) => step.only.length === 0 || at === null || step.only.includes(at)
  if (step.repeat === null || step.repeat === already)
    return stands(index) ? [{ suffix: '', label: '', at: index }] : []
  const inside = model.repeats.find((each) => each.key === step.repeat)?.inside
  return indicesOf(model, step.repeat)
    .filter((each) => index === null || inside?.repeat !== already || inside?.at[each! - 1] === index)
    .filter(stands)
    .map((each) => ({
      suffix: `${step.repeat}-${each}`,
      label: each === null ? '' : repeatName(model, step.repeat!, each),
      at: each,
    }))
}

/** What nobody knows of a unit yet and something on this sheet hangs on: asked once, before all else. */
export function factSteps(parts: Part[], steps: SheetStep[]): SheetStep[] {
  return parts.flatMap(({ id, practised: { model, unknown } }, at) =>
    unknown
      .filter(({ key }) =>
        steps.some(({ assemblyId, step }) => assemblyId === id && step.when?.question === key),
      )
      .map(({ key, question, answers }) => ({
        key: `${id}/facts/${key}`,
        assemblyId: id,
        phase: 'makeSafe' as const,
        heading: 'Before anything else',
        where: at > 0 ? titleOf(model) : '',
        task: null,
        position: null,
        step: {
          ...plainStep,
          key,
          phase: 'makeSafe' as const,
          text: question,
          asks: { question: key, answers },
        },
      })),
  )
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
  const curing = treatmentsOf(parts, steps).filter(({ curesMinutes }) => (curesMinutes ?? 0) > 0)
  const cures = Math.max(0, ...curing.map(({ curesMinutes }) => curesMinutes!))
  if (cures > 0) {
    const kinds = [...new Set(curing.map(({ kind }) => treatmentNames[kind]))].join(' and ')
    gates.push(
      gate({
        ...plainStep,
        key: 'cured',
        text: `Wait until the ${kinds} has cured before the pump sees pressure: ${hoursOrMinutes(cures)}.`,
        gate: true,
        timer: { kind: 'cured', minutes: cures },
      }),
    )
  }
  return gates
}

/** What is put on threads and seats here: of the fasteners that are tightened, and of steps of their own. */
function treatmentsOf(parts: Part[], steps: SheetStep[]): Treatment[] {
  return [
    ...tightened(parts, steps).map(({ treatment }) => treatment),
    ...steps.flatMap(({ step }) => step.treatment ?? []),
  ]
}

/** The fasteners that are tightened here, as the practices have them. */
function tightened(parts: Part[], steps: SheetStep[]) {
  return parts.flatMap(({ id, practised: { model } }) =>
    model.fasteners.filter((fastener) =>
      steps.some(({ assemblyId, step }) => assemblyId === id && step.fastener === fastener.key),
    ),
  )
}

/** The fasteners that are tightened with threadlocker here. */
export function locked(parts: Part[], steps: SheetStep[]) {
  return tightened(parts, steps).filter(({ treatment }) => treatment.kind === 'threadlocker')
}

/**
 * After the first run: what settles under pressure is looked at once more with the wrench, standing still
 * and without pressure. Never where locker has set.
 */
export function recheckSteps(parts: Part[], steps: SheetStep[]): SheetStep[] {
  const again = parts.flatMap((part) =>
    part.practised.model.fasteners
      .filter(
        ({ key, recheck }) =>
          recheck && steps.some(({ assemblyId, step }) => assemblyId === part.id && step.fastener === key),
      )
      .map((fastener) => ({ part, fastener })),
  )
  const [first] = again
  if (!first) return []
  const make = (part: Part, key: string, step: Partial<Step>): SheetStep => ({
    key: `visit/prove/${key}`,
    assemblyId: part.id,
    phase: 'prove',
    heading: 'Prove',
    where: parts.indexOf(part) > 0 ? titleOf(part.practised.model) : '',
    task: null,
    position: null,
    step: { ...plainStep, key: key.split('/').at(-1)!, phase: 'prove', ...step },
  })
  return [
    make(first.part, 'recheckStop', {
      text: 'Stop, lock out, open the gun and verify zero before a wrench goes on.',
      gate: true,
      caution: 'Nothing is tightened while it runs or is under pressure.',
    }),
    ...again.flatMap(({ part, fastener }) => {
      const own = steps.filter(
        ({ assemblyId, step }) => assemblyId === part.id && step.fastener === fastener.key,
      )
      const last = own.at(-1)!.step
      return make(part, `${part.id}/recheck-${fastener.key}`, {
        text: `Pull the ${inSentence(fastener.name)} once more to the last stage, in their order: they settle in the first run.`,
        fastener: fastener.key,
        stage: last.stage,
        tools: last.tools,
      })
    }),
    make(first.part, 'recheckRun', {
      text: 'Locks off, and bring it to pressure once more: dry everywhere?',
      gate: true,
      caution: 'People clear, and stand clear of the jet.',
    }),
  ]
}
