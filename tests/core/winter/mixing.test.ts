import fc from 'fast-check'
import {
  concentrateNeeded,
  freezingTables,
  hoseVolume,
  judgeBore,
  mixFreezingPoint,
  packsFor,
  recipe,
  residualLitres,
  wetVolume,
  type Antifreeze,
  type CircuitElement,
} from '@/core/winter'

describe('what a circuit holds', () => {
  test('a hose of 12.7 mm and 100 m holds 12.67 L, one of 25 mm and 10 m 4.91 L', () => {
    // π/4 · 12.7² · 100 / 1000 = 0.785398 · 161.29 · 0.1
    expect(hoseVolume(12.7, 100)).toBeCloseTo(12.668, 3)
    expect(hoseVolume(25, 10)).toBeCloseTo(4.909, 3)
    expect(hoseVolume(0, 10)).toBe(0)
    expect(() => hoseVolume(-1, 10)).toThrow()
    expect(() => hoseVolume(10, Number.NaN)).toThrow()
  })

  const circuit: CircuitElement[] = [
    { id: 't', kind: 'waterTank', litres: 400, drains: true },
    { id: 's', kind: 'suctionHose', boreMm: 25, lengthM: 10, drains: true },
    { id: 'p', kind: 'pump', litres: 1.1, drainsLitres: 0.8 },
    { id: 'u', kind: 'unloader', litres: 0.2, drains: false },
    { id: 'h', kind: 'pressureHose', boreMm: 12.7, lengthM: 100 },
    { id: 'c', kind: 'chemicalTank', litres: null },
  ]

  test('zones are summed and what nobody knows is named', () => {
    const wet = wetVolume(circuit)
    expect(wet.zones.tanks).toBeCloseTo(404.909, 3)
    expect(wet.zones.pump).toBe(1.1)
    expect(wet.zones.hose).toBeCloseTo(12.668, 3)
    expect(wet.zones.chemical).toBe(0)
    expect(wet.litres).toBeCloseTo(404.909 + 1.1 + 0.2 + 12.668, 2)
    expect(wet.unknown).toEqual(['c'])
    expect(wet.zones.coil).toBeUndefined()
  })

  test('15 % stays in a drained hose, 5 % in a blown one, 2 % in a tank, all of a pump not turned over', () => {
    const [tank, , pump, unloader, hose] = circuit as [
      CircuitElement,
      CircuitElement,
      CircuitElement,
      CircuitElement,
      CircuitElement,
    ]
    expect(residualLitres(hose, 'drained')).toBeCloseTo(1.9, 2)
    expect(residualLitres(hose, 'blown')).toBeCloseTo(0.633, 3)
    expect(residualLitres(tank, 'drained')).toBe(8)
    expect(residualLitres(pump, 'drained')).toBeCloseTo(0.3, 9)
    expect(residualLitres({ ...pump, drainsLitres: null }, 'drained')).toBe(1.1)
    expect(residualLitres(unloader, 'drained')).toBe(0.2)
    expect(residualLitres({ id: 'k', kind: 'coil', litres: 9, drainsLitres: 2 }, 'drained')).toBe(7)
    expect(residualLitres({ id: 'k', kind: 'coil', litres: 9 }, 'blown')).toBeCloseTo(0.45, 9)
  })

  test('a bore in the wrong unit is asked about', () => {
    expect(judgeBore('pressureHose', 12.7, 'mm')).toBeNull()
    expect(judgeBore('pressureHose', 0.5, 'in')).toBeNull()
    expect(judgeBore('pressureHose', 0.5, 'mm')?.perhaps).toEqual({ value: 0.5, unit: 'in', mm: 12.7 })
    expect(judgeBore('pressureHose', 12.7, 'in')?.perhaps?.unit).toBe('mm')
    expect(judgeBore('pressureHose', 22, 'mm')?.perhaps).toBeNull()
    expect(judgeBore('suctionHose', 500, 'mm')?.says).toContain('outside')
  })
})

