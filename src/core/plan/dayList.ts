import type { ConsumableNeed, ToolNeed } from '../composing'
import type { Qualification } from '../models'
import { tidy, type PickPage } from '../stores'
import type { PreparedStep, VisitPage } from './views'
import { visitNumber } from './visits'

/** What a visit of the day brings along, as it is prepared and picked. */
export type DayVisit = {
  visit: Pick<
    VisitPage,
    | 'id'
    | 'number'
    | 'version'
    | 'machineNumber'
    | 'machineName'
    | 'place'
    | 'startTime'
    | 'minutes'
    | 'state'
    | 'leadId'
    | 'lead'
    | 'helpers'
    | 'helperMinutes'
    | 'services'
    | 'tools'
    | 'consumables'
    | 'qualifications'
    | 'winter'
  > & { steps: Pick<PreparedStep, 'text' | 'where' | 'lift' | 'caution'>[] }
  pick: Pick<PickPage, 'take' | 'open' | 'afterOpening' | 'short' | 'picked' | 'spares' | 'unknown'>
}

/** A lot out of one bin, for one visit or several. */
export type DayPart = {
  key: string
  number: string
  name: string
  unit: PickPage['take'][number]['unit']
  quantity: number
  bin: string
  place: string
  lot: string
  /** On a shelf of its yard, in another yard from where it has to be brought over, or laid ready in its bag. */
  lies: 'shelf' | 'away' | 'picked'
  visits: string[]
}
export type DayTool = Pick<ToolNeed, 'name' | 'special' | 'temporary' | 'removalOnly' | 'contingency'> & {
  visits: string[]
}

/** All that one van takes along on a day. */
export type DayList = {
  parts: DayPart[]
  /** What is short, and when it would come. */
  short: { name: string; quantity: number; unit: PickPage['take'][number]['unit']; visits: string[] }[]
  /** Used only where a finding asks for it. */
  inCase: { name: string; quantity: number; unit: string; visits: string[] }[]
  consumables: (ConsumableNeed & { visits: string[] })[]
  /** Wanted for certain: special ones first. */
  tools: DayTool[]
  /** Wanted only where a finding asks for it. */
  toolsInCase: DayTool[]
  lifts: { words: string; what: string; visit: string }[]
  helpers: { visit: string; machine: string; minutes: number; names: string[] }[]
  qualifications: { qualification: Qualification; visits: string[] }[]
  minutes: number
  /** What goes in first, and why: what is wanted first goes in last. */
  loading: { what: string; why: string }[]
}

/**
 * What a technician or a van takes along for the visits of a day: the union over them. A tool is taken once however
 * many visits want it; parts and drops are taken for each.
 *
 * @param visits in the order in which they are worked
 */
