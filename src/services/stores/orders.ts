import 'server-only'
import {
  chaseFor,
  comesOn,
  confirmationFileSchema,
  confirmSchema,
  endOrderSchema,
  isComing,
  openQuantity,
  orderSchema,
  orderStates,
  readConfirmation,
  sellable,
  sendSchema,
  tidy,
  type ConfirmationFileInput,
  type ConfirmInput,
  type EndOrderInput,
  type OrderFileLine,
  type OrderInput,
  type OrderListLine,
  type OrderPage,
  type SendInput,
} from '@/core/stores'
import { addDays } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { check, conflict, invalid, notFound } from '@/core/problem'
import { derived, write } from '@/db/house'
import { people } from '@/db/access'
import {
  deliveries,
  orderLines,
  orders,
  parts,
  suppliers,
  type OrderLineRow,
  type OrderRow,
} from '@/db/stores'
import {
  changesOf,
  dayOf,
  editRow,
  now,
  ourCompany,
  present,
  recordChange,
  requireFresh,
  requirePermission,
  type Actor,
} from '../house'
import { loadPlaces } from './places'
import { loadOffers, loadOrders, type FullOrder } from './placedOrders'

/** Every order, newest first. */
export async function listOrders(_actor: Actor): Promise<OrderListLine[]> {
  const [all, supplierRows, places, company] = await Promise.all([
    loadOrders(),
    suppliers.every(),
    loadPlaces(),
    ourCompany(),
  ])
  const { today } = present(company)
  return derived('order lines', [all, supplierRows, places, today], () => {
    const nameOf = new Map(supplierRows.map((supplier) => [supplier.id, supplier.name]))
    return all.map((order) => asListLine(order, nameOf, places.nameOf(order.yardId), today))
  })
}

function asListLine(
  order: FullOrder,
  nameOf: Map<string, string>,
  yard: string,
  today: string,
): OrderListLine {
  const { row, rows, lines, state, sentOn } = order
  const open = isComing(state) ? lines.filter((line) => openQuantity(line) > 0) : []
  return {
    id: row.id,
    version: row.version,
    number: row.number,
    supplierId: row.supplierId,
    supplier: nameOf.get(row.supplierId) ?? '',
    yardId: row.yardId,
    yard,
    state,
    inPart: open.length > 0 && lines.some((line) => line.received > 0),
    sentOn,
    lines: lines.length,
    cents: rows.reduce((sum, line) => sum + Math.round(line.quantity * line.unitCents), 0),
    comesOn:
      open
        .map((line) => comesOn(line, order, today))
        .sort()
        .at(-1) ?? null,
    chase: chaseFor(order, today),
  }
}

export async function getOrder(actor: Actor, reference: string): Promise<OrderPage> {
  const all = await loadOrders()
  const order = all.find(({ row }) => row.id === reference || visitNumber(row.number) === reference)
  if (!order) throw notFound('This order')
  const [company, partRows, supplier, deliveryRows, peopleRows, lines, history] = await Promise.all([
    ourCompany(),
    parts.every(),
    suppliers.byId(order.row.supplierId),
    deliveries.all({ orderId: order.id }, [['recordedAt', 'DESC']]),
    people.every(),
    listOrders(actor),
    changesOf('order', order.id),
  ])
  const { today } = present(company)
  const partOf = new Map(partRows.map((part) => [part.id, part]))
  const nameOf = new Map(peopleRows.map((person) => [person.id, person.name]))
  return {
    ...lines.find((line) => line.id === order.id)!,
    note: order.row.note,
    endReason: order.row.endReason,
    hurryCents: order.row.hurryCents,
    currency: company.currency,
    leastCents: supplier?.leastCents ?? 0,
    contact: supplier?.contact ?? '',
    lineList: order.rows.map((row, at) => {
      const part = partOf.get(row.partId)!
      const line = order.lines[at]!
      const { id, partId, supplierNumber, quantity, unitCents, neededBy, confirmed, promisedOn } = row
      return {
        ...{
          id,
          line: row.line,
          partId,
          supplierNumber,
          quantity,
          unitCents,
          neededBy,
          confirmed,
          promisedOn,
        },
        ...{ number: part.number, name: part.name, makersNumber: part.makersNumber, unit: part.unit },
        late: row.late === 1,
        calledOff: row.calledOff,
        received: tidy(line.received),
        open: openQuantity(line),
        comesOn: comesOn(line, { sentOn: order.sentOn, leadDays: row.leadDays }, today),
        answer: row.answer,
        ages: part.shelfGroup !== 'none',
      }
    }),
    deliveries: deliveryRows.map(({ id, noteNumber, receivedOn, differences, recordedById }) => ({
      ...{ id, noteNumber, receivedOn, differences },
      by: nameOf.get(recordedById) ?? '',
    })),
    history: history.map((event) => ({
      id: event.id,
      day: dayOf(event.at, company.timeZone),
      by: event.actorName,
      summary: event.summary,
      reason: event.reason,
    })),
  }
}

