import fc from 'fast-check'
import { inThisWinter, winterState, worstState, type WinterEvent, type Zone } from '@/core/winter'

const at = (hour: number) => `2026-11-01T${String(hour).padStart(2, '0')}:00:00Z`
const zones: Zone[] = ['pump', 'hose']
const filled = (hour: number, zone: Zone = 'pump'): WinterEvent => ({
  kind: 'protected',
  at: at(hour),
  zone,
  method: 'antifreeze through the pump',
  downToC: -24,
  closing: [{ meterId: 'm', hours: 812.4 }],
})
const proof = (hour: number, passed: boolean, zone: Zone = 'pump'): WinterEvent => ({
  kind: 'proof',
  at: at(hour),
  zone,
  passed,
  says: passed ? '−26 °C' : '−11 °C',
  measuredC: passed ? -26 : -11,
})
const read = (hour: number, hours: number, accepted = true): WinterEvent => ({
  kind: 'reading',
  at: at(hour),
  meterId: 'm',
  hours,
  accepted,
})
const pump = (events: WinterEvent[]) => winterState(events, zones).pump!

describe('how a zone stands', () => {
  test('in use, filled but not proved, failed, proved', () => {
    expect(pump([]).state).toBe('inUse')
    expect(pump([filled(1)]).state).toBe('unproved')
    expect(pump([filled(1), proof(2, false)])).toMatchObject({ state: 'failed', says: '−11 °C' })
    expect(pump([filled(1), proof(2, false), filled(3), proof(4, true)]).state).toBe('protected')
    expect(winterState([filled(1), proof(2, true)], zones).hose!.state).toBe('inUse')
  })
  test.each<[string, WinterEvent, 'void' | 'protected']>([
    ['a reading 0.1 h above the closing one', read(5, 812.5), 'protected'],
    ['a reading 0.2 h above it', read(5, 812.6), 'void'],
    ['a doubted reading', read(5, 8120, false), 'protected'],
    ['a reading of another meter', { ...read(5, 900), meterId: 'x' } as WinterEvent, 'protected'],
    ['a job', { kind: 'job', at: at(5), says: 'went out' }, 'void'],
    ['a service that ran it', { kind: 'service', at: at(5), says: 'leak look', ran: true }, 'void'],
    ['a service that did not', { kind: 'service', at: at(5), says: 'oil', ran: false }, 'protected'],
    ['water connected', { kind: 'water', at: at(5), says: 'filled' }, 'void'],
    ['water at another zone', { kind: 'water', at: at(5), says: 'filled', zone: 'hose' }, 'protected'],
    ['a move into the cold', { kind: 'moved', at: at(5), says: 'outdoors', fromC: -4, toC: 0 }, 'void'],
    ['out of the heated hall', { kind: 'moved', at: at(5), says: 'hall', fromC: null, toC: -4 }, 'void'],
    ['a move into the hall', { kind: 'moved', at: at(5), says: 'hall', fromC: 0, toC: -4 }, 'protected'],
    ['frost that it stands', { kind: 'frost', at: at(5), minC: -18, standsC: 0 }, 'protected'],
  ])('%s', (_, event, state) => {
    expect(pump([filled(1), proof(2, true), event]).state).toBe(state)
  })
  test('frost exposes what is open, void, unproved or not deep enough, and thawing with a look frees it', () => {
    const frost: WinterEvent = { kind: 'frost', at: at(6), minC: -5, standsC: 0 }
    expect(pump([frost]).state).toBe('exposed')
    expect(pump([filled(1), frost]).state).toBe('exposed')
    expect(pump([filled(1), proof(2, true), read(5, 820), frost]).state).toBe('exposed')
    expect(pump([filled(1), proof(2, true), { ...frost, minC: -25 } as WinterEvent]).state).toBe('exposed')
    expect(pump([{ ...frost, standsC: -4, minC: -3.9 } as WinterEvent]).state).toBe('inUse')
    expect(pump([{ ...frost, standsC: null } as WinterEvent]).state).toBe('inUse')
    expect(pump([frost, filled(7), proof(8, true)]).state).toBe('exposed')
    expect(pump([frost, { kind: 'returned', at: at(7) }]).state).toBe('exposed')
    expect(pump([frost, { kind: 'thawed', at: at(7) }]).state).toBe('inUse')
    expect(pump([frost, { kind: 'thawed', at: at(7) }, filled(8), proof(9, true)]).state).toBe('protected')
  })
  test('what is left by name, and what went back', () => {
    expect(pump([{ kind: 'left', at: at(1), zone: 'pump', by: 'H. Lindqvist' }])).toMatchObject({
      state: 'left',
      says: 'Left as it is by H. Lindqvist.',
    })
    expect(pump([filled(1), proof(2, true), { kind: 'returned', at: at(3) }]).state).toBe('returned')
    expect(pump([filled(1), proof(2, true), { kind: 'returned', at: at(3) }, read(4, 900)]).state).toBe(
      'returned',
    )
  })
  test('events are taken in the order they happened, whatever order they came in', () => {
    const events = [filled(1), proof(2, false), filled(3), proof(4, true), read(5, 820)]
    fc.assert(
      fc.property(fc.shuffledSubarray(events, { minLength: events.length }), (mixed) => {
        expect(winterState(mixed, zones)).toEqual(winterState(events, zones))
      }),
    )
  })
  test('law: only what runs, waters or chills it voids; a proof alone protects', () => {
    const anything = fc.constantFrom<WinterEvent>(
      filled(1),
      proof(1, true),
      proof(1, false),
      read(1, 812.4),
      { kind: 'service', at: at(1), says: '', ran: false },
      { kind: 'moved', at: at(1), says: '', fromC: 0, toC: -4 },
    )
    fc.assert(
      fc.property(fc.array(anything, { maxLength: 12 }), (events) => {
        const stamped = events.map((event, n) => ({ ...event, at: at(n) }))
        const { state } = pump(stamped)
        expect(state).not.toBe('void')
        if (state === 'protected')
          expect(stamped.some((event) => event.kind === 'proof' && event.passed)).toBe(true)
      }),
    )
  })
  test('a new winter begins with nothing done, but what froze stays frozen', () => {
    const done = winterState([filled(1), proof(2, true)], zones)
    expect(inThisWinter(done, '2026-07-01').pump!.state).toBe('protected')
    expect(inThisWinter(done, '2027-07-01').pump!.state).toBe('inUse')
    const frozen = winterState([{ kind: 'frost', at: at(3), minC: -5, standsC: 0 }], zones)
    expect(inThisWinter(frozen, '2027-07-01').pump!.state).toBe('exposed')
    // One that is back at work stands in the frost like any other.
    const back = winterState(
      [
        { kind: 'returned', at: at(2) },
        { kind: 'frost', at: at(3), minC: -5, standsC: 0 },
      ],
      zones,
    )
    expect(back.pump!.state).toBe('exposed')
  })
  test('a machine stands as its worst zone', () => {
    const standing = winterState([filled(1), proof(2, true), filled(1, 'hose')], zones)
    expect(worstState(standing)).toBe('unproved')
    expect(worstState(winterState([filled(1), proof(2, true), read(5, 900)], zones))).toBe('void')
  })
})
