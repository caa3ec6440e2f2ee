import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { mayDo } from '@/core/access'
import { visitNumber } from '@/core/plan'
import { getCompany, present } from '@/services/house'
import { getSheet, getSigning } from '@/services/sheets'
import { Page } from '@/ui/frame/Page'
import { SignSheet } from '@/ui/sheets/signing/SignSheet'
import { load } from '../../../../access/act'
import { requireActor } from '../../../../access/session'
import { signSheet } from '../../actions'

export const metadata: Metadata = { title: 'Sign' }

export default async function SignPage({ params }: { params: Promise<{ sheet: string }> }) {
  const { sheet: id } = await params
  const actor = await requireActor(`/sheets/${id}/sign`)
  const [sheet, company] = await Promise.all([load(getSheet(actor, id)), getCompany(actor)])
  if (sheet.state !== 'open' || !mayDo(actor.role, 'sheets.work')) redirect(`/sheets/${id}`)
  const signing = await getSigning(actor, id)
  return (
    <Page
      title={`Sign sheet ${visitNumber(sheet.number)}`}
      summary={[
        sheet.machineNumber ? `${sheet.machineNumber} ${sheet.machineName}` : sheet.pumps.join(', '),
        sheet.services.map(({ name, where }) => (where ? `${name}, ${where}` : name)).join(' · '),
      ].join(' · ')}
      back={{ href: `/sheets/${id}`, label: 'Back to the sheet' }}
    >
      <SignSheet
        sheetId={id}
        signing={signing}
        signer={actor.name}
        today={present(company).today}
        trouble={sheet.trouble}
        sign={signSheet}
      />
    </Page>
  )
}
