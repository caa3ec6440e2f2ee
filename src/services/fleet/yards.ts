import 'server-only'
import { yardSchema, type YardInput, type YardView } from '@/core/fleet'
import { conflict, notFound, check, idSchema } from '@/core/problem'
import { write } from '@/db/house'
import { fittings, machines, yards } from '@/db/fleet'
import { requirePermission, type Actor, recordChange, now, editRow, requireUnique } from '../house'

export type Yard = {
  id: string
  name: string
  place: string
  note: string
  version: number
  machines: number
}

export async function listYards(_actor: Actor): Promise<YardView[]> {
  const [rows, fleet] = await Promise.all([
    yards.all({}, [['name', 'ASC']]),
    machines.all({ retiredOn: null }),
  ])
  return rows.map(({ id, name, place, note, version }) => ({
    id,
    name,
    place,
    note,
    version,
    machines: fleet.filter((machine) => machine.yardId === id).length,
  }))
}

export async function saveYard(actor: Actor, input: YardInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { id, version, ...values } = check(yardSchema, input)
  await write(async () => {
    await requireUnique(yards, { name: values.name }, id, 'name', 'There is a yard of this name already.')
    if (version !== undefined) {
      await editRow(actor, yards, { entity: 'yard', name: values.name }, { id, version }, values, {
        action: 'changed',
        summary: `${values.name} changed`,
      })
      return
    }
    if (await yards.byId(id)) return
    const row = { id, ...values, createdAt: now(), version: 1 }
    await yards.insert(row)
    await recordChange(actor, {
      entity: 'yard',
      entityId: id,
      entityVersion: 1,
      action: 'added',
      summary: `${values.name} added`,
      after: row,
    })
  })
}

export async function removeYard(actor: Actor, asked: string): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const id = check(idSchema, asked)
  await write(async () => {
    const yard = await yards.byId(id)
    if (!yard) throw notFound('This yard')
    const [machineCount, shelved] = await Promise.all([
      machines.count({ yardId: id }),
      fittings.count({ yardId: id }),
    ])
    if (machineCount > 0 || shelved > 0) {
      throw conflict(
        `${yard.name} still has machines or shelved pumps on its record. Move them to another yard first.`,
      )
    }
    await yards.remove({ id })
    await recordChange(actor, {
      entity: 'yard',
      entityId: id,
      action: 'removed',
      summary: `${yard.name} removed`,
      before: yard,
    })
  })
}
