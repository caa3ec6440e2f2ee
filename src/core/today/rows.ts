import { addDays, type Day } from '../calendar'
import type { MachineLine } from '../fleet'
import { groupBy } from '../lists'
import type { EarlyCheckView, SignView } from '../inspection'
import {
  bundlesOf,
  endedBy,
  markOn,
  notOnVisit,
  serviceSubject,
  visitFor,
  visitNumber,
  type FleetService,
  type Mark,
  type MarkedAs,
  type PlanTerms,
  type Slip,
  type VisitLine,
} from '../plan'
import type { ComingNeed, StockLine, Supply } from '../stores'
import { stateRank, type ClockView, type WearView } from '../wear'
import { inSentence } from '../units'
import { asStanding } from './standsFor'
import { firstOfEach, inMorningOrder, mostAtOnce } from './morning'
import type {
  BareRow,
  BareService,
  BookedVisit,
  Bundled,
  DuePump,
  DueRow,
  Said,
  TodayRow,
  TodayView,
} from './views'

/** What has to be decided within this many days stands on the list. */
const ahead = 7
/** What may be done only later than this many days ahead is not looked at for going along. */
const alongWithin = 28
/** An early check stands on the list from this many days before its hours are reached. */
const aheadOfCheck = 2

/** What a morning is made of: everything as it stands on its day. */
export type Morning = {
  today: Day
  wear: WearView[]
  machines: MachineLine[]
  /** Visits that are neither done nor called off. */
  visits: VisitLine[]
  marks: Mark[]
  /** Signs that nobody has settled. */
  signs: SignView[]
  /** Early checks that nobody has done. */
  checks: EarlyCheckView[]
  stock: StockLine[]
  /** What open visits need of each part, and what is missing of it. */
  supplies: Pick<Supply, 'partId' | 'visitId' | 'day' | 'missing'>[]
  /** What planning counts of a service that is on no visit, or of what is left of it; null without a day in sight. */
  planOf: (view: WearView, clock: ClockView) => FleetService | null
  terms: PlanTerms
  /** Booked visits that no longer fit. */
  slips: Slip[]
  /** What is to be ordered for visits and for services that may fall due. */
  coming: ComingNeed[]
}

/**
 * What a morning asks for: visits to decide, made of services inside their tolerance or to be decided within a week
 * that share a day on one machine; signs that bring no service forward, booked visits that no longer fit, visits of
 * today and before, readings in doubt or owed, early checks that are near, and parts to count, to order or missed by
 * a visit; as one list by the last day on which acting is in time. What was put off is left out until its day, or
 * until something new or worse has come up.
 */
export function morningList(morning: Morning): TodayView {
  const { today, wear, visits, signs, slips } = morning
  const soon = addDays(today, ahead)
  const { due, onService, later } = servicesOf(wear, soon, visits)
  const visitOf = new Map(visits.map((visit) => [visit.id, visit]))
  const others: BareRow[] = [
    // A sign that brings a service forward is told on the row of that service.
    ...signs.filter((sign) => !onService.has(sign.id)).map((sign) => signRow(sign, today)),
    ...slips.flatMap((slip) => slipRow(slip, visitOf.get(slip.visitId)) ?? []),
    ...visits.filter((visit) => visit.day <= today).map(visitRow),
    ...morning.machines.flatMap((machine) => machineRows(machine, today)),
    ...morning.checks.filter(isNear(addDays(today, aheadOfCheck))).map(checkRow),
    ...partRows(morning, soon),
  ]
  // Services are put off one by one, so that one that gets worse comes back by itself.
  const open = withMarks(
    due.filter(({ visit }) => visit === null).map(({ view, clock }) => serviceRow(view, clock)),
    morning.marks,
  )
  const said = withMarks(others, open.marks)
  const rows = [...bundleRows(open.rows, morning, soon), ...said.rows]
  const { shown, left } = firstOfEach(inMorningOrder(rows), mostAtOnce)
  return {
    rows: shown,
    booked: bookedVisits(due, slips, today),
    left,
    marks: said.marks,
    next: later ? { pump: pumpOf(later.view), clock: later.clock } : null,
  }
}

