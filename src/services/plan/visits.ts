import 'server-only'
import {
  isOpen,
  minutesOn,
  runsOver,
  visitStates,
  winterVisits,
  type VisitItem,
  type VisitState,
  type PreparedStep,
  type VisitLine,
  type VisitPage,
} from '@/core/plan'
import { longestCure, type ComposedSheet, type SheetStep } from '@/core/composing'
import { availability, stockedFor } from '@/core/stores'
import { treatmentWords, type Fastener, type PumpModel } from '@/core/models'
import { notFound, problemOf } from '@/core/problem'
import { showTorque, wrenchWords } from '@/core/torque'
import { likelyWords, whereWords } from '@/core/wear'
import { kept, Op, same } from '@/db/house'
import { assemblies, fittings, machines, yards } from '@/db/fleet'
import { people } from '@/db/access'
import { extrasOn, sheets, type SheetRow } from '@/db/sheets'
import { pumpModelVersions } from '@/db/models'
import { visits, type VisitRow } from '@/db/plan'
import { antifreezes } from '@/db/winter'
import { pouredPart } from '@/core/winter'
import { inSentence } from '@/core/units'
import { type Actor, ourCompany, present } from '../house'
import { companyPractices } from '../practices'
import { listWrenches } from '../tools'
import { composeItems, modelsOf, unitsOf } from '../composing'
import { loadBook, modelsOfVersions } from '../stores'
import { renewalRates } from '../wear'
import { heldWords, winterPart } from '../winter'
import { loadCrew, loadPlanTerms } from './terms'

export const openStates = (Object.keys(visitStates) as VisitState[]).filter(isOpen)

/** Visits of some days, in order. Cancelled ones are left out unless asked for. */
export async function listVisits(_actor: Actor, days: { from: string; to: string }): Promise<VisitLine[]> {
  const rows = await visits.all({ day: { [Op.between]: [days.from, days.to] } } as never, [
    ['day', 'ASC'],
    ['startTime', 'ASC'],
    ['number', 'ASC'],
  ])
  return asLines(rows.filter((row) => row.state !== 'cancelled'))
}

/** Every visit that still stands, whenever it is. */
export async function listOpenVisits(_actor: Actor): Promise<VisitLine[]> {
  const { today } = present(await ourCompany())
  const lines = await kept(`open visit lines ${today}`, async () =>
    asLines(await visits.all({ state: openStates }, [['day', 'ASC']])),
  )
  // A tick on a visit's sheet says nothing new here.
  return same('open visit lines', lines)
}

/** The visits of one machine, newest first. */
export async function visitsOfMachine(_actor: Actor, machineId: string): Promise<VisitLine[]> {
  return asLines(await visits.all({ machineId }, [['day', 'DESC']]))
}

/**
 * The visit that an address names: by its id, or by its number as people write it.
 *
 * @throws a problem of kind `notFound`
 */
export async function visitAt(reference: string): Promise<VisitRow> {
  const row = /^\d{1,9}$/.test(reference)
    ? await visits.find({ number: Number(reference) })
    : await visits.byId(reference)
  if (!row) throw notFound('This visit')
  return row
}

/** A visit with its preparation, composed from the very model versions it was booked with. */
export async function getVisit(actor: Actor, reference: string): Promise<VisitPage> {
  const row = await visitAt(reference)
  const [line] = await asLines([row])
  const units = await unitsOf(row.items)
  const { models } = units
  const own = composeItems(row.items, units, await companyPractices())
  const sheet = await withWinterPart(row, own)
  const wrenches = await listWrenches()
  const { today } = present(await ourCompany())
  const [crew, { closed }] = await Promise.all([loadCrew(), loadPlanTerms()])
  const lead = crew.find((member) => member.id === row.leadId)
  const fastenerOf = ({ assemblyId, step }: SheetStep) =>
    sheet.fasteners.find((each) => each.assemblyId === assemblyId && each.fastener.key === step.fastener)
      ?.fastener
  const sheetModels = new Map(row.items.map((item) => [item.assemblyId, models.get(item.modelVersionId)]))
  return {
    ...line!,
    note: row.note,
    endReason: row.endReason,
    held: isOpen(row.state) && row.winter === '' ? await heldWords(actor, row.machineId) : '',
    notice: [...new Set([...models.values()].map((model) => model.notice))].filter(Boolean).join(' '),
    parts: await stockFor(row, sheet.parts),
    tools: sheet.tools,
    spares: await withLikelihood(row, sheet.spares),
    consumables: sheet.consumables,
    qualifications: sheet.qualifications,
    cautions: sheet.cautions,
    fasteners: sheet.fasteners.map(({ assemblyId, fastener, where, notes }) => ({
      name: fastener.name,
      count: fastener.count,
      notes,
      pump: line!.services.find((service) => service.assemblyId === assemblyId)?.pump ?? '',
      where: where.filter(Boolean).join(', '),
      stages:
        fastener.torque.state === 'stated' && fastener.torque.stages.length > 0
          ? fastener.torque.stages.map((_, at) => showTorque(fastener.torque, at + 1))
          : [showTorque(fastener.torque)],
      treatment: treatmentWords(fastener.treatment),
      source: fastener.torque.source,
      unverified: fastener.torque.state === 'stated' && !fastener.torque.verified,
    })),
    helperMinutes: sheet.helperMinutes,
    perhapsMinutes: sheet.perhapsMinutes,
    implied: sheet.implied.map(({ assemblyId, task, positions, why }) => {
      const model = sheetModels.get(assemblyId)
      return {
        name: model?.tasks.find((each) => each.key === task)?.name ?? task,
        where: model ? whereWords(model, positions) : '',
        why,
      }
    }),
    minutesOneByOne: sheet.minutesOneByOne,
    running: runsOver({ ...row, cureMinutes: longestCure(sheet.steps.map(({ step }) => step)) }, (on) =>
      minutesOn(lead, closed, on),
    ),
    practices: sheet.practices,
    steps: sheet.steps.map((step) =>
      asPrepared(step, fastenerOf(step), (stage, fastener) => wrenchWords(fastener, stage, wrenches, today)),
    ),
  }
}

