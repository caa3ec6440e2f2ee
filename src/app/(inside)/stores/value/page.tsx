import type { Metadata } from 'next'
import { showDay, showLongDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { showAmount } from '@/core/stores'
import { showMoney } from '@/core/units'
import { getCompany, present } from '@/services/house'
import { storesValue } from '@/services/stores'
import { Link } from '@/ui/frame/Link'
import { Page, Part } from '@/ui/frame/Page'
import { DayChooser } from '@/ui/stores/DayChooser'
import { StoresTabs } from '@/ui/stores/StoresTabs'
import { requireActor } from '../../../access/session'

export const metadata: Metadata = { title: 'Value of the stores' }

export default async function ValuePage({ searchParams }: { searchParams: Promise<{ day?: string }> }) {
  const actor = await requireActor('/stores/value')
  const [value, company] = await Promise.all([
    searchParams.then(({ day }) => storesValue(actor, day)),
    getCompany(actor),
  ])
  const { today } = present(company)
  const money = (cents: number) => showMoney(cents, value.currency)
  return (
    <Page
      title={`The stores are worth ${money(value.cents)}`}
      summary={`${showLongDay(value.day)}, each lot at what was paid for it, from the movements alone.`}
      actions={<DayChooser day={value.day} />}
    >
      <StoresTabs active="value" />
      <div className="columns">
        <div className="stack">
          <Part title="Where it lies">
            <ul className="line-list">
              {value.byPlace.map(({ place, cents }) => (
                <li key={place}>
                  <span className="grow">{place}</span>
                  <span className="strong nowrap">{money(cents)}</span>
                </li>
              ))}
            </ul>
          </Part>
          <Part title="Bought in a hurry" aside="within a year: too late when sent, or paid to come sooner">
            {value.hurried.length === 0 ? (
              <p className="second">Nothing.</p>
            ) : (
              <ul className="line-list">
                {value.hurried.map((order) => (
                  <li key={order.orderId}>
                    <span className="grow">
                      <Link href={`/stores/orders/${visitNumber(order.order)}`}>
                        Order {visitNumber(order.order)}
                      </Link>{' '}
                      {order.supplier}{' '}
                      <span className="second">
                        {showDay(order.sentOn, today)}: {order.lines}
                        {order.hurryCents > 0 && `, ${money(order.hurryCents)} paid for it`}
                      </span>
                    </span>
                    <span className="strong nowrap">{money(order.cents)}</span>
                  </li>
                ))}
              </ul>
            )}
          </Part>
        </div>
        <Part
          title="Expired unused"
          aside={`${money(value.expiredCents)} on the shelf, ${money(value.scrappedCents)} thrown away within a year`}
        >
          {value.expired.length === 0 ? (
            <p className="second">Nothing that has expired lies on a shelf.</p>
          ) : (
            <ul className="line-list">
              {value.expired.map((lot) => (
                <li key={`${lot.partId} ${lot.lot}`}>
                  <span className="grow">
                    <Link href={`/stores/${encodeURIComponent(lot.number)}`} className="strong">
                      {lot.number}
                    </Link>{' '}
                    {lot.name}{' '}
                    <span className="second">
                      lot {lot.lot}, {showAmount(lot.quantity, lot.unit)}, expired{' '}
                      {showDay(lot.expiresOn, today)}
                    </span>
                  </span>
                  <span className="strong nowrap">{money(lot.cents)}</span>
                </li>
              ))}
            </ul>
          )}
        </Part>
      </div>
    </Page>
  )
}
