import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany } from '@/services/house'
import { listPlaces, listToCount } from '@/services/stores'
import { EmptyState } from '@/ui/feedback/States'
import { Link } from '@/ui/frame/Link'
import { Page } from '@/ui/frame/Page'
import { StocktakeRound } from '@/ui/stores/StocktakeRound'
import { StoresTabs } from '@/ui/stores/StoresTabs'
import { load } from '../../../access/act'
import { requireActor } from '../../../access/session'
import { keepStocktake } from '../actions'

export const metadata: Metadata = { title: 'Stocktake' }

type Params = { searchParams: Promise<{ place?: string }> }

export default async function StocktakePage({ searchParams }: Params) {
  const actor = await requireActor('/stores/stocktake')
  const { place } = await searchParams
  const [places, company] = await Promise.all([listPlaces(actor), getCompany(actor)])
  const chosen = places.find((each) => each.id === place) ?? places[0]
  const { placeId, lines } = await load(listToCount(actor, chosen?.id ?? ''))
  return (
    <Page
      title="Stocktake"
      summary={`${chosen?.name ?? ''}: ${lines.length} lots, bin after bin. Enter goes on, Shift and Enter says that a doubted count is so; what is left blank was not counted.`}
    >
      <StoresTabs active="stocktake" />
      <nav className="filters" aria-label="Where to count">
        {places.map((each) => (
          <Link
            key={each.id}
            href={`/stores/stocktake?place=${each.id}`}
            className="filter-chip"
            aria-current={each.id === placeId ? 'page' : undefined}
          >
            {each.name}
          </Link>
        ))}
      </nav>
      {lines.length === 0 ? (
        <EmptyState title="Nothing lies here">
          Receive what there is as lots on the part’s page, or take a transfer here.
        </EmptyState>
      ) : (
        <StocktakeRound
          key={placeId}
          placeId={placeId}
          lines={lines}
          currency={company.currency}
          keep={mayDo(actor.role, 'stores.count') ? keepStocktake : null}
        />
      )}
    </Page>
  )
}
