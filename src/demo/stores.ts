import { addDays } from '@/core/calendar'
import type { PartForm } from '@/core/stores'
import { type Actor, runAt, instantOf } from '@/services/house'
import { listBenchParts, receivePart, savePart } from '@/services/stores'
import { idOf } from './random'

type DemoPart = {
  number: string
  name: string
  /** The part of the model that it serves as; blank for what fits none. */
  as: string
  unit?: PartForm['unit']
  pack?: number
  price: string
  leadDays: number
  minimum: number
  bin: string
  /** How much comes in at once. */
  order: number
  /** Years it keeps on the shelf. */
  keeps?: number
}

export const demoParts: DemoPart[] = [
  {
    number: 'VK-3',
    name: 'Valve, kit of three',
    as: 'valve',
    pack: 3,
    price: '21.50',
    leadDays: 12,
    minimum: 6,
    bin: 'H-02',
    order: 18,
  },
  {
    number: 'OR-24',
    name: 'O-ring 24 × 2, valve cap',
    as: 'capOring',
    price: '0.85',
    leadDays: 5,
    minimum: 12,
    bin: 'H-04',
    order: 50,
    keeps: 7,
  },
  {
    number: 'HP-20',
    name: 'High-pressure seal 20',
    as: 'hpSeal',
    price: '12.40',
    leadDays: 14,
    minimum: 6,
    bin: 'H-09',
    order: 24,
    keeps: 7,
  },
  {
    number: 'LP-20',
    name: 'Low-pressure seal 20',
    as: 'lpSeal',
    price: '9.10',
    leadDays: 14,
    minimum: 6,
    bin: 'H-09',
    order: 18,
    keeps: 7,
  },
  {
    number: 'OR-31',
    name: 'O-ring 31 × 2, seal retainer',
    as: 'retainerOring',
    price: '1.10',
    leadDays: 5,
    minimum: 9,
    bin: 'H-04',
    order: 40,
    keeps: 7,
  },
  {
    number: 'PL-20',
    name: 'Ceramic plunger 20',
    as: 'plunger',
    price: '48.00',
    leadDays: 21,
    minimum: 3,
    bin: 'H-11',
    order: 6,
  },
  {
    number: 'CW-8',
    name: 'Copper washer 8',
    as: 'copperWasher',
    price: '0.40',
    leadDays: 5,
    minimum: 12,
    bin: 'H-05',
    order: 50,
  },
  {
    number: 'OR-9',
    name: 'Plunger O-ring 9 × 2',
    as: 'plungerOring',
    price: '1.95',
    leadDays: 9,
    minimum: 9,
    bin: 'H-05',
    order: 24,
    keeps: 7,
  },
  {
    number: 'BR-9',
    name: 'Plunger back-up ring 9',
    as: 'plungerBackup',
    price: '0.75',
    leadDays: 9,
    minimum: 9,
    bin: 'H-05',
    order: 24,
  },
  {
    number: 'PB-8',
    name: 'Plunger bolt M8',
    as: 'plungerBolt',
    price: '2.20',
    leadDays: 9,
    minimum: 3,
    bin: 'H-05',
    order: 6,
  },
  {
    number: 'SC-20',
    name: 'Seal retainer 20',
    as: 'retainer',
    price: '19.50',
    leadDays: 21,
    minimum: 2,
    bin: 'H-10',
    order: 3,
  },
  {
    number: 'DS-14',
    name: 'Drain plug seal 14, copper',
    as: 'drainSeal',
    price: '0.30',
    leadDays: 3,
    minimum: 6,
    bin: 'H-05',
    order: 50,
  },
  {
    number: 'OS-28',
    name: 'Oil seal 28',
    as: 'oilSeal',
    price: '6.70',
    leadDays: 9,
    minimum: 6,
    bin: 'H-12',
    order: 12,
    keeps: 7,
  },
  {
    number: 'OIL-1',
    name: 'Crankcase oil, non-detergent',
    as: 'oil',
    unit: 'L',
    price: '7.20',
    leadDays: 3,
    minimum: 10,
    bin: 'drum 1',
    order: 60,
  },
  {
    number: 'FE-10',
    name: 'Inlet filter element',
    as: 'filterElement',
    price: '5.90',
    leadDays: 5,
    minimum: 8,
    bin: 'H-14',
    order: 40,
  },
  {
    number: 'TL-M',
    name: 'Threadlocker, medium',
    as: 'locker',
    unit: 'mL',
    price: '0.62',
    leadDays: 4,
    minimum: 20,
    bin: 'cupboard',
    order: 50,
    keeps: 1,
  },
  {
    number: 'NZ-055',
    name: 'Nozzle 25° size 05.5',
    as: '',
    price: '14.80',
    leadDays: 6,
    minimum: 4,
    bin: 'H-21',
    order: 10,
  },
]

