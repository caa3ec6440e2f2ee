'use client'

import { useRef, useState } from 'react'
import {
  showAmount,
  type OfferInput,
  type PriceList,
  type PriceListInput,
  type SupplierInput,
  type SupplierLine,
} from '@/core/stores'
import { showMoney } from '@/core/units'
import { problemWords, type Outcome } from '@/core/problem'
import { Button } from '../frame/Button'
import { Note } from '../feedback/States'
import { useToast } from '../feedback/Toasts'
import { Link } from '../frame/Link'
import { Facts } from '../frame/Page'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '../table/Table'
import { leadWords } from './leadWords'
import { OfferDialog } from './OfferDialog'
import { SupplierDialog } from './SupplierDialog'

type Props = {
  supplier: SupplierLine
  currency: string
  save: ((input: SupplierInput) => Promise<Outcome>) | null
  saveOffer: ((input: OfferInput) => Promise<Outcome>) | null
  takePrices: ((input: PriceListInput) => Promise<Outcome<PriceList & { taken: number }>>) | null
}

/** A supplier with all that we buy there; a price list is looked at before it is taken. */
export function SupplierPart({ supplier, currency, save, saveOffer, takePrices }: Props) {
  return (
    <section className="part" aria-label={supplier.name}>
      <header>
        <h2>{supplier.name}</h2>
        <span className="second">
          {supplier.orders} {supplier.orders === 1 ? 'order' : 'orders'}
        </span>
      </header>
      <Facts
        facts={[
          ['Says', `within ${supplier.leadDays}\u00a0days`],
          ['Least order', supplier.leastCents > 0 ? showMoney(supplier.leastCents, currency) : ''],
          ['Contact', supplier.contact],
          ['Note', supplier.note],
        ]}
      />
      {supplier.offers.length === 0 ? (
        <p className="second">Sells nothing that we know of: say on a part’s page that it sells it.</p>
      ) : (
        <Table className="plain">
          <caption className="visually-hidden">What {supplier.name} sells</caption>
          <TableHead>
            <TableRow>
              <HeadCell>Part</HeadCell>
              <HeadCell>Its number</HeadCell>
              <HeadCell className="num">Price of one</HeadCell>
              <HeadCell className="num">Pack</HeadCell>
              <HeadCell className="num">At least</HeadCell>
              <HeadCell>Comes within</HeadCell>
              {saveOffer && <HeadCell>Terms</HeadCell>}
            </TableRow>
          </TableHead>
          <TableBody>
            {supplier.offers.map((offer) => (
              <TableRow key={offer.id}>
                <TableCell>
                  <Link href={`/stores/${encodeURIComponent(offer.number)}`} className="strong">
                    {offer.number}
                  </Link>{' '}
                  {offer.name}
                </TableCell>
                <TableCell>{offer.supplierNumber}</TableCell>
                <TableCell className="num nowrap">{showMoney(offer.unitCents, currency)}</TableCell>
                <TableCell className="num">{offer.packSize > 1 ? offer.packSize : '–'}</TableCell>
                <TableCell className="num">
                  {offer.minimumOrder > 0 ? showAmount(offer.minimumOrder, offer.unit) : '–'}
                </TableCell>
                <TableCell>{leadWords(offer.lead)}</TableCell>
                {saveOffer && (
                  <TableCell>
                    <OfferDialog
                      partId={offer.partId}
                      number={offer.number}
                      suppliers={[{ value: supplier.id, label: supplier.name }]}
                      currency={currency}
                      offer={{ ...offer, supplierId: supplier.id }}
                      save={saveOffer}
                    />
                  </TableCell>
                )}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      <div className="actions">
        {takePrices && supplier.offers.length > 0 && (
          <PriceListPart supplier={supplier} currency={currency} takePrices={takePrices} />
        )}
        {save && <SupplierDialog supplier={supplier} currency={currency} save={save} />}
      </div>
    </section>
  )
}

/** A price list: read, shown, and taken only then. */
function PriceListPart({
  supplier,
  currency,
  takePrices,
}: {
  supplier: SupplierLine
  currency: string
  takePrices: NonNullable<Props['takePrices']>
}) {
  const toast = useToast()
  const input = useRef<HTMLInputElement>(null)
  const [read, setRead] = useState<{ text: string; list: PriceList } | null>(null)
  const [fault, setFault] = useState('')
  const [busy, setBusy] = useState(false)
  const ask = async (text: string, take: boolean, doubtful: boolean) => {
    setBusy(true)
    setFault('')
    const outcome = await takePrices({ supplierId: supplier.id, text, take, doubtful }).catch(() => null)
    setBusy(false)
    if (outcome === null) setFault('Atelier could not be reached. Choose the file again in a moment.')
    else if (!outcome.ok) {
      setRead(null)
      setFault(problemWords(outcome.problem))
    } else if (take) {
      setRead(null)
      toast(`${outcome.data.taken} ${outcome.data.taken === 1 ? 'price' : 'prices'} changed.`)
    } else setRead({ text, list: outcome.data })
  }
  const offerOf = (number: string) => supplier.offers.find((offer) => offer.supplierNumber === number)
  const changed =
    read?.list.changes.filter(({ supplierNumber, unitCents, packSize, leadDays }) => {
      const offer = offerOf(supplierNumber)
      return (
        offer &&
        (offer.unitCents !== unitCents ||
          (packSize !== null && packSize !== offer.packSize) ||
          (leadDays !== null && leadDays !== offer.said))
      )
    }) ?? []
  const isDoubtful = (number: string) => read?.list.doubtful.some((each) => each.supplierNumber === number)
  return (
    <div className="grow">
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        className="visually-hidden"
        aria-label={`Price list of ${supplier.name}`}
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0]
          event.target.value = ''
          if (file) void file.text().then((text) => ask(text, false, false))
        }}
      />
      <Button variant="outlined" disabled={busy} onClick={() => input.current?.click()}>
        Read a price list
      </Button>
      {fault && (
        <Note tone="oxide" title="Nothing was taken of it.">
          {fault}
        </Note>
      )}
      {read && (
        <Note title="It would change:">
          {changed.length === 0 && 'nothing. '}
          <ul>
            {changed.map((change) => (
              <li key={change.supplierNumber}>
                {change.supplierNumber}: {showMoney(offerOf(change.supplierNumber)!.unitCents, currency)} to{' '}
                <span className="strong">{showMoney(change.unitCents, currency)}</span>
                {change.packSize !== null && `, pack of ${change.packSize}`}
                {change.leadDays !== null && `, within ${change.leadDays} days`}
                {isDoubtful(change.supplierNumber) && (
                  <span className="brass strong">
                    {' '}
                    more than three times, or less than a third: likely a mistake
                  </span>
                )}
              </li>
            ))}
          </ul>
          {read.list.foreign.length > 0 && (
            <p className="second">
              Not bought there, left: {read.list.foreign.slice(0, 12).join(', ')}
              {read.list.foreign.length > 12 && ` and ${read.list.foreign.length - 12} more`}.
            </p>
          )}
          <div className="actions">
            <Button variant="contained" disabled={busy} onClick={() => void ask(read.text, true, false)}>
              {read.list.doubtful.length > 0 ? 'Take all but the doubtful' : 'Take them'}
            </Button>
            {read.list.doubtful.length > 0 && (
              <Button variant="outlined" disabled={busy} onClick={() => void ask(read.text, true, true)}>
                Take the doubtful too
              </Button>
            )}
            <Button onClick={() => setRead(null)}>Leave it</Button>
          </div>
        </Note>
      )}
    </div>
  )
}
