import {
  resolvePractice,
  type CompanyPractices,
  type PracticeKey,
  type ResolvedPractice,
  type Treats,
} from '../practices'
import {
  eachStep,
  titleOf,
  treatmentNames,
  type Fact,
  type Fastener,
  type OnlyForFact,
  type PumpModel,
  type Step,
  type Treatment,
  type Use,
} from '../models'
import { inSentence } from '../units'
import { plainStep } from './plainStep'

/** What is known of one unit: by the key of a fact, its answer. `drive` comes from its machine. */
export type UnitFacts = Record<string, string>

/** A model as this company works by it, and which practices made a difference. */
export type PractisedModel = {
  model: PumpModel
  /** Facts of the unit that nobody knows yet: what hangs on them waits for an answer on the sheet. */
  unknown: Fact[]
  /** Nodes that the chosen practices leave out. */
  skipped: Set<string>
  /** What has to be said of a fastener, by its key. */
  fastenerNotes: Map<string, string[]>
  practice: (key: PracticeKey) => ResolvedPractice
  /** The practice that decides a step, a node or a use, for telling which ones made a difference. */
  fastenerPractices: Map<string, ResolvedPractice[]>
}

/** Said of a torque that the manual does not give, until it was looked up. */
export const notGivenNote = 'The manual gives no value here: it is looked up before the step can be signed.'

/**
 * Puts what is known of the unit and the company's practices into a model: what belongs to other units is
 * left out, and what hangs on a fact that nobody knows waits for its answer. Steps, nodes and ways of other choices are left out, cap
 * O-rings become a matter of condition, fasteners get the treatment and order that the manual leaves
 * open. Where the manual states a treatment it stays, and the note says so: a torque belongs to its
 * treatment and is never converted silently. What a practice puts on a thread comes with its amount and
 * times, old residue is cleaned off first, and without guide pins nothing speaks of their places.
 */
export function practised(model: PumpModel, chosen: CompanyPractices, facts: UnitFacts = {}): PractisedModel {
  // Models and practices never change once they are there: hundreds of services are composed from a few.
  const byPractices = made.get(model) ?? new WeakMap<CompanyPractices, Map<string, PractisedModel>>()
  made.set(model, byPractices)
  const byFacts = byPractices.get(chosen) ?? new Map<string, PractisedModel>()
  byPractices.set(chosen, byFacts)
  const known = model.facts.map(({ key }) => facts[key] ?? '').join('|')
  const before = byFacts.get(known)
  if (before) return before
  const fresh = putIn(model, chosen, facts)
  byFacts.set(known, fresh)
  return fresh
}

const made = new WeakMap<PumpModel, WeakMap<CompanyPractices, Map<string, PractisedModel>>>()

function putIn(model: PumpModel, chosen: CompanyPractices, facts: UnitFacts): PractisedModel {
  const about = { title: titleOf(model), manual: model.manual }
  const known = new Map<PracticeKey, ResolvedPractice>()
  const practice = (key: PracticeKey) => {
    const found = known.get(key) ?? resolvePractice(key, about, chosen)
    known.set(key, found)
    return found
  }
  const applies = (where: Step['practice']) => where === null || where.is.includes(practice(where.key).choice)
  const unknown = model.facts.filter(({ key, answers }) => !answers.includes(facts[key] ?? ''))
  const isUnknown = (only: OnlyForFact) => only !== null && unknown.some(({ key }) => key === only.key)
  const isSo = (only: OnlyForFact) => only === null || isUnknown(only) || only.is.includes(facts[only.key]!)
  // Studs that a cover is drawn along always go in; guide pins only where the company uses them.
  const pinsByPractice = new Set(
    eachStep(model).flatMap(({ step }) =>
      step.places === 'pinned' && step.practice?.key === 'guidePins' ? (step.fastener ?? []) : [],
    ),
  )
  const pinsIn = (fastener: Fastener) =>
    practice('guidePins').choice === 'used' || !pinsByPractice.has(fastener.key)
  const fastenerNotes = new Map<string, string[]>()
  const fastenerPractices = new Map<string, ResolvedPractice[]>()
  const treatedHere = new Set<string>()
  const fasteners = model.fasteners.map((fastener) => {
    const { resolved, notes, used, treated } = practisedFastener(fastener, practice, pinsIn(fastener))
    if (treated) treatedHere.add(fastener.key)
    fastenerNotes.set(fastener.key, notes)
    fastenerPractices.set(fastener.key, used)
    return resolved
  })
  const pinned = new Set(fasteners.flatMap(({ key, pinned: places }) => (places.length > 0 ? [key] : [])))
  const steps = (list: Step[]): Step[] =>
    cleanedFirst(
      list
        .filter((step) => applies(step.practice) && isSo(step.fact))
        .filter(({ places, fastener }) => places !== 'pinned' || pinned.has(fastener ?? ''))
        .map((step) => ({
          ...step,
          places: pinned.has(step.fastener ?? '') ? step.places : ('all' as const),
          when: isUnknown(step.fact) ? { question: step.fact!.key, is: step.fact!.is } : step.when,
        })),
      fasteners,
      treatedHere,
    )
  const usesOf = <Each extends Use>(uses: Each[]): Each[] =>
    uses
      .filter(({ fact }) => isSo(fact))
      .map((use) => (isUnknown(use.fact) ? { ...use, rule: 'onCondition' as const } : use))
  return {
    practice,
    unknown,
    fastenerNotes,
    fastenerPractices,
    skipped: new Set(model.access.filter((node) => !applies(node.practice)).map((node) => node.key)),
    model: {
      ...model,
      fasteners,
      makeSafe: steps(model.makeSafe),
      prove: steps(model.prove),
      access: model.access.map((node) => ({
        ...node,
        open: steps(node.open),
        close: steps(node.close),
        consumes: usesOf(node.consumes).map((use) =>
          use.practice && practice(use.practice).choice === 'onCondition'
            ? { ...use, rule: 'onCondition' as const }
            : use,
        ),
      })),
      tasks: model.tasks.map((task) => ({
        ...task,
        steps: steps(task.steps),
        uses: usesOf(task.uses),
        paths: task.paths.map((path) => ({ ...path, steps: steps(path.steps), uses: usesOf(path.uses) })),
      })),
    },
  }
}

