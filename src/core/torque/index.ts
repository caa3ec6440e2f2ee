export { type Bolt, type OrderPattern, imbalance, tighteningOrder } from './order'
export { detectUnitSlip, judgeTorque, showTorque, torqueIn, type Torque } from './torque'
export { type Wrench, type WrenchAdvice, wrenchFor, wrenchSetting, wrenchWords } from './wrench'
