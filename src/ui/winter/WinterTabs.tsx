import { Link } from '../frame/Link'

const tabs = [
  { key: 'campaign', label: 'Campaign', href: '/winter' },
  { key: 'methods', label: 'Methods', href: '/winter/methods' },
  { key: 'yards', label: 'Frost of the yards', href: '/winter/yards' },
  { key: 'fluids', label: 'Fluids and terms', href: '/winter/fluids' },
  { key: 'report', label: 'Season report', href: '/winter/report' },
] as const

export function WinterTabs({ active }: { active: (typeof tabs)[number]['key'] }) {
  return (
    <nav className="tabs" aria-label="Winter">
      {tabs.map((tab) => (
        <Link key={tab.key} href={tab.href} aria-current={tab.key === active ? 'page' : undefined}>
          {tab.label}
        </Link>
      ))}
    </nav>
  )
}
