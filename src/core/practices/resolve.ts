import { practiceOf, type PracticeKey, type Treats } from './catalogue'

/** What stands on the label of the product that a company uses: what is put on, how much, and its times. */
export type Product = Omit<Treats, 'kind'>

/** A company's choice, with the reason it gave and, where it puts something on a thread, the product. */
export type Choice = { choice: string; reason: string; product?: Product | null }

/** What the company chose, and what it chose otherwise for single models, by "Maker Name". */
export type CompanyPractices = {
  company: Partial<Record<PracticeKey, Choice>>
  models: Record<string, Partial<Record<PracticeKey, Choice>>>
}

export const noPractices: CompanyPractices = { company: {}, models: {} }

/** What a maker's manual says on a practice. */
export type ManualWord = { practice: PracticeKey; choice: string; source: string }

export type ResolvedPractice = {
  key: PracticeKey
  choice: string
  from: 'manual' | 'model' | 'company' | 'default'
  /** The manual's page, the company's reason, or the default's own. */
  because: string
  /** What the company would have chosen, where the manual says otherwise. */
  overruled: string | null
  /** What this choice puts on a thread; null where it puts nothing there or leaves it to the manual. */
  treats: Treats | null
}

/**
 * What is done on one practice for one model: the manual wins over the company's choice for this model,
 * that over its choice for all, that over the default.
 *
 * @param title "Maker Name"
 * @example resolvePractice('stripOrder', { title: 'Tarnwick K4', manual: [{ practice: 'stripOrder', choice: 'oneAtATime', source: 'page 9' }] }, noPractices)
 * // { choice: 'oneAtATime', from: 'manual', because: 'page 9', overruled: 'itemByItem' … }
 */
export function resolvePractice(
  key: PracticeKey,
  { title, manual }: { title: string; manual: ManualWord[] },
  chosen: CompanyPractices,
): ResolvedPractice {
  const [byDefault] = practiceOf(key).choices
  const forModel = chosen.models[title]?.[key]
  const own = forModel ?? chosen.company[key]
  const ownChoice = own?.choice ?? byDefault!.key
  const treats = (choice: string, product: Product | null | undefined): Treats | null => {
    const usual = practiceOf(key).choices.find((each) => each.key === choice)?.treats
    return usual ? { ...usual, ...product } : null
  }
  const says = manual.find((word) => word.practice === key)
  if (says) {
    return {
      key,
      choice: says.choice,
      from: 'manual',
      because: says.source,
      overruled: own && ownChoice !== says.choice ? ownChoice : null,
      treats: treats(says.choice, null),
    }
  }
  return {
    key,
    choice: ownChoice,
    from: forModel ? 'model' : own ? 'company' : 'default',
    because: own?.reason || (practiceOf(key).choices.find((each) => each.key === ownChoice)?.reason ?? ''),
    overruled: null,
    treats: treats(ownChoice, own?.product),
  }
}
