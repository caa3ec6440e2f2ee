import type { Metadata } from 'next'
import { Link } from '@/ui/frame/Link'
import { showDay } from '@/core/calendar'
import { showAmount, type MovementLine, type PartPage } from '@/core/stores'
import { mayDo } from '@/core/access'
import { visitNumber } from '@/core/plan'
import { showMoney } from '@/core/units'
import { getCompany, present } from '@/services/house'
import { partAhead } from '@/services/plan'
import { getPart, listPartChoices } from '@/services/stores'
import { Note } from '@/ui/feedback/States'
import { RetireButton } from '@/ui/fleet/MachineActions'
import { pack } from '@/ui/frame/packed'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { CountDialog } from '@/ui/stores/CountDialog'
import { PartDialog } from '@/ui/stores/PartDialog'
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
  const [part, company, choices] = await Promise.all([
    load(getPart(actor, reference)),
    getCompany(actor),
    listPartChoices(actor),
  ])
  const ahead = await partAhead(actor, part.id)
  const { today } = present(company)
  const mayEdit = mayDo(actor.role, 'stores.edit')
  const mayCount = mayDo(actor.role, 'stores.count') && !part.retiredOn
  const { id, number, version, retiredOn } = part
  return (
    <Page
      title={`${number} ${part.name}`}
      summary={[part.bin && `bin ${part.bin}`, part.fitsModels.join(', ')].filter(Boolean).join(' · ')}
      back={{ href: '/stores', label: 'Stores' }}
      actions={
        <>
          {mayEdit && (
            <>
              <PartDialog part={part} choices={choices} currency={company.currency} save={actions.savePart} />
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
                leadDays={part.leadDays}
                today={today}
              />
            </Part>
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
                          ? 'there'
                          : `${showAmount(visit.missing, part.unit)} missing, ordered today it comes ${showDay(visit.arrives!, today)}`}
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
                          {lot.note && <div className="second">{lot.note}</div>}
                        </TableCell>
                        <TableCell className="nowrap">{showDay(lot.receivedOn, today)}</TableCell>
                        <TableCell className={lot.expired ? 'brass strong nowrap' : 'nowrap'}>
                          {lot.expiresOn ? showDay(lot.expiresOn, today) : '–'}
                          {lot.expired && ' expired'}
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
    ['Comes within', `${part.leadDays}\u00a0days`],
    ['Price of one', showMoney(part.priceCents, currency)],
    ['Pack', part.packSize > 1 ? `${part.packSize} pieces` : ''],
    ['Expired', part.expired > 0 ? showAmount(part.expired, part.unit) : ''],
    ['Maker’s number', part.makersNumber],
    ['Note', part.note],
  ]
}
