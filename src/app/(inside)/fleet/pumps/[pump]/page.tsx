import type { Metadata } from 'next'
import { Link } from '@/ui/frame/Link'
import { showDay } from '@/core/calendar'
import { assemblyKinds, openingKinds, type AssemblyPage } from '@/core/fleet'
import { mayDo } from '@/core/access'
import { recordOf, type BenchPart } from '@/core/sheets'
import { showNumber } from '@/core/units'
import { limitsAhead } from '@/core/wear'
import { getAssembly } from '@/services/fleet'
import { getCompany, present } from '@/services/house'
import { listPlaceChoices, listBenchParts } from '@/services/stores'
import { listPeople } from '@/services/access'
import { findingsOf, sheetsOf } from '@/services/sheets'
import { nextVisitTo, listOpenVisits } from '@/services/plan'
import { startingLives, checksOf, getWear, rulesOf } from '@/services/wear'
import { factsOf } from '@/services/composing'
import { signsOf } from '@/services/inspection'
import { UnitFacts } from '@/ui/composing/UnitFacts'
import { EarlyChecks } from '@/ui/inspection/EarlyChecks'
import { FindingsList } from '@/ui/inspection/FindingsList'
import { NextVisit } from '@/ui/plan/NextVisit'
import { SignsPart } from '@/ui/inspection/SignsPart'
import { bookable, leastBusy, visitLeads, worseDue } from '@/core/plan'
import { BookVisit } from '@/ui/plan/BookVisit'
import { Note } from '@/ui/feedback/States'
import { ChangesList } from '@/ui/fleet/ChangesList'
import { RetireButton } from '@/ui/fleet/MachineActions'
import { DutyDialog } from '@/ui/fleet/DutyDialog'
import { HoursAheadPacked } from '@/ui/fleet/HoursAhead'
import { MoveDialog } from '@/ui/fleet/MoveDialog'
import { countedWords, placeWords, usageWords } from '@/ui/fleet/usageWords'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { pack } from '@/ui/frame/packed'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { RecordDownloads } from '@/ui/sheets/bench/RecordDownloads'
import { Coming, ServiceRecord } from '@/ui/sheets/record/RecordList'
import { UnplannedSheet } from '@/ui/sheets/UnplannedSheet'
import { ClockList } from '@/ui/wear/ClockList'
import { LivesGrid } from '@/ui/wear/LivesGrid'
import { RecordRenewal } from '@/ui/wear/RecordRenewal'
import { RulesPart } from '@/ui/wear/RulesPart'
import { StartClocks } from '@/ui/wear/StartClocks'
import { TakeOverLives } from '@/ui/wear/TakeOverLives'
import { load } from '../../../../access/act'
import { referenceIn } from '../../../../access/reference'
import { requireActor } from '../../../../access/session'
import { bookVisit } from '../../../plan/actions'
import { startUnplannedSheet } from '../../../sheets/actions'
import * as actions from '../../actions'
import { HeadCell, Table, TableBody, TableCell, TableHead, TableRow } from '@/ui/table/Table'

type Params = {
  params: Promise<{ pump: string }>
  searchParams: Promise<{ book?: string | string[] }>
}

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: referenceIn((await params).pump) }
}

