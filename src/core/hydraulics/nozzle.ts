/** Litres in a US gallon, and pascals in a pound per square inch: exact, or to the digits shown. */
const litresPerUsGallon = 3.785411784
const barPerPsi = 0.06894757293168

/**
 * Flow through a nozzle of a size number at a pressure. The size number is its flow in US gal/min at
 * 4000 psi; flow goes with the square root of pressure, Q = C·√Δp.
 *
 * @param size size number, greater than 0
 * @param bar pressure across the nozzle
 * @returns litres a minute
 * @example nozzleFlow(5, 275.79) // 18.93: 5 US gal/min at 4000 psi
 */
export function nozzleFlow(size: number, bar: number): number {
  return size * litresPerUsGallon * Math.sqrt(Math.max(0, bar) / (4000 * barPerPsi))
}

/**
 * Hydraulic power of a flow at a pressure, in kW.
 * @example hydraulicKw(200, 15) // 5
 */
export function hydraulicKw(bar: number, litresPerMinute: number): number {
  return (bar * litresPerMinute) / 600
}

/** What was read off a machine with its nozzle on: at the same moment, at working speed. */
export type FlowReading = {
  nozzleSize: number
  bar: number
  litresPerMinute: number
  /** What the machine is rated for, or gave after its last service, at the same speed. */
  usualLitresPerMinute: number
}

export type FlowVerdict = 'nozzleWorn' | 'lostBefore' | 'onCurve' | 'gaugeOrFlow'

/** Shares within which two flows count as the same; ours, the slack of a bucket and a watch. */
const slack = 0.08

/**
 * Where flow goes when the pressure is low, by comparing the flow through the nozzle with the nozzle's
 * own curve and with the machine's usual flow.
 *
 * - `nozzleWorn`: usual flow passes at a pressure lower than the nozzle's curve asks for: a worn or
 *   wrong nozzle, or a gauge that shows too little.
 * - `lostBefore`: less than usual arrives, and it sits on the curve: flow is lost before the nozzle.
 * - `onCurve`: usual flow on the curve; pressure is what this nozzle gives.
 * - `gaugeOrFlow`: less passes than the curve gives at that pressure: gauge high, nozzle part blocked, or
 *   the flow was measured wrong.
 */
export function flowVerdict(reading: FlowReading): {
  verdict: FlowVerdict
  /** The nozzle's own flow at that pressure. */
  curve: number
  /** Flow against the curve, and against the usual. */
  ofCurve: number
  ofUsual: number
} {
  const curve = nozzleFlow(reading.nozzleSize, reading.bar)
  const ofCurve = reading.litresPerMinute / curve
  const ofUsual = reading.litresPerMinute / reading.usualLitresPerMinute
  const verdict: FlowVerdict =
    ofCurve > 1 + slack
      ? 'nozzleWorn'
      : ofCurve < 1 - slack
        ? 'gaugeOrFlow'
        : ofUsual < 1 - slack
          ? 'lostBefore'
          : 'onCurve'
  return { verdict, curve, ofCurve, ofUsual }
}
