import 'server-only'
import type { DateOrder } from '@/core/calendar'
import { companySchema, type CompanyInput } from '@/core/house'
import { notFound, check } from '@/core/problem'
import type { UnitPreferences } from '@/core/units'
import { write, companies, type CompanyRow } from '@/db/house'
import { requirePermission, type Actor } from './actor'
import { now } from './clock'
import { dayOf, timeOf } from './days'
import { editRow } from './edit'

/** What every page needs to know of its company. */
export type Company = {
  id: string
  name: string
  timeZone: string
  currency: string
  dateOrder: DateOrder
  units: UnitPreferences
  noticeDays: number
  earlyCheckHours: number
  version: number
}

export async function findCompany(): Promise<Company | null> {
  const [row] = await companies.every()
  return row ? asCompany(row) : null
}

export async function getCompany(_actor: Actor): Promise<Company> {
  return ourCompany()
}

/** The company, for services that already know their actor. */
export async function ourCompany(): Promise<Company> {
  const company = await findCompany()
  if (!company) throw notFound('The company')
  return company
}

/** Today and the time now, on the company's clocks. */
export function present(company: { timeZone: string }): { instant: string; today: string; time: string } {
  const instant = now()
  return { instant, today: dayOf(instant, company.timeZone), time: timeOf(instant, company.timeZone) }
}

export async function saveCompany(actor: Actor, input: CompanyInput): Promise<void> {
  requirePermission(actor, 'company.edit')
  const { version, ...values } = check(companySchema, input)
  await write(async () => {
    const { id } = await ourCompany()
    await editRow(
      actor,
      companies,
      { entity: 'company', name: 'the company’s settings' },
      { id, version: version! },
      values,
      {
        action: 'changed',
        summary: 'Company settings changed',
      },
    )
  })
}

function asCompany(row: CompanyRow): Company {
  const { createdAt: _createdAt, ...company } = row
  return company
}
