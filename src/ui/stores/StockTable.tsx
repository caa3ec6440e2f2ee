'use client'

import { Link } from '../frame/Link'
import { useState } from 'react'
import { showAmount, stockStates, type StockLine } from '@/core/stores'
import { showMoney } from '@/core/units'
import { TextInput } from '../forms/FieldFrame'
import { DataTable } from '../table/DataTable'
import { StockMark } from './StockMark'

const filters = {
  all: () => true,
  count: (part: StockLine) => part.short > 0,
  order: (part: StockLine) => part.below || part.missing > 0,
  away: (part: StockLine) => part.elsewhere.some(({ state }) => state === 'quarantine' || state === 'back'),
} as const
const filterNames = { all: 'All', count: 'To count', order: 'To order', away: 'Set aside' } as const

/** Every part with its stock, what the booked visits need of it, and what wants doing. */
export function StockTable({ parts, currency }: { parts: StockLine[]; currency: string }) {
  const [search, setSearch] = useState('')
  const [filter, setFilter] = useState<keyof typeof filters>('all')
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = parts
    .filter(filters[filter])
    .filter((part) => {
      const text =
        `${part.number} ${part.name} ${part.makersNumber} ${part.bin} ${part.fitsModels.join(' ')}`.toLowerCase()
      return words.every((word) => text.includes(word))
    })
    .sort((a, b) => Number(Boolean(a.retiredOn)) - Number(Boolean(b.retiredOn)))
  return (
    <>
      <div className="filters">
        <div className="search">
          <TextInput
            id="search-parts"
            value={search}
            onChange={(event) => setSearch(event.target.value)}
            placeholder="Number, name, bin, pump model"
            inputProps={{ 'aria-label': 'Search parts' }}
          />
        </div>
        {(Object.keys(filters) as (keyof typeof filters)[]).map((key) => (
          <button
            key={key}
            type="button"
            className="filter-chip"
            aria-pressed={filter === key}
            onClick={() => setFilter(key)}
          >
            {filterNames[key]} {parts.filter((part) => !part.retiredOn).filter(filters[key]).length}
          </button>
        ))}
      </div>
      {shown.length === 0 ? (
        <p className="second">No part is like that.</p>
      ) : (
        <DataTable
          caption="Parts of the stores"
          rows={shown}
          rowKey={(part) => part.id}
          receding={(part) => Boolean(part.retiredOn)}
          columns={[
            {
              name: 'Part',
              by: (part) => part.number,
              cell: (part) => (
                <>
                  <Link href={`/stores/${encodeURIComponent(part.number)}`} className="row-link strong">
                    {part.number}
                  </Link>{' '}
                  {part.name}
                  {part.contents.length > 0 && <span className="second"> · kit</span>}
                  <div className="second">{part.fitsModels.join(', ')}</div>
                </>
              ),
            },
            { name: 'Bin', by: (part) => part.bin, cell: (part) => part.bin || '–' },
            {
              name: 'On hand',
              numeric: true,
              by: (part) => part.onHand,
              cell: (part) => (
                <>
                  <span className="strong">{showAmount(part.onHand, part.unit)}</span>
                  {part.taken > 0 && (
                    <div className="second">{showAmount(part.taken, part.unit)} taken on open sheets</div>
                  )}
                  {part.byYard.length > 1 && (
                    <div className="second">
                      {part.byYard
                        .map(({ yard, quantity }) => `${showAmount(quantity, part.unit)} ${yard}`)
                        .join(', ')}
                    </div>
                  )}
                  {part.elsewhere.map(({ state, quantity }) => (
                    <div key={state} className={state === 'quarantine' ? 'brass second' : 'second'}>
                      {showAmount(quantity, part.unit)} {stockStates[state]}
                    </div>
                  ))}
                  {part.inClosedKits > 0 && (
                    <div className="second">{showAmount(part.inClosedKits, part.unit)} in unopened kits</div>
                  )}
                  {part.onTheWay > 0 && (
                    <div className="second">{showAmount(part.onTheWay, part.unit)} on the way</div>
                  )}
                  {part.openPack > 0 && (
                    <div className="second">
                      {showAmount(part.openPack, part.unit)} in an opened pack of {part.packSize}
                    </div>
                  )}
                  {part.expired > 0 && (
                    <div className="brass second">{showAmount(part.expired, part.unit)} expired</div>
                  )}
                </>
              ),
            },
            {
              name: 'Minimum',
              numeric: true,
              by: (part) => part.minimum,
              cell: (part) => showAmount(part.minimum, part.unit),
            },
            {
              name: 'Visits need',
              numeric: true,
              by: (part) => part.needed,
              cell: (part) => (part.needed === 0 ? '–' : showAmount(part.needed, part.unit)),
            },
            {
              name: 'Comes in',
              numeric: true,
              by: (part) => part.comesWithin,
              cell: (part) => `${part.comesWithin}\u00a0days`,
            },
            {
              name: 'Price',
              numeric: true,
              by: (part) => part.priceCents,
              cell: (part) => showMoney(part.priceCents, currency),
            },
            { name: 'State', by: (part) => rank(part), cell: (part) => <StockMark part={part} /> },
          ]}
        />
      )}
    </>
  )
}

function rank(part: StockLine): number {
  return part.short > 0 ? 0 : part.tooLate ? 1 : part.missing > 0 ? 2 : part.below ? 3 : 4
}
