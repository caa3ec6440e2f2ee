import type { Metadata } from 'next'
import QRCode from 'qrcode'
import { mayDo } from '@/core/access'
import { showLongDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import { getCompany, present } from '@/services/house'
import { pickListOfVisit } from '@/services/plan'
import { Page, Part } from '@/ui/frame/Page'
import { BagLabels } from '@/ui/stores/BagLabels'
import { PickList } from '@/ui/stores/PickList'
import { PrintButton } from '@/ui/stores/PrintButton'
import { load } from '../../../../access/act'
import { requireActor } from '../../../../access/session'
import * as actions from '../../actions'

export const metadata: Metadata = { title: 'Pick list' }

export default async function VisitPickList({ params }: { params: Promise<{ visit: string }> }) {
  const { visit } = await params
  const actor = await requireActor(`/stores/picks/${visit}`)
  const [list, company] = await Promise.all([load(pickListOfVisit(actor, visit)), getCompany(actor)])
  const { today } = present(company)
  const mayPick = mayDo(actor.role, 'stores.count')
  const labels = await Promise.all(
    list.picked.map(async (line) => ({
      ...line,
      // The code says what stands on the label, so that any reader finds the lot without the application.
      code: await QRCode.toString(`LOT ${line.lot} ${line.number} VISIT ${visitNumber(list.number)}`, {
        type: 'svg',
        margin: 0,
      }),
    })),
  )
  return (
    <Page
      title={`Pick list, visit ${visitNumber(list.number)}: ${list.where}`}
      summary={[showLongDay(list.day), list.startTime, list.yard, list.lead].filter(Boolean).join(' · ')}
      back={{ href: `/plan/${list.visitId}`, label: `Visit ${visitNumber(list.number)}` }}
      actions={<PrintButton label="Print" />}
    >
      <div className="stack">
        <PickList
          list={list}
          today={today}
          pick={mayPick ? actions.pickForVisit : null}
          move={mayPick ? actions.moveByHand : null}
          alone
        />
        {labels.length > 0 && (
          <Part title="Bag labels" aside="one for each bag that is laid ready">
            <BagLabels labels={labels} visit={visitNumber(list.number)} where={list.where} day={list.day} />
          </Part>
        )}
      </div>
    </Page>
  )
}
