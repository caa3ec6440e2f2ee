import type { SheetState } from '../state'

/** What was found out on a unit while its sheet was worked: it is kept with the unit and asked no more. */
export function foundFacts(state: SheetState): { assemblyId: string; fact: string; answer: string }[] {
  return state.steps.flatMap(({ step, by }) => {
    const [assemblyId, place, fact] = step.key.split('/')
    if (place !== 'facts' || by?.kind !== 'done' || by.payload.answer === '') return []
    return [{ assemblyId: assemblyId!, fact: fact!, answer: by.payload.answer }]
  })
}
