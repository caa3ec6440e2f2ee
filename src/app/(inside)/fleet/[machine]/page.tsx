import type { Metadata } from 'next'
import { showDay } from '@/core/calendar'
import {
  bypassKinds,
  driveKinds,
  machineKinds,
  storageKinds,
  type MachinePage,
  type MeterPanel,
} from '@/core/fleet'
import { mayDo } from '@/core/access'
import { limitsAhead, type WearView } from '@/core/wear'
import { showNumber, showQuantity, type Quantity, type UnitPreferences } from '@/core/units'
import { getCompany, present } from '@/services/house'
import { documentsOf, getMachine } from '@/services/fleet'
import { recordOf } from '@/core/sheets'
import { sheetsOf } from '@/services/sheets'
import { signsOf } from '@/services/inspection'
import { listOpenVisits, visitsOfMachine } from '@/services/plan'
import { listPeople } from '@/services/access'
import { winterStanding } from '@/services/winter'
import { LaidUpNote } from '@/ui/winter'
import { getWear } from '@/services/wear'
import { Note } from '@/ui/feedback/States'
import { ChangesList } from '@/ui/fleet/ChangesList'
import { DocumentsPart } from '@/ui/fleet/DocumentsPart'
import { FittedList } from '@/ui/fleet/FittedList'
import { MeterRetirement, RetireButton } from '@/ui/fleet/MachineActions'
import { MeterDialog } from '@/ui/fleet/MeterDialog'
import { MeterPart } from '@/ui/fleet/MeterPart'
import { MoveDialog } from '@/ui/fleet/MoveDialog'
import { ReadingDialog } from '@/ui/fleet/ReadingDialog'
import { ReadingsTable } from '@/ui/fleet/ReadingsTable'
import { SettleDialog } from '@/ui/fleet/SettleDialog'
import { SpellsPart } from '@/ui/fleet/SpellsPart'
import { SignsPart } from '@/ui/inspection/SignsPart'
import { bookable, leastBusy, servicesOn, worseDue, visitLeads } from '@/core/plan'
import { BookVisit } from '@/ui/plan/BookVisit'
import { DueServices } from '@/ui/plan/DueServices'
import { Coming, ServiceRecord } from '@/ui/sheets/record/RecordList'
import { RecordDownloads } from '@/ui/sheets/bench/RecordDownloads'
import { UnplannedSheet } from '@/ui/sheets/UnplannedSheet'
import { ButtonLink } from '@/ui/frame/ButtonLink'
import { pack } from '@/ui/frame/packed'
import { Facts, Page, Part } from '@/ui/frame/Page'
import { load } from '../../../access/act'
import { referenceIn } from '../../../access/reference'
import { requireActor } from '../../../access/session'
import { bookVisit } from '../../plan/actions'
import { startUnplannedSheet } from '../../sheets/actions'
import * as actions from '../actions'

type Params = {
  params: Promise<{ machine: string }>
  searchParams: Promise<{ book?: string | string[] }>
}

export async function generateMetadata({ params }: Params): Promise<Metadata> {
  return { title: referenceIn((await params).machine) }
}

