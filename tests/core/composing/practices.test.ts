import { noPractices, practices, resolvePractice } from '@/core/practices'
import { usualPath, usualPositions } from '@/core/composing'
import { eachStep } from '@/core/models'
import { chosen, compose, everyModel, needs, on, opposed, triplex } from './models'

const seals = [on(triplex, 'hpSeals', 1)]
const keysOf = (sheet: ReturnType<typeof compose>) => sheet.steps.map(({ step }) => step.key)

test('the manual wins over the model’s override, that over the company, that over the default', () => {
  const about = { title: 'Ostrel P3-200', manual: [] }
  expect(resolvePractice('headOff', about, noPractices)).toMatchObject({ choice: 'prised', from: 'default' })
  const company = chosen(['headOff', 'tapped'])
  expect(resolvePractice('headOff', about, company)).toMatchObject({
    choice: 'tapped',
    from: 'company',
    because: 'ours',
  })
  const both = { ...company, models: { 'Ostrel P3-200': { headOff: { choice: 'prised', reason: 'light' } } } }
  expect(resolvePractice('headOff', about, both)).toMatchObject({ choice: 'prised', from: 'model' })
  expect(resolvePractice('headOff', { ...about, title: 'Other' }, both)).toMatchObject({ from: 'company' })
  const manual = [{ practice: 'headOff' as const, choice: 'prised', source: 'page 3' }]
  expect(resolvePractice('headOff', { ...about, manual }, company)).toEqual({
    key: 'headOff',
    choice: 'prised',
    from: 'manual',
    because: 'page 3',
    overruled: 'tapped',
    treats: null,
  })
})

const changes: [practice: Parameters<typeof chosen>[0], gone: string[], come: string[]][] = [
  [['headOff', 'tapped'], ['prise'], ['tap']],
  [
    ['guidePins', 'without'],
    ['pins', 'pinsBack', 'slide', 'snug', 'pinsOut', 'snugPinned'],
    ['lastTwo', 'slideFree', 'snugAll'],
  ],
  [['crankToRefit', 'centreOut'], ['crankOuter'], ['crankCentre']],
  [['sealFitting', 'driven'], ['fit'], ['fitDriven']],
  [['sealFitting', 'hotWater'], ['fit'], ['soften', 'fitSoft']],
  [['powerTools', 'runDown'], [], ['runDown']],
  [['powerTools', 'never'], ['runOut'], ['screws']],
  [['benchOrPlace', 'onBench'], [], ['lines', 'lift', 'seat']],
]
test.each(changes)('%j changes the sheet', (choice, gone, come) => {
  const [before, after] = [keysOf(compose(triplex, seals)), keysOf(compose(triplex, seals, chosen(choice)))]
  expect(before).toEqual(expect.arrayContaining(gone))
  expect(after).toEqual(expect.arrayContaining(come))
  expect([...new Set(before.filter((key) => !after.includes(key)))].sort()).toEqual([...gone].sort())
  expect([...new Set(after.filter((key) => !before.includes(key)))].sort()).toEqual([...come].sort())
})

test('cap O-rings on condition are looked at, and go along instead of being used up', () => {
  const valve = [on(triplex, 'outletValves', 1)]
  expect(needs(compose(triplex, valve))).toEqual({ valve: 1, capOring: 1 })
  const sheet = compose(triplex, valve, chosen(['capOrings', 'onCondition']))
  expect(needs(sheet)).toEqual({ valve: 1 })
  expect(sheet.spares.map(({ part }) => part)).toEqual(['capOring'])
  expect(keysOf(sheet)).toContain('lookOring')
})

test('a treatment that the manual states is kept, and the sheet says whose choice is not followed', () => {
  const sheet = compose(triplex, seals, chosen(['headBoltThreads', 'threadlocker']))
  const screws = sheet.fasteners.find(({ fastener }) => fastener.key === 'manifoldScrew')!
  expect(screws.fastener.treatment.kind).toBe('threadLubricant')
  expect(screws.notes.join()).toContain(
    'The manual states thread lubricant; the company’s threadlocker is not used here',
  )
  expect(sheet.practices.find(({ key }) => key === 'headBoltThreads')).toMatchObject({
    from: 'manual',
    overruled: 'threadlocker',
  })
})

