import type { ZoneState } from '@/core/winter'
import type { PostMarkState } from '../graphics/PostMark'

export const stateNames: Record<ZoneState, string> = {
  inUse: 'in use',
  unproved: 'filled, not proved',
  failed: 'proof failed',
  protected: 'protected',
  void: 'void',
  exposed: 'exposed to frost',
  left: 'left by name',
  returned: 'back at work',
}

export const stateMarks: Record<ZoneState, PostMarkState> = {
  inUse: 'open',
  unproved: 'waiting',
  failed: 'atRisk',
  protected: 'done',
  void: 'atRisk',
  exposed: 'atRisk',
  left: 'doubted',
  returned: 'healthy',
}

export const stateInk: Record<ZoneState, string> = {
  inUse: '',
  unproved: 'brass',
  failed: 'oxide',
  protected: 'moss',
  void: 'oxide',
  exposed: 'oxide',
  left: 'brass',
  returned: '',
}

export const showLitres = (litres: number) =>
  litres > 0 && litres < 0.095
    ? `${Math.max(1, Math.round(litres * 1000))}\u00a0mL`
    : `${litres >= 20 ? Math.round(litres) : Math.round(litres * 10) / 10}\u00a0L`
export const showDegrees = (degrees: number) =>
  `${String(Math.round(degrees * 10) / 10).replace('-', '−')}\u00a0°C`
export const showRisk = (risk: number) =>
  risk < 0.005 ? 'under 1\u00a0%' : `${Math.round(risk * 100)}\u00a0%`
/** @example showWork(185) // '3 h 5 min' */
export const showWork = (minutes: number) => {
  const whole = Math.round(minutes)
  const hours = Math.floor(whole / 60)
  return hours === 0
    ? `${whole}\u00a0min`
    : `${hours}\u00a0h${whole % 60 ? `\u00a0${whole % 60}\u00a0min` : ''}`
}
