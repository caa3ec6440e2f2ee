import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany } from '@/services/house'
import { listPlaces, listSuppliers } from '@/services/stores'
import { EmptyState } from '@/ui/feedback/States'
import { Page, Part } from '@/ui/frame/Page'
import { StoresTabs } from '@/ui/stores/StoresTabs'
import { SupplierDialog } from '@/ui/stores/SupplierDialog'
import { SupplierPart } from '@/ui/stores/SupplierPart'
import { VanDialog } from '@/ui/stores/VanDialog'
import { requireActor } from '../../../access/session'
import * as actions from '../actions'

export const metadata: Metadata = { title: 'Suppliers and vans' }

export default async function SuppliersPage() {
  const actor = await requireActor('/stores/suppliers')
  const [suppliers, company, places] = await Promise.all([
    listSuppliers(actor),
    getCompany(actor),
    listPlaces(actor),
  ])
  const mayEdit = mayDo(actor.role, 'stores.edit')
  const yards = places
    .filter((place) => place.kind === 'yard')
    .map(({ id, name }) => ({ value: id, label: name }))
  const vans = places.filter((place) => place.kind === 'van')
  return (
    <Page
      title="Suppliers and vans"
      summary={`${suppliers.length} ${suppliers.length === 1 ? 'supplier' : 'suppliers'}. How long something takes is the supplier’s word until five of your own deliveries say better.`}
      actions={
        mayEdit && (
          <>
            <VanDialog yards={yards} save={actions.saveVan} />
            <SupplierDialog currency={company.currency} save={actions.saveSupplier} />
          </>
        )
      }
    >
      <StoresTabs active="suppliers" />
      <div className="stack">
        {suppliers.length === 0 ? (
          <EmptyState title="No supplier yet">
            Add who you buy from, then say on each part’s page who sells it. Atelier then writes the orders.
          </EmptyState>
        ) : (
          suppliers.map((supplier) => (
            <SupplierPart
              key={supplier.id}
              supplier={supplier}
              currency={company.currency}
              save={mayEdit ? actions.saveSupplier : null}
              saveOffer={mayEdit ? actions.saveOffer : null}
              takePrices={mayEdit ? actions.takePriceList : null}
            />
          ))
        )}
        <Part title="Vans" aside="stock can lie in them like on a shelf">
          {vans.length === 0 ? (
            <p className="second">None yet.</p>
          ) : (
            <ul className="line-list">
              {vans.map((van) => (
                <li key={van.id}>
                  <span className="grow strong">{van.name}</span>
                  <span className="second">{yards.find((yard) => yard.value === van.yardId)?.label}</span>
                </li>
              ))}
            </ul>
          )}
        </Part>
      </div>
    </Page>
  )
}
