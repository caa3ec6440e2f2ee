import { Link } from '../frame/Link'

const tabs = [
  { key: 'machines', label: 'Machines', href: '/fleet' },
  { key: 'pumps', label: 'Pumps and drives', href: '/fleet/pumps' },
] as const

export function FleetTabs({ active }: { active: 'machines' | 'pumps' }) {
  return (
    <nav className="tabs" aria-label="Fleet">
      {tabs.map((tab) => (
        <Link key={tab.key} href={tab.href} aria-current={tab.key === active ? 'page' : undefined}>
          {tab.label}
        </Link>
      ))}
    </nav>
  )
}
