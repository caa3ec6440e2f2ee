import {
  compose,
  diaphragm,
  facing,
  needs,
  on,
  opposed,
  plates,
  temporary,
  told,
  triplex,
  unloader,
  chosen,
  plateFamily,
} from './models'
import { modelForSize } from '@/core/models'

const cylinders = (heading: string, key: string, order = [1, 2, 3]) =>
  order.map((cylinder) => `${heading}, cylinder ${cylinder}: ${key}`)
const names = (sheet: ReturnType<typeof compose>) => sheet.tools.map(({ key }) => key)

describe('compact triplex, seals in the manifold', () => {
  test('seals: manifold on guide pins, stacks in order, retainers built on the bench', () => {
    const sheet = compose(triplex, [on(triplex, 'hpSeals'), on(triplex, 'lpSeals')])
    expect(needs(sheet)).toEqual({ hpSeal: 3, lpSeal: 3, retainerOring: 3 })
    expect(facing(sheet)).toEqual(['hpSeal lip pressure', 'lpSeal lip pressure', 'retainer groove crankcase'])
    expect(temporary(sheet)).toEqual(['guidePins in', 'guidePins out'])
    // Each stack is counted back, its retainer built, then fitted as one; the last stack opened closes first.
    expect(told(sheet, 'rebuild').filter((each) => each.startsWith('Seal stack'))).toEqual(
      [3, 2, 1].flatMap((cylinder) =>
        ['countBack', 'oring', 'retainer'].map((key) => `Seal stack out, cylinder ${cylinder}: ${key}`),
      ),
    )
    const close = told(sheet, 'rebuild').filter((each) => each.startsWith('Manifold off'))
    expect(close.map((each) => each.split(': ')[1])).toEqual([
      'cleanFaces',
      'crankOuter',
      'pinsBack',
      'slide',
      'pinsOut',
      'stage1',
      'stage2',
    ])
    // 8 screws in two stages, crossed from the middle: numbered as the plate is drawn.
    const [screws] = sheet.fasteners.filter(({ fastener }) => fastener.key === 'manifoldScrew')
    expect(screws!.order).toEqual(['1', '2', '3', '4', '5', '6', '7', '8'])
    expect(names(sheet)).toEqual(expect.arrayContaining(['guidePins', 'sealExtractor', 'wrench']))
    expect(sheet.spares).toEqual([])
  })

  test('valves swapped: six alike from two kits of three; stripped, the life goes on and spares go along', () => {
    const valves = [on(triplex, 'outletValves'), on(triplex, 'inletValves')]
    const swapped = compose(triplex, valves)
    expect(needs(swapped)).toEqual({ valve: 6, capOring: 6 })
    expect(facing(swapped)).toEqual(['valve spring cap'])
    const stripped = compose(triplex, valves, chosen(['goodValves', 'inspect']))
    expect(needs(stripped)).toEqual({ capOring: 6 })
    expect(stripped.spares.map(({ part, quantity }) => [part, quantity])).toEqual([['valve', 6]])
    // Twelve minutes more in all: 6 valves by 9 instead of 3.
    expect(stripped.minutes - swapped.minutes).toBe(6 * (9 - 3))
    expect(stripped.steps.filter(({ step }) => step.asks?.question === 'valveVerdict')).toHaveLength(6)
    // One cap each way of choosing a way explicitly beats the practice.
    const mixed = compose(
      triplex,
      [{ ...on(triplex, 'outletValves'), path: 'swap' }, on(triplex, 'inletValves')],
      chosen(['goodValves', 'inspect']),
    )
    expect(needs(mixed)).toEqual({ valve: 3, capOring: 6 })
  })

  test('plungers: old locker off both threads before the drop, cured before pressure', () => {
    const sheet = compose(triplex, [on(triplex, 'plungers', 2)])
    expect(needs(sheet)).toEqual({
      retainerOring: 1,
      copperWasher: 1,
      plungerOring: 1,
      locker: 0.1,
      plunger: 1,
    })
    const steps = told(sheet, 'rebuild')
    const at = (key: string) => steps.indexOf(`Plunger off, cylinder 2: ${key}`)
    expect(at('clean')).toBeLessThan(at('torque'))
    expect(sheet.steps.find(({ step }) => step.key === 'cured')?.step.timer).toEqual({
      kind: 'cured',
      minutes: 1440,
    })
    expect(sheet.cautions.some(({ words }) => words.startsWith('Two opposite treatments'))).toBe(true)
    // Drawn with the stack, both seals of cylinder 2 are looked at; new ones go along.
    expect(sheet.spares.map(({ part, quantity }) => [part, quantity])).toEqual([
      ['hpSeal', 1],
      ['lpSeal', 1],
    ])
  })

  test('oil seals face the crankcase and go in before the plungers close them off', () => {
    const sheet = compose(triplex, [on(triplex, 'oilSeals')])
    expect(needs(sheet)).toMatchObject({ oilSeal: 3, copperWasher: 3 })
    expect(facing(sheet)).toContain('oilSeal lip crankcase')
    const all = told(sheet)
    expect(all.indexOf('Renew oil seals, cylinder 3: fit')).toBeLessThan(
      all.indexOf('Plunger off, cylinder 3: clean'),
    )
  })
})

