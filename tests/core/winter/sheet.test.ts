import fc from 'fast-check'
import { practiceOf } from '@/core/practices'
import {
  methodsFor,
  planMachine,
  planZone,
  usualRates,
  templateFor,
  turnings,
  winterSteps,
  returnSteps,
  zoneOf,
  zonesOf,
  type Antifreeze,
  type CircuitBasics,
  type Method,
  type Turning,
  type WinterWork,
  type Zone,
} from '@/core/winter'

const product: Antifreeze = {
  name: 'Frostfest',
  fluid: 'propylene',
  sold: 'concentrate',
  contentPercent: 95,
  freezesAtC: null,
  burstsAtC: null,
  packLitres: 20,
  packCents: 9800,
}
const basics: CircuitBasics = {
  kind: 'hotWaterSkid',
  tankLitres: 400,
  hoseBoreMm: 12.7,
  hoseLengthM: 40,
  hasBypass: true,
  pumps: [{ id: 'p1', name: '', litres: 1.1, drainsLitres: 0.8, traps: 'the lower pockets' }],
  coils: [{ id: 'c1', name: '', litres: 9, drainsLitres: 2, traps: '' }],
}

function work(over: {
  basics?: CircuitBasics
  methods?: Partial<Record<Zone, Method>>
  drive?: WinterWork['drive']
  turning?: Turning
  fuel?: WinterWork['fuel']
  proof?: WinterWork['proof']
  locked?: boolean
}): WinterWork {
  const circuit = templateFor(over.basics ?? basics)
  const methods = Object.fromEntries(
    zonesOf(circuit).map((zone) => [
      zone,
      { method: over.methods?.[zone] ?? methodsFor[zone][0]!, from: 'test' },
    ]),
  )
  return {
    drive: over.drive ?? 'petrol',
    turning: over.turning ?? 'cord',
    fuel: over.fuel ?? 'treated',
    fuelTankLitres: 20,
    circuit,
    plan: planMachine({ circuit, methods, product, designLowC: -16 }),
    product: { name: product.name, fluid: 'propylene', ready: false },
    needC: -21,
    proof: over.proof ?? 'refractometer',
    locked: over.locked ?? false,
    meters: [{ id: 'm1', name: 'Engine hours', unit: 'h' }],
  }
}

describe('what a machine takes', () => {
  test('a pump of 1.1 L of which 0.8 L drain, antifreeze through: 0.3 L of water stay, 1.65 L are poured', () => {
    const { plan } = work({})
    const pump = plan.zones.find(({ zone }) => zone === 'pump')!
    expect(pump.residualLitres).toBeCloseTo(0.3, 9)
    expect(pump.recipe?.ok && pump.recipe.concentrateLitres + pump.recipe.waterLitres).toBeCloseTo(1.65, 9)
    // 18 min at 60 an hour are 18.00; the concentrate at 98 for 20 L
    const litres = pump.recipe?.ok ? pump.recipe.concentrateLitres : 0
    expect(pump.cents).toBe(Math.round(1800 + litres * 490))
    expect(pump.unprotected).toEqual([])
  })
  test('a protector that is used up brings its own fluid; a refillable one takes it from one’s cans', () => {
    const circuit = templateFor(basics)
    const of = (refillable: boolean) =>
      planZone({
        circuit,
        zone: 'pump',
        method: 'protector',
        product,
        designLowC: -16,
        rates: { ...usualRates, protectorCents: 1500, refillable },
      })
    // 8 minutes at 60 an hour and 15.00
    expect(of(false)).toMatchObject({ ownLitres: 0, cents: 2300 })
    const refilled = of(true)
    expect(refilled.ownLitres).toBeGreaterThan(0)
    expect(refilled.cents).toBe(Math.round(2300 + refilled.ownLitres * 490))
  })
  test('draining and blowing say what they leave', () => {
    const { plan } = work({ methods: { pump: 'blowOut', hose: 'drain' } })
    const of = (zone: Zone) => plan.zones.find((each) => each.zone === zone)!
    expect(of('pump').dries).not.toBe('')
    expect(of('pump').unprotected).toEqual(['Pump'])
    expect(of('hose').droplets).not.toBe('')
    // 40 m of 12.7 mm hold 5.07 L; 15 % of it stay
    expect(of('hose').residualLitres).toBeCloseTo(5.067 * 0.15 + 0.2 * 0.15 + 0.02 * 0.15, 2)
  })
  test('a pump of which nobody knows what it holds is said, and so is a fluid that nobody chose', () => {
    const circuit = templateFor({
      ...basics,
      pumps: [{ ...basics.pumps[0]!, litres: null, drainsLitres: null }],
    })
    const methods = { pump: { method: 'through' as const, from: '' } }
    const plan = planMachine({ circuit, methods, product, designLowC: -16 })
    expect(plan.troubles.map(({ why }) => why).join(' ')).toContain('Nobody knows what it holds: pump')
    const none = planMachine({ circuit, methods, product: null, designLowC: -16 })
    expect(none.troubles.map(({ why }) => why).join(' ')).toContain('No antifreeze is chosen')
  })
})

