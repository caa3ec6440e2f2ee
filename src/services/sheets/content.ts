import 'server-only'
import type { VisitItem } from '@/core/plan'
import type { ComposedSheet, SheetStep } from '@/core/composing'
import { titleOf, type Fastener } from '@/core/models'
import { openedPlaces, sheetPositions, type SheetAssembly, type SheetContent } from '@/core/sheets'
import { wrenchWords } from '@/core/torque'
import { whereWords } from '@/core/wear'
import { assemblies } from '@/db/fleet'
import { meters } from '@/db/hours'
import { pumpModelVersions } from '@/db/models'
import { duties } from '@/db/wear'
import { ourCompany, present } from '../house'
import { composeItems, composeOrRefuse, jobsOf, unitsOf } from '../composing'
import { companyPractices } from '../practices'
import { listWrenches } from '../tools'
import { winterPart } from '../winter'

export type ContentOf = {
  place: { machineId: string | null }
  items: VisitItem[]
  trigger: SheetContent['trigger']
  trouble: string
  /** Makes the machine safe for winter after its services, or brings it back; blank for neither. */
  winter?: '' | 'lay' | 'return'
}

/** Everything a sheet is worked from, composed for some services; held in full by its first entry. */
export async function contentOf(of: ContentOf): Promise<SheetContent> {
  const { place, items, trigger, trouble, winter = '' } = of
  const [units, practices] = await Promise.all([unitsOf(items), companyPractices()])
  const composed =
    trigger === 'planned' ? composeItems(items, units, practices) : composeOrRefuse(items, units, practices)
  const content = await contentFrom(composed, { place, items, trigger, trouble })
  return winter === '' || place.machineId === null ? content : withWinter(content, place.machineId, winter)
}

/** The winter part comes last: whatever else is done is done and proved before. */
async function withWinter(
  content: SheetContent,
  machineId: string,
  kind: 'lay' | 'return',
): Promise<SheetContent> {
  const part = await winterPart(machineId, kind, content.meters, content.steps)
  return {
    ...content,
    steps: [...content.steps, ...part.steps],
    parts: [...content.parts, ...part.parts],
    minutes: content.minutes + part.minutes,
    helperMinutes: (content.helperMinutes ?? 0) + part.helperMinutes,
    winter: part.winter,
  }
}

/** The content of a sheet from what was composed, with the names and figures that stand around it. */
export async function contentFrom(
  composed: Omit<ComposedSheet, 'minutesOneByOne'>,
  { place, items, trigger, trouble }: ContentOf,
): Promise<SheetContent> {
  const [units, wrenches, company] = await Promise.all([unitsOf(items), listWrenches(), ourCompany()])
  const { models } = units
  const { today } = present(company)
  const [pumpRows, versionRows, meterRows, dutyRows] = await Promise.all([
    assemblies.all({ id: items.map((item) => item.assemblyId) }),
    pumpModelVersions.all({ id: [...models.keys()] }),
    place.machineId ? meters.all({ machineId: place.machineId, retiredOn: null }, [['name', 'ASC']]) : [],
    duties.all({ assemblyId: items.map((item) => item.assemblyId), status: 'active' }),
  ])
  const jobs = jobsOf(items, units)
  return {
    trigger,
    trouble,
    stripOrder: composed.practices.some(({ choice }) => choice === 'oneAtATime')
      ? 'oneAtATime'
      : 'itemByItem',
    meters: meterRows.map((meter) => ({
      id: meter.id,
      name: meter.name,
      unit: meter.kind === 'strokes' ? 'strokes' : 'h',
    })),
    assemblies: jobs.map(({ id: assemblyId, model, tasks }): SheetAssembly => {
      const pump = pumpRows.find((row) => row.id === assemblyId)!
      const versionId = items.find((item) => item.assemblyId === assemblyId)!.modelVersionId
      const version = versionRows.find((row) => row.id === versionId)!
      const own = composed.steps.filter((step) => step.assemblyId === assemblyId)
      return {
        id: assemblyId,
        number: pump.number,
        title: titleOf(model),
        serial: pump.serial,
        unit: pump.usageScale,
        modelId: version.modelId,
        modelVersionId: versionId,
        modelVersion: version.version,
        notice: model.notice,
        tasks: [
          ...tasks.map((each) => ({ ...each, why: '' })),
          ...composed.implied
            .filter((each) => each.assemblyId === assemblyId)
            .map((each) => ({ ...each, path: null })),
        ].map(({ task: key, positions, why, path }) => {
          const task = model.tasks.find((each) => each.key === key)!
          const ways = task.paths.map((way) => ({ key: way.key, name: way.name }))
          return {
            task: key,
            name: task.name,
            kind: task.kind,
            positions,
            where: whereWords(model, positions),
            ...(why && { disturbed: why }),
            ...(ways.length > 1 && { ways, way: path ?? wayIn(own, key, ways) }),
          }
        }),
        positions: sheetPositions(model),
        parts: model.parts.map(({ key, name, unit }) => ({ key, name, unit })),
        fasteners: model.fasteners.map(
          (fastener) =>
            composed.fasteners.find(
              (each) => each.assemblyId === assemblyId && each.fastener.key === fastener.key,
            )?.fastener ?? fastener,
        ),
        nodes: openedPlaces(model, own),
        duties: dutyRows.filter((duty) => duty.assemblyId === assemblyId).map((duty) => duty.key),
        tools: model.tools.map(({ key, name }) => ({ key, name })),
      }
    }),
    steps: composed.steps,
    parts: composed.parts,
    spares: composed.spares,
    consumables: composed.consumables,
    qualifications: composed.qualifications,
    helperMinutes: composed.helperMinutes,
    cautions: composed.cautions,
    practices: composed.practices,
    torques: composed.fasteners.map((need) => ({
      ...need,
      wrenches: stagesOf(need.fastener).map((stage) => wrenchWords(need.fastener, stage, wrenches, today)),
    })),
    register: { wrenches, day: today },
    tools: composed.tools,
    minutes: composed.minutes,
    items,
    extra: [],
  }
}

/** The way that was composed for a task, as its steps' keys tell. */
function wayIn(steps: SheetStep[], task: string, ways: { key: string }[]): string | null {
  const own = steps.filter((step) => step.task === task)
  return ways.find((way) => own.some((step) => step.key.split('/').includes(way.key)))?.key ?? null
}

/** The stages of a fastener, from 1; one where it has none. */
function stagesOf({ torque }: Fastener): number[] {
  const count = torque.state === 'stated' ? Math.max(torque.stages.length, 1) : 1
  return Array.from({ length: count }, (_, index) => index + 1)
}