describe('industrial triplex with cartridges and plates', () => {
  test('packings: drawn with puller and collet, facing opposite ways, over a protector that comes out', () => {
    const sheet = compose(plates, [on(plates, 'hpSeals'), on(plates, 'lpSeals')])
    expect(needs(sheet)).toEqual({ hpSeal: 3, lpSeal: 3, cartridgeOring: 3 })
    expect(facing(sheet)).toEqual([
      'cartridge taper crankcase',
      'hpSeal lip pressure',
      'lpSeal lip crankcase',
    ])
    expect(names(sheet)).toEqual(expect.arrayContaining(['puller', 'collet', 'installer', 'sealProtector']))
    expect(temporary(sheet)).toEqual([3, 2, 1].flatMap(() => ['sealProtector in', 'sealProtector out']))
    expect(sheet.steps.filter(({ step }) => step.people === 2).map(({ step }) => step.key)).toEqual([
      'off',
      'on',
    ])
  })

  test('valves: one plate for each side, bolts from the middle outwards, slide hammer for drawing only', () => {
    const outlet = compose(plates, [on(plates, 'outletValves')])
    expect(outlet.opened).toEqual(['topPlate', 'outletValveOut@1', 'outletValveOut@2', 'outletValveOut@3'])
    expect(needs(outlet)).toEqual({ topPlateOring: 3, seatOring: 3, backupRing: 3, valve: 3 })
    expect(facing(outlet)).toEqual(['valve spring cap'])
    const inlet = compose(plates, [on(plates, 'inletValves')])
    expect(inlet.opened[0]).toBe('frontPlate')
    expect(facing(inlet)).toEqual(['valve spring flow'])
    const bolts = outlet.fasteners.find(({ fastener }) => fastener.key === 'topPlateBolt')!
    const far = bolts.order.map((number) => Math.abs(bolts.fastener.layout[Number(number) - 1]!.x))
    expect(far).toEqual([22, 22, 22, 22, 66, 66, 66, 66])
    expect(outlet.tools.find(({ key }) => key === 'slideHammer')).toMatchObject({
      removalOnly: true,
      special: true,
    })
    // A plate has three rings whatever is renewed under it: one cylinder still costs three.
    expect(needs(compose(plates, [on(plates, 'outletValves', 1)]))).toEqual({
      topPlateOring: 3,
      seatOring: 1,
      backupRing: 1,
      valve: 1,
    })
  })

  test('plungers and piston-guide oil seals: washers once, though both tasks need them', () => {
    const both = compose(plates, [on(plates, 'plungers'), on(plates, 'guideSeals')])
    expect(needs(both)).toEqual({ cartridgeOring: 3, copperWasher: 3, locker: 0.3, plunger: 3, guideSeal: 3 })
    expect(facing(both)).toContain('guideSeal spring crankcase')
  })

  test('clutch: set screws each with a tick, pulley puller, centring tool in and out, gap measured', () => {
    const sheet = compose(plates, [on(plates, 'clutchBearing'), on(plates, 'clutchGap')])
    expect(sheet.opened).toEqual(['pulley', 'clutchOpen'])
    expect(told(sheet, 'stripDown')).toEqual([
      'Pulley off: guard',
      'Pulley off, set screw 1: screws',
      'Pulley off, set screw 2: screws',
      'Pulley off: draw',
      'Clutch rotor off: circlip',
    ])
    expect(temporary(sheet)).toEqual(['centringTool in', 'centringTool out'])
    expect(names(sheet)).toContain('pulleyPuller')
    const measured = sheet.steps.flatMap(({ step }) => (step.measure ? [step.measure.what] : []))
    expect(measured).toEqual(['largest gap', 'gap', 'pressure', 'drip rate', 'flow, nozzle off'])
    const screws = sheet.fasteners.find(({ fastener }) => fastener.key === 'clutchScrew')!
    expect(screws.where).toEqual(['set screw 1', 'set screw 2'])
  })

  test('a size of the family differs where it says so, and nowhere else', () => {
    const larger = modelForSize(plateFamily, 's700')
    const torque = (model: typeof plates) =>
      compose(model, [on(model, 'outletValves', 1)]).fasteners[0]!.fastener.torque
    expect(torque(plates)).toMatchObject({ value: 80, stages: [40, 80] })
    expect(torque(larger)).toMatchObject({ value: 110, stages: [55, 110] })
    expect(needs(compose(larger, [on(larger, 'oilChange')]))).toEqual({ oil: 3.4 })
    expect(larger.name).toBe('P3-700')
    expect(told(compose(larger, [on(larger, 'hpSeals')]))).toEqual(
      told(compose(plates, [on(plates, 'hpSeals')])),
    )
  })
})

