import 'server-only'
import { splitInstance, type PumpModel } from '@/core/models'
import type { Renewals } from '@/core/wear'
import { kept } from '@/db/house'
import { assemblies } from '@/db/fleet'
import { taskRecords } from '@/db/sheets'
import { lives } from '@/db/wear'

/**
 * Of each task on condition of a model: how often its positions were looked at on our sheets, on any pump of
 * that model, and how often one was renewed then.
 */
export function renewalRates(modelId: string, model: PumpModel): Promise<Map<string, Renewals>> {
  return kept(`renewal rates ${modelId}`, async () => {
    const tasks = model.tasks.filter(({ kind }) => kind === 'condition')
    if (tasks.length === 0) return new Map()
    const ids = (await assemblies.all({ modelId })).map(({ id }) => id)
    const [records, begun] = await Promise.all([
      taskRecords.all({ assemblyId: ids, task: tasks.map(({ key }) => key), status: 'active' }),
      lives.all({ assemblyId: ids }),
    ])
    const fitted = new Set(
      begun.flatMap(({ sheetId, assemblyId, position }) =>
        sheetId === null ? [] : [`${sheetId} ${assemblyId} ${position}`],
      ),
    )
    return new Map(
      tasks.map((task): [string, Renewals] => {
        const looked = records.filter(
          (record) => record.task === task.key && task.positions.includes(splitInstance(record.position).key),
        )
        const renewed = looked.filter(({ sheetId, assemblyId, position }) =>
          fitted.has(`${sheetId} ${assemblyId} ${position}`),
        )
        return [task.key, { looked: looked.length, renewed: renewed.length }]
      }),
    )
  })
}
