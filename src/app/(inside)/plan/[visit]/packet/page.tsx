import type { Metadata } from 'next'
import QRCode from 'qrcode'
import { showLongDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { getVisit, pickListOfVisit } from '@/services/plan'
import { Page } from '@/ui/frame/Page'
import { Packet } from '@/ui/plan/Packet'
import { PrintButton } from '@/ui/stores/PrintButton'
import { load } from '../../../../access/act'
import { requireActor } from '../../../../access/session'

export const metadata: Metadata = { title: 'Packet' }

export default async function PacketPage({ params }: { params: Promise<{ visit: string }> }) {
  const { visit: reference } = await params
  const actor = await requireActor(`/plan/${reference}/packet`)
  const [visit, pick] = await Promise.all([
    load(getVisit(actor, reference)),
    load(pickListOfVisit(actor, reference)),
  ])
  const code = await QRCode.toString(`VISIT ${visitNumber(visit.number)}`, { type: 'svg', margin: 0 })
  return (
    <Page
      title={`Packet, visit ${visitNumber(visit.number)}: ${visit.machineNumber ? `${visit.machineNumber} ${visit.machineName}` : visit.services[0]?.pump}`}
      summary={[showLongDay(visit.day), visit.startTime, visit.lead, visit.place].filter(Boolean).join(' · ')}
      back={{ href: `/plan/${visit.id}`, label: `Visit ${visitNumber(visit.number)}` }}
      actions={<PrintButton label="Print" />}
    >
      <Packet visit={visit} pick={pick} code={code} />
    </Page>
  )
}