describe('opposed-head cam pump', () => {
  test('seal rings: one head at a time, each closed and turned before the next is opened', () => {
    const sheet = compose(opposed, [on(opposed, 'sealRings', 1, 2)])
    const places = told(sheet, 'stripDown', 'inspect', 'renew', 'rebuild')
    const head = (number: number) => [
      ...['mark', 'crank', 'bolts', 'out', 'behind'].map((key) => `Head off, head ${number}: ${key}`),
      ...['look', 'fit'].map((key) => `Renew seal rings, head ${number}: ${key}`),
      ...['countBack', 'oring', 'plate', 'pocket', 'on'].map((key) => `Head off, head ${number}: ${key}`),
      ...[1, 2, 3, 4].map((bolt) => `Head off, head ${number}, bolt ${(number - 1) * 4 + bolt}: snug`),
      ...['tight', 'turn'].map((key) => `Head off, head ${number}: ${key}`),
    ]
    expect(places.filter((each) => !each.includes('manifold'))).toEqual([...head(1), ...head(2)])
    expect(needs(sheet)).toEqual({ pocketOring: 8, headOring: 2, sealRing: 2 })
    expect(facing(sheet)).toEqual(['retainingPlate tab slot', 'sealRing cup pressure'])
    const bolts = sheet.fasteners.find(({ fastener }) => fastener.key === 'headBolt')!
    expect(bolts.order).toEqual(['1', '2', '3', '4', '1'])
    expect(bolts.fastener.snugFirst).toBe(true)
    // The manual says so: the company's own way is not asked.
    expect(sheet.practices.find(({ key }) => key === 'stripOrder')).toMatchObject({
      choice: 'oneAtATime',
      from: 'manual',
    })
  })

  test('eight alike valves: four face with the flow and four against it', () => {
    const sheet = compose(opposed, [on(opposed, 'inletValves'), on(opposed, 'outletValves')])
    expect(needs(sheet)).toEqual({ pocketOring: 8, valveOring: 8, valve: 8 })
    const sets = sheet.steps.filter(({ step }) => step.key === 'set')
    const ways = (side: string) =>
      sets.filter(({ key }) => key.includes(`${side}ValveOut`)).map(({ step }) => step.orientation!.towards)
    expect([ways('inlet'), ways('outlet')]).toEqual([
      ['flow', 'flow', 'flow', 'flow'],
      ['againstFlow', 'againstFlow', 'againstFlow', 'againstFlow'],
    ])
    // Only one manifold comes off for one side.
    expect(compose(opposed, [on(opposed, 'inletValves', 3)]).opened).toEqual([
      'inletManifold',
      'inletValveOut@3',
    ])
  })

  test('plungers: drawn through their seal rings, so those are renewed with them', () => {
    const sheet = compose(opposed, [on(opposed, 'plungers', 3)])
    expect(sheet.opened).toEqual(['inletManifold', 'outletManifold', 'head@3', 'plungerOut@3'])
    expect(sheet.implied).toEqual([
      {
        assemblyId: 'P-1',
        task: 'sealRings',
        positions: ['sealRing@3'],
        why: 'the plunger is pulled through its lip',
      },
    ])
    expect(needs(sheet)).toEqual({ pocketOring: 8, headOring: 1, grease: 2, sealRing: 1, plunger: 1 })
    // Chosen anyway, it is neither implied nor counted twice.
    const both = compose(opposed, [on(opposed, 'plungers', 3), on(opposed, 'sealRings', 3)])
    expect([both.implied, needs(both), both.minutes]).toEqual([[], needs(sheet), sheet.minutes])
  })
})

