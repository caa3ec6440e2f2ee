export { type FeedInput, type FeedView, feedSchema } from './feeds'
export {
  type HandInput,
  type Mark,
  type MarkedAs,
  type Marking,
  type SnoozeInput,
  endedBy,
  markOn,
  serviceSubject,
} from './marks'
export { handSchema, snoozeSchema } from './marksSchema'
export { nextVisit } from './nextVisit'
export { notOnVisit, visitFor } from './onVisit'
export type { GoesOn, PreparedStep, VisitLine, VisitPage } from './views'
export {
  type BookingInput,
  type CancelInput,
  type VisitChangeInput,
  type VisitItem,
  type VisitState,
  isOpen,
  showMinutes,
  visitNumber,
  visitStates,
  winterVisits,
  type CampaignBookingInput,
} from './visits'
export {
  bookedItem,
  bookingSchema,
  cancelSchema,
  visitChangeSchema,
  campaignBookingSchema,
} from './visitsSchema'
export { bookable, type BookableClock } from './bookable'
export { leastBusy, visitLeads, whoHasTime } from './leastBusy'
export {
  dueStanding,
  worseDue,
  worseStanding,
  type AssemblyStanding,
  type DueStanding,
  type MachineStanding,
  type ToldService,
} from './standing'
export { servicesOn, type DueService } from './servicesOn'
export { changedProblem, checkPlan, planCost, planVisits, repairPlan } from './planner'
export type {
  PlanChange,
  PlanCost,
  PlanCrew,
  PlanMachine,
  PlannedVisit,
  PlanOptions,
  PlanProblem,
  PlanProgress,
  PlanResult,
  PlanRule,
  PlanTask,
  PlanViolation,
  RepairOptions,
  RepairResult,
  Unplaced,
} from './planner'
export {
  usualCrew,
  usualPlanTerms,
  weekdayNames,
  type CrewInput,
  type PlanTerms,
  type PlanTermsInput,
  type Span,
} from './crewTerms'
export { crewSchema, planTermsSchema } from './crewTermsSchema'
export {
  isPinned,
  runningOf,
  serviceId,
  type Fleet,
  type FleetService,
  type FleetVisit,
  type FleetWinter,
} from './fleet'
export { fleetProblem, frostBy, givenUp, safeBy, workOf } from './fleetProblem'
export { problemToPropose, proposalKinds, proposalsOf, takeOf, type Proposal } from './proposals'
export { takeSchema, type TakeInput } from './taking'
export {
  benchLoad,
  horizonRows,
  weeklyLoad,
  type BenchLoad,
  type HorizonRow,
  type HorizonYard,
  type Lens,
} from './horizon'
export type { PlannerAnswers, PlannerAsks } from './messages'
export { reasonWords } from './reasonWords'
export { bookedPlan, tryMove, violationWords, type MoveTrial } from './tryMove'
export { changeNames, whatIf, type FleetChange, type WhatIfAnswer } from './whatIf'
export { bundlesOf, type Bundle, type Bundling, type GoesAlong } from './bundles'
export {
  decisionTake,
  mergedItems,
  type ApproveInput,
  type PinInput,
  type Decision,
  type DecidedService,
  type DecisionForm,
  type DecisionPage,
  type Lending,
  type OpenDecisionInput,
  type WeighedDecision,
  type WeighInput,
} from './deciding'
export { approveSchema, decisionSchema, openDecisionSchema, pinSchema, weighSchema } from './decidingSchema'
export { dayListOf, type DayList, type DayPart, type DayTool, type DayVisit } from './dayList'
export { minutesOn, runningWords, runsOver, type Running } from './runsOver'
export { slipsOf, type Slip } from './slips'
export { weighVisit, type Weighed, type WeighedPlace } from './weigh'
