'use client'

import { useRouter } from 'next/navigation'
import { useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { addDays, showDay } from '@/core/calendar'
import { visitNumber } from '@/core/plan'
import {
  showAmount,
  type OrderInput,
  type OrderProposal,
  type SupplierLine,
  type Unsold,
} from '@/core/stores'
import { showMoney } from '@/core/units'
import { problemWords, type Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { SelectInput, type Option } from '../forms/FieldFrame'
import { Link } from '../frame/Link'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'
import './stores.css'

type Props = {
  proposals: OrderProposal[]
  unsold: Unsold[]
  yards: Option[]
  suppliers: SupplierLine[]
  currency: string
  today: string
  save: ((input: OrderInput) => Promise<Outcome<{ number: number }>>) | null
}

/** Orders that need only a signature, each with why; lines can be left out before it is written. */
export function Proposals({ proposals, unsold, yards, currency, today, save }: Props) {
  return (
    <div className="stack">
      {proposals.map((proposal) => (
        <ProposedOrder
          key={proposal.supplierId}
          proposal={proposal}
          yards={yards}
          currency={currency}
          today={today}
          save={save}
        />
      ))}
      {unsold.length > 0 && (
        <Note tone="brass" title="Nobody is known to sell:">
          {unsold.map((line, at) => (
            <span key={line.partId}>
              {at > 0 && ', '}
              <Link href={`/stores/${encodeURIComponent(line.number)}`}>{line.number}</Link> {line.name} (
              {showAmount(line.quantity, line.unit)} by {showDay(line.orderBy, today)})
            </span>
          ))}
          . Say on the part’s page who sells it.
        </Note>
      )}
    </div>
  )
}

function ProposedOrder({
  proposal,
  yards,
  currency,
  today,
  save,
}: Omit<Props, 'proposals' | 'unsold' | 'suppliers'> & { proposal: OrderProposal }) {
  const router = useRouter()
  const [left, setLeft] = useState<string[]>([])
  const [yardId, setYardId] = useState(yards[0]?.value ?? '')
  const [fault, setFault] = useState('')
  const [busy, setBusy] = useState(false)
  // Sent twice, it is written once.
  const id = useRef(uuid())
  const lines = proposal.lines.filter((line) => !left.includes(line.partId))
  const cents = lines.reduce((sum, { quantity, unitCents }) => sum + Math.round(quantity * unitCents), 0)
  const write = async () => {
    if (!save) return
    setBusy(true)
    const outcome = await save({
      id: id.current,
      supplierId: proposal.supplierId,
      yardId,
      note: '',
      lines: lines.map(({ partId, quantity, neededBy }) => ({ id: uuid(), partId, quantity, neededBy })),
    }).catch(() => null)
    setBusy(false)
    if (outcome?.ok) router.push(`/stores/orders/${visitNumber(outcome.data.number)}`)
    else
      setFault(
        outcome === null
          ? 'Atelier could not be reached. Nothing is lost: try again in a moment.'
          : problemWords(outcome.problem),
      )
  }
  return (
    <section aria-label={`Order to ${proposal.supplier}`}>
      <h3>{proposal.supplier}</h3>
      <Table className="plain">
        <caption className="visually-hidden">What to order from {proposal.supplier}</caption>
        <TableHead>
          <TableRow>
            <HeadCell>Part</HeadCell>
            <HeadCell className="num">How many</HeadCell>
            <HeadCell className="num">Order by</HeadCell>
            <HeadCell>Why</HeadCell>
            <HeadCell className="num">Price</HeadCell>
            <HeadCell className="num">Sum</HeadCell>
            {save && <HeadCell>On it</HeadCell>}
          </TableRow>
        </TableHead>
        <TableBody>
          {proposal.lines.map((line) => (
            <TableRow key={line.partId} className={left.includes(line.partId) ? 'receding' : undefined}>
              <TableCell>
                <Link href={`/stores/${encodeURIComponent(line.number)}`} className="strong">
                  {line.number}
                </Link>{' '}
                {line.name}
                <div className="second">{line.supplierNumber}</div>
              </TableCell>
              <TableCell className="num strong nowrap">{showAmount(line.quantity, line.unit)}</TableCell>
              <TableCell
                className={`num nowrap ${line.late ? 'oxide strong' : line.orderBy <= addDays(today, 7) ? 'brass strong' : ''}`}
              >
                {line.orderBy <= today ? 'now' : showDay(line.orderBy, today)}
              </TableCell>
              <TableCell className="second">
                {line.why}
                {line.along && ', goes along'}
                {line.late && ', too late already'}
              </TableCell>
              <TableCell className="num nowrap">{showMoney(line.unitCents, currency)}</TableCell>
              <TableCell className="num nowrap">
                {showMoney(Math.round(line.quantity * line.unitCents), currency)}
              </TableCell>
              {save && (
                <TableCell>
                  <button
                    type="button"
                    className="plain-button"
                    aria-label={`${left.includes(line.partId) ? 'Put on' : 'Leave out'} ${line.number}`}
                    onClick={() =>
                      setLeft(
                        left.includes(line.partId)
                          ? left.filter((each) => each !== line.partId)
                          : [...left, line.partId],
                      )
                    }
                  >
                    {left.includes(line.partId) ? 'Put on' : 'Leave out'}
                  </button>
                </TableCell>
              )}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <div className="actions">
        <span className="grow">
          <span className="strong">{showMoney(cents, currency)}</span>{' '}
          {proposal.belowLeast > 0 && (
            <span className="brass">
              {showMoney(proposal.belowLeast, currency)} below what {proposal.supplier} sends at least
            </span>
          )}
        </span>
        {save && yards.length > 1 && (
          <SelectInput
            id={`yard-${proposal.supplierId}`}
            options={yards}
            value={yardId}
            onChange={(event) => setYardId(event.target.value)}
            inputProps={{ 'aria-label': `Where the order to ${proposal.supplier} comes to` }}
            className="narrow-select"
          />
        )}
        {save && (
          <Button variant="contained" disabled={busy || lines.length === 0} onClick={() => void write()}>
            Write the order
          </Button>
        )}
      </div>
      {fault && (
        <p className="oxide" role="alert">
          {fault}
        </p>
      )}
    </section>
  )
}