export function dayListOf(visits: readonly DayVisit[]): DayList {
  const numberOf = ({ visit }: DayVisit) => visitNumber(visit.number)
  const parts = new Map<string, DayPart>()
  const add = (part: Omit<DayPart, 'visits'>, visit: string) => {
    const known = parts.get(part.key)
    if (!known) parts.set(part.key, { ...part, visits: [visit] })
    else {
      known.quantity = tidy(known.quantity + part.quantity)
      if (!known.visits.includes(visit)) known.visits.push(visit)
    }
  }
  const short = new Sums<DayList['short'][number]>()
  const inCase = new Sums<DayList['inCase'][number]>()
  const consumables = new Sums<DayList['consumables'][number]>()
  const tools = new Map<string, DayTool>()
  for (const each of visits) {
    const visit = numberOf(each)
    for (const { key, number, name, unit, quantity, bin, place, lot } of [
      ...each.pick.take,
      ...each.pick.open,
    ])
      // A kit is opened piece by piece of its own: its lines are told apart by their place in the list.
      add(
        {
          key: `shelf ${key.split(' ')[0]} ${place} ${number}`,
          number,
          name,
          unit,
          quantity,
          bin,
          place,
          lot,
          lies: 'shelf',
        },
        visit,
      )
    for (const { number, name, unit, quantity } of each.pick.afterOpening)
      add(
        {
          key: `opened ${number}`,
          number,
          name,
          unit,
          quantity,
          bin: '',
          place: '',
          lot: 'out of a kit opened before',
          lies: 'shelf',
        },
        visit,
      )
    for (const { partId, number, name, unit, quantity, lot, code, place } of each.pick.picked)
      add(
        {
          key: `picked ${partId} ${lot} ${place} ${visit}`,
          ...{ number, name, unit, quantity, place, bin: '', lies: 'picked' },
          lot: [`lot ${lot}`, code].filter(Boolean).join(', '),
        },
        visit,
      )
    for (const { number, name, quantity, unit, transfers } of each.pick.short) {
      for (const { lotId, lot, place, quantity: over } of transfers)
        add(
          {
            key: `away ${lotId} ${place} ${number}`,
            ...{ number, name, unit, quantity: over, bin: '', place, lot: `lot ${lot}`, lies: 'away' },
          },
          visit,
        )
      const left = tidy(quantity - transfers.reduce((sum, each) => sum + each.quantity, 0))
      if (left > 0)
        short.add(`${number} ${unit}`, { name: `${number} ${name}`, quantity: left, unit, visits: [visit] })
    }
    for (const { name, quantity, unit } of each.pick.unknown)
      short.add(`${name} ${unit}`, { name, quantity, unit: unit as never, visits: [visit] })
    for (const { name, quantity, unit } of each.pick.spares)
      inCase.add(`${name} ${unit}`, { name, quantity, unit, visits: [visit] })
    for (const need of each.visit.consumables)
      consumables.add(`${need.name} ${need.unit}`, { ...need, visits: [visit] })
    for (const { name, special, temporary, removalOnly, contingency } of each.visit.tools) {
      const known = tools.get(name)
      if (!known) tools.set(name, { name, special, temporary, removalOnly, contingency, visits: [visit] })
      else
        tools.set(name, {
          name,
          special: known.special || special,
          temporary: known.temporary || temporary,
          removalOnly: known.removalOnly && removalOnly,
          // Wanted for certain on one visit it is wanted for certain.
          contingency: known.contingency && contingency,
          visits: known.visits.includes(visit) ? known.visits : [...known.visits, visit],
        })
    }
  }
  const all = [...tools.values()].sort(
    (a, b) => Number(b.special) - Number(a.special) || a.name.localeCompare(b.name),
  )
  const lifts = visits.flatMap((each) => {
    const told = new Set<string>()
    return each.visit.steps.flatMap(({ text, where, lift }) => {
      if (!lift || told.has(text + lift)) return []
      told.add(text + lift)
      return [{ words: lift, what: where ? `${text} (${where})` : text, visit: numberOf(each) }]
    })
  })
  const qualified = new Map<Qualification, string[]>()
  for (const each of visits)
    for (const { qualification } of each.visit.qualifications)
      qualified.set(qualification, [...(qualified.get(qualification) ?? []), numberOf(each)])
  const list = {
    parts: [...parts.values()].sort(byBin),
    short: short.all(),
    inCase: inCase.all(),
    consumables: consumables.all(),
    tools: all.filter(({ contingency }) => !contingency),
    toolsInCase: all.filter(({ contingency }) => contingency),
    lifts,
    helpers: visits
      .filter(({ visit }) => visit.helperMinutes > 0)
      .map((each) => ({
        ...{ visit: numberOf(each), machine: each.visit.machineNumber ?? '' },
        ...{ minutes: each.visit.helperMinutes, names: each.visit.helpers },
      })),
    qualifications: [...qualified].map(([qualification, own]) => ({ qualification, visits: own })),
    minutes: visits.reduce((sum, { visit }) => sum + visit.minutes, 0),
  }
  return { ...list, loading: loadingOf(visits, list) }
}

/** What goes in first lies deepest: heavy gear, then the bags from the last visit to the first, the daily things last. */
function loadingOf(
  visits: readonly DayVisit[],
  {
    tools,
    toolsInCase,
    lifts,
    consumables,
  }: Pick<DayList, 'tools' | 'toolsInCase' | 'lifts' | 'consumables'>,
): DayList['loading'] {
  const special = tools.filter((tool) => tool.special).map(({ name }) => name)
  const loading: DayList['loading'] = []
  if (lifts.length > 0)
    loading.push({
      what: 'Lifting gear',
      why: `for ${lifts.length === 1 ? 'one lift' : `${lifts.length} lifts`}, heaviest and deepest`,
    })
  if (special.length > 0) loading.push({ what: special.join(', '), why: 'special tools, not wanted between' })
  if (toolsInCase.length > 0)
    loading.push({ what: toolsInCase.map(({ name }) => name).join(', '), why: 'only in case' })
  for (const [at, each] of [...visits].reverse().entries())
    loading.push({
      what: `Bag of visit ${visitNumber(each.visit.number)}, ${each.visit.machineNumber ?? each.visit.services[0]?.pump ?? ''}`,
      why:
        visits.length === 1
          ? 'the parts of the visit'
          : at === 0
            ? 'the last visit of the day'
            : at === visits.length - 1
              ? 'the first visit of the day'
              : 'between',
    })
  if (consumables.length > 0) loading.push({ what: 'Bottles and tubes', why: 'upright, at hand' })
  if (tools.some((tool) => !tool.special))
    loading.push({ what: 'Hand tools, locks and tags', why: 'wanted at every visit, first out' })
  return loading
}

/** Amounts of the same thing added up, with the visits that want it. */
class Sums<Row extends { quantity: number; visits: string[]; applications?: number }> {
  private rows = new Map<string, Row>()
  add(key: string, row: Row): void {
    const known = this.rows.get(key)
    if (!known) {
      this.rows.set(key, { ...row })
      return
    }
    known.quantity = tidy(known.quantity + row.quantity)
    if (known.applications !== undefined) known.applications += row.applications ?? 0
    known.visits = [...new Set([...known.visits, ...row.visits])]
  }
  all(): Row[] {
    return [...this.rows.values()]
  }
}

const order = ['away', 'shelf', 'picked']
const bins = new Intl.Collator('en', { numeric: true })
const byBin = (a: DayPart, b: DayPart) =>
  order.indexOf(a.lies) - order.indexOf(b.lies) ||
  a.place.localeCompare(b.place) ||
  bins.compare(a.bin || '~', b.bin || '~') ||
  bins.compare(a.number, b.number)
