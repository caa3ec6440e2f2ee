'use server'

import type {
  ApproveInput,
  BookingInput,
  CancelInput,
  CrewInput,
  OpenDecisionInput,
  PinInput,
  PlanTermsInput,
  TakeInput,
  VisitChangeInput,
  WeighInput,
} from '@/core/plan'
import * as visits from '@/services/plan'
import { act } from '../../access/act'

export async function bookVisit(input: BookingInput) {
  return act((actor) => visits.bookVisit(actor, input))
}
export async function changeVisit(input: VisitChangeInput) {
  return act((actor) => visits.changeVisit(actor, input))
}
export async function cancelVisit(input: CancelInput) {
  return act((actor) => visits.cancelVisit(actor, input))
}
export async function restoreVisit(input: { id: string; version: number }) {
  return act((actor) => visits.restoreVisit(actor, input))
}
export async function openDecision(input: OpenDecisionInput) {
  return act((actor) => visits.openDecision(actor, input))
}
export async function weighDecision(input: WeighInput) {
  return act((actor) => visits.weighDecision(actor, input))
}
export async function approveVisits(input: ApproveInput) {
  return act((actor) => visits.approveVisits(actor, input))
}
export async function pinVisit(input: PinInput) {
  return act((actor) => visits.pinVisit(actor, input))
}
export async function takePlan(input: TakeInput) {
  return act((actor) => visits.takePlan(actor, input))
}
export async function saveCrew(input: CrewInput) {
  return act((actor) => visits.saveCrew(actor, input))
}
export async function savePlanTerms(input: PlanTermsInput) {
  return act((actor) => visits.savePlanTerms(actor, input))
}