test('where the manual states none, the practice is used and the torque is marked: never a silent conversion', () => {
  const valve = [on(triplex, 'outletValves', 1)]
  const cap = (sheet: ReturnType<typeof compose>) =>
    sheet.fasteners.find(({ fastener }) => fastener.key === 'valveCap')!
  expect(cap(compose(triplex, valve)).fastener.treatment.kind).toBe('none')
  const sealed = compose(triplex, valve, chosen(['capThreads', 'sealant']))
  expect(cap(sealed).fastener.treatment.kind).toBe('sealant')
  expect(cap(sealed).fastener.torque).toEqual(triplex.fasteners[1]!.torque)
  expect(cap(sealed).notes.join()).toContain('pulls differently')
  expect(keysOf(sealed)).toContain('cleanThreads')
})

test('an order that the manual leaves open is the company’s, with or without the first one again', () => {
  const work = [on(opposed, 'inletValves', 1)]
  const bolts = (...choice: Parameters<typeof chosen>) =>
    compose(opposed, work, chosen(...choice)).fasteners.find(
      ({ fastener }) => fastener.key === 'inletManifoldBolt',
    )!.order
  // Two rows of three, 40 mm apart, numbered along the rows.
  expect(bolts().slice(0, 2)).toEqual(['2', '5'])
  expect(bolts(['tighteningOrder', 'asNumbered'])).toEqual(['1', '2', '3', '4', '5', '6'])
  expect(bolts(['tighteningOrder', 'asNumbered'], ['retapFirst', 'yes'])).toEqual([
    '1',
    '2',
    '3',
    '4',
    '5',
    '6',
    '1',
  ])
})

test('opposite treatments in one job are a caution, and so is each on its own not', () => {
  const caution = (sheet: ReturnType<typeof compose>) =>
    sheet.cautions.some(({ words }) => words.startsWith('Two opposite treatments'))
  expect(caution(compose(triplex, seals))).toBe(false)
  expect(caution(compose(triplex, [on(triplex, 'plungers', 1)]))).toBe(true)
})

test('how much is renewed: all of an item, or only what is due where the company keeps single clocks', () => {
  const task = triplex.tasks.find(({ key }) => key === 'hpSeals')!
  const all = ['hpSeal@1', 'hpSeal@2', 'hpSeal@3']
  const failedOnly = chosen(['howMuch', 'failedOnly'])
  expect(usualPositions(triplex, task, ['hpSeal@2'], noPractices)).toEqual(all)
  expect(usualPositions(triplex, task, ['hpSeal@2', 'lpSeal@1'], failedOnly)).toEqual(['hpSeal@2'])
  // Nothing of it is due: whoever chooses it all the same means all of it.
  expect(usualPositions(triplex, task, [], failedOnly)).toEqual(all)
})

test('the usual way of a task is that of the practice, and the first where none is named', () => {
  const valves = triplex.tasks.find(({ key }) => key === 'outletValves')!
  expect(usualPath(triplex, valves, noPractices)).toBe('swap')
  expect(usualPath(triplex, valves, chosen(['goodValves', 'inspect']))).toBe('strip')
  expect(
    usualPath(
      triplex,
      triplex.tasks.find(({ key }) => key === 'hpSeals')!,
      noPractices,
    ),
  ).toBe('')
})

test('every practice makes a difference somewhere in the shipped models', () => {
  // The winter's are no step of a model: the winter sheet is composed by them.
  const ofWinter = practices.map(({ key }) => key).filter((key) => key.startsWith('winter'))
  const said = new Set<string>(['stripOrder', 'tighteningOrder', 'retapFirst', 'howMuch', ...ofWinter])
  for (const model of everyModel) {
    for (const { step } of eachStep(model)) if (step.practice) said.add(step.practice.key)
    for (const { treatedBy } of model.fasteners) if (treatedBy) said.add(treatedBy)
    for (const node of model.access) {
      if (node.practice) said.add(node.practice.key)
      for (const { practice } of node.consumes) if (practice) said.add(practice)
    }
    for (const { paths } of model.tasks)
      for (const { practice } of paths) if (practice) said.add(practice.key)
  }
  expect(practices.map(({ key }) => key).filter((key) => !said.has(key))).toEqual([])
})