/** Old residue leaves both threads before what a practice chose goes on, unless the model's steps say so. */
function cleanedFirst(steps: Step[], fasteners: Fastener[], treatedHere: ReadonlySet<string>): Step[] {
  const told = new Set<string>()
  return steps.flatMap((step, index) => {
    const key = step.fastener ?? ''
    if (!treatedHere.has(key) || told.has(key)) return [step]
    told.add(key)
    if (steps.slice(0, index).some(({ cleans }) => cleans === 'threads')) return [step]
    const name = fasteners.find((each) => each.key === key)?.name ?? key
    const clean: Step = {
      ...plainStep,
      key: `cleanThreads${key[0]!.toUpperCase()}${key.slice(1)}`,
      text: `Clean old residue off both threads of the ${inSentence(name)}, and let them dry.`,
      phase: step.phase,
      repeat: step.repeat,
      when: step.when,
      cleans: 'threads',
    }
    return [clean, step]
  })
}

function practisedFastener(
  fastener: Fastener,
  practice: PractisedModel['practice'],
  pins: boolean,
): { resolved: Fastener; notes: string[]; used: ResolvedPractice[]; treated: boolean } {
  const notes: string[] = []
  const used: ResolvedPractice[] = []
  let { pattern, retapFirst, treatment } = fastener
  let treated = false
  if (fastener.treatedBy) {
    const chosen = practice(fastener.treatedBy)
    const { treats } = chosen
    const kind = treats?.kind
    if (treats && kind && treatment.kind === 'none') {
      used.push(chosen)
      treatment = treatmentOf(treats, fastener)
      treated = kind !== 'dry'
      if (fastener.torque.state === 'stated')
        notes.push(
          `The manual states this torque without a treatment; with ${treatmentNames[kind]} the same torque pulls differently. Ask the maker for the figure that belongs to it.`,
        )
    } else if (kind && kind !== treatment.kind) {
      used.push({
        ...chosen,
        choice: 'asManual',
        from: 'manual',
        because: fastener.torque.source || 'the manual',
        overruled: chosen.choice,
      })
      notes.push(
        `The manual states ${treatmentNames[treatment.kind]}; the company’s ${treatmentNames[kind]} is not used here, because the torque belongs to the treatment.`,
      )
    }
  }
  if (pattern === 'notStated') {
    const order = practice('tighteningOrder')
    used.push(order)
    pattern = order.choice as Fastener['pattern']
    const again = practice('retapFirst')
    if (again.choice === 'yes' && treatment.kind !== 'threadlocker') {
      used.push(again)
      retapFirst = true
    }
  }
  if (fastener.pinned.length > 0 && pins)
    notes.push(
      'The bolts in the guide pins’ places (dashed in the drawing) go in once the others are snug and the pins are out, in a pass of their own.',
    )
  if (fastener.torque.state === 'notGiven') notes.push(notGivenNote)
  if (fastener.doubt) notes.push(`In doubt: ${fastener.doubt}`)
  return {
    resolved: {
      ...fastener,
      pattern,
      retapFirst,
      treatment,
      pinned: pins ? fastener.pinned : [],
      // What has set is never moved again.
      recheck: fastener.recheck && treatment.kind !== 'threadlocker',
    },
    notes,
    used,
    treated,
  }
}

/** A practice's product on a fastener, from the model's own bottle where it lists one of that kind. */
function treatmentOf({ takesMl, ...treats }: Treats, { treatment }: Fastener): Treatment {
  return {
    ...treats,
    surface: treatment.surface,
    takes: takesMl > 0 ? { quantity: takesMl, unit: 'mL', part: null } : null,
  }
}