/** Writes a draft: new without a version. Terms come from what the supplier sells; packs and leasts hold. */
export async function saveOrder(actor: Actor, input: OrderInput): Promise<{ number: number }> {
  requirePermission(actor, 'stores.edit')
  const order = check(orderSchema, input)
  return write(async () => {
    const known = await orders.byId(order.id)
    if (known && order.version === undefined) return { number: known.number }
    const [supplier, offersOf, places] = await Promise.all([
      suppliers.byId(order.supplierId),
      loadOffers(),
      loadPlaces(),
    ])
    if (!supplier || supplier.retiredOn !== null)
      throw invalid({ supplierId: 'Choose a supplier from the list.' })
    if (!places.list.some((place) => place.id === order.yardId && place.kind === 'yard'))
      throw invalid({ yardId: 'Choose a yard from the list.' })
    const partRows = new Map((await parts.every()).map((part) => [part.id, part]))
    const faults: Record<string, string> = {}
    const rows = order.lines.map((line, at): OrderLineRow => {
      const part = partRows.get(line.partId)
      const offer = (offersOf.get(line.partId) ?? []).find((each) => each.supplierId === supplier.id)
      if (!part) faults[`lines.${at}.partId`] = 'Choose a part from the list.'
      else if (!offer) faults[`lines.${at}.partId`] = `${supplier.name} does not sell ${part.number}.`
      else if (part.unit === 'piece' && !Number.isInteger(line.quantity))
        faults[`lines.${at}.quantity`] = 'Pieces come whole.'
      else if (sellable(offer, line.quantity) !== line.quantity)
        faults[`lines.${at}.quantity`] = `It comes in packs of ${offer.packSize}${
          offer.minimumOrder > 0 ? `, at least ${offer.minimumOrder}` : ''
        }: ${sellable(offer, line.quantity)} instead.`
      if (order.lines.some((other, no) => no < at && other.partId === line.partId))
        faults[`lines.${at}.partId`] = 'This part stands on the order already.'
      return {
        id: line.id,
        orderId: order.id,
        line: at + 1,
        partId: line.partId,
        supplierNumber: offer?.supplierNumber ?? '',
        quantity: line.quantity,
        unitCents: offer?.unitCents ?? 0,
        leadDays: offer?.lead.days ?? supplier.leadDays,
        neededBy: line.neededBy,
        ...{ late: 0, confirmed: null, promisedOn: null, calledOff: 0, answer: '' },
      }
    })
    if (Object.keys(faults).length > 0) throw invalid(faults)
    const values = { supplierId: supplier.id, yardId: order.yardId, note: order.note }
    if (known) {
      if (known.state !== 'draft') throw conflict('It has been sent. Cancel it and write another.')
      const row = await requireFresh(orders, named(known), { id: order.id, version: order.version! })
      await orders.update({ id: row.id }, { ...values, version: row.version + 1 })
      await orderLines.remove({ orderId: row.id })
    } else {
      const [last] = await orders.all({}, [['number', 'DESC']], 1)
      await orders.insert({
        ...values,
        id: order.id,
        number: (last?.number ?? 0) + 1,
        state: 'draft',
        sentOn: null,
        hurryCents: 0,
        endReason: '',
        createdAt: now(),
        createdById: actor.id,
        version: 1,
      })
    }
    await orderLines.insertMany(rows)
    const row = (await orders.byId(order.id))!
    await recordChange(actor, {
      entity: 'order',
      entityId: row.id,
      entityVersion: row.version,
      action: known ? 'changed' : 'written',
      summary: `Order ${visitNumber(row.number)} to ${supplier.name} ${known ? 'changed' : 'written'}: ${rows.length} ${rows.length === 1 ? 'line' : 'lines'}`,
    })
    return { number: row.number }
  })
}

const named = (row: OrderRow) => ({ entity: 'order', name: `order ${visitNumber(row.number)}` })

/** The order has gone to the supplier: from now on it is on its way. */
export async function sendOrder(actor: Actor, input: SendInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, hurry } = check(sendSchema, input) as Omit<SendInput, 'hurry'> & { hurry: number }
  await write(async () => {
    const row = await orders.byId(id)
    if (!row) throw notFound('This order')
    if (row.state !== 'draft') throw conflict(`It is ${orderStates[row.state].toLowerCase()} already.`)
    const { today } = present(await ourCompany())
    for (const line of await orderLines.all({ orderId: id }))
      await orderLines.update(
        { id: line.id },
        { late: line.neededBy !== null && addDays(today, line.leadDays) > line.neededBy ? 1 : 0 },
      )
    await editRow(
      actor,
      orders,
      named(row),
      { id, version },
      { state: 'sent', sentOn: today, hurryCents: hurry },
      {
        action: 'sent',
        summary: `Order ${visitNumber(row.number)} sent`,
      },
    )
  })
}