export default async function MachineDetails({ params, searchParams }: Params) {
  const reference = referenceIn((await params).machine)
  const path = `/fleet/${encodeURIComponent(reference)}`
  const actor = await requireActor(path)
  const [machine, company] = await Promise.all([load(getMachine(actor, reference)), getCompany(actor)])
  const { book } = await searchParams
  const [visits, open, people, sheets, signs, documents, winter, wear] = await Promise.all([
    visitsOfMachine(actor, machine.id),
    listOpenVisits(actor),
    listPeople(actor),
    sheetsOf(actor, { machineId: machine.id }),
    signsOf(actor, { machineId: machine.id }),
    documentsOf(actor, machine.id),
    winterStanding(actor, machine.id),
    Promise.all(machine.fitted.map((assembly) => getWear(actor, assembly.id))),
  ])
  const running = wear.filter((view) => view?.started).map((view) => view!)
  const clocks = running.flatMap((view) => bookable(view, open)).sort(worseDue)
  const services = servicesOn(running, visits, present(company).today)
  const record = recordOf(visits, sheets)
  const mayPlan = mayDo(actor.role, 'visits.plan') && !machine.retiredOn
  const now = present(company)
  const { today } = now
  const mayEdit = mayDo(actor.role, 'fleet.edit')
  const mayEnter = mayDo(actor.role, 'readings.enter') && !machine.retiredOn
  const maySettleAll = mayDo(actor.role, 'readings.settle')
  const doubts = machine.meters.flatMap((meter) =>
    meter.readings.filter((reading) => reading.status === 'doubted').map((reading) => ({ meter, reading })),
  )
  // One package for all that tell of a meter: its readings of years are handed over once.
  const packages = new Map(machine.meters.map((meter) => [meter.id, pack(meter)]))
  const packed = (meter: MeterPanel) => packages.get(meter.id)!
  const saveMeter = actions.saveMeter.bind(null, machine.id)

  async function withdraw(readingId: string) {
    'use server'
    return actions.settleReading({
      decision: 'withdraw',
      readingId,
      reason: 'Taken back right after entering',
    })
  }

  return (
    <Page
      title={`${machine.number} ${machine.name}`}
      summary={summary(machine, company.units, today)}
      back={{ href: '/fleet', label: 'Fleet' }}
      actions={
        <>
          {mayEdit && <ButtonLink href={`${path}/edit`}>Edit</ButtonLink>}
          {mayEdit && (
            <RetireButton
              thing={{
                id: machine.id,
                number: machine.number,
                version: machine.version,
                retiredOn: machine.retiredOn,
              }}
              consequence={`${machine.number} leaves every list of work and takes no more readings. Its record stays, and it can be brought back.`}
              retire={actions.retireMachine}
              bringBack={actions.returnMachine}
            />
          )}
          {clocks.length > 0 && !machine.retiredOn && mayDo(actor.role, 'sheets.work') && (
            <UnplannedSheet clocks={clocks} today={today} start={startUnplannedSheet} />
          )}
          {mayPlan && running.length > 0 && (
            <BookVisit
              key={typeof book === 'string' ? book : ''}
              clocks={clocks}
              technicians={visitLeads(people)}
              suggestedLead={leastBusy(people, open, today)}
              wanted={typeof book === 'string' ? book : undefined}
              today={today}
              look="outlined"
              book={bookVisit}
            />
          )}
          {mayEnter && (
            <ReadingDialog
              machineNumber={machine.number}
              packed={machine.meters.filter((meter) => !meter.retiredOn).map(packed)}
              present={now}
              reader={actor.name}
              record={actions.recordReading}
              withdraw={withdraw}
            />
          )}
        </>
      }
    >
      <div className="stack">
        {winter && <LaidUpNote state={winter} number={machine.number} />}
        {machine.retiredOn && (
          <Note title={`Retired ${showDay(machine.retiredOn, today)}.`}>{machine.retiredReason}</Note>
        )}
        {doubts.length > 0 && (
          <Note
            tone="oxide"
            title={
              doubts.length === 1 ? 'One reading is in doubt.' : `${doubts.length} readings are in doubt.`
            }
          >
            Hours stand on the last good reading until it is settled.
            {mayEnter && (
              <div className="actions">
                {doubts
                  .filter(({ reading }) => maySettleAll || reading.mine)
                  .map(({ meter, reading }) => (
                    <SettleDialog
                      key={reading.id}
                      packed={packed(meter)}
                      reading={reading}
                      today={today}
                      settle={actions.settleReading}
                      label={`Settle ${showNumber(reading.value, reading.decimals)} of ${showDay(reading.day, today)}`}
                    />
                  ))}
              </div>
            )}
          </Note>
        )}
        <div className="columns lead">
          <div className="stack">
            <Part
              title="Due on it"
              aside={running.length > 0 && 'overdue first; days as likely as not, below 10 to 90 %'}
            >
              {running.length > 0 ? (
                <DueServices
                  services={pack(services)}
                  several={running.length > 1}
                  today={today}
                  bookOn={mayPlan ? path : null}
                />
              ) : (
                <p className="second">
                  {machine.fitted.length === 0
                    ? 'Nothing is fitted, so nothing wears.'
                    : 'The clocks of what it carries have not been started yet.'}
                </p>
              )}
            </Part>
            <Part title="Signs" aside="what was seen, until it is settled">
              <SignsPart
                signs={signs}
                machineId={machine.id}
                pumps={running.map(signPump)}
                today={today}
                mayReport={mayDo(actor.role, 'signs.report') && !machine.retiredOn}
                actions={actions}
              />
            </Part>
            <Part title="Visits to come" aside="the next first">
              <Coming lines={record.coming} today={today} />
            </Part>
          </div>
          <div className="stack">
            {machine.meters.map((meter, index) => (
              <MeterPart
                key={meter.id}
                packed={packed(meter)}
                today={today}
                limits={machine.fitted.flatMap((assembly, at) =>
                  assembly.countedBy?.meterId === meter.id && wear[at]?.started
                    ? limitsAhead(wear[at].clocks, assembly.countedBy.share, assembly.number)
                    : [],
                )}
                moves={index === 0 ? moveEvents(machine) : []}
                spells={machine.spells}
                edit={
                  mayEdit && (
                    <>
                      <MeterDialog meter={headOf(meter)} save={saveMeter} />
                      <MeterRetirement
                        meter={headOf(meter)}
                        retire={actions.retireMeter}
                        bringBack={actions.returnMeter}
                      />
                      {index === machine.meters.length - 1 && <MeterDialog save={saveMeter} />}
                    </>
                  )
                }
              />
            ))}
          </div>
        </div>
        <div className="columns lead">
          <div className="stack">
            <Part
              title="Service record"
              aside={
                record.past.length > 0 && (
                  <RecordDownloads query={`machine=${encodeURIComponent(machine.number)}`} />
                )
              }
            >
              <ServiceRecord lines={record.past} today={today} />
            </Part>
            {machine.meters.map((meter) => (
              <Part
                key={meter.id}
                title={machine.meters.length > 1 ? `Readings: ${meter.name}` : 'Readings'}
                aside={`newest first · asked for every ${meter.readingIntervalDays} days`}
              >
                <ReadingsTable
                  packed={packed(meter)}
                  today={today}
                  mayEnter={mayEnter}
                  maySettleAll={maySettleAll}
                  settle={actions.settleReading}
                />
              </Part>
            ))}
            <Part title="Changes" aside="who changed what, before and after">
              <ChangesList
                about={{ machineId: machine.id }}
                changes={machine.changes.slice(0, 7)}
                today={today}
                showAll={actions.showChanges}
              />
            </Part>
          </div>
          <div className="stack">
            <Part title="Pumps and drives" aside="hours on each, now">
              <FittedList
                fitted={machine.fitted}
                past={machine.past}
                today={today}
                action={(assembly) =>
                  mayEdit && (
                    <MoveDialog
                      assembly={{
                        id: assembly.id,
                        number: assembly.number,
                        version: assembly.version,
                        usageScale: assembly.usageScale,
                      }}
                      fitted
                      places={actions.showPlaces}
                      today={today}
                      time={now.time}
                      move={actions.moveAssembly}
                      undo={actions.undoMove}
                    />
                  )
                }
              />
            </Part>
            <Part title="Lay-ups and jobs" aside="known beforehand; the days ahead go by them">
              <SpellsPart
                spells={machine.spells}
                today={today}
                mayEdit={mayEdit && !machine.retiredOn}
                save={actions.saveSpell.bind(null, machine.id)}
                withdraw={actions.withdrawSpell}
              />
            </Part>
            <Part title="Machine">
              <Facts facts={facts(machine, company.units)} />
            </Part>
            <Part title="Photos and documents" aside="plates, joints, pages of the manual">
              <DocumentsPart
                machineId={machine.id}
                documents={documents}
                today={today}
                mayAdd={mayEnter}
                mayRemove={mayEdit}
                remove={actions.removeDocument}
              />
            </Part>
          </div>
        </div>
      </div>
    </Page>
  )
}

