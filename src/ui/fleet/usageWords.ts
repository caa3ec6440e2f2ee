import type { AssemblyView, Stay } from '@/core/fleet'
import { showNumber } from '@/core/units'

type Counted = Pick<AssemblyView, 'usageScale' | 'usage' | 'usedSinceTakeOver' | 'openingKind'>

const unit = (assembly: Counted) => (assembly.usageScale === 'h' ? 'h' : 'strokes')

/** Usage so far, with what is not known said as such: `1 446 h`, `about 900 h`, `at least 210 h`. */
export function usageWords(assembly: Counted): string {
  const amount = assembly.usage ?? assembly.usedSinceTakeOver
  const shown = `${showNumber(Math.round(amount))}\u00a0${unit(assembly)}`
  if (assembly.usage === null) return `at least ${shown}`
  return assembly.openingKind === 'assumed' ? `about ${shown}` : shown
}

/** How its hours are counted: `Engine hours, 80 % assumed`. */
export function countedWords(assembly: AssemblyView): string {
  const counted = assembly.countedBy
  if (!counted) return 'not counted on the shelf'
  if (counted.basis === 'own') return counted.meterName
  return `${counted.meterName}, ${showNumber(Math.round(counted.share * 1000) / 10)}\u00a0% ${counted.basis}`
}

export function placeWords(assembly: {
  place: Pick<Stay, 'machineNumber' | 'machineName' | 'yardName' | 'slot'>
}): string {
  const { place } = assembly
  const slot = place.slot ? `, ${place.slot}` : ''
  return place.machineNumber
    ? `${place.machineNumber} ${place.machineName}${slot}`
    : `shelf, ${place.yardName}${slot}`
}

/** Use in a week: `25 h`. */
export function showWeekly(weekly: number, unit: string): string {
  return `${showNumber(Math.round(weekly))}\u00a0${unit}`
}
