import 'server-only'
import { addDays } from '@/core/calendar'
import type { MachineLine } from '@/core/fleet/views'
import type { EarlyCheckView, SignView } from '@/core/inspection/views'
import type { ComingNeed } from '@/core/parts'
import type { StockLine } from '@/core/parts/views'
import { firstOfEach, inMorningOrder } from '@/core/planning'
import { visitFor } from '@/core/planning/onVisit'
import type { DuePump, TodayRow, TodayView } from '@/core/planning/todayViews'
import type { VisitLine } from '@/core/planning/views'
import type { ClockView, WearView } from '@/core/wear/views'
import { kept } from '@/db'
import type { Actor } from './actor'
import { comingNeeds } from './comingNeeds'
import { ourCompany, present } from './company'
import { listOpenChecks } from './earlyChecks'
import { listMachines } from './fleet'
import { listMarks } from './marks'
import { listOpenSigns } from './signs'
import { listStock, supplyOfVisits } from './stores'
import { listOpenVisits } from './visits'
import { listWear } from './wear'

/** What has to be decided within this many days stands on the list. */
const ahead = 7
/** Of one kind in one yard the list shows so many rows at once. */
const mostAtOnce = 60
/** An early check stands on the list from this many days before its hours are reached. */
const aheadOfCheck = 2

/**
 * One morning's work: services, signs, visits, readings, early checks and parts as one list, by the last
 * day on which acting is in time. What was put off is left out until its day.
 */
export async function getToday(actor: Actor): Promise<TodayView> {
  const { today } = present(await ourCompany())
  // The morning is the same for everybody; who may do what is decided where it is shown and done.
  return kept('today', today, () => loadToday(actor, today))
}

async function loadToday(actor: Actor, today: string): Promise<TodayView> {
  const [wear, machines, open, stock, supply, marks, signs, checks] = await Promise.all([
    listWear(actor),
    listMachines(actor),
    listOpenVisits(actor),
    listStock(actor),
    supplyOfVisits(actor),
    listMarks(actor),
    listOpenSigns(actor),
    listOpenChecks(actor),
  ])
  const coming = await comingNeeds(wear, open, stock, today)
  const soon = addDays(today, ahead)
  const putOff = new Set(marks.filter((mark) => mark.kind === 'snooze').map((mark) => mark.subject))
  const services = wear.flatMap((view) => view.clocks.map((clock) => ({ view, clock })))
  const wanted = services.filter(({ clock }) => wantsDeciding(clock, soon))
  const rows: TodayRow[] = [
    ...wanted.map(({ view, clock }) => serviceRow(view, clock, visitFor(view.assemblyId, clock, open))),
    // A sign that brings a service forward is told on the row of that service.
    ...signs.filter((sign) => !onService(sign, wear)).map(signRow),
    ...open.filter((visit) => visit.day <= today).map(visitRow),
    ...machines.flatMap((machine) => machineRows(machine, today)),
    ...checks.filter(isNear(addDays(today, aheadOfCheck))).map(checkRow),
    ...partRows(stock, supply, coming, soon, today),
  ]
  const later = services
    .filter(({ clock }) => !wantsDeciding(clock, soon) && clock.lastResponsibleDay !== null)
    .sort((a, b) => (a.clock.lastResponsibleDay! < b.clock.lastResponsibleDay! ? -1 : 1))[0]
  const { shown, left } = firstOfEach(
    inMorningOrder(rows.filter((row) => !putOff.has(row.subject))),
    mostAtOnce,
  )
  return {
    rows: shown,
    left,
    marks,
    next: later ? { pump: pumpOf(later.view), clock: later.clock } : null,
  }
}

/** Inside its tolerance or past it, brought forward, or so far from its parts that it has to be decided now. */
function wantsDeciding(clock: ClockView, soon: string): boolean {
  return clock.state !== 'healthy' || (clock.lastResponsibleDay !== null && clock.lastResponsibleDay <= soon)
}

