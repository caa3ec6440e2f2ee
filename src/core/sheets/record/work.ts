import { dispositions, findingWords } from '../../inspection'
import { showAmount } from '../../stores'
import { endReasons } from '../../wear'
import { endReasonAfterCorrections, isTakenBack, usedAfterCorrections } from './corrections'
import { locksOf } from '../bench/locks'
import { causesOn } from '../bench/looking'
import { conditionOutcomes, outcomeWords } from './onCondition'
import { told, type RecordLine, type Teller } from './teller'
import { partName } from '../signing/sign'
import type { SheetState } from '../state'

/** Meters read, and that the machine was made safe. */
export function startLines(state: SheetState, { line }: Teller): RecordLine[] {
  const { meters } = state.content
  return [
    ...state.readings.map((entry) => {
      const { meterId, unreadable, shown, typed, status, reason } = entry.payload
      return line('reading', entry, {
        item: meters.find((each) => each.id === meterId)?.name ?? 'Meter',
        detail: unreadable
          ? `could not be read: ${unreadable}`
          : `${shown ?? typed}${status === 'doubted' ? `, in doubt: ${reason}` : ''}`,
      })
    }),
    ...state.confirmedSafe.map((entry) =>
      line('madeSafe', entry, { item: 'Confirmed', detail: entry.payload.name }),
    ),
  ]
}

/** Positions that were renewed, or kept against what was planned. */
export function lifeLines(state: SheetState, { line, pumpOf, nameOf, assemblyOf }: Teller): RecordLine[] {
  return state.positions.flatMap(({ assemblyId, position, state: is, planned, reason }) => {
    const entry = state.signed ?? state.steps.findLast((each) => each.step.position === position)?.by
    if (is === 'open' || !entry) return []
    const back = isTakenBack(state, assemblyId, position)
    const renewed = is === 'renewed' && !back
    const ended = renewed ? endReasonAfterCorrections(state, assemblyId, position) : null
    const reached = ended?.reached == null ? null : Math.round(ended.reached * 10) / 10
    return [
      line(renewed ? 'renewed' : 'kept', entry, {
        pump: pumpOf(assemblyId),
        item: nameOf(assemblyId, position),
        value: reached,
        unit: reached === null ? '' : (assemblyOf(assemblyId)?.unit ?? 'h'),
        detail: told(
          ended ? endReasons[ended.endReason as keyof typeof endReasons] : '',
          !planned && 'besides what was planned',
          reason,
          back && 'corrected: it was not renewed',
        ),
      }),
    ]
  })
}

/** Parts that were used, and those that were expected and were not. */
export function partLines(state: SheetState, { line, pumpOf, partIn }: Teller): RecordLine[] {
  const isUsed = (assemblyId: string, part: string) =>
    state.uses.some(({ payload }) => payload.assemblyId === assemblyId && payload.part === part)
  return [
    ...state.uses.map((entry) => {
      const { assemblyId, name, unit, partId, lot, quantity: noted } = entry.payload
      const quantity = usedAfterCorrections(state, entry)
      return line('part', entry, {
        pump: pumpOf(assemblyId),
        item: name,
        value: quantity,
        unit,
        detail: told(
          partId === null ? 'not from the stores' : lot ? `lot ${lot}` : 'lot not known',
          quantity !== noted && `corrected from ${showAmount(noted, unit)}`,
        ),
      })
    }),
    ...state.notUsed
      .filter(({ payload }) => !isUsed(payload.assemblyId, payload.part))
      .map((entry) =>
        line('notUsed', entry, {
          pump: pumpOf(entry.payload.assemblyId),
          item: partIn(entry.payload.assemblyId, entry.payload.part),
          detail: entry.payload.reason,
        }),
      ),
  ]
}

