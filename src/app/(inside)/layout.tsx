import type { ReactNode } from 'react'
import { roleNames, type Role } from '@/core/access'
import { getCompany } from '@/services/house'
import { InDateOrder } from '@/ui/forms/dateOrder'
import { Rail } from '@/ui/frame/Rail'
import type { RailSection } from '@/ui/frame/railSection'
import { signOut } from '../access/actions'
import { requireActor } from '../access/session'

const sections: RailSection[] = [
  { section: 'today', label: 'Today', href: '/today' },
  { section: 'hours', label: 'Hours', href: '/hours' },
  { section: 'fleet', label: 'Fleet', href: '/fleet' },
  { section: 'plan', label: 'Plan', href: '/plan' },
  { section: 'sheets', label: 'Sheets', href: '/sheets' },
  { section: 'stores', label: 'Stores', href: '/stores' },
  { section: 'winter', label: 'Winter', href: '/winter' },
  { section: 'models', label: 'Models', href: '/models' },
  { section: 'settings', label: 'Settings', href: '/settings' },
]

/** What stands in the bar of a phone; the rest is folded under More. */
const onPhone: Record<Role, RailSection['section'][]> = {
  coordinator: ['today', 'hours', 'fleet', 'plan'],
  technician: ['today', 'sheets', 'hours', 'fleet'],
  viewer: ['today', 'fleet', 'plan', 'sheets'],
}

export default async function Inside({ children }: { children: ReactNode }) {
  const actor = await requireActor()
  const company = await getCompany(actor)
  return (
    <div className="shell">
      <a href="#content" className="skip-link">
        Skip to the page
      </a>
      <Rail
        sections={sections.map((each) => ({
          ...each,
          folded: !onPhone[actor.role].includes(each.section),
        }))}
        company={company.name}
        person={actor.name}
        role={roleNames[actor.role]}
        signOut={signOut}
      />
      <InDateOrder order={company.dateOrder}>{children}</InDateOrder>
    </div>
  )
}
