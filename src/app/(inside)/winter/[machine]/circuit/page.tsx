import type { Metadata } from 'next'
import { mayDo } from '@/core/access'
import { getMachineWinter } from '@/services/winter'
import { Page } from '@/ui/frame/Page'
import { CircuitForm } from '@/ui/winter/CircuitForm'
import { CircuitLine } from '@/ui/winter/CircuitLine'
import { load } from '../../../../access/act'
import { requireActor } from '../../../../access/session'
import * as actions from '../../actions'
import '@/ui/winter/winter.css'

export const metadata: Metadata = { title: 'Wet circuit' }

export default async function CircuitPage({ params }: { params: Promise<{ machine: string }> }) {
  const { machine } = await params
  const actor = await requireActor(`/winter/${machine}/circuit`)
  const page = await load(getMachineWinter(actor, machine))
  return (
    <Page
      back={{ href: `/winter/${machine}`, label: `${page.number} in winter` }}
      title={`Wet circuit of ${page.number}`}
      summary={
        page.isTemplate
          ? 'This is what such a machine usually has, with what its record and models know. Walk it from tank to nozzle and put it right.'
          : 'As it was looked at. Litres, recipes and the order of work follow it.'
      }
    >
      <CircuitLine circuit={page.circuit} states={{}} />
      {mayDo(actor.role, 'fleet.edit') ? (
        <div className="circuit-form">
          <CircuitForm page={page} save={actions.saveCircuit} />
        </div>
      ) : (
        <p className="second">Only a coordinator changes it.</p>
      )}
    </Page>
  )
}
