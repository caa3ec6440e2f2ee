import 'server-only'
import { daysBetween } from '@/core/calendar'
import {
  cumulativeHours,
  hoursAt,
  readingSchema,
  meterValue,
  replacedSchema,
  skipSchema,
  type ReadingInput,
  type ReplacedInput,
  type SkipInput,
  laidUpOn,
  packReadings,
  spellWords,
} from '@/core/hours'
import { inWalkingOrder, usePerWeek, type RoundMove, type RoundRow, type RoundSaved } from '@/core/round'
import { invalid, notFound, check } from '@/core/problem'
import type { WearView } from '@/core/wear'
import { laidUpWords } from '@/core/winter'
import { kept, Op, write } from '@/db/house'
import { fittings, machines, yards } from '@/db/fleet'
import { meterEvents, meters, meterSkips, doubtedCounts, readings } from '@/db/hours'
import {
  requirePermission,
  type Actor,
  recordChange,
  now,
  ourCompany,
  present,
  dayOf,
  timeOf,
  groupBy,
} from '../house'
import {
  asMeterEvent,
  asReading,
  faceOf,
  eventToldBy,
  recordReading,
  settleAsReplaced,
  settleReading,
  loadStanding,
  spellsByMachine,
} from '../hours'
import { listWearOf } from '../wear'
import { laidUpMachines } from '../winter'

/** What the judge looks back at: half a year, and some days around it. */
const lookBackDays = 200

/** Every meter in service in walking order, with what its reading will be judged by; from ten queries. */
export async function getRound(_actor: Actor): Promise<RoundRow[]> {
  const company = await ourCompany()
  const { today, instant } = present(company)
  return kept(`round ${today}`, () => loadRound(company.timeZone, today, instant))
}

async function loadRound(timeZone: string, today: string, instant: string): Promise<RoundRow[]> {
  const since = new Date(Date.parse(instant) - lookBackDays * 86_400_000).toISOString()
  const held = await laidUpMachines()
  const [machineRows, yardRows, meterRows, recentRows, eventRows, skipRows, spells, standingOf] =
    await Promise.all([
      machines.all({ retiredOn: null }, [['number', 'ASC']]),
      yards.every(),
      meters.all({ retiredOn: null }, [['createdAt', 'ASC']]),
      readings.all({ status: 'accepted', at: { [Op.gte]: since } } as never, [['at', 'ASC']]),
      meterEvents.all({ status: 'active' }, [['at', 'ASC']]),
      meterSkips.all({ day: today, status: 'active' }),
      spellsByMachine(),
      loadStanding(),
    ])
  const recent = groupBy(recentRows, (row) => row.meterId)
  // A machine that was not read for half a year still has a last reading.
  const silent = meterRows.filter((meter) => !recent.has(meter.id)).map((meter) => meter.id)
  const older = await readings.all({ meterId: silent, status: 'accepted' }, [['at', 'ASC']])
  for (const [meterId, rows] of groupBy(older, (row) => row.meterId)) recent.set(meterId, rows.slice(-2))
  const events = groupBy(eventRows, (row) => row.meterId)
  const doubted = await doubtedCounts(meterRows.map((meter) => meter.id))
  const skipped = new Map(skipRows.map((row) => [row.meterId, row.reason]))
  const rows = machineRows.flatMap((machine) => {
    const own = meterRows.filter((meter) => meter.machineId === machine.id)
    const spell = laidUpOn(spells.get(machine.id) ?? [], today)
    const state = held.get(machine.id)
    const laidUp = spell ? spellWords(spell, today) : ''
    return own.map((meter): RoundRow => {
      const accepted = (recent.get(meter.id) ?? []).map(asReading)
      const history = {
        readings: packReadings(accepted),
        events: (events.get(meter.id) ?? []).map(asMeterEvent),
        standing: standingOf(machine.id),
      }
      const line = cumulativeHours(accepted, history.events)
      const newest = recent.get(meter.id)?.at(-1)
      const day = newest && dayOf(newest.at, timeZone)
      const ageDays = day === undefined ? null : daysBetween(day, today)
      return {
        meterId: meter.id,
        meterName: meter.name,
        several: own.length > 1,
        machineId: machine.id,
        number: machine.number,
        name: machine.name,
        yardName: yardRows.find((yard) => yard.id === machine.yardId)?.name ?? '',
        bay: machine.bay,
        crew: machine.crew,
        face: faceOf(meter),
        history,
        last:
          newest && day !== undefined
            ? {
                at: newest.at,
                value: meterValue(newest.raw, newest.decimals),
                day,
                ageDays: ageDays!,
                readBy: newest.readBy,
              }
            : null,
        owes: !laidUp && (ageDays === null || ageDays > meter.readingIntervalDays),
        laidUp,
        hold: state ? laidUpWords(state) : '',
        doubts: doubted.get(meter.id) ?? 0,
        weeks: newest ? usePerWeek(line.points, newest.at, 8, (at) => hoursAt(line, at)) : [],
        skipped: skipped.get(meter.id) ?? '',
      }
    })
  })
  return inWalkingOrder(rows)
}

