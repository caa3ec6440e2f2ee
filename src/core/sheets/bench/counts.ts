import { splitInstance } from '../../models'
import { findingOf } from '../places'
import type { SheetState, StepState } from '../state'
import { pieceFates, type Done, type PieceFate, type SheetAssembly, type SheetEntry } from '../types'

/** A temporary tool that went into a pump on this sheet. */
export type TemporaryTool = {
  assemblyId: string
  tool: string
  name: string
  /** The step at which it last went in. */
  wentIn: StepState
  /** The step at which it comes out; null where none says so. */
  out: StepState | null
  isOut: boolean
}

/** Every temporary tool that has gone in so far, and whether it has come out. */
export function temporaryTools(state: SheetState): TemporaryTool[] {
  const found = new Map<string, TemporaryTool>()
  state.steps.forEach((each, index) => {
    const { assemblyId, step } = each.step
    if (step.temporary?.goes !== 'in' || each.state !== 'done') return
    const { tool } = step.temporary
    const out =
      state.steps
        .slice(index + 1)
        .find(
          (other) =>
            other.step.assemblyId === assemblyId &&
            other.step.step.temporary?.goes === 'out' &&
            other.step.step.temporary.tool === tool &&
            other.state !== 'notNeeded',
        ) ?? null
    found.set(`${assemblyId} ${tool}`, {
      assemblyId,
      tool,
      name: state.content.tools.find((known) => known.key === tool)?.name ?? tool,
      wentIn: each,
      out,
      isOut: out?.state === 'done',
    })
  })
  return [...found.values()]
}

/** An adjustment that was noted before it was disturbed, and whether it was put back. */
export type KeptSetting = { what: string; noted: string; back: string | null; at: StepState | null }

export function keptSettings(state: SheetState): KeptSetting[] {
  return state.steps.flatMap((each): KeptSetting[] => {
    const { setting } = each.step.step
    if (setting?.goes !== 'noted' || each.by?.kind !== 'done') return []
    const back =
      state.steps.find(
        (other) =>
          other.step.assemblyId === each.step.assemblyId &&
          other.step.step.setting?.goes === 'putBack' &&
          other.step.step.setting.what === setting.what,
      ) ?? null
    return [
      {
        what: setting.what,
        noted: settingWords(each.by.payload) || each.by.payload.reason,
        back: back?.by?.kind === 'done' ? settingWords(back.by.payload) || 'put back' : null,
        at: back,
      },
    ]
  })
}

/** What an adjustment stands at: in words, or as it was measured. */
function settingWords({ setting, measure }: Done): string {
  return setting || (measure ? `${measure.value}\u00a0${measure.unit}` : '')
}

/** What lies in a bore, piece by piece, and what becomes of it. */
export type BorePieces = {
  step: StepState
  where: string
  pieces: (PieceFate & { name: string; of: number })[]
  counted: boolean
}

/** Every bore that is counted back on this sheet, with what most likely becomes of each piece. */
export function borePieces(state: SheetState): BorePieces[] {
  return state.steps.flatMap((each): BorePieces[] => {
    if (each.step.step.key !== 'countBack' || each.state === 'notNeeded') return []
    const [assemblyId, place] = each.step.key.split('/')
    const node = place?.split('~')[0] ?? ''
    const assembly = state.content.assemblies.find((candidate) => candidate.id === assemblyId)
    const stack = assembly?.nodes?.find((candidate) => candidate.key === node)?.stack ?? []
    const said = each.by?.kind === 'done' ? each.by.payload.pieces : undefined
    return [
      {
        step: each,
        where: [each.step.heading, each.step.where].filter(Boolean).join(', '),
        counted: each.by?.kind === 'done',
        pieces: stack.map((item) => ({
          ...(said?.find((known) => known.part === item.part) ?? {
            part: item.part,
            pieces: item.pieces,
            fate: presumedFate(state, assembly!, node, item.part),
            reason: '',
          }),
          of: item.pieces,
          name: assembly!.parts.find((part) => part.key === item.part)?.name ?? item.part,
        })),
      },
    ]
  })
}

