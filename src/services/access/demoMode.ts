import 'server-only'
import type { Role } from '@/core/access'

export type DemoAccount = { name: string; signInName: string; password: string; role: Role }

/** The accounts of the demo company. Their passwords are public: they never exist anywhere else. */
export const demoAccounts: DemoAccount[] = [
  { name: 'H. Lindqvist', signInName: 'lindqvist', password: 'demo-coordinator', role: 'coordinator' },
  { name: 'M. Osei', signInName: 'osei', password: 'demo-technician', role: 'technician' },
  { name: 'L. Varga', signInName: 'varga', password: 'demo-technician', role: 'technician' },
  { name: 'T. Brandt', signInName: 'brandt', password: 'demo-technician', role: 'technician' },
  { name: 'A. Coyle', signInName: 'coyle', password: 'demo-viewing-only', role: 'viewer' },
]

/** The accounts the sign-in page offers: those of the demo when it is the demo, none otherwise. */
export function offeredAccounts(): DemoAccount[] {
  return process.env.ATELIER_DEMO === '1' ? demoAccounts : []
}
