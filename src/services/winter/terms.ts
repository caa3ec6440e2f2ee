import 'server-only'
import { check, invalid } from '@/core/problem'
import { readMoney } from '@/core/units'
import {
  usualAlarmC,
  usualRates,
  winterTermsSchema,
  type WinterRates,
  type WinterTermsInput,
} from '@/core/winter'
import { write } from '@/db/house'
import { winterTerms, type TermsValues } from '@/db/winter'
import { editRow, now, recordChange, requirePermission, type Actor } from '../house'

const only = 'terms'

/** How the company goes about its winter until it says otherwise; all of it ours. */
const usualTerms: TermsValues = {
  productId: null,
  riskPercent: 5,
  marginC: usualRates.marginC,
  runOnPercent: usualRates.runOn * 100,
  hourCents: usualRates.hourCents,
  protectorCents: usualRates.protectorCents,
  refillable: false,
  alarmC: usualAlarmC,
  weatherUrl: '',
  crews: [],
}

export type Terms = TermsValues & { version: number | null }

export async function loadTerms(): Promise<Terms> {
  const [row] = await winterTerms.every()
  return { ...usualTerms, ...row?.values, version: row?.version ?? null }
}

export const ratesOf = (terms: TermsValues): WinterRates => ({
  hourCents: terms.hourCents,
  protectorCents: terms.protectorCents,
  refillable: terms.refillable,
  marginC: terms.marginC,
  runOn: terms.runOnPercent / 100,
})

/** Of a yard without a word: one person, half a day, Monday to Friday. Ours. */
export const crewOf = (terms: TermsValues, yardId: string) =>
  terms.crews.find((crew) => crew.yardId === yardId) ?? {
    yardId,
    people: 1,
    minutes: 240,
    days: [1, 2, 3, 4, 5],
  }

/** The terms as a form holds them. */
export async function getTerms(_actor: Actor): Promise<WinterTermsInput> {
  const { version, hourCents, protectorCents, ...terms } = await loadTerms()
  return {
    ...terms,
    ...(version !== null && { version }),
    hourCost: (hourCents / 100).toFixed(2),
    protectorCost: (protectorCents / 100).toFixed(2),
  }
}

export async function saveTerms(actor: Actor, input: WinterTermsInput): Promise<void> {
  requirePermission(actor, 'company.edit')
  const { version, hourCost, protectorCost, ...rest } = check(winterTermsSchema, input)
  const money = (field: string, typed: unknown) => {
    const read = readMoney(String(typed ?? ''))
    if (!read.ok) throw invalid({ [field]: read.reason })
    return read.cents
  }
  const values: TermsValues = {
    ...rest,
    hourCents: money('hourCost', hourCost),
    protectorCents: money('protectorCost', protectorCost),
  }
  await write(async () => {
    const row = await winterTerms.byId(only)
    const what = { entity: 'winterTerms', name: 'the winter terms' }
    if (row) {
      await editRow(
        actor,
        winterTerms,
        what,
        { id: only, version: version ?? 0 },
        { values, recordedAt: now() },
        { action: 'changed', summary: 'Terms of the winter changed' },
      )
      return
    }
    await winterTerms.insert({ id: only, values, recordedAt: now(), version: 1 })
    await recordChange(actor, {
      entity: what.entity,
      entityId: only,
      entityVersion: 1,
      action: 'changed',
      summary: 'Terms of the winter set',
      after: values,
    })
  })
}