function presumedFate(
  state: SheetState,
  assembly: SheetAssembly,
  node: string,
  part: string,
): PieceFate['fate'] {
  const { index } = splitInstance(node)
  const here = assembly.positions.filter(
    (position) =>
      position.part === part && (position.node === node || splitInstance(position.key).index === index),
  )
  const renewed = here.some((position) => {
    const own = state.positions.find(
      (each) => each.assemblyId === assembly.id && each.position === position.key,
    )
    const finding = findingOf(state, assembly.id, position.key)?.payload.disposition
    if (finding === 'reuse' || finding === 'clean') return false
    return own?.planned || own?.state === 'renewed' || finding === 'renew' || finding === 'renewMate'
  })
  return renewed ? 'renewed' : 'refitted'
}

/** @example fateWords([{ part: 'hpSeal', pieces: 1, fate: 'renewed', reason: '' }], name) // '1 High-pressure seal renewed' */
export function fateWords(pieces: PieceFate[], nameOf: (part: string) => string): string {
  return pieces
    .map(
      ({ part, pieces: count, fate, reason }) =>
        `${count}\u00a0${nameOf(part)} ${pieceFates[fate]}${reason ? ` (${reason})` : ''}`,
    )
    .join(', ')
}

/** A valve that came out to be looked at and goes back. */
export type ValveBack = { key: string; name: string }

/**
 * Valves that go back on this sheet: each belongs to the bore it came from, whose seat it has worn to.
 * Empty where the company's practice lets them go to any bore of their kind.
 */
export function valvesBack(state: SheetState): ValveBack[] {
  return state.content.assemblies.flatMap((assembly) => {
    const practice = state.content.practices?.find(
      ({ key, assemblyId }) => key === 'reusedValves' && assemblyId === assembly.id,
    )
    if (practice?.choice === 'anyBore') return []
    return assembly.positions.flatMap(({ key, name, sort }): ValveBack[] => {
      if (sort !== 'valve') return []
      const disposition = findingOf(state, assembly.id, key)?.payload.disposition
      const lookedAt = state.steps.some(
        ({ step, state: is }) =>
          step.assemblyId === assembly.id &&
          step.position === key &&
          step.phase === 'inspect' &&
          is === 'done',
      )
      const position = state.positions.find(
        (each) => each.assemblyId === assembly.id && each.position === key,
      )
      const back =
        position?.state !== 'renewed' &&
        (position?.state === 'kept' || disposition === 'reuse' || disposition === 'clean')
      return lookedAt && back ? [{ key: `${assembly.id}/${key}`, name }] : []
    })
  })
}

/** What still stands open in the closing count, one sentence each; empty when everything is accounted for. */
export function notCounted(state: SheetState): string[] {
  return [
    ...temporaryTools(state)
      .filter(({ isOut, out }) => !isOut && out !== null)
      .map(({ name }) => `${name}: went in and has not come out.`),
    ...borePieces(state)
      .filter(({ counted, step }) => !counted && step.state === 'open')
      .map(({ where }) => `${where}: its pieces are not counted back.`),
    ...keptSettings(state)
      .filter(({ back, at }) => back === null && at !== null)
      .map(({ what, noted }) => `${what}: not put back to ${noted || 'what it was'}.`),
  ]
}

/** Of what was only taken along, what a finding has asked for: the pieces of the positions that were renewed. */
function askedFor(state: SheetState): SheetState['content']['parts'] {
  return (state.content.spares ?? []).flatMap((need) => {
    const spots = need.spots.filter((spot) =>
      state.positions.some(
        ({ assemblyId, position, planned, state: is }) =>
          assemblyId === need.assemblyId && position === spot && planned && is === 'renewed',
      ),
    )
    const quantity = Math.round((need.quantity / need.spots.length) * spots.length * 1e6) / 1e6
    return spots.length > 0 ? [{ ...need, spots, quantity }] : []
  })
}

