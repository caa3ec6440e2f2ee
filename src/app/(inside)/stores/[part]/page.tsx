import type { Metadata } from 'next'
import { Link } from '@/ui/frame/Link'
import { showDay } from '@/core/calendar'
import { shelfGroups, showAmount, type MovementLine, type PartPage } from '@/core/stores'
import { mayDo } from '@/core/access'
import { visitNumber } from '@/core/plan'
import { showMoney } from '@/core/units'
import { getCompany, present } from '@/services/house'
import { partAhead } from '@/services/plan'
import { getPart, listPartChoices, listPlaces, listStock, listSuppliers } from '@/services/stores'
import { Note } from '@/ui/feedback/States'
import { RetireButton } from '@/ui/fleet/MachineActions'
import { pack } from '@/ui/frame/packed'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { CountDialog } from '@/ui/stores/CountDialog'
import { HeldList } from '@/ui/stores/HeldList'
import { leadWords } from '@/ui/stores/leadWords'
import { OfferDialog } from '@/ui/stores/OfferDialog'
import { PartDialog } from '@/ui/stores/PartDialog'
import { PastDay } from '@/ui/stores/PastDay'
import { ReceiveDialog } from '@/ui/stores/ReceiveDialog'
import { StockAhead } from '@/ui/stores/StockAhead'
import { StockMark } from '@/ui/stores/StockMark'
import { load } from '../../../access/act'
import { referenceIn } from '../../../access/reference'
import { requireActor } from '../../../access/session'
import * as actions from '../actions'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '@/ui/table/Table'

type Params = { params: Promise<{ part: string }> }

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: referenceIn((await params).part) }
}

