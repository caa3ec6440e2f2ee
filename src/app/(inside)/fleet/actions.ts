'use server'

import type {
  AssemblyInput,
  MachineInput,
  MoveInput,
  NewAssemblyInput,
  NewMachineInput,
  RetireInput,
} from '@/core/fleet'
import type { MeterInput, ReadingInput, SettlementInput } from '@/core/hours'
import type { ClockStartInput, RenewalInput } from '@/core/wear'
import * as assemblies from '@/services/assemblies'
import * as fleet from '@/services/fleet'
import * as meters from '@/services/meters'
import * as readings from '@/services/readings'
import * as wear from '@/services/wear'
import { act } from '../../access/act'

export async function addMachine(input: NewMachineInput) {
  return act((actor) => fleet.addMachine(actor, input))
}
export async function saveMachine(input: MachineInput) {
  return act((actor) => fleet.saveMachine(actor, input))
}
export async function retireMachine(input: RetireInput) {
  return act((actor) => fleet.retireMachine(actor, input))
}
export async function returnMachine(input: { id: string; version: number }) {
  return act((actor) => fleet.returnMachine(actor, input))
}
export async function saveMeter(machineId: string, input: MeterInput) {
  return act((actor) => meters.saveMeter(actor, machineId, input))
}
export async function recordReading(input: ReadingInput) {
  return act((actor) => readings.recordReading(actor, input))
}
export async function settleReading(input: SettlementInput) {
  return act((actor) => readings.settleReading(actor, input))
}
export async function addAssembly(input: NewAssemblyInput) {
  return act((actor) => assemblies.addAssembly(actor, input))
}
export async function saveAssembly(input: AssemblyInput) {
  return act((actor) => assemblies.saveAssembly(actor, input))
}
export async function moveAssembly(input: MoveInput) {
  return act((actor) => assemblies.moveAssembly(actor, input))
}
export async function undoMove(input: { assemblyId: string; fittingId: string }) {
  return act((actor) => assemblies.undoMove(actor, input))
}
export async function retireAssembly(input: RetireInput) {
  return act((actor) => assemblies.retireAssembly(actor, input))
}
export async function returnAssembly(input: { id: string; version: number }) {
  return act((actor) => assemblies.returnAssembly(actor, input))
}
export async function startClocks(input: ClockStartInput) {
  return act((actor) => wear.startClocks(actor, input))
}
export async function recordRenewal(input: RenewalInput) {
  return act((actor) => wear.recordRenewal(actor, input))
}