export default async function AssemblyDetails({ params, searchParams }: Params) {
  const reference = referenceIn((await params).pump)
  const path = `/fleet/pumps/${encodeURIComponent(reference)}`
  const actor = await requireActor(path)
  const [assembly, company, choices] = await Promise.all([
    load(getAssembly(actor, reference)),
    getCompany(actor),
    listPlaceChoices(actor),
  ])
  const { today, time } = present(company)
  const { book } = await searchParams
  const [wear, open, people, sheets, rules, signs, checks, starting, benchParts] = await Promise.all([
    getWear(actor, assembly.id),
    listOpenVisits(actor),
    listPeople(actor),
    sheetsOf(actor, { assemblyId: assembly.id }),
    rulesOf(actor, assembly.id),
    signsOf(actor, { assemblyId: assembly.id }),
    checksOf(actor, assembly.id),
    startingLives(actor, assembly.id),
    listBenchParts(actor),
  ])
  const [unit, next, findings] = await Promise.all([
    factsOf(actor, assembly.id),
    wear?.started ? nextVisitTo(actor, wear, open) : null,
    findingsOf(actor, assembly, signs),
  ])
  const own = open.filter((visit) => visit.services.some((service) => service.assemblyId === assembly.id))
  const record = recordOf(own, sheets)
  const mayEdit = mayDo(actor.role, 'fleet.edit')
  const { id, number, version, retiredOn, usageScale } = assembly
  return (
    <Page
      title={`${number} ${assembly.title}`}
      summary={[
        assemblyKinds[assembly.kind],
        assembly.serial && `serial ${assembly.serial}`,
        placeWords(assembly),
      ]
        .filter(Boolean)
        .join(' · ')}
      back={{ href: '/fleet/pumps', label: 'Pumps and drives' }}
      actions={
        <>
          {mayEdit && (
            <>
              <ButtonLink href={`${path}/edit`}>Edit</ButtonLink>
              <RetireButton
                thing={{ id, number, version, retiredOn }}
                consequence={`${number} leaves every list of work. Its record stays, and it can be brought back.`}
                retire={actions.retireAssembly}
                bringBack={actions.returnAssembly}
              />
            </>
          )}
          {mayEdit && !retiredOn && (
            <MoveDialog
              assembly={{ id, number, version, usageScale }}
              fitted={assembly.place.machineId !== null}
              places={actions.showPlaces}
              today={today}
              time={time}
              move={actions.moveAssembly}
              undo={actions.undoMove}
            />
          )}
          {wear && !retiredOn && <ButtonLink href={`${path}/compose`}>Compose work</ButtonLink>}
          {wear?.started && !retiredOn && mayDo(actor.role, 'sheets.work') && (
            <UnplannedSheet clocks={bookable(wear, own)} today={today} start={startUnplannedSheet} />
          )}
          {wear?.started && mayDo(actor.role, 'visits.plan') && (
            <BookVisit
              clocks={bookable(wear, own)}
              technicians={visitLeads(people)}
              suggestedLead={leastBusy(people, open, today)}
              wanted={typeof book === 'string' ? book : undefined}
              today={today}
              book={bookVisit}
            />
          )}
        </>
      }
    >
      <div className="stack">
        {retiredOn && <Note title={`Retired ${showDay(retiredOn, today)}.`}>{assembly.retiredReason}</Note>}
        <div className="columns">
          <div className="stack">
            {wear?.started && wear.grid.length > 0 && (
              <Part
                title="Positions"
                aside="hours on each part, press one for its lives · folded: the last came out early"
              >
                <LivesGrid
                  assemblyId={id}
                  grid={wear.grid}
                  columns={wear.columns}
                  unit={wear.unit}
                  today={today}
                  show={actions.showLives}
                  move={mayEdit && !retiredOn ? actions.movePart : null}
                />
              </Part>
            )}
            <Part title="Hours on it" aside={countedWords(assembly)}>
              <p className="meter-total">
                <span className="figure">{usageWords(assembly)}</span>
              </p>
              <HoursAheadPacked
                of="pump"
                lines={pack({ line: assembly.line, meterLine: assembly.meterLine })}
                share={assembly.countedBy?.share ?? 0}
                known={assembly.known}
                limits={wear?.started ? limitsAhead(wear.clocks, assembly.countedBy?.share ?? 0) : []}
                doubts={[]}
                corrected={[]}
                events={assembly.stays.map((stay) => ({
                  at: stay.at,
                  words: stay.machineNumber ? `onto ${stay.machineNumber}` : 'to the shelf',
                  strong: false,
                }))}
                spells={assembly.spells}
                unit={unitOf(assembly)}
                today={today}
              />
              <Facts facts={facts(assembly, today)} />
              {assembly.duties.length > 1 && (
                <ul className="line-list" aria-label="How it was counted, newest first">
                  {assembly.duties.map((duty) => (
                    <li key={duty.at} className="second">
                      from {showDay(duty.day, today)}: {duty.meterName.toLowerCase()},{' '}
                      {duty.share === 1
                        ? 'all of it'
                        : `${showNumber(Math.round(duty.share * 1000) / 10)}\u00a0% of it`}
                      {duty.basis !== 'own' && `, ${duty.basis}`}
                    </li>
                  ))}
                </ul>
              )}
              {mayEdit && !retiredOn && assembly.countedBy && assembly.place.machineId && (
                <DutyDialog
                  assembly={{ id, number, version }}
                  now={assembly.countedBy}
                  meters={choices.meters[assembly.place.machineId] ?? []}
                  today={today}
                  time={time}
                  save={actions.changeDuty}
                />
              )}
            </Part>
          </div>
          <div className="stack">
            {wear && (
              <Part title="Services, most urgent first" aside="days as likely as not; below, 10 to 90 %">
                {wear.started ? (
                  <ClockList view={{ ...wear, clocks: [...wear.clocks].sort(worseDue) }} today={today} />
                ) : (
                  <p className="second">Its clocks have not been started yet.</p>
                )}
                {mayEdit && !retiredOn && (
                  <div className="actions">
                    {wear.started ? (
                      <>
                        <RecordRenewal
                          view={wear}
                          today={today}
                          takenOverOn={assembly.takenOverOn}
                          lots={lotsFor(benchParts, assembly.modelId)}
                          record={actions.recordRenewal}
                        />
                        {starting.length > 0 && (
                          <TakeOverLives
                            assemblyId={id}
                            number={number}
                            lives={starting}
                            unit={wear.unit}
                            save={actions.takeOverLives}
                          />
                        )}
                      </>
                    ) : (
                      <StartClocks
                        assemblyId={id}
                        number={number}
                        opening={openingWords(assembly)}
                        start={actions.startClocks}
                      />
                    )}
                  </div>
                )}
                <p className="second">
                  By version {wear.modelVersion} of {wear.title}. {wear.notice}
                </p>
              </Part>
            )}
            {unit.length > 0 && (
              <Part title="What this unit is" aside="its model asks; answered once">
                <UnitFacts
                  assemblyId={id}
                  facts={unit}
                  say={mayEdit && !retiredOn ? actions.sayFact : null}
                />
              </Part>
            )}
            {wear?.started && (
              <Part title="Limits and hard duty" aside="what this pump goes by beside its model">
                <RulesPart
                  view={wear}
                  rules={rules}
                  today={today}
                  mayEdit={mayEdit && !retiredOn}
                  actions={actions}
                />
              </Part>
            )}
            {wear?.started && !retiredOn && (
              <Part title="What the next visit would do" aside="beyond what is booked">
                <NextVisit visit={next} today={today} />
              </Part>
            )}
            <Part title="Signs and early checks" aside="what was seen, until it is settled">
              <SignsPart
                signs={signs}
                machineId={null}
                pumps={wear ? [wear] : []}
                today={today}
                mayReport={mayDo(actor.role, 'signs.report') && !retiredOn}
                actions={actions}
              />
              <EarlyChecks
                checks={checks}
                today={today}
                record={mayDo(actor.role, 'signs.report') ? actions.recordEarlyCheck : null}
              />
            </Part>
            <Part title="Visits to come" aside="the next first">
              <Coming lines={record.coming} today={today} />
            </Part>
            <Part title="Findings over time" aside="failed, seen, measured, remarked; newest first">
              <FindingsList findings={findings} today={today} />
            </Part>
            <Part
              title="Service record"
              aside={
                record.past.length > 0 && <RecordDownloads query={`pump=${encodeURIComponent(number)}`} />
              }
            >
              <ServiceRecord lines={record.past} today={today} />
            </Part>
            <Part title="Where it has been" aside="hours and record go with it">
              <Stays assembly={assembly} today={today} />
            </Part>
            <Part title="Changes" aside="who changed what, before and after">
              <ChangesList
                about={{ assemblyId: id }}
                changes={assembly.changes.slice(0, 7)}
                today={today}
                showAll={actions.showChanges}
              />
            </Part>
          </div>
        </div>
      </div>
    </Page>
  )
}

