'use client'

import { Link } from '../frame/Link'
import { useState } from 'react'
import type { PumpModelView, PumpModelInput } from '@/core/fleet'
import type { Outcome } from '@/core/problem'
import { FieldFrame, TextInput } from '../forms/FieldFrame'
import { Status } from '../graphics/PostMark'
import { DataTable, type Column } from '../table/DataTable'
import { PumpModelDialog } from './PumpModelDialog'

type Props = { models: PumpModelView[]; mayEdit: boolean; save: (input: PumpModelInput) => Promise<Outcome> }

/** The library: every model with what is written of it, what is in doubt, and how many pumps are of it. */
export function ModelsTable({ models, mayEdit, save }: Props) {
  const [sought, setSought] = useState('')
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = models.filter((model) => {
    const text = `${model.maker} ${model.name} ${model.design} ${model.note} ${model.written}`.toLowerCase()
    return words.every((word) => text.includes(word))
  })
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
        row.published === null ? (
          <span className="second">not published</span>
        ) : (
          <>
            version {row.published}
            <div className="second">
              {row.positions} positions, {row.tasks} services
            </div>
          </>
        ),
    },
    { name: 'To look at', by: (row) => row.warnings + row.doubts, cell: (row) => <Checks model={row} /> },
    { name: 'Pumps of it', numeric: true, by: (row) => row.pumps, cell: (row) => row.pumps },
    ...(mayEdit ? [{ name: '', cell: (row: PumpModelView) => <EditCell model={row} save={save} /> }] : []),
  ]
  return (
    <>
      <div className="filters">
        <FieldFrame id="model-search" label="Find" hint="maker, model, part, or what others call it">
          <TextInput
            id="model-search"
            type="search"
            value={sought}
            onChange={(event) => setSought(event.target.value)}
            placeholder="membrane, suction valve …"
          />
        </FieldFrame>
      </div>
      {shown.length === 0 ? (
        <p role="status">No model has all of “{sought.trim()}” in it.</p>
      ) : (
        <DataTable caption="Pump models" rows={shown} columns={columns} rowKey={(row) => row.id} />
      )}
    </>
  )
}

function Checks({ model: { published, warnings, doubts } }: { model: PumpModelView }) {
  if (published === null) return <span className="second">–</span>
  if (warnings + doubts === 0) return <Status state="done">nothing open</Status>
  return (
    <>
      {warnings > 0 && (
        <Status state="atRisk">{warnings === 1 ? 'one warning' : `${warnings} warnings`}</Status>
      )}
      {doubts > 0 && <Status state="waiting">{doubts === 1 ? 'one doubt' : `${doubts} doubts`}</Status>}
    </>
  )
}

function EditCell({ model, save }: { model: PumpModelView; save: Props['save'] }) {
  const { id, version, maker, name, design, note } = model
  return <PumpModelDialog model={{ id, version, maker, name, design, note }} save={save} />
}
