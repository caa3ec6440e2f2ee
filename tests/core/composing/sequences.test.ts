import { composeSheet, type ChosenTask, type ComposedSheet } from '@/core/composing'
import { type PumpModel } from '@/core/models'
import {
  axial,
  builtIn,
  burner,
  chosen,
  compose,
  diesel,
  motor,
  needs,
  on,
  petrol,
  temporary,
  triplex,
} from './models'

/**
 * Main jobs of each kind, written down by hand as somebody would do them, before any of them was composed:
 * "place: step", with a gate marked !, a step that hangs on an answer ?, and which way a piece faces.
 */
const line = ({ heading, where, step }: ComposedSheet['steps'][number]) =>
  `${[heading, where].filter(Boolean).join(', ')}: ${step.key}${step.gate ? '!' : ''}${step.when ? '?' : ''}${
    step.orientation ? ` (${step.orientation.face} ${step.orientation.towards})` : ''
  }`
const worked = (sheet: ComposedSheet) =>
  sheet.steps.filter(({ phase }) => phase !== 'makeSafe' && phase !== 'prove').map(line)
const job = (model: PumpModel, facts: Record<string, string>, ...tasks: ChosenTask[]) =>
  composeSheet({ assemblies: [{ id: 'P-1', model, tasks, facts }] })
const each = (place: string, ...keys: string[]) => keys.map((key) => `${place}: ${key}`)
const oneByOne = (place: string, key: string) => [1, 2, 3].map((at) => `${place}, cylinder ${at}: ${key}`)

const manifoldOff = [
  ...each('Manifold off', 'crank!', 'crack', 'runOut', 'pins', 'prise'),
  ...oneByOne('Manifold off', 'behind'),
  ...oneByOne('Manifold off', 'slipOff?'),
  ...oneByOne('Manifold off', 'behindOut?'),
]
const manifoldOn = [
  ...each('Manifold off', 'cleanFaces'),
  ...oneByOne('Manifold off', 'lube'),
  ...each('Manifold off', 'crankOuter!', 'pinsBack', 'slide', 'snug', 'pinsOut', 'snugPinned'),
  ...each('Manifold off', 'stage1', 'stage2'),
]

