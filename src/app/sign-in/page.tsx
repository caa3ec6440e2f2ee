import type { Metadata } from 'next'
import { connection } from 'next/server'
import { redirect } from 'next/navigation'
import { roleNames } from '@/core/access'
import { ownPath } from '@/core/problem'
import { findCompany } from '@/services/house'
import { offeredAccounts } from '@/services/access'
import { SignInForm } from '@/ui/access/SignInForm'
import { AtelierMark } from '@/ui/graphics/SectionIcon'
import { signIn } from '../access/actions'
import { currentActor } from '../access/session'

export const metadata: Metadata = { title: 'Sign in' }

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<{ next?: string | string[] }>
}) {
  // At a build there is no database to ask.
  await connection()
  const company = await findCompany()
  if (!company) redirect('/setup')
  const { next } = await searchParams
  const path = ownPath(next)
  if (await currentActor()) redirect(path)
  return (
    <main className="gate">
      <div className="gate-card">
        <div className="gate-mark">
          <AtelierMark size={26} /> Atelier
        </div>
        <div>
          <h1>{company.name}</h1>
          <p className="second">Sign in to the fleet’s run hours and services.</p>
        </div>
        <SignInForm
          action={signIn}
          next={path}
          accounts={offeredAccounts().map((account) => ({ ...account, role: roleNames[account.role] }))}
        />
      </div>
    </main>
  )
}
