import { composeSheet } from '@/core/composing'
import { allPositions, checkModel, parsePumpModel, positionName } from '@/core/models'
import { triplex } from '../composing/models'
import { axial, builtIn, chemical, intensifier, process } from './excerpts'

const composed = (data: object, task: string, ...positions: string[]) =>
  composeSheet({ assemblies: [{ id: 'P-1', model: parsePumpModel(data), tasks: [{ task, positions }] }] })
const stepOf = (sheet: ReturnType<typeof composed>, key: string) =>
  sheet.steps.find(({ step }) => step.key === key)!.step
const needs = (sheet: ReturnType<typeof composed>) =>
  Object.fromEntries(sheet.parts.map(({ part, quantity }) => [part, quantity]))

test('built-in accessories: the inlet valve lies under the seal, which is renewed with it', () => {
  const sheet = composed(builtIn, 'inletValves', 'inletValve@2')
  expect(sheet.opened).toEqual(['manifold', 'sealOut@2'])
  expect(needs(sheet)).toEqual({ valve: 1, seal: 1 })
  expect(stepOf(composed(builtIn, 'injector', 'injector'), 'fit').orientation).toEqual({
    face: 'taper',
    towards: 'pump',
  })
  const start = composed(builtIn, 'startAssist', 'startBall').steps.map(({ step }) => step.key)
  expect(start.slice(start.indexOf('ball'), start.indexOf('ball') + 2)).toEqual(['ball', 'spring'])
  expect(start.indexOf('note')).toBeLessThan(start.indexOf('back'))
  expect(start).toContain('free')
})

test('heavy process triplex: four chevrons a cylinder, the head lifted by two, two stages in a diagonal', () => {
  const sheet = composed(process, 'packings', 'packing@1', 'packing@2')
  expect(needs(sheet)).toEqual({ chevron: 8, gasket: 1 })
  expect(stepOf(sheet, 'lift')).toMatchObject({ people: 2, lift: '60 kg, or a hoist' })
  expect(sheet.fasteners[0]!.order).toEqual(['1', '3', '2', '4'])
  expect(
    sheet.steps.filter(({ step }) => step.fastener === 'headBolt').map(({ step }) => step.stage),
  ).toEqual([1, 2])
  const stack = composed(process, 'suction', 'suctionValve@3')
  expect(stack.steps.flatMap(({ step }) => step.temporary?.goes ?? [])).toEqual(['in', 'out'])
  expect(stepOf(stack, 'countBack').text).toContain('Valve')
})

test('small axial pump: turned while it is drawn together, oil to a height above the swash plate', () => {
  const sheet = composed(axial, 'oilSeals', 'oilSeal@1')
  expect(stepOf(sheet, 'turn').withNext).toBe(true)
  expect(stepOf(sheet, 'draw').undo).toContain('loosen')
  expect(sheet.cautions.map(({ words }) => words)).toContain('Springs under load: never one bolt alone.')
  expect(stepOf(composed(axial, 'oil', 'oil'), 'level').measure).toMatchObject({
    min: 10,
    max: 14,
    unit: 'mm',
  })
  expect(parsePumpModel(axial).fluids[0]).toMatchObject({
    litres: 0.14,
    level: '12 mm above the swash plate',
  })
})

test('intensifier: counted in strokes, ends by name, weep holes in drips a minute', () => {
  const model = parsePumpModel(intensifier)
  expect(model.usage).toBe('strokes')
  expect(positionName(model, 'hpSeal@2')).toBe('High-pressure seal, right end')
  const weep = composed(intensifier, 'weep', 'hpSeal@1', 'hpSeal@2')
  expect(weep.opened).toEqual([])
  expect(weep.steps.filter(({ step }) => step.measure?.unit === 'drips/min')).toHaveLength(2)
  expect(stepOf(composed(intensifier, 'hpSeals', 'hpSeal@1'), 'zero')).toMatchObject({ gate: true })
  expect(checkModel(model).map(({ words }) => words)).toContain('No task renews “Bleed-down valve”.')
})

test('chemical pump beside a triplex: made safe once, and its own caution is not lost', () => {
  const model = parsePumpModel(chemical)
  const sheet = composeSheet({
    assemblies: [
      { id: 'P-1', model: triplex, tasks: [{ task: 'oilChange', positions: ['oil'] }] },
      { id: 'P-2', model, tasks: [{ task: 'diaphragms', positions: ['diaphragm@1'] }] },
    ],
  })
  const safe = sheet.steps.filter(({ phase }) => phase === 'makeSafe').map(({ step }) => step.key)
  expect(safe).toEqual([
    'drive',
    'lockOut',
    'ignition',
    'relieve',
    'cool',
    'drained',
    'turnPetrol',
    'turnDiesel',
    'turnElectric',
    'board',
    'rinse',
  ])
  expect(sheet.cautions.map(({ words }) => words).join()).toContain('Hypochlorite never meets acid')
  expect(stepOf(sheet, 'suit').when).toEqual({ question: 'swollen', is: 'swollen or sticky' })
  expect(
    checkModel(model)
      .filter(({ kind }) => kind === 'doubt')
      .map(({ path, words }) => [path, words]),
  ).toEqual([['parts.0', 'Diaphragm: EPDM on page 2, FKM on page 6.']])
  expect(allPositions(model)).toEqual(['diaphragm@1', 'diaphragm@2', 'strainer'])
})