describe('compact triplex with built-in accessories', () => {
  test('an inlet valve lies under the seals: manifold, stack, valve, and back in reverse', () => {
    const sheet = job(builtIn, { drive: 'petrol' }, on(builtIn, 'inletValves', 2))
    expect(worked(sheet)).toEqual([
      ...manifoldOff,
      ...each('Seal stack out, cylinder 2', 'draw', 'stayed?'),
      // Only this cylinder carries the passage of the start-assist.
      ...each('Inlet valve out, cylinder 2', 'passage', 'draw', 'seatOut?', 'pocket'),
      ...each('Renew inlet valves: swap the valve assembly, cylinder 2', 'look'),
      ...each('Inlet valve out, cylinder 2', 'countBack', 'passageFree'),
      ...each('Renew inlet valves: swap the valve assembly, cylinder 2', 'dress', 'fit (spring pressure)'),
      ...each(
        'Seal stack out, cylinder 2',
        'countBack',
        'bore',
        'foot (concave pressure)',
        'hpBack (lip pressure)',
        'carrier (groove crankcase)',
        'lpBack (lip pressure)',
        'oring',
        'press (groove crankcase)',
      ),
      ...manifoldOn,
    ])
    expect(needs(sheet)).toEqual({ carrierOring: 1, valve: 1 })
    expect(sheet.spares.map(({ part }) => part)).toEqual(['hpSeal', 'lpSeal'])
    // Another cylinder has no such passage.
    const first = worked(job(builtIn, { drive: 'petrol' }, on(builtIn, 'inletValves', 1)))
    expect(first.some((each) => each.includes('passage'))).toBe(false)
  })

  test('the unloader: handle noted and put back, seat with a direction, a tip that moves freely', () => {
    const sheet = job(builtIn, { drive: 'petrol' }, on(builtIn, 'unloaderSeat'), on(builtIn, 'unloaderTip'))
    expect(worked(sheet)).toEqual([
      ...each('Unloader open', 'note', 'release', 'nut', 'out'),
      ...each('Renew unloader seat', 'look'),
      ...each('Renew by-pass tip', 'look'),
      ...each('Unloader open', 'countBack', 'bore'),
      ...each('Renew unloader seat', 'fit (taper flow)'),
      ...each('Renew by-pass tip', 'fit (ball pressure)'),
      ...each(
        'Unloader open',
        'free!',
        'sealBack (lip pressure)',
        'piston',
        'springBack',
        'oring',
        'nut',
        'back',
      ),
    ])
    expect(needs(sheet)).toEqual({ unloaderOring: 2, unloaderSeat: 1, unloaderTip: 1 })
    const pressure = job(builtIn, {}, on(builtIn, 'setPressure')).steps.flatMap(({ step }) =>
      step.setting ? [`${step.setting.goes} ${step.measure?.what}`] : [],
    )
    expect(pressure).toEqual(['noted pressure before', 'putBack pressure after'])
  })

  test('injector and start-assist: the piece faces the pump, the ball goes in before the spring', () => {
    expect(worked(job(builtIn, {}, on(builtIn, 'injectorPiece')))).toEqual([
      ...each('Injector open', 'rinse', 'fitting'),
      ...each('Renew injector check piece', 'look'),
      ...each('Injector open', 'countBack'),
      ...each('Renew injector check piece', 'fit (taper pump)'),
      ...each('Injector open', 'spring', 'oring', 'fitting'),
    ])
    expect(worked(job(builtIn, {}, on(builtIn, 'startSpring')))).toEqual([
      ...each('Start-assist open', 'cap'),
      ...each('Renew start-assist spring', 'look'),
      ...each('Start-assist open', 'countBack', 'ballBack'),
      ...each('Renew start-assist spring', 'fit'),
      ...each('Start-assist open', 'oring', 'cap'),
    ])
  })

  test('a practice that locks the plunger bolts brings drop, working time, old residue off, and a cure before pressure', () => {
    const plunger = [on(builtIn, 'plungers', 1)]
    const plain = compose(builtIn, plunger)
    expect(plain.steps.some(({ step }) => step.key === 'cured')).toBe(false)
    const locked = compose(builtIn, plunger, chosen(['plungerFastener', 'locker']))
    const bolt = locked.fasteners.find(({ fastener }) => fastener.key === 'plungerBolt')!
    expect(bolt.fastener.treatment).toMatchObject({
      kind: 'threadlocker',
      product: 'medium',
      amount: 'one drop',
      setsMinutes: 10,
      curesMinutes: 1440,
    })
    expect(bolt.notes.join()).toContain('pulls differently')
    const keys = locked.steps.map(({ step }) => step.key)
    expect(keys.indexOf('cleanThreadsPlungerBolt')).toBe(keys.indexOf('torque') - 1)
    const cure = locked.steps.find(({ step }) => step.key === 'cured')!
    expect(cure.step).toMatchObject({ gate: true, timer: { kind: 'cured', minutes: 1440 } })
    expect(keys.indexOf('cured')).toBeLessThan(keys.indexOf('pressure'))
    expect(locked.consumables).toContainEqual({
      name: 'medium threadlocker',
      quantity: 0.1,
      unit: 'mL',
      applications: 1,
    })
    // By the label of the company's own product; and dry is a choice with nothing to wait for.
    const own = {
      company: {
        plungerFastener: {
          choice: 'sealant',
          reason: '',
          product: {
            product: 'white',
            amount: 'a film all round',
            setsMinutes: 5,
            curesMinutes: 90,
            takesMl: 0.4,
          },
        },
      },
      models: {},
    }
    const sealed = compose(builtIn, plunger, own)
    expect(sealed.steps.find(({ step }) => step.key === 'cured')!.step.timer!.minutes).toBe(90)
    expect(sealed.consumables).toContainEqual({
      name: 'white sealant',
      quantity: 0.4,
      unit: 'mL',
      applications: 1,
    })
    const dry = compose(builtIn, plunger, chosen(['plungerFastener', 'dry']))
    expect(dry.steps.some(({ step }) => step.key === 'cured')).toBe(false)
    expect(
      dry.fasteners.find(({ fastener }) => fastener.key === 'plungerBolt')!.fastener.treatment.kind,
    ).toBe('dry')
  })

  test('a locker on the manifold bolts, by practice, means that nobody pulls them once more after the run', () => {
    const seals = [on(builtIn, 'hpSeals', 1)]
    const keys = (...choice: Parameters<typeof chosen>) =>
      compose(builtIn, seals, chosen(...choice)).steps.map(({ step }) => step.key)
    expect(keys()).toEqual(expect.arrayContaining(['recheckStop', 'recheck-manifoldBolt', 'recheckRun']))
    const locked = keys(['headBoltThreads', 'threadlocker'])
    expect(locked.filter((key) => key.startsWith('recheck'))).toEqual([])
    expect(locked).toContain('cured')
  })
})