describe('what a mix freezes at', () => {
  test.each([
    // 5 L of 95 % in 5 L of water: 47.5 %; 7.9 of 10.3 between -21.1 and -33.5
    ['propylene', 95, 5, 5, 0, 47.5, -30.611],
    // the table's own points
    ['propylene', 49.9, 3, 0, 0, 49.9, -33.5],
    ['propylene', 60, 3, 0, 0, 60, -51.1],
    ['ethylene', 57.8, 1, 0, 0, 57.8, -48.3],
    ['ethylene', 0, 1, 3, 0, 0, 0],
    // 2 L of 94 % ethylene to 4 L that already hold 10 %: (188 + 40) / 6 = 38 %; 0.5 of 10 past -22.3
    ['ethylene', 94, 2, 4, 10, 38, -22.875],
  ] as const)(
    '%s %d %%: %d L into %d L of %d %%',
    (fluid, concentratePercent, added, water, residual, share, freeze) => {
      const mix = mixFreezingPoint({
        fluid,
        concentratePercent,
        addedLitres: added,
        residualWaterLitres: water,
        residualPercent: residual,
      })
      expect(mix.volumePercent).toBeCloseTo(share, 6)
      expect(mix.freezeC).toBeCloseTo(freeze, 3)
    },
  )

  test('past the table there is no figure', () => {
    const rich = { concentratePercent: 95, addedLitres: 9, residualWaterLitres: 1 }
    expect(mixFreezingPoint({ fluid: 'propylene', ...rich })).toMatchObject({ freezeC: null, belowC: -51.1 })
    expect(mixFreezingPoint({ fluid: 'ethylene', ...rich })).toMatchObject({ freezeC: null, tooRich: true })
  })

  test('nonsense is refused', () => {
    const fine = {
      fluid: 'propylene' as const,
      concentratePercent: 95,
      addedLitres: 1,
      residualWaterLitres: 1,
    }
    expect(() => mixFreezingPoint({ ...fine, addedLitres: -1 })).toThrow()
    expect(() => mixFreezingPoint({ ...fine, concentratePercent: 101 })).toThrow()
    expect(() => mixFreezingPoint({ ...fine, addedLitres: 0, residualWaterLitres: 0 })).toThrow()
    expect(() => mixFreezingPoint({ ...fine, fluid: 'water' as never })).toThrow()
  })
})

describe('how much concentrate it takes', () => {
  const water = { fluid: 'propylene' as const, concentratePercent: 95, residualWaterLitres: 10 }
  test('10 L down to -21.1 °C: 39.6 %, 10 · 39.6 / 55.4 = 7.148 L', () => {
    expect(concentrateNeeded({ ...water, designLowC: -21.1 })).toBeCloseTo(7.148, 3)
    expect(concentrateNeeded({ ...water, designLowC: -16.1, marginC: 5 })).toBeCloseTo(7.148, 3)
  })
  test('what it cannot reach is null', () => {
    expect(concentrateNeeded({ ...water, designLowC: -52 })).toBeNull()
    expect(concentrateNeeded({ ...water, concentratePercent: 30, designLowC: -21.1 })).toBeNull()
    expect(concentrateNeeded({ ...water, concentratePercent: 39.6, designLowC: -21.1 })).toBeNull()
  })
  test('nothing is needed for no water or no frost', () => {
    expect(concentrateNeeded({ ...water, residualWaterLitres: 0, designLowC: -20 })).toBe(0)
    expect(concentrateNeeded({ ...water, designLowC: 3 })).toBe(0)
  })
  test('law: what it says freezes exactly at the design low less the margin', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('propylene', 'ethylene'),
        fc.double({ min: 60, max: 100, noNaN: true }),
        fc.double({ min: 0.01, max: 500, noNaN: true }),
        fc.double({ min: -40, max: -0.1, noNaN: true }),
        fc.double({ min: 0, max: 8, noNaN: true }),
        (fluid, concentratePercent, residualWaterLitres, designLowC, marginC) => {
          const added = concentrateNeeded({
            fluid,
            concentratePercent,
            residualWaterLitres,
            designLowC,
            marginC,
          })!
          const mix = mixFreezingPoint({ fluid, concentratePercent, addedLitres: added, residualWaterLitres })
          expect(mix.freezeC).toBeCloseTo(designLowC - marginC, 6)
        },
      ),
    )
  })
  test('law: more glycol never freezes higher, within the table', () => {
    for (const [fluid, table] of Object.entries(freezingTables)) {
      fc.assert(
        fc.property(
          fc.double({ min: 0, max: table.at(-1)![0], noNaN: true }),
          fc.double({ min: 0, max: table.at(-1)![0], noNaN: true }),
          (a, b) => {
            const at = (share: number) =>
              mixFreezingPoint({
                fluid: fluid as 'propylene',
                concentratePercent: share,
                addedLitres: 1,
                residualWaterLitres: 0,
              }).freezeC!
            if (a < b) expect(at(a)).toBeGreaterThanOrEqual(at(b))
          },
        ),
      )
    }
  })
})