/** Parts that this work uses up and that are neither noted as used nor explained. */
export function partsOpen(state: SheetState): SheetState['content']['parts'] {
  const certain = state.content.parts
  const asked = askedFor(state).filter(
    (need) => !certain.some((each) => each.assemblyId === need.assemblyId && each.part === need.part),
  )
  return [...certain, ...asked].filter(
    (need) =>
      !state.uses.some(
        ({ payload }) => payload.assemblyId === need.assemblyId && payload.part === need.part,
      ) &&
      !state.notUsed.some(
        ({ payload }) => payload.assemblyId === need.assemblyId && payload.part === need.part,
      ) &&
      partMatters(state, need),
  )
}

/** A part whose positions were all kept was not used, and nobody has to say so again. */
function partMatters(state: SheetState, need: SheetState['content']['parts'][number]): boolean {
  const assembly = state.content.assemblies.find((each) => each.id === need.assemblyId)
  const own = need.spots.filter((spot) =>
    assembly?.positions.some((position) => position.key === spot && position.part === need.part),
  )
  if (own.length === 0 || own.length < need.spots.length) return true
  return own.some(
    (spot) =>
      state.positions.find((each) => each.assemblyId === need.assemblyId && each.position === spot)?.state !==
      'kept',
  )
}

/** Renewed positions of whose old part nobody has said what was seen. */
export function unseen(state: SheetState): { assemblyId: string; position: string; name: string }[] {
  return state.positions.flatMap(({ assemblyId, position, state: is }) => {
    if (is !== 'renewed' || findingOf(state, assemblyId, position)) return []
    const about = state.content.assemblies
      .find((each) => each.id === assemblyId)
      ?.positions.find((each) => each.key === position)
    // Sheets opened before findings were composed do not know of what sort their positions are.
    return about?.sort ? [{ assemblyId, position, name: about.name }] : []
  })
}

/** Findings that stopped the job to ask and have not been decided. */
export const stopped = (state: SheetState): SheetEntry<'finding'>[] =>
  state.findings.filter(({ payload }) => payload.disposition === 'stop')

/** Parts found bad that the sheet does not renew: more work, or another decision. */
export const toRenew = (state: SheetState): SheetEntry<'finding'>[] =>
  state.findings.filter(({ payload }) => {
    if (payload.position === null) return false
    if (payload.disposition !== 'renew' && payload.disposition !== 'renewMate') return false
    const own = state.positions.find(
      (each) => each.assemblyId === payload.assemblyId && each.position === payload.position,
    )
    return own !== undefined && !own.planned && own.state === 'open'
  })

/**
 * What was found to be renewed and is no position of the pump, such as the manifold: no sheet renews it,
 * so that it stands open until somebody has seen to it.
 */
export const toSeeTo = (state: SheetState): SheetEntry<'finding'>[] =>
  state.findings.filter(
    ({ payload }) =>
      payload.position === null && (payload.disposition === 'renew' || payload.disposition === 'renewMate'),
  )

/** Parts found to be renewed that went back all the same, with nobody saying why. */
export const wentBack = (state: SheetState): SheetEntry<'finding'>[] =>
  state.findings.filter(({ payload }) => {
    if (payload.disposition !== 'renew' && payload.disposition !== 'renewMate') return false
    const own = state.positions.find(
      (each) => each.assemblyId === payload.assemblyId && each.position === payload.position,
    )
    // A skipped step has its reason already.
    const skipped = state.steps.some(
      ({ step, state: is }) =>
        step.assemblyId === payload.assemblyId && step.position === payload.position && is === 'skipped',
    )
    return own?.state === 'kept' && own.reason === '' && !skipped && payload.damages.length > 0
  })
