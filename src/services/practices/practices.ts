import 'server-only'
import { v7 as uuid } from 'uuid'
import {
  choiceName,
  practiceOf,
  practices,
  type CompanyPractices,
  type ChosenView,
  type PracticesPage,
  practiceSchema,
  type PracticeInput,
} from '@/core/practices'
import { conflict, notFound, check } from '@/core/problem'
import { titleOf } from '@/core/models'
import { kept, write } from '@/db/house'
import { people } from '@/db/access'
import { practiceChoices, type PracticeChoiceRow } from '@/db/practices'
import { pumpModels, pumpModelVersions } from '@/db/models'
import { requirePermission, type Actor, recordChange, now, ourCompany, dayOf } from '../house'

/** What the company chose where good workshops differ, for composing. */
export function companyPractices(): Promise<CompanyPractices> {
  return kept('practices', async () => {
    const [rows, models] = await Promise.all([practiceChoices.every(), pumpModels.every()])
    const chosen: CompanyPractices = { company: {}, models: {} }
    for (const { practice, modelId, choice, reason, product } of rows) {
      const model = models.find((each) => each.id === modelId)
      if (modelId !== null && !model) continue
      const list = model ? (chosen.models[titleOf(model)] ??= {}) : chosen.company
      list[practice] = { choice, reason, product }
    }
    return chosen
  })
}

/** Every practice with what the company chose, where it chose otherwise, and where a manual says so. */
export async function getPractices(_actor: Actor): Promise<PracticesPage> {
  const [rows, models, versions, names, company] = await Promise.all([
    practiceChoices.every(),
    pumpModels.all({}, [
      ['maker', 'ASC'],
      ['name', 'ASC'],
    ]),
    pumpModelVersions.all({}, [['version', 'ASC']]),
    people.every(),
    ourCompany(),
  ])
  const newest = new Map(versions.map((version) => [version.modelId, version.data]))
  const asChosen = (row: PracticeChoiceRow): ChosenView => ({
    choice: row.choice,
    reason: row.reason,
    product: row.product,
    by: names.find((person) => person.id === row.decidedById)?.name ?? '',
    day: dayOf(row.decidedAt, company.timeZone),
    version: row.version,
  })
  return {
    models: models.map((model) => ({ value: model.id, label: titleOf(model) })),
    practices: practices.map((practice) => {
      const own = rows.filter((row) => row.practice === practice.key)
      const forAll = own.find((row) => row.modelId === null)
      return {
        ...practice,
        choices: practice.choices.map((choice) => ({ ...choice })),
        chosen: forAll ? asChosen(forAll) : null,
        overrides: own.flatMap((row) => {
          const model = models.find((each) => each.id === row.modelId)
          return model ? [{ ...asChosen(row), modelId: model.id, model: titleOf(model) }] : []
        }),
        manuals: models.flatMap((model) =>
          (newest.get(model.id)?.manual ?? [])
            .filter((word) => word.practice === practice.key)
            .map(({ choice, source }) => ({ model: titleOf(model), choice, source })),
        ),
      }
    }),
  }
}

/**
 * Chooses a practice for all models or for one, or takes the choice for one model away again. Sheets that
 * are open keep what they were composed with.
 *
 * @throws `conflict` where somebody else chose meanwhile
 */
export async function choosePractice(actor: Actor, input: PracticeInput): Promise<void> {
  requirePermission(actor, 'models.edit')
  const { practice, modelId, choice, reason, product = null, version } = check(practiceSchema, input)
  await write(async () => {
    const model = modelId === null ? null : await pumpModels.byId(modelId)
    if (modelId !== null && !model) throw notFound('This pump model')
    const row = await practiceChoices.find({ practice, modelId })
    if ((row?.version ?? 0) !== version)
      throw conflict('Somebody chose here meanwhile. Look at it again; nothing of yours is saved yet.')
    const name = practiceOf(practice).name
    const where = model ? ` for ${titleOf(model)}` : ''
    const saved = {
      practice,
      modelId,
      choice: choice ?? '',
      reason,
      product,
      decidedAt: now(),
      decidedById: actor.id,
      version: version + 1,
    }
    const id = row?.id ?? uuid()
    if (choice === null) {
      if (!row) return
      await practiceChoices.remove({ id })
    } else if (row) await practiceChoices.update({ id }, saved)
    else await practiceChoices.insert({ id, ...saved })
    await recordChange(actor, {
      entity: 'practice',
      entityId: id,
      entityVersion: saved.version,
      action: 'chosen',
      summary:
        choice === null
          ? `${name}${where}: as for all models again`
          : `${name}${where}: ${choiceName(practice, choice).toLowerCase()}`,
      reason,
      before: row ?? undefined,
      after: choice === null ? undefined : { ...saved },
    })
  })
}