/** Rubber keeps by its group; what keeps a year has a life of its own, and a shorter one once it is open. */
const ageing = ({
  keeps,
}: DemoPart): Pick<PartForm, 'shelfGroup' | 'keepsMonths' | 'openedMonths' | 'material'> => {
  if (keeps === 7) return { shelfGroup: 'B', keepsMonths: 0, openedMonths: 0, material: 'NBR' }
  if (keeps) return { shelfGroup: 'own', keepsMonths: keeps * 12, openedMonths: 6, material: '' }
  return { shelfGroup: 'none', keepsMonths: 0, openedMonths: 0, material: '' }
}

/** The parts list of the company, with what lay in the bins when records began. */
export async function stockUp(
  coordinator: Actor,
  modelId: string,
  begin: string,
  timeZone: string,
): Promise<void> {
  for (const part of demoParts) {
    await runAt(instantOf(begin, '11:00', timeZone), () =>
      savePart(coordinator, {
        id: idOf(`part ${part.number}`),
        number: part.number,
        name: part.name,
        makersNumber: '',
        unit: part.unit ?? 'piece',
        packSize: part.pack ?? 1,
        price: part.price,
        leadDays: part.leadDays,
        minimum: String(part.minimum) as never,
        bin: part.bin,
        fits: part.as === '' ? [] : [{ modelId, part: part.as }],
        note: '',
        ...ageing(part),
      }),
    )
    await receive(coordinator, part, begin, timeZone)
  }
}

/** Orders what has fallen below its minimum, or below what a job needs, some days before it. */
export async function reorder(
  coordinator: Actor,
  needs: { part: string; quantity: number }[],
  day: string,
  timeZone: string,
): Promise<void> {
  const stock = await runAt(instantOf(day, '07:00', timeZone), () => listBenchParts(coordinator))
  for (const part of demoParts) {
    const need = needs.find((each) => each.part === part.as)?.quantity ?? 0
    if (need === 0) continue
    const onHand = stock.find((each) => each.number === part.number)?.onHand ?? 0
    if (onHand - need < part.minimum) await receive(coordinator, part, addDays(day, -3), timeZone)
  }
}

export async function receive(
  coordinator: Actor,
  part: DemoPart,
  day: string,
  timeZone: string,
  more: { quantity?: number; note?: string } = {},
): Promise<void> {
  const id = idOf(`lot ${part.number} ${day}`)
  await runAt(instantOf(day, '11:30', timeZone), () =>
    receivePart(coordinator, {
      id,
      partId: idOf(`part ${part.number}`),
      quantity: String(more.quantity ?? part.order) as never,
      code: `${part.number.slice(0, 1)}${day.slice(2, 4)}-${Number(BigInt(`0x${id.slice(0, 4)}`)) % 900}`,
      receivedOn: day,
      price: '' as never,
      expiresOn: part.keeps ? `${Number(day.slice(0, 4)) + part.keeps}${day.slice(4)}` : null,
      note: more.note ?? '',
    }),
  )
}
