import type { Metadata } from 'next'
import { redirect } from 'next/navigation'
import { connection } from 'next/server'
import { needsSetUp } from '@/services/access'
import { SetUpForm } from '@/ui/access/SetUpForm'
import { AtelierMark } from '@/ui/graphics/SectionIcon'
import { timeZones } from '@/core/house'
import { setUp } from '../access/actions'

export const metadata: Metadata = { title: 'Set up' }

export default async function SetUpPage() {
  // At a build there is no database to ask.
  await connection()
  if (!(await needsSetUp())) redirect('/sign-in')
  return (
    <main className="gate">
      <div className="gate-card wide">
        <div className="gate-mark">
          <AtelierMark size={26} /> Atelier
        </div>
        <div>
          <h1>Set up your company</h1>
          <p className="second">
            Four short parts. Everything but the code can be changed later, in Settings.
          </p>
        </div>
        <SetUpForm action={setUp} timeZones={timeZones()} />
      </div>
    </main>
  )
}