test('the practices of a zone are the methods that it knows, the usual first', () => {
  const keys = {
    tanks: 'Tanks',
    pump: 'Pump',
    bypass: 'Bypass',
    coil: 'Coil',
    hose: 'Hose',
    chemical: 'Chemical',
  }
  for (const [zone, name] of Object.entries(keys))
    expect(practiceOf(`winter${name}`).choices.map(({ key }) => key)).toEqual(methodsFor[zone as Zone])
})

describe('the order of the winter sheet', () => {
  const anyMethods = fc.record(
    Object.fromEntries(
      Object.entries(methodsFor).map(([zone, methods]) => [zone, fc.constantFrom(...methods)]),
    ) as Record<Zone, fc.Arbitrary<Method>>,
  )
  const anything = fc.record({
    basics: fc.record({
      kind: fc.constantFrom('trailer', 'van', 'cart', 'chemicalRig', 'hotWaterSkid', 'cuttingTable', 'other'),
      tankLitres: fc.option(fc.integer({ min: 0, max: 1000 })),
      hoseBoreMm: fc.option(fc.constantFrom(6.4, 12.7)),
      hoseLengthM: fc.option(fc.integer({ min: 1, max: 100 })),
      hasBypass: fc.boolean(),
      pumps: fc.constantFrom(basics.pumps, [], [...basics.pumps, { ...basics.pumps[0]!, id: 'p2' }]),
      coils: fc.constantFrom(basics.coils, []),
    }) as fc.Arbitrary<CircuitBasics>,
    methods: anyMethods,
    drive: fc.constantFrom('petrol', 'diesel', 'electric', 'vehicle') as fc.Arbitrary<WinterWork['drive']>,
    turning: fc.constantFrom(...(Object.keys(turnings) as Turning[])),
    fuel: fc.constantFrom('treated', 'runDry', 'winterDiesel', 'none') as fc.Arbitrary<WinterWork['fuel']>,
    proof: fc.constantFrom('refractometer', 'colour') as fc.Arbitrary<WinterWork['proof']>,
    locked: fc.boolean(),
  })

  test('law: nothing runs once it is protected, nothing is drained once it is filled, fuel comes first', () => {
    fc.assert(
      fc.property(anything, (over) => {
        const { steps } = winterSteps(work(over))
        const at = (test: (each: (typeof steps)[number]) => boolean) =>
          steps.flatMap((each, index) => (test(each) ? [index] : []))
        const lastOf = (list: number[]) => list.at(-1) ?? -1
        const firstOf = (list: number[]) => list[0] ?? Infinity
        const runs = at(({ does }) => does === 'run' || does === 'rinse' || does === 'fuel')
        const safe = at(({ does }) => does === 'secure')
        const drains = at(({ does }) => does === 'drain')
        const fills = at(({ does }) => does === 'fill')
        expect(lastOf(runs)).toBeLessThan(firstOf(safe))
        expect(firstOf(safe)).toBeLessThan(Math.min(firstOf(drains), firstOf(fills)))
        expect(lastOf(drains)).toBeLessThan(firstOf(fills))
        expect(new Set(steps.map(({ key }) => key)).size).toBe(steps.length)
      }),
    )
  })

  test('law: every zone is drained, filled and proved, or left by name', () => {
    fc.assert(
      fc.property(anything, (over) => {
        const job = work(over)
        const { steps, proofs } = winterSteps(job)
        for (const { zone, method } of job.plan.zones) {
          const own = steps.filter((each) => each.zone === zone)
          const does = (what: string) => own.some((each) => each.does === what)
          if (method === 'leave') expect(does('leave') && !does('drain') && !does('fill')).toBe(true)
          else if (method === 'drain') expect(does('drain')).toBe(true)
          else if (method === 'blowOut') expect(does('drain') && does('prove')).toBe(true)
          else expect(does('fill') && does('prove')).toBe(true)
          if (method !== 'leave' && method !== 'drain')
            expect(Object.values(proofs).filter((proof) => proof.zone === zone)).toHaveLength(1)
        }
        for (const key of Object.keys(proofs)) expect(steps.some((each) => each.key === key)).toBe(true)
      }),
    )
  })

  test('law: whatever energises is followed by locking before anything else is touched', () => {
    fc.assert(
      fc.property(anything, (over) => {
        const { steps } = winterSteps(work(over))
        steps.forEach(({ step, phase }, index) => {
          if (step.locks !== 'off' || phase !== 'protect') return
          expect(steps[index + 1]!.step.locks).toBe('on')
        })
      }),
    )
  })

  test('tanks and suction before hoses, hoses before the pump’s own plugs', () => {
    const { steps } = winterSteps(work({ methods: { pump: 'drain' } }))
    const drained = steps.filter(({ does }) => does === 'drain').map(({ key }) => key)
    expect(drained.slice(0, 4)).toEqual([
      'winter/drain/tanks/tank',
      'winter/drain/tanks/suction',
      'winter/drain/tanks/strainer',
      'winter/drain/hose/hose',
    ])
    expect(drained.indexOf('winter/drain/hose/gun')).toBeLessThan(drained.indexOf('winter/drain/pump/p1'))
  })

  test('the fuel by its drive, and the coil cold', () => {
    const keys = (over: Parameters<typeof work>[0]) => winterSteps(work(over)).steps.map(({ key }) => key)
    expect(keys({})).toEqual(
      expect.arrayContaining(['winter/run/fuel', 'winter/run/carburettor', 'winter/run/coil']),
    )
    expect(keys({ fuel: 'runDry' })).toContain('winter/run/dry')
    expect(keys({ drive: 'electric', fuel: 'none' }).some((key) => key.includes('fuel'))).toBe(false)
  })

  test('the refractometer’s limit and scale are those of the fluid', () => {
    const { steps, proofs } = winterSteps(work({}))
    const key = 'winter/protect/pump/proof'
    expect(proofs[key]).toEqual({ zone: 'pump', kind: 'refractometer', needC: -21, scale: 'propylene' })
    expect(steps.find((each) => each.key === key)!.step.measure).toMatchObject({ max: -21, unit: '°C' })
  })

  test('spring: looked at before it is connected, flushed before it is tight, tight before pressure', () => {
    const job = work({})
    const steps = returnSteps({ circuit: job.circuit, zones: job.plan.zones, drive: 'petrol' })
    expect(steps.map(({ key }) => key)).toEqual([
      'return/look',
      'return/reconnect',
      'return/oil',
      'return/flush',
      'return/leak',
      'return/pressure',
    ])
  })

  test('a template has what such a machine has', () => {
    const zonesHeld = (kind: CircuitBasics['kind']) =>
      new Set(templateFor({ ...basics, kind, coils: [] }).map((each) => zoneOf[each.kind]))
    expect(zonesHeld('chemicalRig').has('chemical')).toBe(true)
    expect(zonesHeld('van').has('chemical')).toBe(false)
    expect(zonesHeld('cuttingTable').has('tanks')).toBe(true)
    expect(templateFor({ ...basics, kind: 'cuttingTable' }).some(({ kind }) => kind === 'gun')).toBe(false)
  })
})
