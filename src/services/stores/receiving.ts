import 'server-only'
import {
  deliveryDifferences,
  deliverySchema,
  isComing,
  openQuantity,
  orderStates,
  tidy,
  type DeliveryInput,
} from '@/core/stores'
import { visitNumber } from '@/core/plan'
import { check, conflict, invalid, notFound } from '@/core/problem'
import { write } from '@/db/house'
import { deliveries, orders, parts, stockLots } from '@/db/stores'
import { now, ourCompany, present, recordChange, requirePermission, type Actor } from '../house'
import { loadOrders } from './placedOrders'
import { addLot } from './booking'

/**
 * Takes in a delivery against its note: what is good goes on the shelf as a lot, what is damaged or another
 * part than was ordered into quarantine, and every difference stands in the record. An order of which all
 * has come is closed.
 *
 * @returns the numbers of the lots, to be written on the bags, and what differed
 */
export async function receiveDelivery(
  actor: Actor,
  input: DeliveryInput,
): Promise<{ lots: number[]; differences: string[]; closed: boolean }> {
  requirePermission(actor, 'stores.count')
  const delivery = check(deliverySchema, input)
  return write(async () => {
    const repeated = await deliveries.byId(delivery.id)
    if (repeated) {
      const lots = await stockLots.all({ deliveryId: delivery.id }, [['number', 'ASC']])
      return {
        lots: lots.map((lot) => lot.number),
        differences: repeated.differences === '' ? [] : repeated.differences.split('\n'),
        closed: (await orders.byId(delivery.orderId))?.state === 'closed',
      }
    }
    const order = (await loadOrders()).find((each) => each.id === delivery.orderId)
    if (!order) throw notFound('This order')
    if (!isComing(order.state))
      throw conflict(
        `Order ${visitNumber(order.row.number)} is ${orderStates[order.state].toLowerCase()}: nothing of it comes.`,
      )
    const { today } = present(await ourCompany())
    if (delivery.receivedOn > today) throw invalid({ receivedOn: 'This day is still to come.' })
    if (delivery.receivedOn < order.sentOn!) throw invalid({ receivedOn: 'That is before it was ordered.' })
    const twice = (await deliveries.all({ noteNumber: delivery.noteNumber })).find(
      (each) =>
        // Two suppliers may use the same number; one does not.
        each.orderId === order.id,
    )
    if (twice) throw invalid({ noteNumber: `This note was taken in on ${twice.receivedOn} already.` })
    const partOf = new Map((await parts.every()).map((part) => [part.id, part]))
    const lots: number[] = []
    const differences: string[] = []
    const faults: Record<string, string> = {}
    const seen = new Set<string>()
    for (const [at, line] of delivery.lines.entries()) {
      const own = order.lines.find((each) => each.id === line.lineId)
      const row = order.rows.find((each) => each.id === line.lineId)
      const field = `lines.${at}.`
      if (!own || !row) throw invalid({ [`${field}lineId`]: 'This line is not of this order.' })
      if (seen.has(line.lineId)) throw invalid({ [`${field}lineId`]: 'This line stands in it twice.' })
      seen.add(line.lineId)
      if (line.damaged > line.came) faults[`${field}damaged`] = 'More than came cannot be damaged.'
      const part = partOf.get(row.partId)!
      if (part.unit === 'piece' && !Number.isInteger(line.damaged))
        faults[`${field}damaged`] = 'Pieces come whole.'
      if (part.unit === 'piece' && !Number.isInteger(line.noted))
        faults[`${field}noted`] = 'Pieces come whole.'
    }
    if (Object.keys(faults).length > 0) throw invalid(faults)
    if (delivery.lines.every((line) => line.came === 0 && line.noted === 0))
      throw invalid({ lines: 'Enter what came.' })
    for (const [at, line] of delivery.lines.entries()) {
      if (line.came === 0 && line.noted === 0) continue
      const own = order.lines.find((each) => each.id === line.lineId)!
      const row = order.rows.find((each) => each.id === line.lineId)!
      const part = partOf.get(row.partId)!
      const words = deliveryDifferences({ ...line, open: openQuantity(own) })
      if (line.wrongPart && line.came > 0) words.unshift('another part than ordered, set aside')
      differences.push(...words.map((each) => `${part.number}: ${each}`))
      const good = line.wrongPart ? 0 : tidy(line.came - line.damaged)
      const bad = tidy(line.came - good)
      const lot = {
        code: line.code,
        receivedOn: delivery.receivedOn,
        curedOn: line.curedOn,
        expiresOn: line.expiresOn,
        placeId: order.yardId,
        unitCents: row.unitCents,
        deliveryId: delivery.id,
      }
      if (good > 0) {
        const added = await addLot(
          actor,
          part,
          { ...lot, id: line.lotId, quantity: good, note: '', orderLineId: line.lineId },
          `lines.${at}.`,
        )
        lots.push(added.number)
      }
      if (bad > 0) {
        const note = line.wrongPart ? 'another part than ordered' : 'damaged when it came'
        const added = await addLot(
          actor,
          part,
          {
            ...lot,
            id: `${line.lotId.slice(0, 34)}-q`,
            quantity: bad,
            note,
            state: 'quarantine',
            // It is not what was ordered: the supplier still owes it.
            orderLineId: null,
          },
          `lines.${at}.`,
        )
        lots.push(added.number)
      }
    }
    await deliveries.insert({
      id: delivery.id,
      orderId: order.id,
      noteNumber: delivery.noteNumber,
      receivedOn: delivery.receivedOn,
      differences: differences.join('\n').slice(0, 1000),
      recordedAt: now(),
      recordedById: actor.id,
    })
    const after = (await loadOrders()).find((each) => each.id === order.id)!
    const closed = after.lines.every((line) => line.received >= tidy(line.quantity - line.calledOff))
    await orders.update(
      { id: order.id },
      { state: closed ? 'closed' : order.state, version: order.row.version + 1 },
    )
    await recordChange(actor, {
      entity: 'order',
      entityId: order.id,
      entityVersion: order.row.version + 1,
      action: 'received',
      summary: `Delivery note ${delivery.noteNumber} taken in for order ${visitNumber(order.row.number)}${closed ? ': all has come' : ''}`,
      reason: differences.join('; ').slice(0, 300),
    })
    return { lots, differences, closed }
  })
}
