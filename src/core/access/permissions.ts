export const roles = ['coordinator', 'technician', 'viewer'] as const
export type Role = (typeof roles)[number]

export const roleNames: Record<Role, string> = {
  coordinator: 'Coordinator',
  technician: 'Technician',
  viewer: 'Viewer',
}

/** Everything a service may ask before it acts, in the words of the refusal. */
export const permissions = {
  'readings.enter': 'enter readings',
  'readings.settle': 'settle readings in doubt',
  'signs.report': 'report and settle signs',
  'fleet.edit': 'change machines, meters and pumps',
  'visits.plan': 'plan visits',
  'sheets.work': 'work and sign sheets',
  'sheets.takeIn': 'take in entries for somebody else',
  'stores.edit': 'change parts and their prices',
  'stores.count': 'receive parts and count bins',
  'models.edit': 'change pump models',
  'company.edit': 'change the company’s settings',
  'people.edit': 'manage who signs in',
} as const
export type Permission = keyof typeof permissions

const granted: Record<Role, readonly Permission[]> = {
  coordinator: Object.keys(permissions) as Permission[],
  technician: ['readings.enter', 'signs.report', 'sheets.work', 'stores.count'],
  viewer: [],
}

/** @example mayDo('viewer', 'readings.enter') // false */
export function mayDo(role: Role, permission: Permission): boolean {
  return granted[role].includes(permission)
}
