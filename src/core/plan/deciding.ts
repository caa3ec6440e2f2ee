import type { Day } from '../calendar'
import { groupBy } from '../lists'
import type { PartUnit } from '../stores'
import type { BookableClock } from './bookable'
import type { TakeInput } from './taking'
import type { Weighed } from './weigh'

type Item = { assemblyId: string; task: string; positions: string[] }

/** A visit as it is decided: what is done on it, when, by whom. */
export type Decision = {
  /** The booked visit that it becomes, as it was read; null for a new one. */
  visit: { id: string; version: number } | null
  day: Day
  leadId: string
  /** Who helps; left out, whoever it was. */
  helpers?: string[]
  items: Item[]
}

/** A visit that may lend its services. */
export type Lending = { id: string; version: number; day: Day; leadId: string; items: Item[] }

/**
 * A decision as one act. Visits that have some of its services give them away: one that is left with nothing is
 * cancelled. So a visit is split, joined with another, given more or less by the same act.
 *
 * @param others the other visits of the machine that may be changed
 */
export function decisionTake(
  actId: string,
  { visit, day, leadId, helpers, items }: Decision,
  others: readonly Lending[],
): TakeInput {
  const rest = others.map((other) => ({
    ...other,
    left: other.items.flatMap((item) => without(item, items)),
  }))
  const losing = rest.filter(({ id, items: had, left }) => id !== visit?.id && count(left) < count(had))
  return {
    id: actId,
    visits: [
      {
        visitId: visit?.id ?? null,
        version: visit?.version ?? null,
        day,
        leadId,
        ...(helpers && { helpers }),
        items: mergedItems(items),
      },
      ...losing.flatMap(({ id: visitId, version, day, leadId, left }) =>
        left.length > 0 ? [{ visitId, version, day, leadId, items: left }] : [],
      ),
    ],
    cancel: losing.flatMap(({ id, version, left }) => (left.length === 0 ? [{ id, version }] : [])),
    restore: [],
  }
}

/** Services of one task on one pump as one, however their cylinders are listed. */
export function mergedItems(items: readonly Item[]): Item[] {
  return [...groupBy(items, ({ assemblyId, task }) => `${assemblyId} ${task}`).values()].map((same) => ({
    ...same[0]!,
    positions: [...new Set(same.flatMap(({ positions }) => positions))],
  }))
}

const count = (items: readonly Item[]) => items.reduce((sum, { positions }) => sum + positions.length, 0)

/** What stays of a service on a visit that gives some of its positions away. */
function without(item: Item, given: readonly Item[]): Item[] {
  const gone = given
    .filter(({ assemblyId, task }) => assemblyId === item.assemblyId && task === item.task)
    .flatMap(({ positions }) => positions)
  const positions = item.positions.filter((position) => !gone.includes(position))
  return positions.length > 0 ? [{ ...item, positions }] : []
}

/** What is asked while a visit is decided; what is null is to be proposed. */
export type WeighInput = {
  machineId: string
  visitId: string | null
  day: Day | null
  leadId: string | null
  helperId?: string | null
  items: Item[]
}

/** What is asked to open the decision about a machine's visit. */
export type OpenDecisionInput = { machineId: string; visitId: string | null }

/** What a form for a decision holds. */
export type DecisionForm = { on: string; day: Day; leadId: string; helperId: string; items: Item[] }

/** A service that a visit of a machine can have: on no visit, or on one that may be changed. */
export type DecidedService = BookableClock & { visitId: string | null }

/** What somebody who decides a visit of a machine chooses from. */
export type DecisionPage = {
  /** What work on the machine has to mind while it must not be started; blank otherwise. */
  held: string
  machine: { id: string; number: string; name: string }
  services: DecidedService[]
  /** Visits of the machine that may be changed here. */
  visits: (Lending & { number: number })[]
  /** What stays where it is, and why. */
  pinned: { number: number; day: string; says: string }[]
  technicians: { value: string; label: string }[]
  today: string
}

/** A decision half made: what it takes, where it would be best, and whether its parts are there. */
export type WeighedDecision = Weighed & {
  parts: { name: string; quantity: number; unit: PartUnit; missing: number; arrives: string | null }[]
}

/** Visits approved in one act, or their approval taken back. */
export type ApproveInput = { visits: { id: string; version: number }[]; approve: boolean }

/** Holds a visit where it is. */
export type PinInput = { id: string; version: number; pinned: boolean }
