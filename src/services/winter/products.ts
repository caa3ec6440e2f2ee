import 'server-only'
import { check, invalid } from '@/core/problem'
import { readMoney } from '@/core/units'
import { antifreezeSchema, type Antifreeze, type AntifreezeInput } from '@/core/winter'
import { derived, write } from '@/db/house'
import { parts } from '@/db/stores'
import { antifreezes, type AntifreezeRow } from '@/db/winter'
import { editRow, now, recordChange, requirePermission, requireUnique, type Actor } from '../house'
import { loadTerms } from './terms'

export type Product = Antifreeze & { id: string; partId: string | null }

const asProduct = (row: AntifreezeRow): Product => ({
  id: row.id,
  name: row.name,
  fluid: row.fluid,
  sold: row.sold,
  contentPercent: row.contentPercent,
  freezesAtC: row.freezesAtC,
  burstsAtC: row.burstsAtC,
  packLitres: row.packLitres,
  packCents: row.packCents,
  partId: row.partId,
})

export async function listProducts(): Promise<(Product & { version: number; note: string })[]> {
  const rows = await antifreezes.every()
  return rows
    .filter(({ retiredOn }) => retiredOn === null)
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .map((row) => ({ ...asProduct(row), version: row.version, note: row.note }))
}

/** What the company pours; the only one there is where nobody chose; null where there is none. */
export async function chosenProduct(): Promise<Product | null> {
  const [rows, { productId }] = await Promise.all([antifreezes.every(), loadTerms()])
  return derived('chosen antifreeze', [rows, productId], () => {
    const inUse = rows.filter(({ retiredOn }) => retiredOn === null)
    const row = inUse.find(({ id }) => id === productId) ?? (inUse.length === 1 ? inUse[0] : undefined)
    return row ? asProduct(row) : null
  })
}

/** Keeps a product as its own sheet states it. */
export async function saveProduct(actor: Actor, input: AntifreezeInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, price, ...rest } = check(antifreezeSchema, input)
  const read = readMoney(String(price ?? ''))
  if (!read.ok) throw invalid({ price: read.reason })
  const values = { ...rest, packCents: read.cents }
  await write(async () => {
    if (values.partId && !(await parts.byId(values.partId)))
      throw invalid({ partId: 'Choose a part of the stores from the list.' })
    await requireUnique(
      antifreezes,
      { name: values.name },
      id,
      'name',
      'There is a product of this name already.',
    )
    if (version !== undefined) {
      await editRow(
        actor,
        antifreezes,
        { entity: 'antifreeze', name: values.name },
        { id, version },
        values,
        { action: 'changed', summary: `${values.name} changed` },
      )
      return
    }
    if (await antifreezes.byId(id)) return
    const row: AntifreezeRow = {
      id,
      ...values,
      retiredOn: null,
      retiredReason: '',
      createdAt: now(),
      version: 1,
    }
    await antifreezes.insert(row)
    await recordChange(actor, {
      entity: 'antifreeze',
      entityId: id,
      entityVersion: 1,
      action: 'added',
      summary: `${row.name} added`,
      after: row,
    })
  })
}
