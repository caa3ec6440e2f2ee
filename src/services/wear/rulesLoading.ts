import 'server-only'
import { noRules, type WearRules } from '@/core/wear'
import { duties, limitOverrides } from '@/db/wear'
import { groupBy } from '../house'

/** What assemblies go by beside their models, from two queries. All of them when none are named. */
export async function loadRules(assemblyIds?: string[]): Promise<(assemblyId: string) => WearRules> {
  const which = { status: 'active' as const, ...(assemblyIds ? { assemblyId: assemblyIds } : {}) }
  const [overrideRows, dutyRows] = await Promise.all([limitOverrides.all(which), duties.all(which)])
  const overridesOf = groupBy(overrideRows, (row) => row.assemblyId)
  const dutiesOf = groupBy(dutyRows, (row) => row.assemblyId)
  return (assemblyId) => {
    const overrides = overridesOf.get(assemblyId)
    const own = dutiesOf.get(assemblyId)
    return overrides || own ? { overrides: overrides ?? [], duties: own ?? [] } : noRules
  }
}
