import { usualPlanTerms, type Fleet, type FleetService, type FleetVisit } from '@/core/plan'

/** A small fleet to plan: two technicians, one machine, from a Monday on. */
export const monday = '2026-08-03'
export const service = (task: string, due: string, more: Partial<FleetService> = {}): FleetService => ({
  ...{
    assemblyId: 'P-04',
    pump: 'P-04',
    task,
    name: task,
    where: '',
    positions: ['1'],
    machineId: 'm1',
    due,
  },
  ...{ band: null, window: { from: '2026-08-01', to: '2026-09-30' }, isOver: false, lifeDays: 100 },
  ...{ comesAgain: false, partsCents: 1000, partsFrom: null, visitId: null },
  shape: {
    ...{ minutes: 30, openings: [{ node: 'manifold', minutes: 60 }], aroundMinutes: 20 },
    ...{ helperMinutes: 0, qualifications: [], specialTools: [], cureMinutes: 0 },
  },
  ...more,
})
export const visit = (id: string, day: string, more: Partial<FleetVisit> = {}): FleetVisit => ({
  ...{
    id,
    version: 1,
    number: Number(id),
    machineId: 'm1',
    day,
    leadId: 'varga',
    state: 'booked',
    winter: '',
  },
  ...{ helpers: [], pinned: false, movesWithFrost: false, hasSheet: false, isWhole: true, minutes: 110 },
  ...more,
})
export const fleet = (more: Partial<Fleet> = {}): Fleet => ({
  ...{
    today: monday,
    weeks: 4,
    terms: usualPlanTerms,
    noticeDays: 0,
    tools: [],
    stock: [],
    winters: [],
    frosts: {},
    frostRisk: 0.05,
    services: [],
    visits: [],
  },
  crew: ['varga', 'brandt'].map((id) => ({
    ...{ id, name: id, yardId: null, days: [1, 2, 3, 4, 5], minutes: 480, skills: null, leave: [] },
  })),
  machines: [{ id: 'm1', number: 'T-04', name: 'trailer', yardId: 'y', away: [] }],
  ...more,
})
