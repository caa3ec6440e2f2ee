'use client'

import Checkbox from '@mui/material/Checkbox'
import FormControlLabel from '@mui/material/FormControlLabel'
import { useState } from 'react'
import { showDay } from '@/core/calendar'
import {
  proposalKinds,
  reasonWords,
  serviceId,
  showMinutes,
  type Fleet,
  type Proposal,
  type Unplaced,
} from '@/core/plan'
import { Button } from '../../frame/Button'

type Props = {
  proposals: Proposal[]
  unplaced: Unplaced[]
  /** How good it is, in words. */
  says: string
  fleet: Fleet
  look: (proposal: Proposal) => void
  take: (chosen: Proposal[]) => Promise<boolean>
  leave: () => void
}

/** Changes to today's plan, each with its reason: take all, some, or none. */
export function ProposalList({ proposals, unplaced, says, fleet, look, take, leave }: Props) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [isTaking, setTaking] = useState(false)
  const chosen = proposals.filter(({ key }) => !left.has(key))
  return (
    <section className="part" aria-label="Proposed">
      <header>
        <h2>
          {proposals.length === 0
            ? 'Nothing to change'
            : `${proposals.length} ${proposals.length === 1 ? 'change' : 'changes'}`}
        </h2>
      </header>
      <p className="second">{says}</p>
      <p className="buttons">
        {proposals.length > 0 && (
          <Button
            variant="contained"
            disabled={chosen.length === 0 || isTaking}
            onClick={async () => {
              setTaking(true)
              await take(chosen)
              setTaking(false)
            }}
          >
            {chosen.length === proposals.length ? `Take all ${chosen.length}` : `Take ${chosen.length}`}
          </Button>
        )}
        <Button variant="outlined" onClick={leave}>
          {proposals.length > 0 ? 'Take none' : 'Close'}
        </Button>
      </p>
      <ul className="line-list horizon-proposals">
        {proposals.map((proposal) => (
          <li key={proposal.key}>
            <div>
              <FormControlLabel
                control={
                  <Checkbox
                    size="small"
                    checked={!left.has(proposal.key)}
                    onChange={({ target }) => {
                      const next = new Set(left)
                      if (target.checked) next.delete(proposal.key)
                      else next.add(proposal.key)
                      setLeft(next)
                    }}
                  />
                }
                label={
                  <>
                    <strong>{proposal.machine}</strong>, {showDay(proposal.day, fleet.today)}
                  </>
                }
              />
              <span className="second block">
                {proposalKinds[proposal.kind]}: {whatWords(proposal)}, {proposal.lead}
                {proposal.helpers.length > 0 &&
                  ` with ${proposal.helpers.map(({ name }) => name).join(', ')}`}
                , {showMinutes(proposal.minutes)}
              </span>
              {proposal.minds && <p className="caution">{proposal.minds}</p>}
              <details onToggle={(event) => event.currentTarget.open && look(proposal)}>
                <summary>Why</summary>
                <ul>
                  {proposal.services.map((service) => (
                    <li key={serviceId(service)}>
                      {service.name} <span className="second">{service.where}</span>
                    </li>
                  ))}
                </ul>
                {proposal.reasons.map((reason) => (
                  <p key={reason} className="second">
                    {reason}
                  </p>
                ))}
              </details>
            </div>
          </li>
        ))}
      </ul>
      {unplaced.length > 0 && (
        <>
          <h3>Left out</h3>
          <ul className="line-list">
            {unplaced.map(({ task, reason }) => {
              const service = fleet.services.find((each) => serviceId(each) === task.replace(/~\d+$/, ''))
              const winter = fleet.winters.find(
                ({ machineId, visitId }) =>
                  task === `winter new ${machineId}` || task === `winter ${visitId}`,
              )
              const machine = fleet.machines.find(
                ({ id }) => id === (service?.machineId ?? winter?.machineId),
              )
              return (
                <li key={task}>
                  <span>
                    <strong>{machine?.number}</strong> {service?.name ?? (winter && 'make safe for winter')}
                    {/~\d+$/.test(task) && ', the time after'}
                    <span className="second block">{reasonWords(reason, fleet)}</span>
                  </span>
                </li>
              )
            })}
          </ul>
        </>
      )}
    </section>
  )
}

/** "3 services", "made safe for winter and one service". */
function whatWords({ services, winter }: Proposal): string {
  const count = services.length === 1 ? '1 service' : `${services.length} services`
  if (winter === '') return services.length === 0 ? 'winter' : count
  return services.length === 0 ? 'made safe for winter' : `made safe for winter, ${count}`
}
