export type { MeterEvent, MeterFace, MeterUnit, Reading, Standing } from './types'
export { cumulativeHours, hoursAt, type CumulativeLine, type CumulativePoint } from './cumulative'
export { dailyUse, plausibleUse, weeklyUse, type DailyUse, type UseBand } from './usage'
export {
  isAcceptedAtOnce,
  judgeAgain,
  judgeLater,
  judgeReading,
  type History,
  type Verdict,
  type VerdictKind,
} from './judge'
export { outvotedBy, settleBlame, type Blame } from './blame'
export { presumedChange, type PresumedChange } from './presumedChange'
export { possibleSlips, type Slip } from './slips'
export { packReadings, unpackReadings } from './packed'
export { judgeTyped, type TypedReading } from './typed'
export {
  assemblyLine,
  assemblyUsage,
  countedStretches,
  usageSinceTakeOver,
  type CountedStretch,
  type Opening,
} from './assembly'
export { meterValue, readMeterValue, showMeterValue } from './meterValue'
export {
  meterSchema,
  readingSchema,
  replacedSchema,
  skipSchema,
  settlementSchema,
  type MeterEventToo,
  type MeterInput,
  type ReadingInput,
  type ReplacedInput,
  type SkipInput,
  type SettlementInput,
} from './schema'
export { meterKinds } from './choices'
export {
  dueDays,
  fitUsage,
  forecastBy,
  forecastUsage,
  type UsageFit,
  type JobBooking,
  type KnownAhead,
  type UsageForecast,
  type UsedLine,
} from './forecast'
export { patternOfUse, type LayUp, type UsePattern } from './pattern'
export { forecastWords } from './forecastWords'
export { meterFields } from './schema'
export { type SpellInput, knownAhead, laidUpOn, overlap, spellKinds, spellWords } from './spells'
export { spellSchema } from './spellsSchema'