/** What wants deciding, with the visit it is on; the signs that services are about; and what is to be decided next. */
function servicesOf(wear: WearView[], soon: Day, visits: VisitLine[]) {
  const due: { view: WearView; clock: ClockView; visit: VisitLine | null }[] = []
  const onService = new Set<string>()
  let later: { view: WearView; clock: ClockView } | null = null
  for (const view of wear)
    for (const clock of view.clocks) {
      for (const sign of clock.signs) onService.add(sign.id)
      if (wantsDeciding(clock, soon))
        due.push({ view, clock, visit: visitFor(view.assemblyId, clock, visits) })
      else if (dayOf(clock) < dayOf(later?.clock)) later = { view, clock }
    }
  return { due, onService, later }
}

const dayOf = (clock: ClockView | undefined) => clock?.lastResponsibleDay ?? '9999-12-31'

/** What is due on one machine and shares a day, as one row; what is on the shelf, pump by pump. */
function bundleRows(due: DueRow[], { today, wear, visits, planOf, terms }: Morning, soon: Day): TodayRow[] {
  const placeOf = (view: Pick<WearView, 'machineNumber' | 'assemblyId'>) =>
    view.machineNumber === null ? `shelf ${view.assemblyId}` : `machine ${view.machineNumber}`
  const within = addDays(today, alongWithin)
  const dueOf = groupBy(due, ({ pump }) => placeOf(pump))
  const wearOf = groupBy(
    wear.filter((view) => dueOf.has(placeOf(view))),
    placeOf,
  )
  return [...dueOf].flatMap(([place, own]) => {
    const asBundled = (view: WearView, clock: ClockView, row: DueRow | null) => ({
      pump: row?.pump ?? pumpOf(view),
      clock,
      row,
      plan: planOf(view, clock),
    })
    const viewOf = new Map((wearOf.get(place) ?? []).map((view) => [view.assemblyId, view]))
    const rowed = new Set(own.map(({ clock }) => clock))
    const along = (wearOf.get(place) ?? []).flatMap((view) =>
      view.clocks
        .filter(
          (clock) =>
            !rowed.has(clock) &&
            // What waits by somebody's word is not brought back by going along.
            !wantsDeciding(clock, soon) &&
            clock.window !== null &&
            clock.window.from <= within &&
            notOnVisit(view.assemblyId, clock, visits).length > 0,
        )
        .map((clock) => asBundled(view, clock, null)),
    )
    const bundles = bundlesOf(
      own.map((row) => asBundled(viewOf.get(row.pump.assemblyId)!, row.clock, row)),
      along,
      { today, terms },
    )
    return bundles.map((bundle): TodayRow => {
      const rows = bundle.services.flatMap(({ row }) => row ?? [])
      const [first] = rows
      const handed = [...new Set(rows.flatMap(({ handedTo }) => handedTo ?? []))]
      const days = rows.flatMap(({ actBy }) => actBy ?? [])
      return {
        kind: 'bundle',
        subject: `bundle:${first!.subject}`,
        positions: [],
        grounds: [],
        severity: Math.max(...rows.map(({ severity }) => severity)),
        label:
          rows.length === 1
            ? first!.label
            : `${first!.pump.machineNumber ?? first!.pump.number} ${rows.length} services`,
        actBy: days.length === 0 ? null : days.reduce((a, b) => (a < b ? a : b)),
        weight: Math.max(...rows.map(({ weight }) => weight)),
        yardId: first!.yardId,
        lead: null,
        handedTo: handed.length === 0 ? null : handed.join(' and '),
        cameBack: rows.find(({ cameBack }) => cameBack !== null)?.cameBack ?? null,
        machineId: bundle.services.find(({ plan }) => plan !== null)?.plan?.machineId || null,
        pump: first!.pump,
        bundle: {
          day: bundle.day,
          minutes: bundle.minutes,
          minutesAlone: bundle.minutesAlone,
          services: bundle.services.map(({ pump, clock, plan, row }): Bundled => ({
            pump,
            clock,
            positions: plan?.positions ?? clock.positions,
            standing: row && asStanding(row),
          })),
        },
      }
    })
  })
}

