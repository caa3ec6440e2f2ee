import 'server-only'
import type { WearRules } from '@/core/wear'
import { derived } from '@/db/house'
import { duties, limitOverrides } from '@/db/wear'

/** What some assemblies go by beside their models; each one's is the same object until it is written anew. */
export async function loadRules(assemblyIds: string[]): Promise<(assemblyId: string) => WearRules> {
  const [overridesOf, dutiesOf] = await Promise.all([
    limitOverrides.everyOf(assemblyIds),
    duties.everyOf(assemblyIds),
  ])
  return (assemblyId) => {
    const overrides = overridesOf.get(assemblyId) ?? none
    const own = dutiesOf.get(assemblyId) ?? none
    return derived(`rules ${assemblyId}`, [overrides, own], () => ({
      overrides: overrides.filter(stands),
      duties: own.filter(stands),
    }))
  }
}

const stands = (row: { status: string }) => row.status === 'active'

const none: never[] = []