const signPump = ({ assemblyId, number, title, renewals }: WearView) => ({
  assemblyId,
  number,
  title,
  renewals,
})

/** A meter without what it has shown. */
function headOf(meter: MeterPanel) {
  const { id, version, name, kind, digits, decimals, readingIntervalDays, retiredOn } = meter
  return { id, version, name, kind, digits, decimals, readingIntervalDays, retiredOn }
}

/** Pumps and drives that came onto the machine or left it, those of one instant's day together. */
function moveEvents(machine: MachinePage) {
  const moves = [
    ...machine.past.flatMap((stay) => [
      { at: stay.at, day: stay.day, words: `${stay.number} on` },
      { at: stay.until!, day: stay.untilDay!, words: `${stay.number} off` },
    ]),
    ...machine.fitted.map(({ number, place }) => ({ at: place.at, day: place.day, words: `${number} on` })),
  ].sort((a, b) => (a.at < b.at ? -1 : 1))
  const days = [...new Set(moves.map((move) => move.day))]
  return days.map((day) => {
    const own = moves.filter((move) => move.day === day)
    return { at: own[0]!.at, words: own.map((move) => move.words).join(', '), strong: false }
  })
}

const quantityIn = (dimension: Parameters<typeof showQuantity>[0], amount: Quantity | null, unit: string) =>
  amount && showQuantity(dimension, amount, unit)

function summary(machine: MachinePage, units: UnitPreferences, today: string): string {
  return [
    machineKinds[machine.kind],
    quantityIn('pressure', machine.workingPressure, units.pressure),
    quantityIn('flow', machine.flow, units.flow),
    `${machine.yardName}${machine.bay ? `, bay ${machine.bay}` : ''}`,
    machine.inServiceSince && `in service since ${showDay(machine.inServiceSince, today)}`,
  ]
    .filter(Boolean)
    .join(' · ')
}

function facts(machine: MachinePage, units: UnitPreferences): [string, React.ReactNode][] {
  const drive = [
    driveKinds[machine.drive],
    machine.driveName,
    machine.drivePower && showQuantity('power', machine.drivePower, machine.drivePower.unit),
  ]
  const bore = machine.hoseBore && showQuantity('length', machine.hoseBore, machine.hoseBore.unit)
  const hose = [quantityIn('length', machine.hoseLength, units.length), bore && `${bore} bore`]
  return [
    ['Crew', machine.crew],
    ['Storage', storageKinds[machine.storage]],
    ['Driven by', drive.filter(Boolean).join(', ')],
    ['Hose', hose.filter(Boolean).join(', ')],
    ['Tank', quantityIn('volume', machine.tankVolume, units.volume)],
    ['By-pass', bypassKinds[machine.bypass]],
    ['Note', machine.note],
  ]
}
