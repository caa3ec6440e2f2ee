import { readFileSync } from 'node:fs'
import { composeSheet, type ChosenTask, type ComposedSheet } from '@/core/composing'
import { noPractices, type CompanyPractices, type PracticeKey } from '@/core/practices'
import { allPositions, modelForSize, parsePumpModel, splitInstance, type PumpModel } from '@/core/models'

const read = (file: string): PumpModel =>
  parsePumpModel(JSON.parse(readFileSync(`src/demo/models/${file}.json`, 'utf8')))

export const triplex = read('ostrel-p3-200')
export const plateFamily = read('ostrel-p3-500')
export const plates = modelForSize(plateFamily, 's500')
export const opposed = read('tarnwick-k4')
export const diaphragm = read('quillon-d35')
export const unloader = read('quillon-u20')
export const wetLine = read('ostrel-wl2')
export const builtIn = read('tarnwick-c5')
export const axial = read('quillon-x2')
export const petrol = read('vardle-p9')
export const diesel = read('vardle-d22')
export const motor = read('vardle-m15')
export const burner = read('ostrel-hb90')
export const everyModel = [
  triplex,
  plates,
  opposed,
  diaphragm,
  unloader,
  wetLine,
  builtIn,
  axial,
  petrol,
  diesel,
  motor,
  burner,
]

/** A task on all its positions, or on some indices of them. */
export function on(model: PumpModel, task: string, ...indices: number[]): ChosenTask {
  const keys = model.tasks.find((each) => each.key === task)!.positions
  const positions = allPositions(model).filter((position) => {
    const { key, index } = splitInstance(position)
    return keys.includes(key) && (indices.length === 0 || index === null || indices.includes(index))
  })
  return { task, positions }
}

export function chosen(...choices: [PracticeKey, string][]): CompanyPractices {
  return {
    ...noPractices,
    company: Object.fromEntries(choices.map(([key, choice]) => [key, { choice, reason: 'ours' }])),
  }
}

export function compose(model: PumpModel, tasks: ChosenTask[], practices = noPractices): ComposedSheet {
  return composeSheet({ assemblies: [{ id: 'P-1', model, tasks }] }, practices)
}

/** Part and quantity. */
export const needs = (sheet: ComposedSheet) =>
  Object.fromEntries(sheet.parts.map(({ part, quantity }) => [part, quantity]))

/** Step keys as "heading, where: key" of some phases, for reading an order. */
export function told(sheet: ComposedSheet, ...phases: string[]): string[] {
  return sheet.steps
    .filter(({ phase }) => phases.length === 0 || phases.includes(phase))
    .map(({ heading, where, step }) => `${where ? `${heading}, ${where}` : heading}: ${step.key}`)
}

/** Which way what is fitted faces: "hpSeal lip pressure". */
export const facing = (sheet: ComposedSheet) =>
  [
    ...new Set(
      sheet.steps.flatMap(({ phase, step: { part, orientation } }) =>
        orientation && part && (phase === 'renew' || phase === 'rebuild')
          ? [`${part} ${orientation.face} ${orientation.towards}`]
          : [],
      ),
    ),
  ].sort()

/** Temporary tools in the order in which they go in and come out. */
export const temporary = (sheet: ComposedSheet) =>
  sheet.steps.flatMap(({ step }) => (step.temporary ? [`${step.temporary.tool} ${step.temporary.goes}`] : []))