/** The lots whose parts fit this pump, newest first. */
function lotsFor(parts: BenchPart[], modelId: string | null) {
  return parts
    .filter((part) => part.fits.some((fit) => fit.modelId === modelId))
    .flatMap((part) =>
      part.lots.map((lot) => ({
        value: lot.id,
        label: `${part.number} ${part.name}, ${lot.label}`,
      })),
    )
    .reverse()
}

const unitOf = (assembly: AssemblyPage) => (assembly.usageScale === 'h' ? 'h' : 'strokes')

function openingWords(assembly: AssemblyPage): string {
  const unit = unitOf(assembly)
  return assembly.openingKind === 'unknown'
    ? 'hours unknown'
    : `${showNumber(assembly.openingUsage)}\u00a0${unit}`
}

function facts(assembly: AssemblyPage, today: string): [string, React.ReactNode][] {
  const unit = unitOf(assembly)
  const known = assembly.openingKind === 'known' || assembly.openingKind === 'assumed'
  const opening = known
    ? `${openingKinds[assembly.openingKind]}: ${openingWords(assembly)}`
    : openingKinds[assembly.openingKind]
  return [
    ['Taken over', `${showDay(assembly.takenOverOn, today)} · ${opening}`],
    ['Since then', `${showNumber(Math.round(assembly.usedSinceTakeOver))}\u00a0${unit}`],
    ['Note', assembly.note],
  ]
}

function Stays({ assembly, today }: { assembly: AssemblyPage; today: string }) {
  return (
    <Table className="plain">
      <caption className="visually-hidden">Where {assembly.number} has been</caption>
      <TableHead>
        <TableRow>
          <HeadCell>From</HeadCell>
          <HeadCell>To</HeadCell>
          <HeadCell>Place</HeadCell>
          <HeadCell className="num">Counted there</HeadCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {[...assembly.stays].reverse().map((stay) => (
          <TableRow key={stay.id}>
            <TableCell className="nowrap">{showDay(stay.day, today)}</TableCell>
            <TableCell className="nowrap">{stay.untilDay ? showDay(stay.untilDay, today) : 'now'}</TableCell>
            <TableCell>
              {stay.machineNumber ? (
                <Link href={`/fleet/${encodeURIComponent(stay.machineNumber)}`}>
                  {stay.machineNumber} {stay.machineName}
                </Link>
              ) : (
                `Shelf, ${stay.yardName}`
              )}
              {stay.slot && `, ${stay.slot}`}
              {stay.reason && <div className="second">{stay.reason}</div>}
            </TableCell>
            <TableCell className="num nowrap">
              {stay.machineId
                ? `${showNumber(Math.round(stay.used))}\u00a0${assembly.usageScale === 'h' ? 'h' : 'strokes'}`
                : '–'}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  )
}