/** The winter part of a visit, as its sheet would begin today; left out where it cannot be done like this. */
async function withWinterPart(row: VisitRow, own: ComposedSheet): Promise<ComposedSheet> {
  if (row.winter === '' || row.machineId === null) return own
  try {
    const part = await winterPart(row.machineId, row.winter, [], own.steps)
    return {
      ...own,
      steps: [...own.steps, ...part.steps],
      parts: [...own.parts, ...part.parts],
      minutes: own.minutes + part.minutes,
      helperMinutes: own.helperMinutes + part.helperMinutes,
    }
  } catch (error) {
    const problem = problemOf(error)
    if (problem?.kind !== 'conflict') throw error
    return { ...own, cautions: [...own.cautions, { words: problem.message, where: '' }] }
  }
}

/** What goes along in case, with what our own findings say of how likely it is. */
async function withLikelihood(
  visit: VisitRow,
  spares: ComposedSheet['spares'],
): Promise<VisitPage['spares']> {
  const versions = await pumpModelVersions.all({ id: visit.items.map((item) => item.modelVersionId) })
  return Promise.all(
    spares.map(async (need) => {
      const item = visit.items.find((each) => each.assemblyId === need.assemblyId)
      const version = versions.find((each) => each.id === item?.modelVersionId)
      if (!version || need.look === undefined) return { ...need, likely: '' }
      const rates = await renewalRates(version.modelId, version.data)
      return {
        ...need,
        likely: likelyWords(rates.get(need.look) ?? { looked: 0, renewed: 0 }, need.spots.length),
      }
    }),
  )
}

/** Beside each part what the stores have for this visit, after what earlier visits take. */
async function stockFor(visit: VisitRow, needs: ComposedSheet['parts']): Promise<VisitPage['parts']> {
  const [book, modelOf] = await Promise.all([
    loadBook(),
    modelsOfVersions(visit.items.map((item) => item.modelVersionId)),
  ])
  const fluids = visit.winter === '' ? [] : await antifreezes.every()
  const stockedOf = (need: ComposedSheet['parts'][number]) => {
    const fluid = fluids.find(({ id }) => pouredPart(id) === need.part)
    if (fluid) return fluid.partId ? book.parts.get(fluid.partId) : undefined
    const item = visit.items.find((each) => each.assemblyId === need.assemblyId)
    return stockedFor(book.parts.values(), {
      modelId: modelOf.get(item?.modelVersionId ?? ''),
      part: need.part,
    })
  }
  return needs.map((need) => {
    const part = stockedOf(need)
    if (!part) return { ...need, stock: null }
    // What is picked for it or taken on its sheet is there; two pumps of one visit may want the same part, and
    // what is missing is missing for both together.
    const demand = (book.reserved.get(part.id) ?? []).find(({ visitId }) => visitId === visit.id)
    const quantity = demand?.quantity ?? 0
    const { free, missing, earliestDay } = availability(book, {
      part: part.id,
      quantity,
      day: visit.day,
      yardId: demand?.yardId,
      forVisit: visit.id,
    })
    const arrives = missing > 0 ? earliestDay : null
    return {
      ...need,
      stock: {
        partId: part.id,
        number: part.number,
        bin: part.bin,
        available: isOpen(visit.state) ? Math.min(free, quantity) : null,
        missing: isOpen(visit.state) ? missing : 0,
        arrives: isOpen(visit.state) ? arrives : null,
        inTime: arrives === null || arrives <= visit.day,
      },
    }
  })
}

