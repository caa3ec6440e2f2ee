import type { Metadata } from 'next'
import { Link } from '@/ui/frame/Link'
import { showLongDay } from '@/core/calendar'
import { getCompany, present } from '@/services/house'
import { listDue } from '@/services/plan'
import { listYards } from '@/services/fleet'
import { pack } from '@/ui/frame/packed'
import { Page } from '@/ui/frame/Page'
import { PrintButton } from '@/ui/sheets/record/PrintButton'
import { DueTable } from '@/ui/today/DueTable'
import { requireActor } from '../../../access/session'

export const metadata: Metadata = { title: 'Due list' }

/** What is due in a yard, to pin up or to hand out. */
export default async function DueListPage({
  searchParams,
}: {
  searchParams: Promise<{ yard?: string | string[] }>
}) {
  const actor = await requireActor('/today/list')
  const { yard } = await searchParams
  const [yards, company] = await Promise.all([listYards(actor), getCompany(actor)])
  const chosen = yards.find((each) => each.id === yard)
  const lines = await listDue(actor, chosen?.id)
  const { today } = present(company)
  const query = chosen ? `yard=${chosen.id}&` : ''
  return (
    <Page
      title={`Due list, ${chosen?.name ?? 'all yards'}`}
      summary={`${company.name} · ${showLongDay(today)} ${today.slice(0, 4)} · ${lines.length} services, by the last day on which acting is in time`}
      back={{ href: '/today', label: 'Today' }}
      actions={
        <>
          <a href={`/api/due?${query}format=csv`}>CSV</a>
          <a href={`/api/due?${query}format=json`}>JSON</a>
          <PrintButton />
        </>
      }
    >
      <nav className="tabs no-print" aria-label="Yard">
        <Link href="/today/list" aria-current={chosen ? undefined : 'page'}>
          All yards
        </Link>
        {yards.map((each) => (
          <Link
            key={each.id}
            href={`/today/list?yard=${each.id}`}
            aria-current={chosen?.id === each.id ? 'page' : undefined}
          >
            {each.name}
          </Link>
        ))}
      </nav>
      <DueTable packed={pack(lines)} today={today} />
    </Page>
  )
}
