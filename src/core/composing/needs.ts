import {
  instanceKey,
  mayRenew,
  splitInstance,
  treatmentNames,
  type PumpModel,
  type Treatment,
  type Use,
} from '../models'
import { tighteningOrder } from '../torque'
import { inSentence } from '../units'
import { renewsForCertain } from './chosen'
import { locked, type Part } from './steps'
import type {
  ComposedSheet,
  ConsumableNeed,
  FastenerNeed,
  PartNeed,
  SheetStep,
  ToolNeed,
  UsedPractice,
} from './types'

/**
 * What an assembly's work uses up: parts of the renewed positions, what the tasks use, what opening
 * destroys, what its steps put on threads and lips; one spot is supplied once, however many tasks ask for
 * it. Apart from that, what is taken along and used only where a finding says so.
 */
export function partsOf(
  { id, practised, walk }: Part,
  steps: SheetStep[],
): { parts: PartNeed[]; spares: PartNeed[] } {
  const { model } = practised
  const certain = new Map<string, { part: string; spot: string; quantity: number }>()
  const perhaps: typeof certain = new Map()
  const looks = new Map<string, string>()
  const need = (sure: boolean, part: string, spot: string, quantity: number) => {
    const at = sure ? certain : perhaps
    const key = `${part}|${spot}`
    at.set(key, { part, spot, quantity: Math.max(at.get(key)?.quantity ?? 0, quantity) })
  }
  const places = [...walk.whole.nodes, ...walk.apart.flatMap(({ stretch }) => stretch.nodes)]
  for (const { node, index, key: place } of places) {
    const own = model.access.find((each) => each.key === node.key) ?? node
    for (const use of own.consumes)
      need(
        use.rule === 'always' && !walk.perhaps.has(place),
        use.part,
        instanceKey(use.spot, index),
        use.quantity,
      )
    for (const { position: key, rule } of own.disturbs) {
      const position = model.positions.find((each) => each.key === key)
      if (rule === 'onCondition' && position?.part)
        need(false, position.part, instanceKey(key, index), position.pieces)
    }
  }
  for (const chosen of walk.tasks) {
    const { task, path, positions } = chosen
    const renews = mayRenew(task)
    for (const instance of positions) {
      const { key, index } = splitInstance(instance)
      const position = model.positions.find((each) => each.key === key)
      if (position?.part && renews) need(renewsForCertain(chosen), position.part, instance, position.pieces)
      if (position?.part && task.kind === 'condition') looks.set(position.part, task.key)
      const use = (each: Use) =>
        need(each.rule === 'always', each.part, instanceKey(each.spot, index), each.quantity)
      task.uses.forEach(use)
      path?.uses.forEach(use)
    }
  }
  for (const { part, place, quantity, sure } of applications(model, id, steps))
    if (part !== null) need(sure, part, place, quantity)
  for (const key of certain.keys()) perhaps.delete(key)
  const gather = (spots: typeof certain) => {
    const needs = new Map<string, PartNeed>()
    for (const { part, spot, quantity } of spots.values()) {
      const about = model.parts.find((each) => each.key === part)
      const known = needs.get(part) ?? {
        assemblyId: id,
        part,
        name: about?.name ?? part,
        unit: about?.unit ?? 'piece',
        quantity: 0,
        spots: [],
        ...(spots === perhaps && looks.has(part) && { look: looks.get(part)! }),
      }
      known.quantity = Math.round((known.quantity + quantity) * 1e6) / 1e6
      known.spots.push(spot)
      needs.set(part, known)
    }
    return [...needs.values()]
  }
  return { parts: gather(certain), spares: gather(perhaps) }
}

/** Something put on a thread, a lip or a seat, gathered by place: of answers that exclude each other, the most. */
type Application = {
  part: string | null
  name: string
  unit: 'mL' | 'g'
  place: string
  quantity: number
  times: number
  /** It hangs on no answer. */
  sure: boolean
}

function applications(model: PumpModel, assemblyId: string, steps: SheetStep[]): Application[] {
  const byAnswer = new Map<string, Application & { question: string }>()
  const put = (step: SheetStep, { takes, product, kind }: Treatment, times: number) => {
    if (!takes) return
    const place = step.key.split('/')[1] ?? ''
    const name = [product, treatmentNames[kind]].filter(Boolean).join(' ')
    const about = { part: takes.part, name, unit: takes.unit, place }
    const question = [takes.part, name, place, step.step.when?.question].join('|')
    const key = `${question}|${[step.step.when?.is].flat().join()}`
    const known = byAnswer.get(key)
    byAnswer.set(key, {
      ...about,
      question,
      sure: step.step.when === null,
      times: (known?.times ?? 0) + times,
      quantity: (known?.quantity ?? 0) + takes.quantity * times,
    })
  }
  for (const step of steps) {
    if (step.assemblyId !== assemblyId) continue
    if (step.step.treatment) put(step, step.step.treatment, 1)
    const fastener = model.fasteners.find(({ key }) => key === step.step.fastener)
    // What the step itself says of its treatment stands for the fastener's.
    if (!fastener || step.step.treatment || step.step.snug || (step.step.stage ?? 1) !== 1) continue
    const each = step.where === '' ? fastener.count : 1
    put(step, fastener.treatment, fastener.layout.length || each)
  }
  const most = new Map<string, Application>()
  for (const { question, ...each } of byAnswer.values())
    if ((most.get(question)?.quantity ?? 0) < each.quantity) most.set(question, each)
  return [...most.values()]
}

