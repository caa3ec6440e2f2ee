'use client'

import { showDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import type { OrderListLine } from '@/core/stores'
import { showMoney } from '@/core/units'
import { Link } from '../frame/Link'
import { DataTable } from '../table/DataTable'
import { chaseWords, orderStanding } from './orderWords'

/** Every order: how it stands, when it comes, and whom to call. */
export function OrdersTable({
  orders,
  currency,
  today,
}: {
  orders: OrderListLine[]
  currency: string
  today: string
}) {
  return (
    <DataTable
      caption="Orders"
      rows={orders}
      rowKey={(order) => order.id}
      receding={(order) => order.state === 'closed' || order.state === 'cancelled'}
      columns={[
        {
          name: 'Order',
          by: (order) => order.number,
          cell: (order) => (
            <Link href={`/stores/orders/${visitNumber(order.number)}`} className="row-link strong">
              {visitNumber(order.number)}
            </Link>
          ),
        },
        { name: 'Supplier', by: (order) => order.supplier, cell: (order) => order.supplier },
        { name: 'For', by: (order) => order.yard, cell: (order) => order.yard },
        {
          name: 'Sent',
          by: (order) => order.sentOn,
          cell: (order) => (order.sentOn ? showDay(order.sentOn, today) : '–'),
        },
        {
          name: 'State',
          by: (order) => order.state,
          cell: (order) => (
            <>
              <span className="strong">{orderStanding(order)}</span>
              {order.chase && (
                <div className={order.chase.why === 'late' ? 'oxide second' : 'brass second'}>
                  {chaseWords(order.chase, today)}
                </div>
              )}
            </>
          ),
        },
        {
          name: 'Comes',
          by: (order) => order.comesOn,
          cell: (order) => (order.comesOn ? showDay(order.comesOn, today) : '–'),
        },
        { name: 'Lines', numeric: true, by: (order) => order.lines, cell: (order) => order.lines },
        {
          name: 'Sum',
          numeric: true,
          by: (order) => order.cents,
          cell: (order) => showMoney(order.cents, currency),
        },
      ]}
    />
  )
}
