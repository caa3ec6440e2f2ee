import { resolvePractice, type CompanyPractices, type PracticeKey, type ResolvedPractice } from '../practices'
import { titleOf, treatmentNames, type Fastener, type PumpModel, type Step, type Treatment } from '../models'

/** A model as this company works by it, and which practices made a difference. */
export type PractisedModel = {
  model: PumpModel
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
 * Puts the company's practices into a model: steps, nodes and ways of other choices are left out, cap
 * O-rings become a matter of condition, fasteners get the treatment and order that the manual leaves
 * open. Where the manual states a treatment it stays, and the note says so: a torque belongs to its
 * treatment and is never converted silently.
 */
export function practised(model: PumpModel, chosen: CompanyPractices): PractisedModel {
  const about = { title: titleOf(model), manual: model.manual }
  const known = new Map<PracticeKey, ResolvedPractice>()
  const practice = (key: PracticeKey) => {
    const found = known.get(key) ?? resolvePractice(key, about, chosen)
    known.set(key, found)
    return found
  }
  const applies = (where: Step['practice']) => where === null || where.is.includes(practice(where.key).choice)
  const steps = (list: Step[]) => list.filter((step) => applies(step.practice))
  const fastenerNotes = new Map<string, string[]>()
  const fastenerPractices = new Map<string, ResolvedPractice[]>()
  const fasteners = model.fasteners.map((fastener) => {
    const { resolved, notes, used } = practisedFastener(fastener, practice)
    fastenerNotes.set(fastener.key, notes)
    fastenerPractices.set(fastener.key, used)
    return resolved
  })
  return {
    practice,
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
        consumes: node.consumes.map((use) =>
          use.practice && practice(use.practice).choice === 'onCondition'
            ? { ...use, rule: 'onCondition' as const }
            : use,
        ),
      })),
      tasks: model.tasks.map((task) => ({
        ...task,
        steps: steps(task.steps),
        paths: task.paths.map((path) => ({ ...path, steps: steps(path.steps) })),
      })),
    },
  }
}

const chosenKind: Record<string, Treatment['kind']> = {
  threadLubricant: 'threadLubricant',
  threadlocker: 'threadlocker',
  locker: 'threadlocker',
  sealant: 'sealant',
  dry: 'dry',
}

function practisedFastener(
  fastener: Fastener,
  practice: PractisedModel['practice'],
): { resolved: Fastener; notes: string[]; used: ResolvedPractice[] } {
  const notes: string[] = []
  const used: ResolvedPractice[] = []
  let { pattern, retapFirst, treatment } = fastener
  if (fastener.treatedBy) {
    const chosen = practice(fastener.treatedBy)
    const kind = chosenKind[chosen.choice]
    if (kind && treatment.kind === 'none') {
      used.push(chosen)
      treatment = { ...treatment, kind }
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
  if (fastener.pinned.length > 0 && practice('guidePins').choice === 'used')
    notes.push(
      'The bolts in the guide pins’ places (dashed in the drawing) go in last, and are snugged on their own before the first pass.',
    )
  if (fastener.torque.state === 'notGiven') notes.push(notGivenNote)
  if (fastener.doubt) notes.push(`In doubt: ${fastener.doubt}`)
  return { resolved: { ...fastener, pattern, retapFirst, treatment }, notes, used }
}