describe('small axial pump', () => {
  test('a cartridge by the strip way: built upside down, a set within a set, back into its own bore', () => {
    const sheet = composeSheet({
      assemblies: [
        {
          id: 'P-1',
          model: axial,
          tasks: [{ ...on(axial, 'cartridges', 1), path: 'strip' }],
          facts: { drive: 'electric' },
        },
      ],
    })
    const strip = 'Renew valve cartridges: strip, inspect and rebuild, piston 1'
    expect(worked(sheet)).toEqual([
      ...each('Valve head off', 'crack', 'off'),
      ...each('Valve cartridge out, piston 1', 'draw', 'rest?'),
      ...each(strip, 'look', 'apart', 'verdict', 'ownBore?'),
      ...each('Valve cartridge out, piston 1', 'countBack', 'bore', 'oring'),
      ...each(strip, 'cage? (cup pump)', 'outlet?', 'inlet?', 'fitNew? (cup pump)', 'fitBack? (cup pump)'),
      ...each('Valve head off', 'faces', 'oring', 'on', 'snug', 'tight'),
    ])
    const sets = sheet.steps.flatMap(({ step }) => [
      ...(step.fits ? [`fits ${step.fits}`] : []),
      ...(step.builds ? [`builds ${step.builds}`] : []),
    ])
    expect(sets).toEqual(['builds inletSet', 'fits inletSet', 'builds cartridgeSet', 'fits cartridgeSet'])
    expect(needs(sheet)).toEqual({ headOring: 1, cartridgeOring: 1 })
    expect(sheet.spares.map(({ part }) => part)).toEqual([
      'cartridge',
      'inletPlate',
      'inletSpring',
      'inletCage',
      'outletPlate',
      'outletSpring',
    ])
  })

  test('water seals: off its keyed shaft, halves eased under spring load, drawn together while it turns, oil to its height', () => {
    const sheet = job(axial, { drive: 'electric' }, on(axial, 'waterSeals', 2))
    expect(worked(sheet)).toEqual([
      ...each('Oil out', 'plug', 'suck'),
      ...each('Pump off its motor shaft', 'hose', 'inlet', 'bolts', 'off'),
      ...each('Housing halves parted', 'mark', 'ease', 'part'),
      ...each('Piston out, piston 2', 'draw', 'slip?', 'dig?'),
      ...each('Renew water seals, piston 2', 'look'),
      ...each('Piston out, piston 2', 'countBack', 'bore', 'bush'),
      ...each('Renew water seals, piston 2', 'fit (lip pressure)'),
      ...each('Piston out, piston 2', 'oilBack (spring crankcase)', 'wet', 'pistonBack'),
      ...each('Housing halves parted', 'faces', 'oring'),
      ...[1, 2, 3].map((at) => `Housing halves parted, piston ${at}: lube`),
      ...each(
        'Housing halves parted',
        'handle',
        'crank!',
        'set (letter asItCameOut)',
        'snug',
        'turn',
        'stage1',
        'stage2',
        'free!',
        'handleOut',
      ),
      ...each(
        'Pump off its motor shaft',
        'countBack',
        'shaft',
        'key',
        'on',
        'snug',
        'bolts',
        'hose',
        'inlet',
      ),
      ...each('Oil out', 'fillBack', 'level!', 'plug'),
    ])
    // The hose is cut on the way in, so it is on the list from the start.
    expect(needs(sheet)).toEqual({ hose: 1, hoseClamp: 2, halfOring: 1, waterSeal: 1 })
    expect(temporary(sheet)).toEqual(['handle in', 'handle out'])
    const level = sheet.steps.find(({ step }) => step.key === 'level')!.step
    expect(level.measure).toMatchObject({ what: 'oil above the swash plate', min: 10, max: 14 })
    expect(sheet.cautions.map(({ words }) => words).join()).toContain('under spring load')
    expect(sheet.steps.find(({ step }) => step.key === 'turn')!.step.withNext).toBe(true)
  })
})