export default async function PartDetails({ params }: Params) {
  const reference = referenceIn((await params).part)
  const actor = await requireActor(`/stores/${encodeURIComponent(reference)}`)
  const [part, company, choices, places, stock, suppliers] = await Promise.all([
    load(getPart(actor, reference)),
    getCompany(actor),
    listPartChoices(actor),
    listPlaces(actor),
    listStock(actor),
    listSuppliers(actor),
  ])
  const placeOptions = places.map(({ id: value, name }) => ({ value, label: name }))
  const ahead = await partAhead(actor, part.id)
  const { today } = present(company)
  const mayEdit = mayDo(actor.role, 'stores.edit')
  const mayCount = mayDo(actor.role, 'stores.count') && !part.retiredOn
  const { id, number, version, retiredOn } = part
  const supplierOptions = suppliers
    .filter((supplier) => !supplier.retiredOn)
    .map(({ id: value, name }) => ({ value, label: name }))
  return (
    <Page
      title={`${number} ${part.name}`}
      summary={[part.bin && `bin ${part.bin}`, part.fitsModels.join(', ')].filter(Boolean).join(' · ')}
      back={{ href: '/stores', label: 'Stores' }}
      actions={
        <>
          {mayEdit && (
            <>
              <PartDialog
                part={part}
                choices={choices}
                parts={stock
                  .filter((line) => !line.retiredOn)
                  .map((line) => ({ id: line.id, number: line.number, name: line.name, fits: line.fits }))}
                currency={company.currency}
                save={actions.savePart}
              />
              <RetireButton
                thing={{ id, number, version, retiredOn }}
                consequence={`${number} leaves the lists of the bench and of orders. Its record stays, and it can be brought back.`}
                retire={actions.retirePart}
                bringBack={actions.returnPart}
              />
            </>
          )}
          {mayCount && (
            <>
              <CountDialog part={part} count={actions.countPart} />
              <ReceiveDialog
                part={part}
                places={placeOptions}
                today={today}
                currency={company.currency}
                receive={actions.receivePart}
              />
            </>
          )}
        </>
      }
    >
      <div className="stack">
        {retiredOn && <Note title={`Retired ${showDay(retiredOn, today)}.`}>{part.retiredReason}</Note>}
        {part.short > 0 && (
          <Note tone="oxide" title="Count this bin.">
            Sheets used {showAmount(part.short, part.unit)} more than the book had. What was used at the bench
            is recorded as it was; count what is there, and the book is right again.
          </Note>
        )}
        <div className="columns">
          <div className="stack">
            <Part title="On hand" aside="what should lie in the bin">
              <p className="meter-total">
                <span className="figure">
                  {showAmount(part.onHand, part.unit)}
                  {part.unit === 'piece' && (part.onHand === 1 ? ' piece' : ' pieces')}
                </span>
              </p>
              {part.taken > 0 && (
                <p className="second">
                  {showAmount(part.taken, part.unit)} more by the book: taken on open sheets, and booked when
                  they are signed.
                </p>
              )}
              <StockMark part={part} />
              <Facts facts={facts(part, company.currency)} />
            </Part>
            <Part title="What is coming" aside="half a year ahead: visits, and services that may fall due">
              <StockAhead
                packed={pack(ahead)}
                unit={part.unit}
                minimum={part.minimum}
                leadDays={part.comesWithin}
                today={today}
              />
            </Part>
            <Part title="Who sells it" aside={part.onOrder.length > 0 ? 'some is on the way' : undefined}>
              {part.onOrder.length > 0 && (
                <ul className="line-list">
                  {part.onOrder.map((order) => (
                    <li key={`${order.orderId} ${order.day}`}>
                      <span className="grow">
                        <Link href={`/stores/orders/${visitNumber(order.order)}`}>
                          Order {visitNumber(order.order)}
                        </Link>{' '}
                        <span className="second">{order.supplier}</span>
                      </span>
                      <span className="second nowrap">about {showDay(order.day, today)}</span>
                      <span className="strong nowrap">{showAmount(order.quantity, part.unit)}</span>
                    </li>
                  ))}
                </ul>
              )}
              <ul className="line-list">
                {part.offers.map((offer) => (
                  <li key={offer.id}>
                    <span className="grow">
                      {offer.supplier} <span className="second">{offer.supplierNumber}</span>
                      <span className="second block">
                        {[
                          leadWords(offer.lead),
                          offer.packSize > 1 && `packs of ${offer.packSize}`,
                          offer.minimumOrder > 0 && `at least ${showAmount(offer.minimumOrder, part.unit)}`,
                        ]
                          .filter(Boolean)
                          .join(', ')}
                      </span>
                    </span>
                    <span className="strong nowrap">{showMoney(offer.unitCents, company.currency)}</span>
                    {mayEdit && (
                      <OfferDialog
                        partId={part.id}
                        number={number}
                        suppliers={supplierOptions}
                        currency={company.currency}
                        offer={offer}
                        save={actions.saveOffer}
                      />
                    )}
                  </li>
                ))}
              </ul>
              {part.offers.length === 0 && (
                <p className="second">
                  Nobody is known to sell it: it is reckoned with its own price and {part.leadDays} days.
                </p>
              )}
              {mayEdit && supplierOptions.length > 0 && (
                <OfferDialog
                  partId={part.id}
                  number={number}
                  suppliers={supplierOptions}
                  currency={company.currency}
                  save={actions.saveOffer}
                />
              )}
            </Part>
            <PartKinds part={part} />
            {part.visits.length > 0 && (
              <Part title="What visits need" aside="the earlier visit takes first">
                <ul className="line-list">
                  {part.visits.map((visit) => (
                    <li key={visit.visitId}>
                      <span className="grow">
                        <Link href={`/plan/${visit.visitId}`}>Visit {visit.number}</Link>{' '}
                        <span className="second">{showDay(visit.day, today)}</span>
                      </span>
                      <span
                        className={
                          visit.missing === 0 ? 'second' : visit.inTime ? 'brass strong' : 'oxide strong'
                        }
                      >
                        {visit.missing === 0
                          ? visit.fromWords === ''
                            ? 'there'
                            : visit.fromWords
                          : `${showAmount(visit.missing, part.unit)} missing, all there on ${showDay(visit.arrives!, today)}`}
                      </span>
                      <span className="strong">{showAmount(visit.quantity, part.unit)}</span>
                    </li>
                  ))}
                </ul>
              </Part>
            )}
          </div>
          <div className="stack">
            <Part title="Lots" aside="the one to use first stands first">
              {part.lotList.length === 0 ? (
                <p className="second">Never received.</p>
              ) : (
                <Table className="plain">
                  <TableHead>
                    <TableRow>
                      <HeadCell>Lot</HeadCell>
                      <HeadCell>Came in</HeadCell>
                      <HeadCell>Good until</HeadCell>
                      <HeadCell className="num">Price</HeadCell>
                      <HeadCell className="num">There</HeadCell>
                    </TableRow>
                  </TableHead>
                  <TableBody>
                    {part.lotList.map((lot) => (
                      <TableRow key={lot.id} className={lot.onHand === 0 ? 'receding' : undefined}>
                        <TableCell>
                          <span className="strong">{lot.number}</span> {lot.code}
                          {lot.kitLot !== null && <div className="second">out of kit lot {lot.kitLot}</div>}
                          {lot.note && <div className="second">{lot.note}</div>}
                        </TableCell>
                        <TableCell className="nowrap">{showDay(lot.receivedOn, today)}</TableCell>
                        <TableCell className={lot.expired ? 'brass strong nowrap' : 'nowrap'}>
                          {lot.expiresOn ? showDay(lot.expiresOn, today) : '–'}
                          {lot.expired && ' expired'}
                          {lot.curedOn && <div className="second">cured {showDay(lot.curedOn, today)}</div>}
                          {lot.expiryAssumed && <div className="second">assumed from its receipt</div>}
                          {lot.openedOn && (
                            <div className="second">opened {showDay(lot.openedOn, today)}</div>
                          )}
                        </TableCell>
                        <TableCell className="num nowrap">
                          {lot.unitCents === null ? '–' : showMoney(lot.unitCents, company.currency)}
                        </TableCell>
                        <TableCell className="num nowrap">
                          {lot.onHand < 0 ? (
                            <span className="oxide strong">{showAmount(-lot.onHand, part.unit)} short</span>
                          ) : (
                            <span className="strong">{showAmount(lot.onHand, part.unit)}</span>
                          )}
                          {lot.taken > 0 && (
                            <div className="second">
                              {showAmount(lot.taken, part.unit)} taken on open sheets
                            </div>
                          )}
                          {lot.openPack > 0 && <div className="second">{lot.openPack} in an opened pack</div>}
                        </TableCell>
                      </TableRow>
                    ))}
                  </TableBody>
                </Table>
              )}
              {part.lotList.some((lot) => lot.held.length > 0) && (
                <>
                  <h3>Where it lies</h3>
                  <HeldList
                    part={{
                      id: part.id,
                      number,
                      unit: part.unit,
                      isKit: part.contents.length > 0,
                      openedMonths: part.openedMonths,
                      shelfGroup: part.shelfGroup,
                    }}
                    lots={part.lotList.map((lot) => ({
                      id: lot.id,
                      number: lot.number,
                      expired: lot.expired,
                      openedOn: lot.openedOn,
                      held: lot.held,
                    }))}
                    places={placeOptions}
                    mayMove={mayCount}
                    mayExtend={mayEdit}
                    actions={{
                      move: actions.moveByHand,
                      openKit: actions.openKit,
                      openBottle: actions.openBottle,
                      extend: actions.extendLot,
                    }}
                  />
                </>
              )}
              <PastDay partId={part.id} unit={part.unit} today={today} ask={actions.partStockOn} />
            </Part>
            <Part title="In and out" aside="newest first">
              <Table className="plain">
                <TableBody>
                  {part.movements.map((movement) => (
                    <TableRow key={movement.id}>
                      <TableCell className="nowrap">{showDay(movement.day, today)}</TableCell>
                      <TableCell>
                        {kinds[movement.kind]}
                        {movement.sheetId && (
                          <>
                            {' '}
                            <Link href={`/sheets/${movement.sheetId}`}>
                              sheet {visitNumber(movement.sheetNumber ?? 0)}
                            </Link>
                          </>
                        )}
                        <div className="second">
                          {[
                            movement.lot === null ? 'no lot' : `lot ${movement.lot}`,
                            movement.where,
                            movement.reason,
                            movement.by,
                          ]
                            .filter(Boolean)
                            .join(' · ')}
                        </div>
                      </TableCell>
                      <TableCell className="num nowrap strong">{signed(movement, part.unit)}</TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
            </Part>
            <Part title="Changes">
              <ul className="line-list">
                {part.history.map((event) => (
                  <li key={event.id}>
                    <span className="grow">
                      {event.summary}
                      {event.reason && <div className="second">{event.reason}</div>}
                    </span>
                    <span className="second nowrap">
                      {event.by}, {showDay(event.day, today)}
                    </span>
                  </li>
                ))}
              </ul>
            </Part>
          </div>
        </div>
      </div>
    </Page>
  )
}

/** What a kit holds, which kits hold it, and what it stands for. */
function PartKinds({ part }: { part: PartPage }) {
  const groups: [string, { partId: string; number: string; words: string }[]][] = [
    ['It holds', part.pieces.map((each) => ({ ...each, words: `${each.quantity} × ${each.name}` }))],
    ['It is in kits', part.inKits.map((each) => ({ ...each, words: `${each.quantity} in ${each.name}` }))],
    ['It stands for', part.standsFor],
    ['In its place', part.replacedBy],
  ]
  const shown = groups.filter(([, list]) => list.length > 0)
  if (shown.length === 0) return null
  return (
    <Part title="Kits and substitutes">
      {shown.map(([title, list]) => (
        <div key={title}>
          <h3>{title}</h3>
          <ul className="line-list">
            {list.map((each) => (
              <li key={each.partId}>
                <Link href={`/stores/${encodeURIComponent(each.number)}`} className="strong">
                  {each.number}
                </Link>
                <span className="grow second">{each.words}</span>
              </li>
            ))}
          </ul>
        </div>
      ))}
    </Part>
  )
}

const kinds: Record<MovementLine['kind'], string> = {
  receipt: 'Received',
  use: 'Used on',
  count: 'Counted',
  correction: 'Corrected on',
  open: 'Kit opened',
  move: 'Moved',
  sentBack: 'Returned to the supplier',
  scrap: 'Thrown away',
}

function signed({ quantity }: MovementLine, unit: string): string {
  return `${quantity > 0 ? '+' : ''}${showAmount(quantity, unit)}`
}

function facts(part: PartPage, currency: string): [string, React.ReactNode][] {
  return [
    ['Least to have', showAmount(part.minimum, part.unit)],
    ['Comes within', `${part.comesWithin}\u00a0days`],
    ['Material', part.material],
    [
      'On the shelf',
      part.shelfGroup === 'none'
        ? ''
        : part.shelfGroup === 'own'
          ? `keeps ${part.keepsMonths} months`
          : shelfGroups[part.shelfGroup],
    ],
    ['Once open', part.openedMonths > 0 ? `${part.openedMonths} months` : ''],
    ['On the way', part.onTheWay > 0 ? showAmount(part.onTheWay, part.unit) : ''],
    ['In unopened kits', part.inClosedKits > 0 ? showAmount(part.inClosedKits, part.unit) : ''],
    ['Price of one', showMoney(part.priceCents, currency)],
    ['Pack', part.packSize > 1 ? `${part.packSize} pieces` : ''],
    ['Expired', part.expired > 0 ? showAmount(part.expired, part.unit) : ''],
    ['Maker’s number', part.makersNumber],
    ['Note', part.note],
  ]
}
