import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { getSheet } from '@/services/sheets'
import { listOldParts } from '@/services/stores'
import { pack } from '@/ui/frame/packed'
import { SheetBench } from '@/ui/sheets/bench/SheetBench'
import { SheetRecord } from '@/ui/sheets/record/SheetRecord'
import { KeepOldDialog, OldParts } from '@/ui/stores/OldParts'
import { WaitingHere } from '@/ui/sheets/bench/WaitingHere'
import { load } from '../../../access/act'
import { requireActor } from '../../../access/session'
import * as storeActions from '../../stores/actions'
import * as actions from '../actions'

export const metadata: Metadata = { title: 'Sheet' }

export default async function SheetPage({ params }: { params: Promise<{ sheet: string }> }) {
  const { sheet: id } = await params
  const actor = await requireActor(`/sheets/${id}`)
  const [sheet, company, old] = await Promise.all([
    load(getSheet(actor, id)),
    getCompany(actor),
    listOldParts(actor, id),
  ])
  const now = present(company)
  const mayWork = mayDo(actor.role, 'sheets.work')
  const oldParts = (
    <section aria-label="Old parts kept">
      <h2>Old parts kept</h2>
      {old.length === 0 ? (
        <p className="second">None of this sheet.</p>
      ) : (
        <OldParts
          parts={old}
          today={now.today}
          end={mayDo(actor.role, 'stores.count') ? storeActions.endOldPart : null}
        />
      )}
      {mayWork && sheet.state !== 'abandoned' && (
        <KeepOldDialog sheetId={sheet.id} keep={storeActions.keepOldPart} />
      )}
    </section>
  )
  if (sheet.state === 'open' && mayWork)
    return (
      <SheetBench
        packed={pack(sheet)}
        author={{ id: actor.id, name: actor.name }}
        mayTakeIn={mayDo(actor.role, 'sheets.takeIn')}
        present={now}
        timeZone={company.timeZone}
        abandon={actions.abandonSheet}
        oldParts={oldParts}
        openKit={mayDo(actor.role, 'stores.count') ? storeActions.openKit : null}
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
        <>
          {old.length > 0 || sheet.state === 'signed' ? oldParts : null}
          {mayWork && (
            <WaitingHere
              author={{ id: actor.id, name: actor.name }}
              people={sheet.colleagues}
              mayTakeIn={mayDo(actor.role, 'sheets.takeIn')}
              sheets={[sheet]}
              only={sheet.id}
            />
          )}
        </>
      }
      correct={
        mayWork && (actor.role === 'coordinator' || sheet.signedBy === actor.name)
          ? actions.correctSheet
          : null
      }
    />
  )
}
