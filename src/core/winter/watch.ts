import { daysBetween, type Day } from '../calendar'
import type { OutlookDay } from './climate'
import type { ZoneState } from './state'

/** An outlook's night raises the alarm when it comes within so many °C of what freezes. Ours, editable. */
export const usualAlarmC = 2

/** What can be done for one machine before a night, each with what it takes. */
export type FrostAct = {
  act: 'indoors' | 'drain' | 'protect' | 'routine'
  name: string
  minutes: number
  cents: number
  /** What it does not do. */
  leaves: string
}

export type FrostAlarm = {
  machineId: string
  /** The first night that comes too near. */
  night: Day
  minC: number
  hoursLeft: number
  acts: FrostAct[]
  /** The quickest that fits into the hours that are left; null where nothing does. */
  quickest: FrostAct | null
}

/** States in which frost would get at water; one that is back at work stands in it like any other. */
export const atRisk: readonly ZoneState[] = ['inUse', 'unproved', 'failed', 'void', 'exposed', 'returned']

/**
 * Whether the outlook asks for something to be done for a machine, and the quickest that can be.
 *
 * @param machine.standsC it freezes at or below so many °C outside; null never
 * @param machine.heatedSpace whether a heated hall of its yard could take it
 * @param outlook nights to come, of its yard
 * @param hourNow of the company's day, 0 to 24: a night is reckoned to be coldest at six in the morning
 */
export function frostAlarm(
  machine: {
    id: string
    standsC: number | null
    states: readonly ZoneState[]
    heatedSpace: boolean
    drain: { minutes: number; cents: number }
    protect: { minutes: number; cents: number } | null
    hourCents: number
    /** It works through winter and has an evening routine. */
    routine: { name: string; minutes: number } | null
  },
  outlook: readonly OutlookDay[] | null,
  today: Day,
  hourNow: number,
  alarmC = usualAlarmC,
): FrostAlarm | null {
  const { standsC } = machine
  if (standsC === null || !outlook || !machine.states.some((state) => atRisk.includes(state))) return null
  // This morning's cold has been; the night to come is coldest before tomorrow's dawn.
  const night = outlook.find(({ day, minC }) => day > today && minC <= standsC + alarmC)
  if (!night) return null
  const hoursLeft = daysBetween(today, night.day) * 24 + 6 - hourNow
  const cents = (minutes: number) => Math.round((minutes * machine.hourCents) / 60)
  const acts: FrostAct[] = []
  if (machine.routine)
    acts.push({
      act: 'routine',
      name: machine.routine.name,
      minutes: machine.routine.minutes,
      cents: cents(machine.routine.minutes),
      leaves: 'for this night',
    })
  if (machine.heatedSpace)
    acts.push({
      act: 'indoors',
      name: 'Into the heated hall',
      minutes: 15,
      cents: cents(15),
      leaves: 'for as long as it stands there',
    })
  acts.push({
    act: 'drain',
    name: 'Drain only',
    ...machine.drain,
    leaves: 'pockets and low points keep water',
  })
  if (machine.protect) acts.push({ act: 'protect', name: 'Full protection', ...machine.protect, leaves: '' })
  const fits = acts.filter(({ minutes }) => minutes / 60 <= hoursLeft).sort((a, b) => a.minutes - b.minutes)
  return {
    machineId: machine.id,
    night: night.day,
    minC: night.minC,
    hoursLeft,
    acts,
    quickest: fits[0] ?? null,
  }
}