/** Bottles and tubes to have there that are no part of a model: what practices and steps put on. */
export function consumablesOf(parts: Part[], steps: SheetStep[]): ConsumableNeed[] {
  const needs = new Map<string, ConsumableNeed>()
  for (const { id, practised } of parts)
    for (const { part, name, unit, quantity, times } of applications(practised.model, id, steps)) {
      if (part !== null) continue
      const known = needs.get(`${name} ${unit}`) ?? { name, unit, quantity: 0, applications: 0 }
      known.quantity = Math.round((known.quantity + quantity) * 1e6) / 1e6
      known.applications += times
      needs.set(`${name} ${unit}`, known)
    }
  return [...needs.values()].sort((a, b) => a.name.localeCompare(b.name, 'en'))
}

/** Who is wanted for what, by local codes: from the chosen tasks and from steps that say so themselves. */
export function qualificationsOf(parts: Part[], steps: SheetStep[]): ComposedSheet['qualifications'] {
  const wanted = new Map<string, Set<string>>()
  const want = (qualification: string | null, what: string) => {
    if (qualification === null) return
    wanted.set(qualification, (wanted.get(qualification) ?? new Set()).add(what))
  }
  for (const { walk } of parts) for (const { task } of walk.tasks) want(task.qualification, task.name)
  // What hangs on an answer says so at its step.
  for (const { step, heading } of steps) if (!step.when) want(step.qualification, heading)
  return [...wanted].map(([qualification, what]) => ({
    qualification: qualification as ComposedSheet['qualifications'][number]['qualification'],
    what: [...what],
  }))
}

/** Every tool that a step names, each once by its name, in the order in which it is first needed. */
export function toolsOf(parts: Part[], steps: SheetStep[]): ToolNeed[] {
  const tools = new Map<string, ToolNeed>()
  for (const { assemblyId, step } of steps) {
    const model = parts.find(({ id }) => id === assemblyId)?.practised.model
    for (const key of [...step.tools, ...(step.temporary ? [step.temporary.tool] : [])]) {
      const tool = model?.tools.find((each) => each.key === key)
      if (tool) tools.set(tool.name, tool)
    }
  }
  return [...tools.values()]
}

/** Every fastener that is tightened, with its order, where it is, and what has to be said about it. */
export function fastenersOf(parts: Part[], steps: SheetStep[]): FastenerNeed[] {
  return parts.flatMap(({ id, practised: { model, fastenerNotes } }) =>
    model.fasteners.flatMap((fastener): FastenerNeed[] => {
      const own = steps.filter(({ assemblyId, step }) => assemblyId === id && step.fastener === fastener.key)
      if (own.length === 0) return []
      const bolts = fastener.layout.map(({ x, y }, index) => ({
        id: String(index + 1),
        x,
        y,
        number: index + 1,
      }))
      const { pattern } = fastener
      const order =
        bolts.length === 0 || pattern === 'single' || pattern === 'notStated'
          ? []
          : tighteningOrder(bolts, pattern, { retapFirst: fastener.retapFirst })
      return [
        {
          assemblyId: id,
          fastener,
          order,
          where: [...new Set(own.map(({ where }) => where).filter(Boolean))].sort((a, b) =>
            a.localeCompare(b, 'en', { numeric: true }),
          ),
          notes: fastenerNotes.get(fastener.key) ?? [],
        },
      ]
    }),
  )
}

/** Every caution once, and those that come from doing these things in one job. */
export function cautionsOf(parts: Part[], steps: SheetStep[]): ComposedSheet['cautions'] {
  const cautions = new Map<string, string>()
  for (const { step, heading } of steps)
    if (step.caution && !cautions.has(step.caution)) cautions.set(step.caution, heading)
  const lockers = locked(parts, steps)
  const lubricated = fastenersOf(parts, steps).filter(
    ({ fastener }) => fastener.treatment.kind === 'threadLubricant',
  )
  if (lockers.length > 0 && lubricated.length > 0) {
    const names = (list: { name: string }[]) => list.map(({ name }) => inSentence(name)).join(', ')
    cautions.set(
      `Two opposite treatments in one job: ${treatmentNames.threadlocker} on the ${names(lockers)}, ${treatmentNames.threadLubricant} on the ${names(lubricated.map(({ fastener }) => fastener))}. Keep the bottles apart; one on the other’s thread undoes both.`,
      'Torque',
    )
  }
  return [...cautions].map(([words, where]) => ({ words, where }))
}

/** The practices that made a difference to these steps, each once an assembly. */
export function practicesOf({ id, practised, walk }: Part, steps: SheetStep[]): UsedPractice[] {
  const { model, practice, fastenerPractices } = practised
  const used = new Map<string, UsedPractice>()
  const note = (resolved: Omit<UsedPractice, 'assemblyId'>) =>
    used.set(resolved.key, { ...resolved, assemblyId: id })
  if (model.repeats.some((repeat) => walk.opened.some(({ node }) => node.repeat === repeat.key)))
    note(practice('stripOrder'))
  const own = steps.filter(({ assemblyId }) => assemblyId === id)
  for (const { step } of own) if (step.practice) note(practice(step.practice.key))
  for (const { node } of walk.opened) {
    if (node.practice) note(practice(node.practice.key))
    for (const each of node.consumes) if (each.practice) note(practice(each.practice))
  }
  for (const { task, path } of walk.tasks)
    for (const { practice: by } of path ? task.paths : []) if (by) note(practice(by.key))
  for (const { step } of own)
    if (step.fastener) for (const resolved of fastenerPractices.get(step.fastener) ?? []) note(resolved)
  return [...used.values()]
}
