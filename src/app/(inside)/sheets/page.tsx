import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { listSheets, sheetChoices } from '@/services/sheets'
import { EmptyState } from '@/ui/feedback/States'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { Page, Part } from '@/ui/frame/Page'
import { SheetFinder } from '@/ui/sheets/record/SheetFinder'
import { SheetList } from '@/ui/sheets/record/SheetList'
import { WaitingHere } from '@/ui/sheets/bench/WaitingHere'
import { requireActor } from '../../access/session'

export const metadata: Metadata = { title: 'Sheets' }

export default async function SheetsPage() {
  const actor = await requireActor('/sheets')
  const [{ open, closed }, choices, company] = await Promise.all([
    listSheets(actor),
    sheetChoices(actor),
    getCompany(actor),
  ])
  const { today } = present(company)
  return (
    <Page
      title="Sheets"
      summary={`${open.length === 0 ? 'No sheet is' : open.length === 1 ? 'One sheet is' : `${open.length} sheets are`} open. A sheet is started from its visit; after a breakdown, from its machine.`}
    >
      {open.length + closed.total === 0 ? (
        <EmptyState title="No sheet yet" action={<ButtonLink href="/plan">See the visits</ButtonLink>}>
          A sheet is worked at the bench: read the meter, make safe, tick what is done, note the parts, sign.
          Start one from a visit, or from a machine that has broken down.
        </EmptyState>
      ) : (
        <div className="stack narrow-page">
          {mayDo(actor.role, 'sheets.work') && (
            <WaitingHere
              author={{ id: actor.id, name: actor.name }}
              people={[]}
              mayTakeIn={false}
              sheets={[...open, ...closed.lines].map(({ id, number }) => ({ id, number }))}
            />
          )}
          <Part title="Open" aside="nothing ticked is ever lost">
            {open.length === 0 ? (
              <p className="second">Nothing is on the bench.</p>
            ) : (
              <SheetList sheets={open} today={today} />
            )}
          </Part>
          <Part title="Closed" aside="newest first">
            {closed.total === 0 ? (
              <p className="second">None yet.</p>
            ) : (
              <SheetFinder start={closed} choices={choices} today={today} />
            )}
          </Part>
        </div>
      )}
    </Page>
  )
}
