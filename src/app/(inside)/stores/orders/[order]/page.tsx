import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { showDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { isComing, showAmount } from '@/core/stores'
import { showMoney } from '@/core/units'
import { getCompany, present } from '@/services/house'
import { getOrder, listPlaces, listSuppliers } from '@/services/stores'
import { Note } from '@/ui/feedback/States'
import { Link } from '@/ui/frame/Link'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { DeliveryForm } from '@/ui/stores/DeliveryForm'
import { OrderActions } from '@/ui/stores/OrderActions'
import { OrderDialog } from '@/ui/stores/OrderDialog'
import { chaseWords, orderStanding } from '@/ui/stores/orderWords'
import { PrintButton } from '@/ui/stores/PrintButton'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '@/ui/table/Table'
import { load } from '../../../../access/act'
import { referenceIn } from '../../../../access/reference'
import { requireActor } from '../../../../access/session'
import * as actions from '../../actions'

type Params = { params: Promise<{ order: string }> }

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: `Order ${referenceIn((await params).order)}` }
}

export default async function OrderDetails({ params }: Params) {
  const reference = referenceIn((await params).order)
  const actor = await requireActor(`/stores/orders/${encodeURIComponent(reference)}`)
  const [order, company, places, suppliers] = await Promise.all([
    load(getOrder(actor, reference)),
    getCompany(actor),
    listPlaces(actor),
    listSuppliers(actor),
  ])
  const { today } = present(company)
  const mayOrder = mayDo(actor.role, 'stores.edit')
  const number = visitNumber(order.number)
  const money = (cents: number) => showMoney(cents, order.currency)
  const coming = isComing(order.state)
  return (
    <Page
      title={`Order ${number}: ${order.supplier}`}
      summary={[
        orderStanding(order),
        `for ${order.yard}`,
        order.sentOn && `sent ${showDay(order.sentOn, today)}`,
      ]
        .filter(Boolean)
        .join(' · ')}
      back={{ href: '/stores/orders', label: 'Orders' }}
      actions={
        <>
          <PrintButton label="Print" />
          <a className="plain-link no-print" href={`/api/orders/${number}?format=csv`} download>
            CSV
          </a>
          <a className="plain-link no-print" href={`/api/orders/${number}?format=xlsx`} download>
            XLSX
          </a>
          {mayOrder && order.state === 'draft' && (
            <OrderDialog
              label="Change"
              suppliers={suppliers}
              yards={places
                .filter((place) => place.kind === 'yard')
                .map(({ id, name }) => ({ value: id, label: name }))}
              order={{
                id: order.id,
                version: order.version,
                supplierId: order.supplierId,
                yardId: order.yardId,
                note: order.note,
                lines: order.lineList.map(({ id, partId, quantity, neededBy }) => ({
                  id,
                  partId,
                  quantity,
                  neededBy,
                })),
              }}
              save={actions.saveOrder}
            />
          )}
          {mayOrder && (
            <OrderActions
              order={order}
              today={today}
              send={actions.sendOrder}
              confirm={actions.confirmOrder}
              takeFile={actions.takeConfirmation}
              end={actions.endOrder}
            />
          )}
        </>
      }
    >
      <div className="stack">
        <p className="print-only">
          {company.name}, for {order.yard}. {order.note}
        </p>
        {order.chase && (
          <Note tone={order.chase.why === 'late' ? 'oxide' : 'brass'} title="Call the supplier.">
            {chaseWords(order.chase, today)}.{order.contact && ` Contact: ${order.contact}.`}
          </Note>
        )}
        {order.endReason && <Note title="Ended.">{order.endReason}</Note>}
        {order.state === 'draft' && order.cents < order.leastCents && (
          <Note tone="brass" title="Below the least order.">
            {order.supplier} sends nothing under {money(order.leastCents)}; this comes to {money(order.cents)}
            .
          </Note>
        )}
        <Part title="Lines" aside={money(order.cents)}>
          <Table className="plain">
            <TableHead>
              <TableRow>
                <HeadCell>Part</HeadCell>
                <HeadCell>Supplier’s number</HeadCell>
                <HeadCell className="num">Ordered</HeadCell>
                <HeadCell className="num">Needed</HeadCell>
                <HeadCell className="num">Confirmed</HeadCell>
                <HeadCell className="num">Came</HeadCell>
                <HeadCell className="num">To come</HeadCell>
                <HeadCell className="num">Price</HeadCell>
                <HeadCell className="num">Sum</HeadCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {order.lineList.map((line) => (
                <TableRow key={line.id}>
                  <TableCell>
                    <Link href={`/stores/${encodeURIComponent(line.number)}`} className="strong">
                      {line.number}
                    </Link>{' '}
                    {line.name}
                    {line.answer && <div className="brass">{line.answer}</div>}
                  </TableCell>
                  <TableCell>{line.supplierNumber}</TableCell>
                  <TableCell className="num nowrap strong">{showAmount(line.quantity, line.unit)}</TableCell>
                  <TableCell className={`num nowrap ${line.late ? 'oxide' : ''}`}>
                    {line.neededBy ? showDay(line.neededBy, today) : '–'}
                    {line.late && <div className="second oxide">too late when sent</div>}
                  </TableCell>
                  <TableCell className="num nowrap">
                    {line.confirmed === null ? (
                      '–'
                    ) : (
                      <span className={line.confirmed < line.quantity ? 'brass strong' : ''}>
                        {showAmount(line.confirmed, line.unit)}
                      </span>
                    )}
                    {line.promisedOn && <div className="second">for {showDay(line.promisedOn, today)}</div>}
                  </TableCell>
                  <TableCell className="num nowrap">{showAmount(line.received, line.unit)}</TableCell>
                  <TableCell className="num nowrap">
                    {coming && line.open > 0 ? (
                      <>
                        <span className="strong">{showAmount(line.open, line.unit)}</span>
                        <div className="second">about {showDay(line.comesOn, today)}</div>
                      </>
                    ) : (
                      '–'
                    )}
                  </TableCell>
                  <TableCell className="num nowrap">{money(line.unitCents)}</TableCell>
                  <TableCell className="num nowrap">
                    {money(Math.round(line.quantity * line.unitCents))}
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        </Part>
        {coming && mayDo(actor.role, 'stores.count') && order.lineList.some((line) => line.open > 0) && (
          <Part title="Take a delivery in" aside="counted against its note">
            <DeliveryForm order={order} today={today} receive={actions.receiveDelivery} />
          </Part>
        )}
        <div className="columns no-print">
          <Part title="Deliveries">
            {order.deliveries.length === 0 ? (
              <p className="second">Nothing has come yet.</p>
            ) : (
              <ul className="line-list">
                {order.deliveries.map((delivery) => (
                  <li key={delivery.id}>
                    <span className="grow">
                      Note <span className="strong">{delivery.noteNumber}</span>
                      {delivery.differences.split('\n').map((words) => (
                        <div key={words} className="brass">
                          {words}
                        </div>
                      ))}
                    </span>
                    <span className="second nowrap">
                      {delivery.by}, {showDay(delivery.receivedOn, today)}
                    </span>
                  </li>
                ))}
              </ul>
            )}
          </Part>
          <Part title="History">
            <Facts
              facts={[
                ['Note', order.note],
                ['Paid for hurry', order.hurryCents > 0 ? money(order.hurryCents) : ''],
              ]}
            />
            <ul className="line-list">
              {order.history.map((event) => (
                <li key={event.id}>
                  <span className="grow">
                    {event.summary}
                    {event.reason && <div className="second">{event.reason}</div>}
                  </span>
                  <span className="second nowrap">
                    {event.by}, {showDay(event.day, today)}
                  </span>
                </li>
              ))}
            </ul>
          </Part>
        </div>
      </div>
    </Page>
  )
}
