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
import { composeSheet, type ChosenTask } from '@/core/composing'
import { modelForSize } from '@/core/models'

const cylinders = (heading: string, key: string, order = [1, 2, 3]) =>
  order.map((cylinder) => `${heading}, cylinder ${cylinder}: ${key}`)
const names = (sheet: ReturnType<typeof compose>) => sheet.tools.map(({ key }) => key)

describe('compact triplex, seals in the manifold', () => {
  test('seals: manifold on guide pins, stacks in order, retainers built on the bench', () => {
    const sheet = compose(triplex, [on(triplex, 'hpSeals'), on(triplex, 'lpSeals')])
    expect(needs(sheet)).toEqual({ hpSeal: 3, lpSeal: 3, retainerOring: 3 })
    expect(facing(sheet)).toEqual([
      'hpSeal lip pressure',
      'lpSeal lip pressure',
      'retainer groove crankcase',
      'spacer flat eitherWay',
      'supportRing concave pressure',
    ])
    expect(temporary(sheet)).toEqual(['guidePins in', 'guidePins out'])
    // Each stack is counted back and laid in piece by piece, the new seals in their places, the retainer
    // built and fitted as one; the last stack opened closes first.
    expect(told(sheet, 'rebuild').filter((each) => !each.startsWith('Manifold'))).toEqual(
      [3, 2, 1].flatMap((cylinder) => [
        ...['countBack', 'bore', 'support'].map((key) => `Seal stack out, cylinder ${cylinder}: ${key}`),
        `Renew high-pressure seals, cylinder ${cylinder}: fit`,
        ...['spacer', 'carrier'].map((key) => `Seal stack out, cylinder ${cylinder}: ${key}`),
        `Renew low-pressure seals, cylinder ${cylinder}: fit`,
        ...['oring', 'retainer'].map((key) => `Seal stack out, cylinder ${cylinder}: ${key}`),
      ]),
    )
    const close = told(sheet, 'rebuild').filter((each) => each.startsWith('Manifold off'))
    expect(close.map((each) => each.split(': ')[1])).toEqual([
      'cleanFaces',
      'lube',
      'lube',
      'lube',
      'crankOuter',
      'pinsBack',
      'slide',
      'snug',
      'pinsOut',
      'snugPinned',
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
      copperWasher: 1,
      plungerOring: 1,
      plungerBackup: 1,
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
    // The seals stay in the manifold, and no stack is drawn for a plunger.
    expect(sheet.spares).toEqual([])
    expect(sheet.opened).toEqual(['manifold', 'plungerOut@2'])
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
    expect(names(sheet)).toEqual(expect.arrayContaining(['puller', 'collet', 'sealProtector', 'guidePins']))
    const installed = compose(plates, [on(plates, 'hpSeals')], chosen(['sealFitting', 'installer']))
    expect(names(installed)).toContain('installer')
    expect(temporary(sheet)).toEqual([
      'guidePins in',
      ...[3, 2, 1].flatMap(() => ['sealProtector in', 'sealProtector out']),
      'guidePins out',
    ])
    expect(sheet.steps.filter(({ step }) => step.people === 2).map(({ step }) => step.key)).toEqual([
      'off',
      'slide',
    ])
    // Lifted off by one and a helper for 6 min, slid on by both for 6 more.
    expect(sheet.helperMinutes).toBe(12)
    expect(sheet.qualifications).toEqual([{ qualification: 'lifting', what: ['Manifold off'] }])
  })

  test('valves: one plate for each side, bolts from the middle outwards, slide hammer for drawing only', () => {
    const outlet = compose(plates, [on(plates, 'outletValves')])
    expect(outlet.opened).toEqual(['topPlate', 'outletValveOut@1', 'outletValveOut@2', 'outletValveOut@3'])
    expect(needs(outlet)).toEqual({ topPlateOring: 3, seatOring: 3, backupRing: 3, valve: 3 })
    expect(facing(outlet)).toEqual(['backupRing flat againstFlow', 'valve spring cap'])
    const inlet = compose(plates, [on(plates, 'inletValves')])
    expect(inlet.opened[0]).toBe('frontPlate')
    expect(facing(inlet)).toEqual(['backupRing flat againstFlow', 'valve spring flow'])
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
    expect(needs(compose(larger, [on(larger, 'oilChange')]))).toEqual({ oil: 3.4, drainSeal: 1 })
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
      ...['Inlet', 'Outlet'].map((side) => `${side} valve out, head ${number}: lift`),
      ...['mark', 'crank', 'crack', 'bolts', 'plateScrews', 'out', 'behind', 'behindBore'].map(
        (key) => `Head off, head ${number}: ${key}`,
      ),
      `Renew seal rings, head ${number}: look`,
      ...['countBack', 'bore', 'guideBack'].map((key) => `Head off, head ${number}: ${key}`),
      `Renew seal rings, head ${number}: fit`,
      ...'oring plate plateScrew flush pocket lube crank on snug tight turn'
        .split(' ')
        .map((key) => `Head off, head ${number}: ${key}`),
      // The head is on before its valves go back into their pockets.
      ...['Outlet', 'Inlet'].flatMap((side) =>
        ['countBack', 'oring', 'set'].map((key) => `${side} valve out, head ${number}: ${key}`),
      ),
    ]
    expect(places.filter((each) => !each.includes('manifold'))).toEqual([...head(1), ...head(2)])
    // Two heads: their valves come out, so four valve O-rings; grease on guide and plunger, 1 mL each.
    expect(needs(sheet)).toEqual({ pocketOring: 8, valveOring: 4, headOring: 2, sealRing: 2, grease: 4 })
    expect(facing(sheet)).toEqual([
      'guide groove crankcase',
      'retainingPlate tab slot',
      'sealRing cup pressure',
      'valve flat againstFlow',
      'valve flat flow',
    ])
    const bolts = sheet.fasteners.find(({ fastener }) => fastener.key === 'headBolt')!
    expect(bolts.order).toEqual(['1', '2', '3', '4', '5', '6', '1'])
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
    const sets = sheet.steps.filter(({ laidIn }) => laidIn?.endsWith('/set'))
    const ways = (side: string) =>
      sets
        .filter(({ laidIn }) => laidIn!.includes(`${side}ValveOut`))
        .map(({ step }) => step.orientation!.towards)
    expect([ways('inlet'), ways('outlet')]).toEqual([
      ['againstFlow', 'againstFlow', 'againstFlow', 'againstFlow'],
      ['flow', 'flow', 'flow', 'flow'],
    ])
    // Only one manifold comes off for one side.
    expect(compose(opposed, [on(opposed, 'inletValves', 3)]).opened).toEqual([
      'inletManifold',
      'inletValveOut@3',
    ])
  })

  test('plungers: drawn through their seal rings, so those are renewed with them', () => {
    const sheet = compose(opposed, [on(opposed, 'plungers', 3)])
    expect(sheet.opened).toEqual([
      'inletManifold',
      'inletValveOut@3',
      'outletManifold',
      'outletValveOut@3',
      'head@3',
      'plungerOut@3',
    ])
    expect(sheet.implied).toEqual([
      {
        assemblyId: 'P-1',
        task: 'sealRings',
        positions: ['sealRing@3'],
        why: 'the plunger is pulled through its lip',
      },
    ])
    // Grease: 2 mL on foot and yoke, 1 on the guide, 1 on the plunger’s face.
    expect(needs(sheet)).toEqual({
      pocketOring: 8,
      valveOring: 2,
      headOring: 1,
      grease: 4,
      sealRing: 1,
      plunger: 1,
    })
    // Chosen anyway, it is neither implied nor counted twice.
    const both = compose(opposed, [on(opposed, 'plungers', 3), on(opposed, 'sealRings', 3)])
    expect([both.implied, needs(both), both.minutes]).toEqual([[], needs(sheet), sheet.minutes])
  })
})

describe('diaphragm pump with hydraulic end', () => {
  const bolted = { drive: 'diesel', housing: 'bolted, with a gasket' }
  const ring = { drive: 'diesel', housing: 'held by a snap ring' }
  const withFacts = (facts: Record<string, string>, ...tasks: ChosenTask[]) =>
    composeSheet({ assemblies: [{ id: 'P-1', model: diaphragm, tasks, facts }] })

  test('shaft seals: always both, facing apart, over a sleeve; end play set, settled and measured', () => {
    const sheet = withFacts(bolted, on(diaphragm, 'shaftSeals'))
    expect(needs(sheet)).toEqual({ drainSeal: 1, coverGasket: 1, shaftSeal: 2, sealGrease: 3 })
    expect(facing(sheet)).toEqual(['shaftSeal lip crankcase', 'shaftSeal lip motor'])
    expect(temporary(sheet)).toEqual([
      'drawStuds in',
      'sealSleeve in',
      'sealSleeve out',
      'handWheel in',
      'drawStuds out',
      'handWheel out',
    ])
    const close = told(sheet, 'rebuild').map((each) => each.split(': ')[1]!)
    // Two bolts hold before the studs come out, whose places are filled then; the end play is put back last.
    expect(close.slice(0, close.indexOf('wheelOut') + 1)).toEqual([
      'wheel',
      'gasket',
      'turn',
      'cover',
      'snugFree',
      'studsOut',
      'snugPinned',
      'bolts',
      'thrustIn',
      'thrustOut',
      'settle',
      'play',
      'wheelOut',
    ])
    // The oil that was let out is filled again before it is proved, once the pump stands on its drive.
    expect(close.slice(close.indexOf('guard'))).toEqual([
      'guard',
      'plug',
      'fillBack',
      'prime',
      'prime',
      'prime',
      'level',
    ])
    const play = sheet.steps.find(({ step }) => step.key === 'play')!.step
    expect(play).toMatchObject({
      gate: true,
      measure: { min: 0.05, max: 0.12, unit: 'mm' },
      setting: { what: 'end play', goes: 'putBack' },
    })
    expect(sheet.steps.find(({ step }) => step.key === 'cover')!.step.caution).toContain(
      'not seated fails within hours',
    )
  })

  test('what is known of the unit decides; where nobody knows, the sheet asks once and waits', () => {
    const keys = (sheet: ReturnType<typeof withFacts>) => sheet.steps.map(({ step }) => step.key)
    const snap = keys(withFacts(ring, on(diaphragm, 'shaftSeals')))
    expect(snap).toContain('snap')
    expect(snap.filter((key) => ['gasket', 'snugFree', 'snugPinned', 'housing'].includes(key))).toEqual([])
    expect(needs(withFacts(ring, on(diaphragm, 'shaftSeals')))).toEqual({
      drainSeal: 1,
      shaftSeal: 2,
      sealGrease: 3,
    })
    const asked = compose(diaphragm, [on(diaphragm, 'shaftSeals')])
    expect(keys(asked).slice(0, 2)).toEqual(['drive', 'housing'])
    expect(
      asked.steps.flatMap(({ phase, step }) =>
        step.when?.question === 'housing' && phase !== 'prove'
          ? [`${step.key}: ${[step.when.is].join()}`]
          : [],
      ),
    ).toEqual([
      'bolts: bolted, with a gasket',
      'ring: held by a snap ring',
      'gasket: bolted, with a gasket',
      'snugFree: bolted, with a gasket',
      'snap: held by a snap ring',
      'snugPinned: bolted, with a gasket',
      'bolts: bolted, with a gasket',
    ])
    expect(asked.spares.map(({ part }) => part)).toEqual(['coverGasket'])
    // Only what something on this sheet hangs on is asked.
    expect(keys(compose(diaphragm, [on(diaphragm, 'diaphragms')]))).not.toContain('housing')
  })

  test('turning over by hand: by the kind of engine, and for petrol by the company’s practice', () => {
    const turns = (drive: string, ...practices: Parameters<typeof chosen>) =>
      composeSheet(
        {
          assemblies: [
            { id: 'P-1', model: diaphragm, tasks: [on(diaphragm, 'diaphragms')], facts: { drive } },
          ],
        },
        chosen(...practices),
      )
        .steps.map(({ step }) => step.key)
        .filter((key) => key.startsWith('turn') && key !== 'turn')
    expect(turns('petrol')).toEqual(['turnPetrol'])
    expect(turns('petrol', ['turningOver', 'byOwnRule'])).toEqual(['turnOwnRule'])
    expect(turns('diesel')).toEqual(['turnDiesel'])
    expect(turns('electric')).toEqual(['turnElectric'])
  })

  test('end play alone: opening draws the shaft through its seals, so both are on the list from the start', () => {
    const sheet = withFacts(bolted, on(diaphragm, 'endPlay'))
    expect(sheet.implied).toMatchObject([{ task: 'shaftSeals', positions: ['shaftSeal'] }])
    expect(needs(sheet)).toEqual({ drainSeal: 1, coverGasket: 1, shaftSeal: 2, sealGrease: 3 })
    const settings = sheet.steps.flatMap(({ step }) => (step.setting ? [step.setting.goes] : []))
    expect(settings).toEqual(['noted', 'putBack'])
  })

  test('cell seals behind press-fit plungers: each plunger that is drawn is a new one', () => {
    const sheet = withFacts(bolted, on(diaphragm, 'cellSeals', 2))
    expect(sheet.opened).toEqual([
      'oilOut',
      'wetEnd',
      'diaphragmOff@2',
      'offDrive',
      'backCover',
      'plungerDrawn@2',
    ])
    expect(needs(sheet)).toEqual({
      drainSeal: 1,
      coverGasket: 1,
      shaftSeal: 2,
      sealGrease: 3,
      plunger: 1,
      cellSeal: 1,
    })
    expect(sheet.implied.map(({ task }) => task)).toEqual(['shaftSeals', 'plungers'])
    expect(sheet.tools.find(({ key }) => key === 'plungerPuller')!.removalOnly).toBe(true)
    // Seal first, then the plunger through it.
    const laid = told(sheet, 'rebuild').filter((each) => each.startsWith('Renew'))
    expect(laid).toEqual(['Renew cell seals, cell 2: fit', 'Renew hydraulic plungers, cell 2: press'])
  })

  test('diaphragms: each plunger at its dead centre, its cell primed, then the diaphragm, one by one', () => {
    const sheet = compose(diaphragm, [on(diaphragm, 'diaphragms')])
    expect(told(sheet, 'rebuild').filter((each) => each.includes('iaphragm'))).toEqual(
      [3, 2, 1].flatMap((cell) => [
        `Diaphragm off, cell ${cell}: countBack`,
        `Diaphragm off, cell ${cell}: centre`,
        `Diaphragm off, cell ${cell}: prime`,
        `Renew diaphragms, cell ${cell}: new`,
      ]),
    )
    expect(sheet.steps.filter(({ step }) => step.key === 'centre' && step.gate)).toHaveLength(6)
    expect(needs(sheet)).toEqual({ diaphragm: 3, drainSeal: 1 })
    expect(facing(sheet)).toEqual(['diaphragm label pressure'])
    // Drained and filled once: by the way in.
    expect(sheet.steps.flatMap(({ step }) => step.fluid?.goes ?? [])).toEqual(['out', 'in'])
    const changed = compose(diaphragm, [on(diaphragm, 'diaphragms'), on(diaphragm, 'oilChange')])
    expect(
      changed.steps.flatMap(({ step, task }) => (step.fluid ? [`${step.fluid.goes} ${task}`] : [])),
    ).toEqual(['out null', 'in oilChange'])
  })

  test('off its drive it is aligned and measured before the guard goes on; hub screws have locker', () => {
    const sheet = compose(diaphragm, [on(diaphragm, 'couplingInsert')])
    const keys = told(sheet, 'rebuild').map((each) => each.split(': ')[1])
    expect(keys).toEqual([
      'set',
      'align',
      'clean',
      'hubScrews',
      'hubScrews',
      'bolts',
      'bolts',
      'bolts',
      'bolts',
      'guard',
    ])
    expect(sheet.steps.find(({ step }) => step.key === 'cured')!.step).toMatchObject({
      gate: true,
      timer: { minutes: 720 },
    })
    expect(sheet.consumables).toContainEqual({
      name: 'medium threadlocker',
      quantity: 0.2,
      unit: 'mL',
      applications: 2,
    })
  })
})

test('an accessory: the ball goes in before the spring, and the handle goes back as it was', () => {
  const sheet = compose(unloader, [on(unloader, 'pistonSeal')])
  const keys = told(sheet).map((each) => each.split(': ')[1]!)
  expect(keys.indexOf('ballBack')).toBe(keys.indexOf('springBack') - 1)
  expect(needs(compose(unloader, [on(unloader, 'startBall'), on(unloader, 'startSpring')]))).toEqual({
    bodyOring: 1,
    ball: 1,
    ballSpring: 1,
  })
  // Tip and seat are told apart, each the way it faces.
  expect(facing(compose(unloader, [on(unloader, 'seat'), on(unloader, 'tip')]))).toEqual([
    'seat groove againstFlow',
    'tip tip pressure',
  ])
  const settings = sheet.steps.flatMap(({ step }) => (step.setting ? [step.setting] : []))
  expect(settings).toEqual([
    { what: 'spring handle', goes: 'noted' },
    { what: 'spring handle', goes: 'putBack' },
  ])
})

test('cylinders named in a heading are those that were chosen', () => {
  const sheet = compose(triplex, [on(triplex, 'hpSeals', 1, 3)])
  expect(told(sheet).filter((each) => each.endsWith('fit'))).toEqual(
    cylinders('Renew high-pressure seals', 'fit', [3, 1]),
  )
})
