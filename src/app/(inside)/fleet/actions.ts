'use server'

import type {
  AssemblyInput,
  ChangesAbout,
  DutyInput,
  MachineInput,
  MoveInput,
  NewAssemblyInput,
  NewMachineInput,
  RetireInput,
} from '@/core/fleet'
import type { UnitFactInput } from '@/core/composing'
import type { SpellInput, MeterInput, ReadingInput, SettlementInput } from '@/core/hours'
import type { EarlyCheckInput, SettleSignInput, SignInput } from '@/core/inspection'
import type {
  ClockStartInput,
  DutiesInput,
  LimitInput,
  MovePartInput,
  RenewalInput,
  TakeOverInput,
} from '@/core/wear'
import * as assemblies from '@/services/fleet'
import * as documents from '@/services/fleet'
import * as earlyChecks from '@/services/wear'
import * as fleet from '@/services/fleet'
import * as lifeMoves from '@/services/wear'
import { livesAt } from '@/services/wear'
import * as meters from '@/services/hours'
import * as moves from '@/services/fleet'
import * as readings from '@/services/hours'
import * as renewals from '@/services/wear'
import * as signs from '@/services/inspection'
import * as spells from '@/services/hours'
import { listPlaceChoices } from '@/services/stores'
import * as rules from '@/services/wear'
import * as units from '@/services/composing'
import { act, look } from '../../access/act'

export async function sayFact(input: UnitFactInput) {
  return act((actor) => units.sayFact(actor, input))
}

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
  return act((actor) => moves.moveAssembly(actor, input))
}
export async function undoMove(input: { assemblyId: string; fittingId: string }) {
  return act((actor) => moves.undoMove(actor, input))
}
export async function retireAssembly(input: RetireInput) {
  return act((actor) => assemblies.retireAssembly(actor, input))
}
export async function returnAssembly(input: { id: string; version: number }) {
  return act((actor) => assemblies.returnAssembly(actor, input))
}
export async function startClocks(input: ClockStartInput) {
  return act((actor) => renewals.startClocks(actor, input))
}
export async function recordRenewal(input: RenewalInput) {
  return act((actor) => renewals.recordRenewal(actor, input))
}
export async function changeDuty(input: DutyInput) {
  return act((actor) => moves.changeDuty(actor, input))
}
export async function retireMeter(input: RetireInput) {
  return act((actor) => meters.retireMeter(actor, input))
}
export async function returnMeter(input: { id: string; version: number }) {
  return act((actor) => meters.returnMeter(actor, input))
}
export async function saveSpell(machineId: string, input: SpellInput) {
  return act((actor) => spells.saveSpell(actor, machineId, input))
}
export async function withdrawSpell(input: { id: string; version: number }) {
  return act((actor) => spells.withdrawSpell(actor, input))
}
export async function previewLimit(input: LimitInput) {
  return look((actor) => rules.previewLimit(actor, input))
}
export async function saveLimit(input: LimitInput) {
  return act((actor) => rules.saveLimit(actor, input))
}
export async function clearLimit(input: { assemblyId: string; task: string; seen: string }) {
  return act((actor) => rules.clearLimit(actor, input))
}
export async function previewDuties(input: DutiesInput) {
  return look((actor) => rules.previewDuties(actor, input))
}
export async function saveDuties(input: DutiesInput) {
  return act((actor) => rules.saveDuties(actor, input))
}
export async function showPlaces() {
  return look((actor) => listPlaceChoices(actor))
}
export async function showLives(input: { assemblyId: string; position: string }) {
  return look((actor) => livesAt(actor, input))
}
export async function showChanges(about: ChangesAbout) {
  return look((actor) => fleet.listChanges(actor, about))
}
export async function reportSign(input: SignInput) {
  return act((actor) => signs.reportSign(actor, input))
}
export async function settleSign(input: SettleSignInput) {
  return act((actor) => signs.settleSign(actor, input))
}
export async function reopenSign(input: { id: string; version: number }) {
  return act((actor) => signs.reopenSign(actor, input))
}
export async function recordEarlyCheck(input: EarlyCheckInput) {
  return act((actor) => earlyChecks.recordEarlyCheck(actor, input))
}
export async function movePart(input: MovePartInput) {
  return act((actor) => lifeMoves.movePart(actor, input))
}
export async function takeOverLives(input: TakeOverInput) {
  return act((actor) => lifeMoves.takeOverLives(actor, input))
}
export async function removeDocument(input: { id: string; version: number }) {
  return act((actor) => documents.removeDocument(actor, input))
}
