import { Link } from '../frame/Link'

export const settingsTabs = ['company', 'yards', 'people', 'calendars', 'backups', 'you'] as const
export type SettingsTab = (typeof settingsTabs)[number]

const labels: Record<SettingsTab, string> = {
  company: 'Company',
  yards: 'Yards',
  people: 'People',
  calendars: 'Calendars',
  backups: 'Backups',
  you: 'You',
}

export function SettingsTabs({ active }: { active: SettingsTab }) {
  return (
    <nav className="tabs" aria-label="Settings">
      {settingsTabs.map((tab) => (
        <Link key={tab} href={`/settings?part=${tab}`} aria-current={tab === active ? 'page' : undefined}>
          {labels[tab]}
        </Link>
      ))}
    </nav>
  )
}
