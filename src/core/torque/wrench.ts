import type { Day } from '../calendar'
import type { Torque } from './torque'
import { inUnit, quantity, showNumber } from '../units'

export type Wrench = {
  id: string
  number: string
  name: string
  rangeFrom: number | null
  rangeTo: number | null
  rangeUnit: string
  leverMm: number | null
  calibrationDue: Day | null
}

export type WrenchAdvice = {
  wrench: Wrench | null
  /** What to set on its own scale; null where nothing can be set. */
  setting: { value: number; unit: string } | null
  warnings: string[]
}

/**
 * Which wrench of the register fits a torque: in calibration before out of it, with a scale in the stated
 * unit before another (a converted setting is one more chance of a slip), and the smallest that covers it;
 * else none, with what the register reaches. What is not as it should be comes as a warning.
 *
 * @param torque as it is stated
 * @param wrenches of the register
 * @param today calibration due before it counts as out
 * @param extensionMm a crow-foot or extension in line with the wrench lowers what is set on it
 * @example wrenchFor({ value: 40, unit: 'N·m' }, [ten60], '2026-10-14') // { wrench: ten60, setting: { value: 40, unit: 'N·m' }, warnings: [] }
 */
export function wrenchFor(
  torque: { value: number; unit: string },
  wrenches: Wrench[],
  today: Day,
  extensionMm: number | null = null,
): WrenchAdvice {
  const wanted = quantity('torque', torque.value, torque.unit).si
  const inNm = (value: number, unit: string) => quantity('torque', value, unit).si
  const fitting = wrenches
    .flatMap((wrench) => {
      const { rangeFrom, rangeTo, rangeUnit, leverMm } = wrench
      if (rangeFrom === null || rangeTo === null) return []
      if (extensionMm !== null && leverMm === null) return []
      const set = extensionMm === null ? wanted : wrenchSetting(wanted, leverMm! / 1000, extensionMm / 1000)
      return [{ wrench, set, from: inNm(rangeFrom, rangeUnit), to: inNm(rangeTo, rangeUnit) }]
    })
    .sort((a, b) => a.to - b.to)
  const out = (wrench: Wrench) => wrench.calibrationDue !== null && wrench.calibrationDue < today
  const covering = fitting.filter(({ set, from, to }) => set >= from - 1e-9 && set <= to + 1e-9)
  const ownScale = (wrench: Wrench) => wrench.rangeUnit === torque.unit
  const [best] = covering.toSorted(
    (a, b) =>
      Number(out(a.wrench)) - Number(out(b.wrench)) ||
      Number(ownScale(b.wrench)) - Number(ownScale(a.wrench)),
  )
  const words = `${showNumber(torque.value)}\u00a0${torque.unit}`
  if (!best) {
    const [least, most] = [fitting[0], fitting.at(-1)]
    const reach =
      least && most
        ? `those of the register reach from ${show(Math.min(...fitting.map(({ from }) => from)))} to ${show(most.to)}.`
        : extensionMm === null
          ? 'the register has none.'
          : 'with an extension the wrench’s own length must be known, and none has it.'
    return { wrench: null, setting: null, warnings: [`No wrench covers ${words}: ${reach}`] }
  }
  const { wrench, set } = best
  const value = Number(inUnit('torque', set, wrench.rangeUnit).toPrecision(3))
  const warnings = out(wrench)
    ? [`${wrench.number} is out of calibration since ${wrench.calibrationDue}.`]
    : []
  if (!ownScale(wrench))
    warnings.push(
      `${wrench.number} reads in ${wrench.rangeUnit}: ${words} is ${showNumber(value)}\u00a0${wrench.rangeUnit} on its scale.`,
    )
  if (extensionMm !== null)
    warnings.push(
      `With an extension of ${showNumber(extensionMm)}\u00a0mm in line, ${wrench.number} is set to ${showNumber(value)}\u00a0${wrench.rangeUnit} for ${words}.`,
    )
  return { wrench, setting: { value, unit: wrench.rangeUnit }, warnings }
}

/**
 * The advice for one stage of a fastener as the bench reads it; blank where nothing is stated.
 * @param stage from 1; null for the final value
 * @example wrenchWords(manifoldScrew, 2, wrenches, today) // 'W-2, set to 40 N·m'
 */
export function wrenchWords(
  { torque, extensionMm }: { torque: Torque; extensionMm: number | null },
  stage: number | null,
  wrenches: Wrench[],
  today: Day,
): string {
  if (torque.state !== 'stated') return ''
  const value = stage === null ? torque.value : (torque.stages[stage - 1] ?? torque.value)
  const { wrench, setting, warnings } = wrenchFor({ value, unit: torque.unit }, wrenches, today, extensionMm)
  const set = wrench && `${wrench.number}, set to ${showNumber(setting!.value)}\u00a0${setting!.unit}`
  return [set, ...warnings].filter(Boolean).join('. ')
}

const show = (si: number) => `${showNumber(Number(si.toPrecision(3)))}\u00a0N·m`

/**
 * What to set on a wrench that pulls through a crow-foot or extension in line with it: T·L / (L + E).
 *
 * @param torque wanted at the bolt, in any unit of torque
 * @param lever from the middle of the drive to the middle of the grip, same unit of length as the extension
 * @returns in the unit of `torque`
 * @throws when the lever is not more than 0, or the extension is less
 * @example wrenchSetting(40, 0.4, 0.1) // 32
 */
export function wrenchSetting(torque: number, lever: number, extension: number): number {
  if (lever <= 0 || extension < 0)
    throw new Error('A wrench has a length, and an extension is no shorter than 0.')
  return (torque * lever) / (lever + extension)
}
