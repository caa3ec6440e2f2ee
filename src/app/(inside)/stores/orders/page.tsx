import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { orderProposals } from '@/services/plan'
import { getCompany, present } from '@/services/house'
import { listOrders, listPlaces, listSuppliers } from '@/services/stores'
import { EmptyState } from '@/ui/feedback/States'
import { Page, Part } from '@/ui/frame/Page'
import { OrderDialog } from '@/ui/stores/OrderDialog'
import { OrdersTable } from '@/ui/stores/OrdersTable'
import { Proposals } from '@/ui/stores/Proposals'
import { StoresTabs } from '@/ui/stores/StoresTabs'
import { requireActor } from '../../../access/session'
import { saveOrder } from '../actions'

export const metadata: Metadata = { title: 'Orders' }

export default async function OrdersPage() {
  const actor = await requireActor('/stores/orders')
  const [orders, { proposals, unsold }, company, places, suppliers] = await Promise.all([
    listOrders(actor),
    orderProposals(actor),
    getCompany(actor),
    listPlaces(actor),
    listSuppliers(actor),
  ])
  const { today } = present(company)
  const mayOrder = mayDo(actor.role, 'stores.edit')
  const chase = orders.filter((order) => order.chase)
  const open = orders.filter((order) => order.state === 'sent' || order.state === 'confirmed')
  const yards = places
    .filter((place) => place.kind === 'yard')
    .map(({ id, name }) => ({ value: id, label: name }))
  return (
    <Page
      title="Orders"
      summary={[
        proposals.length > 0
          ? `${proposals.length} ${proposals.length === 1 ? 'order wants' : 'orders want'} a signature.`
          : 'Nothing wants to be ordered.',
        `${open.length} on the way.`,
        chase.length > 0 && `${chase.length} to call about.`,
      ]
        .filter(Boolean)
        .join(' ')}
      actions={
        mayOrder &&
        suppliers.some((supplier) => supplier.offers.length > 0) && (
          <OrderDialog
            label="Write an order"
            look="outlined"
            suppliers={suppliers}
            yards={yards}
            save={saveOrder}
          />
        )
      }
    >
      <StoresTabs active="orders" />
      <div className="stack">
        <Part title="To sign" aside="what has to be ordered within a week, and what goes along with it">
          {proposals.length === 0 && unsold.length === 0 ? (
            <p className="second">
              What is there and on the way lasts: the chance of running short before a delivery could come
              stays within 5&nbsp;% for every part.
            </p>
          ) : (
            <Proposals
              proposals={proposals}
              unsold={unsold}
              yards={yards}
              suppliers={suppliers}
              currency={company.currency}
              today={today}
              save={mayOrder ? saveOrder : null}
            />
          )}
        </Part>
        <Part title="Orders" aside="newest first">
          {orders.length === 0 ? (
            <EmptyState title="No order yet">
              Say under Suppliers who sells what. What has to be ordered then stands here with its reason,
              ready to be signed.
            </EmptyState>
          ) : (
            <OrdersTable orders={orders} currency={company.currency} today={today} />
          )}
        </Part>
      </div>
    </Page>
  )
}
