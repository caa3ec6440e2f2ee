import { Link } from '../frame/Link'

const tabs = [
  { key: 'models', label: 'Pump models', href: '/models' },
  { key: 'practices', label: 'Practices', href: '/models/practices' },
  { key: 'tools', label: 'Tools', href: '/models/tools' },
] as const

export function ModelsTabs({ active }: { active: (typeof tabs)[number]['key'] }) {
  return (
    <nav className="tabs" aria-label="Models">
      {tabs.map((tab) => (
        <Link key={tab.key} href={tab.href} aria-current={tab.key === active ? 'page' : undefined}>
          {tab.label}
        </Link>
      ))}
    </nav>
  )
}
