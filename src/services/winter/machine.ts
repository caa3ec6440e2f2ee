import 'server-only'
import { notFound } from '@/core/problem'
import {
  methodsFor,
  planMachine,
  planZone,
  wetVolume,
  winterSteps,
  zonesOf,
  type Zone,
  type ZoneChoice,
  type MachineWinterPage,
  type MethodsPage,
} from '@/core/winter'
import { people } from '@/db/access'
import { machines as machineRows } from '@/db/fleet'
import { dayOf, ourCompany, present, timeOf, type Actor } from '../house'
import { loadMachines, templateOf, usualDesignLowC, type MachineWinter } from './plans'
import { loadStandings } from './standings'
import { ratesOf } from './terms'

/** One machine in winter: its water, its methods side by side, how it stands, and what happened. */
export async function getMachineWinter(_actor: Actor, reference: string): Promise<MachineWinterPage> {
  const id = (await machineRows.find({ number: reference }))?.id ?? reference
  const [{ machines: list, product, terms }, company, persons] = await Promise.all([
    loadMachines(id),
    ourCompany(),
    people.every(),
  ])
  const [own] = list
  if (!own) throw notFound('This machine')
  const standing = (await loadStandings([own])).get(id)!
  const { machine, circuit, row, frost, plan } = own
  const wet = wetVolume(circuit)
  const { steps } = winterSteps(workOf(own, product, terms.marginC, []))
  return {
    machineId: id,
    number: machine.number,
    name: machine.name,
    yard: frost?.yard.name ?? '',
    storage: machine.storage,
    standsC: own.standsC,
    designLowC: frost?.designLowC ?? null,
    circuit,
    template: templateOf(machine, own.wet),
    isTemplate: own.isTemplate,
    version: row?.version ?? null,
    litres: wet.litres,
    unknown: wet.unknown,
    ownMethods: row?.methods ?? {},
    plan,
    choices: choicesOf(own, product, ratesOf(terms)),
    product: product?.name ?? null,
    turning: own.turning,
    fuel: own.fuel,
    fuelTankLitres: row?.fuelTankLitres ?? null,
    evening: row?.evening ?? '',
    eveningReason: row?.eveningReason ?? '',
    zones: standing.zones,
    worst: standing.worst,
    steps: steps.map(({ key, heading, where, step }) => ({
      key,
      heading,
      where,
      text: step.text,
      caution: step.caution,
    })),
    history: [...standing.events].reverse().map(({ id: event, at, event: told, sheetId, recordedById }) => ({
      id: event,
      day: dayOf(at, company.timeZone),
      time: timeOf(at, company.timeZone),
      event: told,
      by: persons.find((each) => each.id === recordedById)?.name ?? '',
      sheetId,
    })),
    today: present(company).today,
  }
}

/** Every method of every zone beside the one that is chosen. */
function choicesOf(
  own: MachineWinter,
  product: Awaited<ReturnType<typeof loadMachines>>['product'],
  rates: ReturnType<typeof ratesOf>,
): ZoneChoice[] {
  const { circuit, methods, frost } = own
  const designLowC = frost?.designLowC ?? usualDesignLowC
  return zonesOf(circuit).map((zone) => ({
    zone,
    methods: methodsFor[zone].map((method) => ({
      method,
      isChosen: methods[zone]?.method === method,
      plan: planZone({ circuit, zone, method, product, designLowC, rates }),
    })),
  }))
}

/** What the winter part of a sheet is composed from. */
export function workOf(
  own: MachineWinter,
  product: Awaited<ReturnType<typeof loadMachines>>['product'],
  marginC: number,
  meters: { id: string; name: string; unit: 'h' | 'strokes' }[],
  locked = false,
) {
  const { machine, circuit, plan, turning, fuel, proof, row, frost } = own
  return {
    drive: machine.drive,
    turning,
    fuel,
    fuelTankLitres: row?.fuelTankLitres ?? null,
    circuit,
    plan,
    product: product && { name: product.name, fluid: product.fluid, ready: product.sold === 'ready' },
    needC: (frost?.designLowC ?? usualDesignLowC) - marginC,
    proof,
    locked,
    meters,
  }
}

/** The methods side by side for the whole fleet. */
export async function compareMethods(_actor: Actor): Promise<MethodsPage> {
  const { machines: list, product, terms } = await loadMachines()
  const rates = ratesOf(terms)
  const found = list.map((own) => choicesOf(own, product, rates))
  const used = (Object.keys(methodsFor) as Zone[]).filter((zone) =>
    found.some((choices) => choices.some((each) => each.zone === zone)),
  )
  const total = { litres: 0, minutes: 0, cents: 0 }
  for (const { circuit, methods, frost } of list) {
    const plan = planMachine({
      circuit,
      methods,
      product,
      designLowC: frost?.designLowC ?? usualDesignLowC,
      rates,
    })
    total.litres += plan.productLitres
    total.minutes += plan.minutes
    total.cents += plan.cents
  }
  return {
    machines: list.length,
    product: product?.name ?? null,
    total,
    zones: used.map((zone) => {
      const own = found.flatMap((choices) => choices.find((each) => each.zone === zone) ?? [])
      return {
        zone,
        machines: own.length,
        methods: methodsFor[zone].map((method) => {
          const plans = own.map((choice) => choice.methods.find((each) => each.method === method)!)
          const sum = (of: (plan: (typeof plans)[number]['plan']) => number) =>
            plans.reduce((all, { plan }) => all + of(plan), 0)
          return {
            method,
            chosen: plans.filter(({ isChosen }) => isChosen).length,
            litres: sum(({ ownLitres }) => ownLitres),
            minutes: sum(({ minutes }) => minutes),
            cents: sum(({ cents }) => cents),
            unprotected: plans.filter(({ plan }) => plan.unprotected.length > 0).length,
            cannot: plans.filter(({ plan }) => plan.recipe !== null && !plan.recipe.ok).length,
            dries: plans[0]?.plan.dries ?? '',
            droplets: plans[0]?.plan.droplets ?? '',
          }
        }),
      }
    }),
  }
}