function asPrepared(
  { key, phase, heading, where, stretch, step }: SheetStep,
  fastener: Fastener | undefined,
  wrench: (stage: number | null, fastener: Fastener) => string,
): PreparedStep {
  return {
    key,
    phase,
    heading,
    where,
    ...(stretch !== undefined && { stretch }),
    text: step.text,
    caution: step.caution,
    lift: step.lift,
    timer: step.timer,
    torque: fastener ? showTorque(fastener.torque, step.stage) : '',
    unverified: fastener?.torque.state === 'stated' && !fastener.torque.verified,
    wrench: fastener ? wrench(step.stage, fastener) : '',
    onlyIf: [step.when?.is ?? ''].flat().join(', or '),
  }
}

export async function asLines(rows: VisitRow[]): Promise<VisitLine[]> {
  if (rows.length === 0) return []
  const company = await ourCompany()
  const { today } = present(company)
  const shelved = rows.flatMap((row) => (row.machineId === null ? (row.items[0]?.assemblyId ?? []) : []))
  const [models, machineRows, yardRows, names, sheetRows, pumps, stays] = await Promise.all([
    modelsOf(rows.flatMap((row) => row.items)),
    machines.every(),
    yards.every(),
    people.every(),
    sheets.all({ visitId: rows.map((row) => row.id), state: ['open', 'signed'] }),
    assemblies.all({ id: [...new Set(rows.flatMap((row) => row.items.map((item) => item.assemblyId)))] }),
    fittings.all({ assemblyId: shelved, status: 'active' }, [['at', 'ASC']]),
  ])
  const nameOf = (id: string | null) => names.find((person) => person.id === id)?.name ?? null
  const added = await addedOn(sheetRows.filter((sheet) => sheet.state === 'open').map((sheet) => sheet.id))
  return rows.map((row) => {
    const machine = machineRows.find((each) => each.id === row.machineId)
    const yard = yardRows.find((each) => each.id === machine?.yardId)
    return {
      id: row.id,
      number: row.number,
      day: row.day,
      startTime: row.startTime,
      minutes: row.minutes,
      state: row.state,
      machineId: row.machineId,
      machineNumber: machine?.number ?? null,
      machineName: machine?.name ?? null,
      place: machine
        ? [yard?.name, machine.bay && `bay ${machine.bay}`].filter(Boolean).join(', ')
        : 'on the shelf',
      yardId:
        machine?.yardId ??
        stays.findLast((stay) => stay.assemblyId === row.items[0]?.assemblyId)?.yardId ??
        null,
      leadId: row.leadId,
      lead: nameOf(row.leadId) ?? '',
      helperIds: row.helperIds ?? [],
      helpers: (row.helperIds ?? []).flatMap((id) => nameOf(id) ?? []),
      pinned: row.pinned === 1,
      approvedBy: row.state === 'approved' ? nameOf(row.approvedById) : null,
      services: [
        ...row.items.map((item) => {
          const model = models.get(item.modelVersionId)
          return {
            assemblyId: item.assemblyId,
            pump: pumps.find((pump) => pump.id === item.assemblyId)?.number ?? '',
            task: item.task,
            name: model ? serviceName(model, item) : item.task,
            where: model ? whereWords(model, item.positions) : '',
            positions: item.positions,
          }
        }),
        ...winterService(row),
      ],
      sheet: sheetOf(
        sheetRows.find((sheet) => sheet.visitId === row.id),
        added,
      ),
      late: isOpen(row.state) && row.state !== 'inWork' && row.day < today,
      winter: row.winter,
      version: row.version,
    }
  })
}

/** Winter work stands among the services of its visit, last. */
function winterService({ winter }: VisitRow): VisitLine['services'] {
  if (winter === '') return []
  return [
    {
      assemblyId: '',
      pump: '',
      task: `winter ${winter}`,
      name: winterVisits[winter],
      where: '',
      positions: [],
    },
  ]
}

/** The task by its name, with the way of doing it where one was chosen. */
function serviceName(model: PumpModel, { task: key, path: pathKey }: VisitItem): string {
  const task = model.tasks.find((each) => each.key === key)
  const path = task?.paths.find((each) => each.key === pathKey)
  return [task?.name ?? key, path && inSentence(path.name)].filter(Boolean).join(': ')
}

function sheetOf(row: SheetRow | undefined, added: Map<string, string[]>): VisitLine['sheet'] {
  return row && row.state !== 'abandoned'
    ? { id: row.id, number: row.number, state: row.state, added: added.get(row.id) ?? [] }
    : null
}

/** What was added to open sheets on the way, in words, from one query. */
async function addedOn(sheetIds: string[]): Promise<Map<string, string[]>> {
  if (sheetIds.length === 0) return new Map()
  return new Map(
    [...(await extrasOn(sheetIds))].map(([sheetId, extras]) => [
      sheetId,
      extras.map(({ services, reason }) => `${services}: ${reason}`),
    ]),
  )
}
