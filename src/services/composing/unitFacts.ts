import 'server-only'
import type { UnitFact, UnitFacts, UnitFactInput } from '@/core/composing'
import { unitFactSchema } from '@/core/composing'
import { driveFact } from '@/core/fleet'
import { check, conflict, invalid, notFound } from '@/core/problem'
import { inSentence } from '@/core/units'
import { kept, write } from '@/db/house'
import { assemblies, fittings, machines } from '@/db/fleet'
import { pumpModelVersions } from '@/db/models'
import { recordChange, requirePermission, type Actor } from '../house'

/** What is known of every unit: what was found out on it, and the drive of the machine it is on. */
export function unitFacts(): Promise<Map<string, UnitFacts>> {
  return kept('unit facts', async () => {
    const [pumps, moves, machineRows] = await Promise.all([
      assemblies.every(),
      fittings.all({ status: 'active' }, [['at', 'ASC']]),
      machines.every(),
    ])
    const driveOf = new Map(machineRows.map((machine) => [machine.id, driveFact(machine.drive)]))
    const machineOf = new Map(moves.map((move) => [move.assemblyId, move.machineId]))
    return new Map(
      pumps.map(({ id, facts }): [string, UnitFacts] => {
        const drive = driveOf.get(machineOf.get(id) ?? '')
        // Its machine knows what drives it now; what was found out once holds where it does not.
        return [id, { ...facts, ...(drive && { drive }) }]
      }),
    )
  })
}

/** What its model asks of a pump, with what is known; nothing where the model asks nothing. */
export async function factsOf(_actor: Actor, assemblyId: string): Promise<UnitFact[]> {
  const pump = await assemblies.byId(assemblyId)
  const version = pump?.modelVersionId ? await pumpModelVersions.byId(pump.modelVersionId) : null
  if (!pump || !version) return []
  const known = (await unitFacts()).get(assemblyId) ?? {}
  return version.data.facts.map((fact) => {
    const answer = known[fact.key]
    const own = pump.facts[fact.key] === answer
    return {
      ...fact,
      answer: answer !== undefined && fact.answers.includes(answer) ? answer : null,
      from: answer === undefined ? null : own ? 'unit' : 'machine',
    }
  })
}

/** Keeps what was found out on a sheet. Called inside `write()`. */
export async function learnFact(
  actor: Actor,
  { assemblyId, fact, answer }: { assemblyId: string; fact: string; answer: string },
): Promise<void> {
  const pump = await assemblies.byId(assemblyId)
  if (!pump || pump.facts[fact] === answer) return
  await assemblies.update({ id: assemblyId }, { facts: { ...pump.facts, [fact]: answer } })
  const version = pump.modelVersionId ? await pumpModelVersions.byId(pump.modelVersionId) : null
  const name = version?.data.facts.find(({ key }) => key === fact)?.name ?? fact
  await recordChange(actor, {
    entity: 'assembly',
    entityId: assemblyId,
    assemblyId,
    action: 'changed',
    summary: `${pump.number}: ${inSentence(name)} is ${answer}`,
    before: { [fact]: pump.facts[fact] ?? '' },
    after: { [fact]: answer },
  })
}

/**
 * Says or corrects what is known of a unit, on its page.
 *
 * @throws `conflict` where somebody else has said otherwise meanwhile, `invalid` for what the model never asks
 */
export async function sayFact(actor: Actor, input: UnitFactInput): Promise<void> {
  requirePermission(actor, 'fleet.edit')
  const { assemblyId, fact, answer, before } = check(unitFactSchema, input)
  await write(async () => {
    const pump = await assemblies.byId(assemblyId)
    if (!pump) throw notFound('This pump')
    const asked = (await factsOf(actor, assemblyId)).find(({ key }) => key === fact)
    if (!asked?.answers.includes(answer)) throw invalid({ answer: 'Its model never asks this.' })
    if (asked.from === 'machine') throw conflict('Its machine says what drives it: change it there.')
    if ((pump.facts[fact] ?? '') !== before)
      throw conflict(`Somebody has said meanwhile: ${pump.facts[fact]}. Look at it again.`)
    await learnFact(actor, { assemblyId, fact, answer })
  })
}