describe('the recipe', () => {
  const concentrate: Antifreeze = {
    name: 'Frostfest',
    fluid: 'propylene',
    sold: 'concentrate',
    contentPercent: 95,
    freezesAtC: null,
    burstsAtC: null,
    packLitres: 20,
    packCents: 9800,
  }
  test('a zone of 10 L with 2 L of water left, down to -16.1 °C and 5 more', () => {
    // 15 L are poured; with the 2 L that is 17 L at 39.6 %: 17 · 39.6 / 95 = 7.086 L of concentrate
    const mix = recipe({ product: concentrate, zoneLitres: 10, residualWaterLitres: 2, designLowC: -16.1 })
    expect(mix).toMatchObject({ ok: true })
    if (!mix.ok) return
    expect(mix.concentrateLitres).toBeCloseTo(7.086, 3)
    expect(mix.waterLitres).toBeCloseTo(7.914, 3)
    expect(mix.freezesAtC).toBeCloseTo(-21.1, 6)
  })
  test('ready to use is never thinned, and is as rated only undiluted', () => {
    const ready: Antifreeze = { ...concentrate, sold: 'ready', contentPercent: 40, freezesAtC: -21 }
    const mix = recipe({ product: ready, zoneLitres: 10, residualWaterLitres: 2, designLowC: -15 })
    expect(mix).toMatchObject({ ok: true, concentrateLitres: 15, waterLitres: 0, freezesAtC: -21 })
    if (mix.ok) expect(mix.cautions.join(' ')).toContain('undiluted')
    const short = recipe({ product: ready, zoneLitres: 10, residualWaterLitres: 0, designLowC: -17 })
    expect(short).toMatchObject({ ok: false })
  })
  test('a burst point plans nothing, nor does an unknown content, nor an alcohol to be mixed', () => {
    const at = { zoneLitres: 10, residualWaterLitres: 2, designLowC: -10 }
    const burst: Antifreeze = {
      ...concentrate,
      sold: 'ready',
      contentPercent: null,
      freezesAtC: null,
      burstsAtC: -46,
    }
    expect(recipe({ product: burst, ...at })).toMatchObject({ ok: false })
    expect(recipe({ product: { ...concentrate, contentPercent: null }, ...at })).toMatchObject({ ok: false })
    expect(recipe({ product: { ...concentrate, fluid: 'alcohol' }, ...at })).toMatchObject({ ok: false })
    const blend: Antifreeze = { ...burst, fluid: 'alcohol', freezesAtC: -30 }
    const mix = recipe({ product: blend, ...at })
    expect(mix.ok && mix.cautions.join(' ')).toContain('burns')
  })
  test('law: it fills the zone, and what comes of it freezes no higher than it must', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: 0, max: 200, noNaN: true }),
        fc.double({ min: -40, max: -1, noNaN: true }),
        (zoneLitres, residualWaterLitres, designLowC) => {
          const mix = recipe({ product: concentrate, zoneLitres, residualWaterLitres, designLowC })
          if (!mix.ok) throw new Error(mix.why)
          const poured = mix.concentrateLitres + mix.waterLitres
          expect(poured).toBeGreaterThanOrEqual(zoneLitres * 1.5 - 1e-9)
          expect(mix.waterLitres).toBeGreaterThanOrEqual(0)
          if (poured + residualWaterLitres < 1e-6) return
          const made = mixFreezingPoint({
            fluid: 'propylene',
            concentratePercent: 95,
            addedLitres: mix.concentrateLitres,
            residualWaterLitres: residualWaterLitres + mix.waterLitres,
          })
          expect(made.freezeC).toBeLessThanOrEqual(designLowC - 5 + 1e-6)
        },
      ),
    )
  })
  test('packs are whole', () => {
    expect(packsFor(concentrate, 46, 10)).toEqual({ packs: 2, cents: 19_600, leftLitres: 4 })
    expect(packsFor(concentrate, 10, 10)).toEqual({ packs: 0, cents: 0, leftLitres: 0 })
    expect(packsFor(concentrate, 40)).toEqual({ packs: 2, cents: 19_600, leftLitres: 0 })
  })
})
