import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { getSheet } from '@/services/sheets'
import { pack } from '@/ui/frame/packed'
import { SheetBench } from '@/ui/sheets/bench/SheetBench'
import { SheetRecord } from '@/ui/sheets/record/SheetRecord'
import { WaitingHere } from '@/ui/sheets/bench/WaitingHere'
import { load } from '../../../access/act'
import { requireActor } from '../../../access/session'
import * as actions from '../actions'

export const metadata: Metadata = { title: 'Sheet' }

export default async function SheetPage({ params }: { params: Promise<{ sheet: string }> }) {
  const { sheet: id } = await params
  const actor = await requireActor(`/sheets/${id}`)
  const [sheet, company] = await Promise.all([load(getSheet(actor, id)), getCompany(actor)])
  const now = present(company)
  const mayWork = mayDo(actor.role, 'sheets.work')
  if (sheet.state === 'open' && mayWork)
    return (
      <SheetBench
        packed={pack(sheet)}
        author={{ id: actor.id, name: actor.name }}
        mayTakeIn={mayDo(actor.role, 'sheets.takeIn')}
        present={now}
        timeZone={company.timeZone}
        abandon={actions.abandonSheet}
        addMoreWork={actions.addMoreWork}
      />
    )
  return (
    <SheetRecord
      sheet={sheet}
      today={now.today}
      timeZone={company.timeZone}
      company={company.name}
      waiting={
        mayWork && (
          <WaitingHere
            author={{ id: actor.id, name: actor.name }}
            people={sheet.colleagues}
            mayTakeIn={mayDo(actor.role, 'sheets.takeIn')}
            sheets={[sheet]}
            only={sheet.id}
          />
        )
      }
      correct={
        mayWork && (actor.role === 'coordinator' || sheet.signedBy === actor.name)
          ? actions.correctSheet
          : null
      }
    />
  )
}
