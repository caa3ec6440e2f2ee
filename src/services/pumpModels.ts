import 'server-only'
import { pumpModelSchema, type PumpModelInput } from '@/core/fleet'
import type { PumpModelView } from '@/core/fleet/views'
import { invalid } from '@/core/problem'
import { check } from '@/core/problem/check'
import { write } from '@/db'
import { assemblies } from '@/db/assemblies'
import { pumpModels } from '@/db/pumpModels'
import { requirePermission, type Actor } from './actor'
import { recordChange } from './audit'
import { now } from './clock'
import { editRow } from './edit'

export async function listPumpModels(_actor: Actor): Promise<PumpModelView[]> {
  const [rows, pumps] = await Promise.all([
    pumpModels.all({}, [
      ['maker', 'ASC'],
      ['name', 'ASC'],
    ]),
    assemblies.all({ retiredOn: null }),
  ])
  return rows.map(({ createdAt: _createdAt, ...model }) => ({
    ...model,
    pumps: pumps.filter((pump) => pump.modelId === model.id).length,
  }))
}

export async function savePumpModel(actor: Actor, input: PumpModelInput): Promise<void> {
  requirePermission(actor, 'models.edit')
  const { id, version, ...values } = check(pumpModelSchema, input)
  const name = `${values.maker} ${values.name}`
  await write(async () => {
    const other = await pumpModels.find({ maker: values.maker, name: values.name })
    if (other && other.id !== id) throw invalid({ name: `There is a model ${name} already.` })
    if (version !== undefined) {
      await editRow(actor, pumpModels, { entity: 'pumpModel', name }, { id, version }, values, {
        action: 'changed',
        summary: `${name} changed`,
      })
      return
    }
    if (await pumpModels.byId(id)) return
    const row = { id, ...values, createdAt: now(), version: 1 }
    await pumpModels.insert(row)
    await recordChange(actor, {
      entity: 'pumpModel',
      entityId: id,
      entityVersion: 1,
      action: 'added',
      summary: `${name} added`,
      after: row,
    })
  })
}