/** Visits to come that have in hand what would have to be decided; those that slip stand on the list. */
function bookedVisits(
  due: { view: WearView; clock: ClockView; visit: VisitLine | null }[],
  slips: Slip[],
  today: Day,
): BookedVisit[] {
  const slipping = new Set(slips.map(({ visitId }) => visitId))
  const inHand = due.flatMap(({ view, clock, visit }) =>
    visit && visit.day > today && !slipping.has(visit.id)
      ? [{ visit, service: { pump: pumpOf(view), clock } }]
      : [],
  )
  return [...groupBy(inHand, ({ visit }) => visit.id).values()]
    .map((own) => ({ visit: own[0]!.visit, services: own.map(({ service }) => service) }))
    .sort((a, b) =>
      a.visit.day < b.visit.day ? -1 : a.visit.day > b.visit.day ? 1 : a.visit.number - b.visit.number,
    )
}

/**
 * Rows without those that are put off, each with who has it, and with why it is back where it was put off
 * and something new or worse has come up since; and the marks that still hold something.
 */
function withMarks<Row extends MarkedAs & { subject: string }>(
  rows: Row[],
  marks: Mark[],
): { rows: (Row & Said)[]; marks: Mark[] } {
  const snoozes = marks.filter((mark) => mark.kind === 'snooze')
  const idle = new Set<string>()
  const holding = new Set<string>()
  const standing = rows.flatMap((row): (Row & Said)[] => {
    const own = snoozes.filter((mark) => markOn(mark, row))
    const holds = own.find((mark) => endedBy(mark, row) === null)
    if (holds) {
      holding.add(holds.id)
      return []
    }
    for (const mark of own) idle.add(mark.id)
    const ended = own.at(-1)
    const hand = marks.findLast((mark) => mark.kind === 'hand' && markOn(mark, row))
    return [
      {
        handedTo: hand?.to ?? null,
        cameBack: ended
          ? {
              until: ended.until ?? '',
              by: ended.by,
              reason: ended.reason,
              because: endedBy(ended, row)!,
            }
          : null,
        ...row,
      },
    ]
  })
  return { rows: standing, marks: marks.filter(({ id }) => holding.has(id) || !idle.has(id)) }
}

/** Inside its tolerance or past it, brought forward, or so far from its parts that it has to be decided now. */
function wantsDeciding(clock: ClockView, soon: string): boolean {
  return clock.state !== 'healthy' || (clock.lastResponsibleDay !== null && clock.lastResponsibleDay <= soon)
}

const isNear = (day: string) => (check: EarlyCheckView) => check.aboutDay !== null && check.aboutDay <= day

/** A row that stands there for itself alone. */
const plain = { positions: [], severity: 0, grounds: [] }

function pumpOf(view: WearView): DuePump {
  const { assemblyId, number, title, unit, machineNumber, machineName, yardId } = view
  return { assemblyId, number, title, unit, machineNumber, machineName, yardId }
}

function serviceRow(view: WearView, clock: ClockView): BareService {
  const what = [`${view.machineNumber ?? view.number} ${inSentence(clock.name)}`, clock.where]
  return {
    subject: serviceSubject(view.assemblyId, clock.task, clock.positions),
    positions: clock.positions,
    severity: stateRank[clock.state],
    grounds: clock.signs.map((sign) => sign.id),
    label: what.filter(Boolean).join(', '),
    actBy: clock.lastResponsibleDay,
    weight: clock.share,
    yardId: view.yardId,
    lead: null,
    pump: pumpOf(view),
    clock,
  }
}