/**
 * Records one reading of the round, and says which due days it moved. Where somebody else has read this
 * meter since the round was opened it says who and what, and saves nothing.
 */
export async function recordInRound(actor: Actor, input: ReadingInput): Promise<RoundSaved> {
  requirePermission(actor, 'readings.enter')
  const reading = check(readingSchema, input)
  return withMoves(reading.meterId, async () => {
    const { id, status, shown, verdict } = await recordReading(actor, input, 'round')
    return { id, status, shown, verdict }
  })
}

/**
 * The meter was replaced since the last round: keeps the new one's reading and tells what happened. When
 * it was changed, and what the old one showed where nobody noted it, is presumed from the machine's use.
 */
export async function recordReplaced(actor: Actor, input: ReplacedInput): Promise<RoundSaved> {
  requirePermission(actor, 'readings.enter')
  const { id, meterId, typed, oldLastTyped, readBy } = check(replacedSchema, input)
  const { timeZone } = await ourCompany()
  return withMoves(meterId, () =>
    write(async () => {
      const instant = now()
      const when = { day: dayOf(instant, timeZone), time: timeOf(instant, timeZone) }
      const recorded = await recordReading(
        actor,
        { id, meterId, typed, readBy, note: '', vouched: false, ...when },
        'round',
      )
      // Sent again after its answer was lost: it is settled already.
      const again = recorded.status === 'accepted' && (await eventToldBy(recorded.id)) !== null
      if (recorded.status !== 'doubted' && !again)
        throw invalid({ typed: 'This reading goes on from the last one: it does not look like a new meter.' })
      await settleAsReplaced(actor, { readingId: recorded.id, oldLastTyped, note: 'Told during the round' })
      const { verdict, shown } = recorded
      return { id: recorded.id, status: 'accepted' as const, shown, verdict }
    }),
  )
}

/** Takes a reading of the round back, as if it had not been entered; the record keeps both. */
export async function undoInRound(actor: Actor, readingId: string): Promise<void> {
  await settleReading(actor, { decision: 'withdraw', readingId, reason: 'Taken back during the round' })
}

/** Notes that a meter was not read today, and why. Said again, the newer reason holds. */
export async function skipInRound(actor: Actor, input: SkipInput): Promise<void> {
  requirePermission(actor, 'readings.enter')
  const { id, meterId, reason } = check(skipSchema, input)
  await write(async () => {
    if (await meterSkips.byId(id)) return
    const meter = await meters.byId(meterId)
    if (!meter) throw notFound('This meter')
    const { today } = present(await ourCompany())
    await meterSkips.update({ meterId, day: today, status: 'active' }, { status: 'superseded' })
    await meterSkips.insert({
      id,
      meterId,
      day: today,
      reason,
      status: 'active',
      recordedAt: now(),
      recordedById: actor.id,
    })
    await recordChange(actor, {
      entity: 'meter',
      entityId: meterId,
      machineId: meter.machineId,
      action: 'skipped',
      summary: `${meter.name} not read`,
      reason,
    })
  })
}

/** Does something to a meter and compares the due days of its machine's pumps before and after. */
async function withMoves(
  meterId: string,
  work: () => Promise<Omit<RoundSaved, 'moves'>>,
): Promise<RoundSaved> {
  const meter = await meters.byId(meterId)
  const pumps = meter ? await pumpsOn(meter.machineId) : []
  const before = await listWearOf(pumps)
  const saved = await work()
  return { ...saved, moves: movesBetween(before, await listWearOf(pumps)) }
}

async function pumpsOn(machineId: string): Promise<string[]> {
  const rows = await fittings.all({ machineId, status: 'active' })
  return [...new Set(rows.map((row) => row.assemblyId))]
}

function movesBetween(before: WearView[], after: WearView[]): RoundMove[] {
  return after.flatMap((view) =>
    view.clocks.flatMap((clock) => {
      const was = before
        .find((each) => each.assemblyId === view.assemblyId)
        ?.clocks.find((each) => each.task === clock.task && each.positions[0] === clock.positions[0])
      const passed = clock.share > 1 && (was?.share ?? 0) <= 1
      if (!was || (was.aboutDay === clock.aboutDay && !passed)) return []
      return [
        {
          machine: view.machineNumber ?? view.number,
          service: clock.name,
          where: clock.where,
          before: was.aboutDay,
          after: clock.aboutDay,
          passed,
        },
      ]
    }),
  )
}
