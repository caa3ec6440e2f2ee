import { addDays, showDay } from '../calendar'
import { qualificationNames, type Qualification } from '../models'
import type { Fleet } from './fleet'

/** Why the planner left something out, with days, machines, tools and parts as people name them. */
export function reasonWords(
  reason: string,
  { today, machines, tools, stock, terms }: Pick<Fleet, 'today' | 'machines' | 'tools' | 'stock' | 'terms'>,
): string {
  const skills = /^Nobody has (.+)\.$/.exec(reason)?.[1]?.split(' and ')
  if (skills)
    return `Nobody is ${skills.map((skill) => qualificationNames[skill as Qualification] ?? skill).join(' and ')}.`
  const names = [
    ...machines.map(({ id, number }) => [id, number] as const),
    ...tools.map(({ id, name }) => [id, name] as const),
    ...stock.map(({ part, name }) => [part, name ?? 'a part'] as const),
    ...terms.benches.map(({ yardId }) => [yardId, 'Its yard'] as const),
  ]
  const dated = reason.replace(
    /\bday (-?\d+)( to (-?\d+))?/g,
    (_all, from: string, _to: string, to?: string) => {
      const name = (number: string) => showDay(addDays(today, Number(number)), today)
      return to === undefined ? name(from) : `${name(from)} to ${name(to)}`
    },
  )
  return names.reduce((words, [id, name]) => words.replaceAll(id, name), dated)
}
