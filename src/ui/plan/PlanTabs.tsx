import { Link } from '../frame/Link'

const tabs = [
  { key: 'week', label: 'Week', href: '/plan' },
  { key: 'horizon', label: 'Horizon', href: '/plan/horizon' },
  { key: 'day', label: 'Day’s list', href: '/plan/day' },
  { key: 'crew', label: 'Crew and terms', href: '/plan/crew' },
] as const

export function PlanTabs({ active }: { active: (typeof tabs)[number]['key'] }) {
  return (
    <nav className="tabs" aria-label="Plan">
      {tabs.map((tab) => (
        <Link key={tab.key} href={tab.href} aria-current={tab.key === active ? 'page' : undefined}>
          {tab.label}
        </Link>
      ))}
    </nav>
  )
}