function onService(sign: SignView, wear: WearView[]): boolean {
  const view = wear.find((each) => each.assemblyId === sign.assemblyId)
  return view?.clocks.some((clock) => clock.signs.some((each) => each.id === sign.id)) ?? false
}

const isNear = (day: string) => (check: EarlyCheckView) => check.aboutDay !== null && check.aboutDay <= day

function pumpOf(view: WearView): DuePump {
  const { assemblyId, number, title, unit, machineNumber, machineName, yardId } = view
  return { assemblyId, number, title, unit, machineNumber, machineName, yardId }
}

function serviceRow(view: WearView, clock: ClockView, visit: VisitLine | null): TodayRow {
  const what = [`${view.machineNumber ?? view.number} ${clock.name.toLowerCase()}`, clock.where]
  return {
    kind: 'service',
    subject: `service:${view.assemblyId}:${clock.task}:${clock.positions[0]}`,
    label: what.filter(Boolean).join(', '),
    actBy: clock.lastResponsibleDay,
    weight: clock.share,
    yardId: view.yardId,
    lead: visit?.lead ?? null,
    pump: pumpOf(view),
    clock,
    visit,
  }
}

function signRow(sign: SignView): TodayRow {
  return {
    kind: 'sign',
    subject: `sign:${sign.id}`,
    label: `${sign.machineNumber ?? sign.pump ?? ''} ${sign.name.toLowerCase()}`,
    actBy: sign.by,
    weight: 0,
    yardId: sign.yardId,
    lead: null,
    sign,
  }
}

function visitRow(visit: VisitLine): TodayRow {
  return {
    kind: 'visit',
    subject: `visit:${visit.id}`,
    label: `visit ${visit.number}`,
    actBy: visit.day,
    weight: 0,
    yardId: visit.yardId,
    lead: visit.lead,
    visit,
  }
}

function machineRows(machine: MachineLine, today: string): TodayRow[] {
  const common = { weight: 0, yardId: machine.yardId, lead: null, machine }
  const rows: TodayRow[] = []
  if (machine.doubts > 0 && !machine.retiredOn)
    rows.push({
      ...common,
      kind: 'doubt',
      subject: `doubt:${machine.id}`,
      label: `${machine.number} reading in doubt`,
      // Its hours stand still until somebody has looked.
      actBy: today,
    })
  if (machine.owesReading)
    rows.push({
      ...common,
      kind: 'reading',
      subject: `reading:${machine.id}`,
      label: `${machine.number} reading`,
      actBy: machine.owesSince ?? today,
    })
  return rows
}

function checkRow(check: EarlyCheckView): TodayRow {
  return {
    kind: 'earlyCheck',
    subject: `earlyCheck:${check.id}`,
    label: `${check.machineNumber ?? check.pump} early check`,
    actBy: check.aboutDay,
    weight: check.worked,
    yardId: check.yardId,
    lead: null,
    check,
  }
}

/** Bins to count, parts that booked visits miss, and parts that the coming weeks eat below their minimum. */
function partRows(
  stock: StockLine[],
  supply: { partId: string; day: string; missing: number }[],
  coming: ComingNeed[],
  soon: string,
  today: string,
): TodayRow[] {
  return stock
    .filter((part) => !part.retiredOn)
    .flatMap((part): TodayRow[] => {
      const need = coming.find((each) => each.partId === part.id && each.orderBy <= soon) ?? null
      const missed = supply.filter((each) => each.partId === part.id && each.missing > 0)
      const byVisit = missed.map((each) => addDays(each.day, -part.leadDays))
      const now = part.short > 0 || part.below ? [today] : []
      const days = [...now, ...byVisit, ...(need ? [need.orderBy] : [])].sort()
      if (days.length === 0) return []
      return [
        {
          kind: 'part',
          subject: `part:${part.id}`,
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
