import { Link } from '../frame/Link'

const tabs = [
  { key: 'stock', label: 'Stock', href: '/stores' },
  { key: 'orders', label: 'Orders', href: '/stores/orders' },
  { key: 'picks', label: 'Pick lists', href: '/stores/picks' },
  { key: 'stocktake', label: 'Stocktake', href: '/stores/stocktake' },
  { key: 'suppliers', label: 'Suppliers and vans', href: '/stores/suppliers' },
  { key: 'value', label: 'Value', href: '/stores/value' },
] as const

export function StoresTabs({ active }: { active: (typeof tabs)[number]['key'] }) {
  return (
    <nav className="tabs" aria-label="Stores">
      {tabs.map((tab) => (
        <Link key={tab.key} href={tab.href} aria-current={tab.key === active ? 'page' : undefined}>
          {tab.label}
        </Link>
      ))}
    </nav>
  )
}