/** What the supplier says to each line: so much, by such a day. */
export async function confirmOrder(actor: Actor, input: ConfirmInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const confirm = check(confirmSchema, input)
  await write(async () => {
    const order = await requireComing(confirm.id)
    for (const [at, line] of confirm.lines.entries()) {
      const own = order.rows.find((each) => each.id === line.id)
      if (!own) throw invalid({ [`lines.${at}.id`]: 'This line is not of this order.' })
      const { received } = order.lines.find((each) => each.id === line.id)!
      if (line.confirmed < received)
        throw invalid({ [`lines.${at}.confirmed`]: `${received} came in already.` })
      if (line.promisedOn !== null && line.promisedOn < order.sentOn!)
        throw invalid({ [`lines.${at}.promisedOn`]: 'That is before it was ordered.' })
      await orderLines.update(
        { id: line.id },
        { confirmed: line.confirmed, promisedOn: line.promisedOn, answer: line.answer },
      )
    }
    const less = order.rows.filter(({ id, quantity }) => {
      const said = confirm.lines.find((line) => line.id === id)
      return said && said.confirmed < quantity
    })
    await editRow(
      actor,
      orders,
      named(order.row),
      confirm,
      { state: 'confirmed' },
      {
        action: 'confirmed',
        summary: `Order ${visitNumber(order.row.number)} confirmed${
          less.length > 0
            ? `, ${less.length} ${less.length === 1 ? 'line' : 'lines'} with less than ordered`
            : ''
        }`,
      },
    )
    await touchVersion(order.row, confirm.version)
  })
}

/** What is confirmed once more changes nothing in the order's own row, and still makes it another. */
async function touchVersion(row: OrderRow, read: number): Promise<void> {
  const after = await orders.byId(row.id)
  if (after && after.version === read) await orders.update({ id: row.id }, { version: read + 1 })
}

async function requireComing(id: string): Promise<FullOrder> {
  const order = (await loadOrders()).find((each) => each.id === id)
  if (!order) throw notFound('This order')
  if (!isComing(order.state))
    throw conflict(`It is ${orderStates[order.state].toLowerCase()}: nothing of it comes.`)
  return order
}

/** The same out of the supplier's file. */
export async function takeConfirmation(
  actor: Actor,
  input: ConfirmationFileInput,
): Promise<{ answered: number; less: number; substitutes: string[] }> {
  requirePermission(actor, 'stores.edit')
  const { id, version, text } = check(confirmationFileSchema, input)
  return write(async () => {
    const order = await requireComing(id)
    const read = readConfirmation(
      text,
      visitNumber(order.row.number),
      order.rows.map(({ line }) => line),
    )
    if (!read.ok) throw invalid({ text: read.reason })
    await confirmOrder(actor, {
      id,
      version,
      lines: read.value.map((said) => ({
        id: order.rows.find(({ line }) => line === said.line)!.id,
        confirmed: said.quantity,
        promisedOn: said.promisedOn,
        answer: [said.substitute && `offers ${said.substitute} instead`, said.note]
          .filter(Boolean)
          .join('; '),
      })),
    })
    return {
      answered: read.value.length,
      less: read.value.filter(
        (said) => said.quantity < order.rows.find(({ line }) => line === said.line)!.quantity,
      ).length,
      substitutes: read.value.flatMap(({ line, substitute }) =>
        substitute === '' ? [] : [`line ${line}: ${substitute}`],
      ),
    }
  })
}

/** Nothing more comes of it: called off with the supplier. What came in stays. */
export async function endOrder(actor: Actor, input: EndOrderInput): Promise<void> {
  requirePermission(actor, 'stores.edit')
  const { id, version, reason } = check(endOrderSchema, input)
  await write(async () => {
    const order = (await loadOrders()).find((each) => each.id === id)
    if (!order) throw notFound('This order')
    if (order.state === 'closed' || order.state === 'cancelled')
      throw conflict(`It is ${orderStates[order.state].toLowerCase()} already.`)
    const came = order.lines.some((line) => line.received > 0)
    for (const line of order.lines)
      await orderLines.update(
        { id: line.id },
        { calledOff: tidy(Math.max(0, line.quantity - line.received)) },
      )
    await editRow(
      actor,
      orders,
      named(order.row),
      { id, version },
      { state: came ? 'closed' : 'cancelled', endReason: reason },
      {
        action: 'ended',
        summary: `Order ${visitNumber(order.row.number)} ${came ? 'closed: the rest is called off' : 'cancelled'}`,
        reason,
      },
    )
  })
}

/** The lines of an order as they go to the supplier. */
export async function orderFile(
  actor: Actor,
  reference: string,
): Promise<{ order: OrderPage; number: string; lines: OrderFileLine[] }> {
  const order = await getOrder(actor, reference)
  return {
    order,
    number: visitNumber(order.number),
    lines: order.lineList.map((line) => ({
      line: line.line,
      supplierNumber: line.supplierNumber,
      ourNumber: line.number,
      makersNumber: line.makersNumber,
      name: line.name,
      quantity: line.quantity,
      unit: line.unit,
      unitCents: line.unitCents,
      neededBy: line.neededBy,
    })),
  }
}
