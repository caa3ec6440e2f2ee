import 'server-only'
import { addDays, showDay, type Day } from '@/core/calendar'
import {
  anotherFrost,
  eveningMinutes,
  eveningNames,
  frostAlarm,
  frostCurve,
  methodsFor,
  planMachine,
  winterDay,
  zoneNames,
  type CampaignPlan,
  type FrostAlarm,
  type WinterRow,
} from '@/core/winter'
import { dayOf, now, timeOf } from '../house'
import { usualDesignLowC, type MachineWinter } from './plans'
import type { MachineStanding } from './standings'
import { ratesOf } from './terms'
import { type Basis, isWaiting, jobEnd } from './campaign'

export function rowOf(
  basis: Basis,
  each: MachineWinter,
  placed: CampaignPlan['order'][number] | null,
): WinterRow {
  const { machine, plan, frost, standsC, row } = each
  const { standings, booked, today, timeZone } = basis
  const standing = standings.get(machine.id)!
  const visit = booked.get(machine.id) ?? null
  const state = standing.worst
  const waiting = isWaiting(each, state)
  const day = visit?.day ?? placed?.day ?? null
  const risk =
    !waiting || !frost?.climate
      ? null
      : visit
        ? (frostCurve({
            climate: frost.climate,
            standsC,
            outlook: frost.outlook,
            from: today,
            to: visit.day >= today ? visit.day : today,
          }).at(-1)?.chance ?? 0)
        : (placed?.risk ?? 0)
  const alike = Object.values(standing.zones).filter((zone) => zone.state === state && zone.says !== '')
  // What was measured says more than what was seen.
  const speaking = alike.find(({ proof }) => proof?.measuredC != null) ?? alike[0]
  const evening = row?.evening ?? ''
  const lastEvening = standing.evenings.at(-1)
  const confirmedOn = lastEvening ? dayOf(lastEvening.at, timeZone) : null
  return {
    machineId: machine.id,
    number: machine.number,
    name: machine.name,
    where: frost?.yard.name ?? '',
    standsC,
    state,
    says:
      state === 'protected' && speaking?.since
        ? `${speaking.says}, ${showDay(dayOf(speaking.since, timeZone), today)}`
        : (speaking?.says ?? ''),
    reach: plan.zones.map(({ zone, method }) => ({
      zone,
      method,
      state: standing.zones[zone]?.state ?? 'inUse',
    })),
    litres: waiting ? plan.productLitres : 0,
    waterLitres: waiting ? plan.waterLitres : 0,
    minutes: plan.minutes,
    cents: plan.cents,
    valueCents: each.valueCents,
    day: waiting ? day : null,
    booked: visit && { visitId: visit.visitId, number: visit.number, lead: visit.lead },
    risk,
    troubles: plan.troubles.map(({ zone, why }) => `${zoneNames[zone]}: ${why}`),
    isTemplate: each.isTemplate,
    evening:
      evening === ''
        ? null
        : { name: eveningNames[evening], confirmedOn, wanted: eveningWanted(basis, each, confirmedOn) },
    onJobUntil: jobEnd(basis, machine.id),
    alarm: alarmOf(basis, each, standing),
  }
}

/** A machine that works on is asked about each evening on which frost may come before the next. */
function eveningWanted(basis: Basis, each: MachineWinter, confirmedOn: Day | null): boolean {
  const { today, terms } = basis
  const { frost, standsC } = each
  if (standsC === null || !frost?.climate || confirmedOn === today) return false
  const tonight = frostCurve({
    climate: frost.climate,
    standsC,
    outlook: frost.outlook,
    from: today,
    to: addDays(today, 1),
  }).at(-1)!.chance
  // After midwinter the first frost says nothing any more: the last one does.
  const late =
    winterDay(today) > 184 && anotherFrost(frost.climate, standsC, today) >= terms.riskPercent / 100
  return tonight >= terms.riskPercent / 100 / 5 || late
}

function alarmOf(basis: Basis, each: MachineWinter, standing: MachineStanding): FrostAlarm | null {
  const { terms, today, timeZone } = basis
  const { machine, frost, standsC, plan, row } = each
  if (!frost || jobEnd(basis, machine.id) !== null) return null
  const drained = planMachine({
    circuit: each.circuit,
    methods: Object.fromEntries(
      plan.zones.map(({ zone }) => [
        zone,
        {
          method: methodsFor[zone].includes('drain')
            ? 'drain'
            : methodsFor[zone].includes('blowOut')
              ? 'blowOut'
              : 'leave',
          from: '',
        },
      ]),
    ),
    product: null,
    designLowC: frost.designLowC ?? usualDesignLowC,
    rates: ratesOf(terms),
  })
  const evening = row?.evening ?? ''
  const [hour, minute] = timeOf(now(), timeZone).split(':').map(Number) as [number, number]
  return frostAlarm(
    {
      id: machine.id,
      standsC,
      states: Object.values(standing.zones).map(({ state }) => state),
      heatedSpace: frost.heatedSpace,
      drain: { minutes: drained.minutes - 25, cents: drained.cents },
      protect: plan.troubles.length === 0 ? { minutes: plan.minutes, cents: plan.cents } : null,
      hourCents: terms.hourCents,
      routine: evening === '' ? null : { name: eveningNames[evening], minutes: eveningMinutes[evening] },
    },
    frost.outlook,
    today,
    hour + minute / 60,
    terms.alarmC,
  )
}
