import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getCompany, present } from '@/services/house'
import { listYards } from '@/services/fleet'
import { listMachinesStanding } from '@/services/plan'
import { EmptyState } from '@/ui/feedback/States'
import { FleetTabs } from '@/ui/fleet/FleetTabs'
import { MachinesTable } from '@/ui/fleet/MachinesTable'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { pack } from '@/ui/frame/packed'
import { Page } from '@/ui/frame/Page'
import { requireActor } from '../../access/session'

export const metadata: Metadata = { title: 'Fleet' }

export default async function FleetPage() {
  const actor = await requireActor('/fleet')
  const [machines, yards, company] = await Promise.all([
    listMachinesStanding(actor),
    listYards(actor),
    getCompany(actor),
  ])
  const inService = machines.filter((machine) => !machine.retiredOn)
  const states = inService.map(({ standing }) => standing?.state)
  const due = {
    past: states.filter((state) => state === 'over' || state === 'overdue').length,
    soon: states.filter((state) => state === 'dueSoon').length,
  }
  const owing = inService.filter((machine) => machine.owesReading).length
  const doubtful = inService.filter((machine) => machine.doubts > 0).length
  const mayEdit = mayDo(actor.role, 'fleet.edit')
  return (
    <Page
      title="Fleet"
      summary={summary(inService.length, yards.length, due, owing, doubtful)}
      actions={
        mayEdit && (
          <ButtonLink href="/fleet/new" filled>
            Add machine
          </ButtonLink>
        )
      }
    >
      <FleetTabs active="machines" />
      {machines.length === 0 ? (
        <EmptyState
          title="No machines yet"
          action={mayEdit && <ButtonLink href="/fleet/new">Add the first machine</ButtonLink>}
        >
          Add a machine with its hour meter and its pump. From its first readings on, Atelier knows how hard
          it is used.
        </EmptyState>
      ) : (
        <MachinesTable
          packed={pack(machines)}
          yards={yards.map(({ id, name }) => ({ id, name }))}
          today={present(company).today}
        />
      )}
    </Page>
  )
}

function summary(
  machines: number,
  yards: number,
  due: { past: number; soon: number },
  owing: number,
  doubtful: number,
): string {
  const count = (number: number, one: string, many: string) => `${number} ${number === 1 ? one : many}`
  const parts = [`${count(machines, 'machine', 'machines')} in ${count(yards, 'yard', 'yards')}.`]
  if (due.past > 0) parts.push(`${count(due.past, 'is', 'are')} past a limit.`)
  if (due.soon > 0) parts.push(`${count(due.soon, 'comes', 'come')} due soon.`)
  if (owing > 0) parts.push(`${count(owing, 'owes', 'owe')} a reading.`)
  if (doubtful > 0) parts.push(`${count(doubtful, 'has a reading', 'have readings')} in doubt.`)
  if (machines > 0 && owing + doubtful === 0) parts.push('All are freshly read.')
  return parts.join(' ')
}
