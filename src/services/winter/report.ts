import 'server-only'
import { zoneNames, zonesOf, type SeasonLine, type SeasonReport } from '@/core/winter'
import { dayOf, ourCompany, present, type Actor } from '../house'
import { loadMachines } from './plans'
import { loadStandings } from './standings'

/** What became of the season, zone by zone: done, when, by whom, litres, proof, what is open, what froze. */
export async function seasonReport(_actor: Actor): Promise<SeasonReport> {
  const [{ machines: list }, company] = await Promise.all([loadMachines(), ourCompany()])
  const standings = await loadStandings(list)
  const lines = list.flatMap(({ machine, circuit, frost, methods, plan }) => {
    const standing = standings.get(machine.id)!
    return zonesOf(circuit).map((zone, at): SeasonLine => {
      const { state, protection, proof, says } = standing.zones[zone]!
      const planned = plan.zones.find((each) => each.zone === zone)!
      return {
        number: machine.number,
        name: machine.name,
        yard: frost?.yard.name ?? '',
        zone: zoneNames[zone],
        method: methods[zone]?.method ?? planned.method,
        done: protection?.method ?? '',
        state,
        day: protection ? dayOf(protection.at, company.timeZone) : null,
        by: protection?.by ?? '',
        litres: protection?.litres ?? null,
        downToC: protection?.downToC ?? null,
        proof: proof ? `${proof.passed ? 'passed' : 'failed'}: ${proof.says}` : '',
        provedOn: proof ? dayOf(proof.at, company.timeZone) : null,
        cents: protection ? planned.cents : 0,
        says,
        damage: standing.damage
          .filter((each) => each.zone === zone || (each.zone === '' && at === 0))
          .map((each) => `${dayOf(each.at, company.timeZone)}: ${each.says} (${each.method || 'nothing'})`)
          .join('; '),
      }
    })
  })
  return { today: present(company).today, currency: company.currency, lines }
}