/** What was seen, what it points to, what was measured besides, and what was photographed. */
export function lookLines(state: SheetState, { line, pumpOf, nameOf, stepAt }: Teller): RecordLine[] {
  const tells = state.signed ?? state.findings.at(-1)
  return [
    ...state.findings.map((entry) => {
      const { assemblyId, damages, extent, disposition, words } = entry.payload
      return line('finding', entry, {
        pump: pumpOf(assemblyId),
        item: `${partName(state, entry.payload)}: ${findingWords(damages, extent).toLowerCase()}`,
        detail: told(dispositions[disposition].toLowerCase(), words),
      })
    }),
    ...(tells ? conditionOutcomes(state) : []).map((outcome) =>
      line('finding', tells!, { pump: outcome.pump, item: outcome.name, detail: outcomeWords(outcome) }),
    ),
    ...(tells ? causesOn(state) : []).flatMap(({ number, causes }) =>
      causes.map((cause) =>
        line('cause', tells!, {
          pump: number,
          item: cause.name,
          detail: `${cause.says}: ${cause.evidence.map(({ words }) => words).join('; ')}`,
        }),
      ),
    ),
    ...state.measures.map((entry) => {
      const { assemblyId, position, what, value, unit, how, words } = entry.payload
      return line('measure', entry, {
        pump: pumpOf(assemblyId),
        item: what,
        where: position ? nameOf(assemblyId, position) : '',
        value,
        unit,
        detail: told(how, words),
      })
    }),
    ...state.photos.map((entry) => {
      const { assemblyId, position, caption, photoId } = entry.payload
      return line('photo', entry, {
        pump: pumpOf(assemblyId),
        item: caption || (assemblyId && position ? nameOf(assemblyId, position) : 'Photo'),
        where: stepAt(entry.stepKey).where,
        detail: `/api/photos/${photoId}`,
      })
    }),
  ]
}

/** What stands around the work: torques looked up, other tools, remarks, locks, hands, work added. */
export function aroundLines(state: SheetState, { line, pumpOf, assemblyOf, stepAt }: Teller): RecordLine[] {
  return [
    ...state.torqueSets.map((entry) => {
      const { assemblyId, fastener, value, unit, page } = entry.payload
      return line('torqueSet', entry, {
        pump: pumpOf(assemblyId),
        item: assemblyOf(assemblyId)?.fasteners.find((each) => each.key === fastener)?.name ?? fastener,
        value,
        unit,
        detail: `looked up: ${page}`,
      })
    }),
    ...state.substitutes.map((entry) => {
      const { step, where } = stepAt(entry.stepKey)
      return line('substitute', entry, {
        pump: pumpOf(step?.assemblyId ?? null),
        item: entry.payload.used,
        where,
        detail: `instead of ${entry.payload.tool}: ${entry.payload.reason}`,
      })
    }),
    ...state.remarks.map((entry) => {
      const { step, where } = stepAt(entry.stepKey)
      // Making safe and proving are the whole visit's.
      const own = step && step.phase !== 'makeSafe' && step.phase !== 'prove'
      return line('remark', entry, {
        pump: own ? pumpOf(step.assemblyId) : '',
        item: entry.payload.text,
        where,
      })
    }),
    ...locksOf(state).map((lock) =>
      line('lock', lock.on, {
        item: lock.name,
        detail:
          lock.offAt === null
            ? 'still on'
            : lock.offReason
              ? `taken off: ${lock.offReason}`
              : 'on and off again',
      }),
    ),
    ...state.handOvers.map((entry) =>
      line('handOver', entry, {
        item:
          entry.kind === 'joined'
            ? 'Taken up'
            : entry.payload.toName
              ? `Handed to ${entry.payload.toName}`
              : 'Left for a while',
        detail: entry.payload.words,
      }),
    ),
    ...(state.content.extra ?? []).map((extra) =>
      line(
        'extra',
        { id: state.signed?.id ?? extra.at, at: extra.at, byName: extra.byName },
        { item: extra.services, value: extra.minutes, unit: 'min', detail: extra.reason },
      ),
    ),
  ]
}