describe('what drives and heats them', () => {
  test('engine oil on one sheet with seals: made safe once for both, each with its own, oil out and in again', () => {
    const sheet = composeSheet({
      assemblies: [
        { id: 'P-04', model: triplex, tasks: [on(triplex, 'lpSeals', 1)], facts: { drive: 'diesel' } },
        { id: 'E-04', model: diesel, tasks: [on(diesel, 'oilChange'), on(diesel, 'oilFilter')] },
      ],
    })
    const safe = sheet.steps.filter(({ phase }) => phase === 'makeSafe').map(({ step }) => step.key)
    expect(safe).toEqual([
      'lockOut',
      'ignition',
      'relieve',
      'cool',
      'drained',
      'turnDiesel',
      'stopLever',
      'coolEngine',
    ])
    const engine = sheet.steps.filter(
      ({ assemblyId, phase }) => assemblyId === 'E-04' && phase !== 'makeSafe' && phase !== 'prove',
    )
    // Inspections first, then each is closed and filled.
    expect(engine.map(line)).toEqual([
      ...each('Change engine oil', 'drain'),
      ...each('Renew oil filter', 'off', 'ring?'),
      ...each('Change engine oil', 'plug', 'fill'),
      ...each('Renew oil filter', 'fit'),
    ])
    expect(
      sheet.parts
        .filter(({ assemblyId }) => assemblyId === 'E-04')
        .map(({ part, quantity }) => [part, quantity]),
    ).toEqual([
      ['oil', 4.2],
      ['drainSeal', 1],
      ['oilFilter', 1],
    ])
    // Both are proved, the engine by its own steps too.
    const prove = sheet.steps.filter(({ phase }) => phase === 'prove').map(({ step }) => step.key)
    expect(prove).toEqual(expect.arrayContaining(['pressure', 'leaks', 'run', 'oilLevel']))
    expect(prove.filter((key) => key === 'clear')).toHaveLength(1)
  })

  test('petrol engine: by rope or battery, as it is known; the plug only where it is bad, its gap always', () => {
    const steps = (start: string) => worked(job(petrol, { start }, on(petrol, 'battery')))
    expect(steps('battery')).toEqual(
      each('Look at the battery, renew it if weak', 'volts', 'verdict', 'fit?'),
    )
    expect(steps('rope')).toEqual(each('Look at the battery, renew it if weak', 'verdict', 'fit?'))
    const plug = job(petrol, { start: 'rope' }, on(petrol, 'plug'))
    expect(worked(plug)).toEqual(
      each('Look at the spark plug, renew it if worn', 'verdict', 'gap', 'fit?', 'tight'),
    )
    expect([needs(plug), plug.spares.map(({ part }) => part)]).toEqual([{}, ['plug']])
    expect(job(petrol, { start: 'rope' }, on(petrol, 'fuelFilter')).qualifications).toEqual([
      { qualification: 'fuel', what: ['Renew fuel filter'] },
    ])
  })

  test('electric motor: tried dead by a qualified person before the terminals, bridges back before the lid', () => {
    const sheet = job(motor, {}, on(motor, 'insulation'))
    expect(worked(sheet)).toEqual([
      ...each('Terminal box open', 'dead!', 'lid'),
      ...each('Measure insulation', 'bridges', 'earth', 'bridgesBack'),
      ...each('Terminal box open', 'lid'),
    ])
    expect(sheet.qualifications.map(({ qualification }) => qualification)).toEqual(['electrical'])
  })

  test('burner: cold first, nozzle held and tightened, rope renewed, and it lights before it is trusted', () => {
    const sheet = job(burner, {}, on(burner, 'nozzle'))
    expect(worked(sheet)).toEqual([
      ...each('Burner lid up', 'cold!', 'plugs', 'lid'),
      ...each('Renew burner nozzle', 'out', 'fit'),
      ...each('Burner lid up', 'rope', 'lid', 'plugs'),
    ])
    expect(needs(sheet)).toEqual({ lidRope: 1, nozzle: 1 })
    expect(sheet.helperMinutes).toBe(6)
    const prove = sheet.steps.filter(({ phase }) => phase === 'prove').map(line)
    expect(prove).toEqual(each('Prove', 'toolsBack!', 'clear!', 'purge!', 'light', 'burnerStop!?', 'flue'))
  })
})
