import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany } from '@/services/house'
import { listPartChoices, listStock } from '@/services/stores'
import { EmptyState } from '@/ui/feedback/States'
import { Page } from '@/ui/frame/Page'
import { PartDialog } from '@/ui/stores/PartDialog'
import { StockTable } from '@/ui/stores/StockTable'
import { StoresTabs } from '@/ui/stores/StoresTabs'
import { requireActor } from '../../access/session'
import { savePart } from './actions'

export const metadata: Metadata = { title: 'Stores' }

export default async function StoresPage() {
  const actor = await requireActor('/stores')
  const [parts, company, choices] = await Promise.all([
    listStock(actor),
    getCompany(actor),
    listPartChoices(actor),
  ])
  const kept = parts.filter((part) => !part.retiredOn)
  const add = mayDo(actor.role, 'stores.edit') && (
    <PartDialog choices={choices} parts={kept} currency={company.currency} save={savePart} />
  )
  return (
    <Page
      title="Stores"
      summary={summary(kept)}
      actions={
        <>
          {kept.length > 0 && (
            <>
              <a className="plain-link" href="/api/parts?format=csv" download>
                CSV
              </a>
              <a className="plain-link" href="/api/parts?format=json" download>
                JSON
              </a>
            </>
          )}
          {add}
        </>
      }
    >
      <StoresTabs active="stock" />
      {parts.length === 0 ? (
        <EmptyState title="No part yet">
          Add the seals, valves and fluids you keep, with your own numbers. Then receive what lies in the bins
          as lots: from there on every sheet takes its parts out, and visits say what is missing.
        </EmptyState>
      ) : (
        <StockTable parts={parts} currency={company.currency} />
      )}
    </Page>
  )
}

function summary(parts: { short: number; below: boolean; tooLate: boolean; missing: number }[]): string {
  const count = parts.filter((part) => part.short > 0).length
  const below = parts.filter((part) => part.below).length
  const late = parts.filter((part) => part.tooLate).length
  return [
    `${parts.length} ${parts.length === 1 ? 'part' : 'parts'}.`,
    count > 0 && `${count === 1 ? 'One bin wants' : `${count} bins want`} counting.`,
    below > 0 && `${below} below ${below === 1 ? 'its' : 'their'} minimum.`,
    late > 0 && `${late === 1 ? 'One' : late} would come too late for a booked visit.`,
  ]
    .filter(Boolean)
    .join(' ')
}