/** A booked visit that no longer fits; one that waits for its sheet to be signed is no longer planned. */
function slipRow(slip: Slip, visit: VisitLine | undefined): BareRow | null {
  if (!visit) return null
  return {
    kind: 'slip',
    subject: `slip:${visit.id}`,
    positions: [],
    severity: slip.says.length,
    grounds: slip.grounds,
    label: `visit ${visitNumber(visit.number)} no longer fits`,
    actBy: slip.by,
    weight: slip.says.length,
    yardId: visit.yardId,
    lead: visit.lead,
    visit,
    slip,
  }
}

function signRow(sign: SignView, today: string): BareRow {
  return {
    kind: 'sign',
    subject: `sign:${sign.id}`,
    ...plain,
    severity: sign.by < today ? 1 : 0,
    label: `${sign.machineNumber ?? sign.pump ?? ''} ${sign.name.toLowerCase()}`,
    actBy: sign.by,
    weight: 0,
    yardId: sign.yardId,
    lead: null,
    sign,
  }
}

function visitRow(visit: VisitLine): BareRow {
  return {
    kind: 'visit',
    subject: `visit:${visit.id}`,
    ...plain,
    label: `visit ${visitNumber(visit.number)}`,
    actBy: visit.day,
    weight: 0,
    yardId: visit.yardId,
    lead: visit.lead,
    visit,
  }
}

function machineRows(machine: MachineLine, today: string): BareRow[] {
  if (machine.doubts === 0 && !machine.owesReading) return []
  const common = { ...plain, weight: 0, yardId: machine.yardId, lead: null, machine }
  const rows: BareRow[] = []
  if (machine.doubts > 0 && !machine.retiredOn)
    rows.push({
      kind: 'doubt',
      ...common,
      subject: `doubt:${machine.id}`,
      severity: machine.doubts,
      label: `${machine.number} reading in doubt`,
      // Its hours stand still until somebody has looked.
      actBy: today,
    })
  if (machine.owesReading)
    rows.push({
      kind: 'reading',
      ...common,
      subject: `reading:${machine.id}`,
      label: `${machine.number} reading`,
      actBy: machine.owesSince ?? today,
    })
  return rows
}

function checkRow(check: EarlyCheckView): BareRow {
  return {
    kind: 'earlyCheck',
    subject: `earlyCheck:${check.id}`,
    ...plain,
    label: `${check.machineNumber ?? check.pump} early check`,
    actBy: check.aboutDay,
    weight: check.worked,
    yardId: check.yardId,
    lead: null,
    check,
  }
}

/** Bins to count, parts that booked visits miss, and parts to order for what is coming. */
function partRows({ stock, supplies, coming, today }: Morning, soon: Day): BareRow[] {
  const comingOf = new Map(coming.filter((each) => each.orderBy <= soon).map((each) => [each.partId, each]))
  const missedOf = new Map<string, typeof supplies>()
  for (const each of supplies.filter(({ missing }) => missing > 0))
    missedOf.set(each.partId, [...(missedOf.get(each.partId) ?? []), each])
  return stock
    .filter((part) => !part.retiredOn)
    .flatMap((part): BareRow[] => {
      const need = comingOf.get(part.id) ?? null
      const missed = missedOf.get(part.id) ?? []
      const byVisit = missed.map((each) => addDays(each.day, -part.leadDays))
      const now = part.short > 0 || part.below ? [today] : []
      const days = [...now, ...byVisit, ...(need ? [need.orderBy] : [])].sort()
      if (days.length === 0) return []
      return [
        {
          kind: 'part',
          subject: `part:${part.id}`,
          positions: [],
          severity: part.missing + part.short,
          grounds: [
            part.short > 0 && 'count',
            part.below && 'below',
            need && 'coming',
            ...missed.map((each) => `visit:${each.visitId}`),
          ].filter((each) => typeof each === 'string'),
          label: `${part.number} ${part.name}`,
          actBy: days[0]!,
          weight: part.missing,
          yardId: null,
          lead: null,
          part,
          coming: need,
        },
      ]
    })
}
