'use client'

import Link from 'next/link'
import type { PumpModelView } from '@/core/fleet/views'
import type { PumpModelInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem/outcome'
import { DataTable, type Column } from '../table/DataTable'
import { PumpModelDialog } from './PumpModelDialog'

type Props = { models: PumpModelView[]; mayEdit: boolean; save: (input: PumpModelInput) => Promise<Outcome> }

export function ModelsTable({ models, mayEdit, save }: Props) {
  const columns: Column<PumpModelView>[] = [
    {
      name: 'Model',
      by: (row) => `${row.maker} ${row.name}`,
      cell: (row) => (
        <Link href={`/models/${row.id}`} className="row-link">
          {row.maker} <span className="strong">{row.name}</span>
        </Link>
      ),
    },
    {
      name: 'Design',
      by: (row) => row.design,
      cell: (row) => (
        <>
          {row.design}
          {row.note && <div className="second">{row.note}</div>}
        </>
      ),
    },
    {
      name: 'Data',
      by: (row) => row.published,
      cell: (row) =>
        row.published === null ? <span className="second">not published</span> : `version ${row.published}`,
    },
    { name: 'Pumps of it', numeric: true, by: (row) => row.pumps, cell: (row) => row.pumps },
    ...(mayEdit ? [{ name: '', cell: (row: PumpModelView) => <EditCell model={row} save={save} /> }] : []),
  ]
  return <DataTable caption="Pump models" rows={models} columns={columns} rowKey={(row) => row.id} />
}

function EditCell({ model, save }: { model: PumpModelView; save: Props['save'] }) {
  const { id, version, maker, name, design, note } = model
  return <PumpModelDialog model={{ id, version, maker, name, design, note }} save={save} />
}
