import type { Metadata } from 'next'
import { timeZones } from '@/core/house'
import { mayDo } from '@/core/access'
import { type Actor, getCompany, present } from '@/services/house'
import { backupsOf } from '@/services/backups'
import { listFeeds } from '@/services/plan'
import { listPeople } from '@/services/access'
import { listYards } from '@/services/fleet'
import { Note } from '@/ui/feedback/States'
import { Page } from '@/ui/frame/Page'
import { BackupsPart } from '@/ui/settings/BackupsPart'
import { CompanyForm } from '@/ui/settings/CompanyForm'
import { FeedsPart } from '@/ui/settings/FeedsPart'
import { PeoplePart } from '@/ui/settings/PeoplePart'
import { SettingsTabs, settingsTabs, type SettingsTab } from '@/ui/settings/SettingsTabs'
import { YardsPart } from '@/ui/settings/YardsPart'
import { YouPart } from '@/ui/settings/YouPart'
import { signOut } from '../../access/actions'
import { requireActor } from '../../access/session'
import * as actions from './actions'

export const metadata: Metadata = { title: 'Settings' }

export default async function SettingsPage({
  searchParams,
}: {
  searchParams: Promise<{ part?: string | string[] }>
}) {
  const actor = await requireActor('/settings')
  const { part } = await searchParams
  const fallback: SettingsTab = mayDo(actor.role, 'company.edit') ? 'company' : 'you'
  const active = settingsTabs.find((tab) => tab === part) ?? fallback
  return (
    <Page title="Settings">
      <SettingsTabs active={active} />
      {active === 'company' && <CompanyPart actor={actor} />}
      {active === 'yards' && (
        <YardsPart
          yards={await listYards(actor)}
          mayEdit={mayDo(actor.role, 'fleet.edit')}
          save={actions.saveYard}
          remove={actions.removeYard}
        />
      )}
      {active === 'people' && <People actor={actor} />}
      {active === 'calendars' && <Calendars actor={actor} />}
      {active === 'backups' && <Backups actor={actor} />}
      {active === 'you' && (
        <YouPart
          change={actions.changeOwnPassword}
          signOut={signOut}
          signOutEverywhere={actions.signOutEverywhere}
        />
      )}
    </Page>
  )
}

async function CompanyPart({ actor }: { actor: Actor }) {
  if (!mayDo(actor.role, 'company.edit')) return <OnlyCoordinators what="the company’s settings" />
  const { id: _id, ...company } = await getCompany(actor)
  return <CompanyForm company={company} timeZones={timeZones()} action={actions.saveCompany} />
}

async function People({ actor }: { actor: Actor }) {
  if (!mayDo(actor.role, 'people.edit')) return <OnlyCoordinators what="who signs in" />
  return (
    <PeoplePart
      people={await listPeople(actor)}
      actions={{
        add: actions.addPerson,
        save: actions.savePerson,
        revoke: actions.revokePerson,
        setLeft: actions.setPersonLeft,
      }}
    />
  )
}

async function Calendars({ actor }: { actor: Actor }) {
  if (!mayDo(actor.role, 'visits.plan')) return <OnlyCoordinators what="who gets a calendar link" />
  const [feeds, yards, people, company] = await Promise.all([
    listFeeds(actor),
    listYards(actor),
    listPeople(actor),
    getCompany(actor),
  ])
  return (
    <FeedsPart
      feeds={feeds}
      yards={yards.map(({ id, name }) => ({ value: id, label: name }))}
      people={people
        .filter((person) => person.role !== 'viewer' && !person.retiredOn)
        .map(({ id, name }) => ({ value: id, label: name }))}
      today={present(company).today}
      make={actions.makeFeed}
      revoke={actions.revokeFeed}
    />
  )
}

async function Backups({ actor }: { actor: Actor }) {
  if (!mayDo(actor.role, 'company.edit'))
    return <OnlyCoordinators what="who gets the whole company in one file" />
  const [backups, company] = await Promise.all([backupsOf(actor), getCompany(actor)])
  return <BackupsPart {...backups} today={present(company).today} start={actions.startBackup} />
}

function OnlyCoordinators({ what }: { what: string }) {
  return <Note>Coordinators decide {what}. Ask one of them.</Note>
}
