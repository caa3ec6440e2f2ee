import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { getTools } from '@/services/tools'
import { EmptyState } from '@/ui/feedback/States'
import { Page } from '@/ui/frame/Page'
import { ModelsTabs } from '@/ui/models/ModelsTabs'
import { ToolDialog } from '@/ui/tools/ToolDialog'
import { ToolNotes } from '@/ui/tools/ToolNotes'
import { ToolsTable } from '@/ui/tools/ToolsTable'
import { requireActor } from '../../../access/session'
import { retireTool, saveTool } from '../actions'

export const metadata: Metadata = { title: 'Tools' }

export default async function ToolsPage() {
  const actor = await requireActor('/models/tools')
  const [page, company] = await Promise.all([getTools(actor), getCompany(actor)])
  const { today } = present(company)
  const mayEdit = mayDo(actor.role, 'stores.edit')
  return (
    <Page
      title="Tools"
      summary="Wrenches with their range and calibration, and the special tools that visits share."
      actions={mayEdit && <ToolDialog yards={page.yards} save={saveTool} />}
    >
      <ModelsTabs active="tools" />
      <div className="stack">
        <ToolNotes page={page} today={today} />
        {page.tools.length === 0 ? (
          <EmptyState title="No tools yet">
            Add the torque wrenches first: composed work then says which one fits which step, and warns of one
            out of calibration.
          </EmptyState>
        ) : (
          <ToolsTable
            page={page}
            today={today}
            save={mayEdit ? saveTool : null}
            retire={mayEdit ? retireTool : null}
          />
        )}
      </div>
    </Page>
  )
}