describe('diaphragm pump with hydraulic end', () => {
  test('shaft seals: always both, facing apart, over a sleeve; end play set, settled and measured', () => {
    const sheet = compose(diaphragm, [on(diaphragm, 'shaftSeals')])
    expect(needs(sheet)).toEqual({ coverGasket: 1, shaftSeal: 2, sealGrease: 3 })
    expect(facing(sheet)).toEqual(['shaftSeal lip crankcase', 'shaftSeal lip motor'])
    expect(temporary(sheet)).toEqual([
      'assemblyBolts in',
      'sealSleeve in',
      'sealSleeve out',
      'shaftRotator in',
      'assemblyBolts out',
      'shaftRotator out',
    ])
    const close = told(sheet, 'rebuild').map((each) => each.split(': ')[1]!)
    expect(close.slice(close.indexOf('centreIn'), close.indexOf('play') + 1)).toEqual([
      'centreIn',
      'centreOut',
      'settle',
      'play',
    ])
    expect(sheet.steps.find(({ step }) => step.key === 'play')!.step).toMatchObject({
      gate: true,
      measure: { min: 0.05, max: 0.12, unit: 'mm' },
    })
    // Both housings are said; the answer decides which is done.
    const branches = sheet.steps.flatMap(({ phase, step }) =>
      step.when && phase !== 'prove' ? [`${step.key}: ${[step.when.is].join()}`] : [],
    )
    expect(branches).toEqual([
      'bolts: variant one: bolted',
      'ring: variant two: snap ring',
      'gasketBolts: variant one: bolted',
      'snap: variant two: snap ring',
    ])
    // Proving asks too: what leaks or looks bad afterwards stops it.
    expect(
      sheet.steps.flatMap(({ phase, step }) =>
        step.when && phase === 'prove' ? [`${step.key}: ${step.gate ? 'stops' : 'goes on'}`] : [],
      ),
    ).toEqual(['weepRate: goes on', 'leakStop: stops', 'oilTopUp: goes on', 'oilStop: stops'])
  })

  test('end play alone: opening draws the shaft through its seals, so both are on the list from the start', () => {
    const sheet = compose(diaphragm, [on(diaphragm, 'endPlay')])
    expect(sheet.implied).toMatchObject([{ task: 'shaftSeals', positions: ['shaftSeal'] }])
    expect(needs(sheet)).toEqual({ coverGasket: 1, shaftSeal: 2, sealGrease: 3 })
  })

  test('cell seals behind press-fit plungers: each plunger that is drawn is a new one', () => {
    const sheet = compose(diaphragm, [on(diaphragm, 'cellSeals', 2)])
    expect(sheet.opened).toEqual(['wetEnd', 'diaphragmOff@2', 'offDrive', 'backCover', 'plungerDrawn@2'])
    expect(needs(sheet)).toEqual({ coverGasket: 1, shaftSeal: 2, sealGrease: 3, plunger: 1, cellSeal: 1 })
    expect(sheet.implied.map(({ task }) => task)).toEqual(['shaftSeals', 'plungers'])
    expect(sheet.tools.find(({ key }) => key === 'plungerPuller')!.removalOnly).toBe(true)
  })

  test('diaphragms: the cells are primed, one by one', () => {
    const sheet = compose(diaphragm, [on(diaphragm, 'diaphragms')])
    expect(told(sheet, 'rebuild').filter((each) => each.endsWith('prime'))).toEqual([
      'Diaphragm off, cell 3: prime',
      'Diaphragm off, cell 2: prime',
      'Diaphragm off, cell 1: prime',
    ])
    expect(needs(sheet)).toEqual({ diaphragm: 3 })
    expect(facing(sheet)).toEqual(['diaphragm label pressure'])
  })

  test('off its drive it is aligned and measured before the guard goes on', () => {
    const keys = told(compose(diaphragm, [on(diaphragm, 'couplingInsert')]), 'rebuild').map(
      (each) => each.split(': ')[1],
    )
    expect(keys).toEqual(['set', 'align', 'bolts', 'bolts', 'bolts', 'bolts', 'guard'])
  })
})

test('an accessory: the ball goes in before the spring, and the handle goes back as it was', () => {
  const sheet = compose(unloader, [on(unloader, 'pistonSeal')])
  const keys = told(sheet).map((each) => each.split(': ')[1]!)
  expect(keys.indexOf('ball')).toBe(keys.indexOf('ballSpring') - 1)
  const settings = sheet.steps.flatMap(({ step }) => (step.setting ? [step.setting] : []))
  expect(settings).toEqual([
    { what: 'spring handle', goes: 'noted' },
    { what: 'spring handle', goes: 'putBack' },
  ])
})

test('cylinders named in a heading are those that were chosen', () => {
  const sheet = compose(triplex, [on(triplex, 'hpSeals', 1, 3)])
  expect(told(sheet, 'renew')).toEqual(cylinders('Renew high-pressure seals', 'fit', [1, 3]))
})
