import fc from 'fast-check'
import { bookUses, countDifference, stockOf, takenByOpen, type Movement, type NotedUse } from '@/core/stores'

const at = (minute: number) => new Date(Date.UTC(2026, 9, 14, 8, minute)).toISOString()
const lot = { id: 'a', number: 1, partId: 'seal', receivedOn: '2026-10-01', expiresOn: null }
const use = (quantity: number, left: number, heard = left): NotedUse => ({
  partId: 'seal',
  lotId: 'a',
  quantity,
  at: at(left),
  receivedAt: at(heard),
})
const received = (quantity: number): Movement => ({ partId: 'seal', lotId: 'a', quantity })

test('what is noted on an open sheet has left the bin; counted meanwhile, it is not corrected twice', () => {
  // Six there; two noted at 10 past. The bin is counted at half past: four lie there, as they should.
  const uses = [use(2, 10)]
  const stock = stockOf([lot], [received(6)], '2026-10-14', 1, takenByOpen(uses, []))
  expect(stock).toMatchObject({ onHand: 4, taken: 2 })
  expect(countDifference(4, stock.lots[0]!.onHand)).toBe(0)
  // Signed, the book has four: nothing was corrected twice.
  expect(bookUses(uses, [{ lotId: 'a', at: at(30) }])).toEqual([{ out: -2, back: 0 }])
})

test('a use that came in after the count it is missing from is booked once', () => {
  // Two taken at 10 past on a tablet without a connection; counted at half past: four instead of six.
  const before = stockOf([lot], [received(6)], '2026-10-14')
  const difference = countDifference(4, before.lots[0]!.onHand)
  expect(difference).toBe(-2)
  const uses = [use(2, 10, 50)]
  const counts = [{ lotId: 'a', at: at(30) }]
  const moved = [received(6), { ...received(0), quantity: difference }]
  // Heard of at ten to: the count has it already, and so it stays when the sheet is signed.
  expect(stockOf([lot], moved, '2026-10-14', 1, takenByOpen(uses, counts)).onHand).toBe(4)
  expect(bookUses(uses, counts)).toEqual([{ out: -2, back: 2 }])
})

test('law: through any order of notes, takings back, counts and signatures the book ends at what lies there', () => {
  type Act = { does: 'use' | 'count' | 'sign' | 'back'; quantity: number; delay: number; pick: number }
  const acts = fc.array(
    fc.record<Act>({
      does: fc.constantFrom('use', 'use', 'count', 'sign', 'back'),
      quantity: fc.integer({ min: 1, max: 5 }),
      delay: fc.integer({ min: 0, max: 12 }),
      pick: fc.nat({ max: 20 }),
    }),
    { minLength: 1, maxLength: 30 },
  )
  fc.assert(
    fc.property(acts, (list) => {
      let bin = 200
      let movements: Movement[] = [received(200)]
      const counts: { lotId: string; at: string }[] = []
      let open: (NotedUse & { heard: number })[] = []
      const known = (now: number) => open.filter(({ heard }) => heard <= now)
      list.forEach(({ does, quantity, delay, pick }, minute) => {
        if (does === 'use') {
          bin -= quantity
          open = [...open, { ...use(quantity, minute, minute + delay), heard: minute + delay }]
        } else if (does === 'back') {
          // Only what is known can be taken back, and only before a count has settled it otherwise.
          const back = known(minute).filter((each) => takenByOpen([each], counts).length > 0)
          const one = back[pick % Math.max(1, back.length)]
          if (!one) return
          bin += one.quantity
          open = open.filter((each) => each !== one)
        } else if (does === 'count') {
          const { lots } = stockOf([lot], movements, '2026-10-14', 1, takenByOpen(known(minute), counts))
          movements = [...movements, received(countDifference(bin, lots[0]!.onHand))]
          counts.push({ lotId: 'a', at: at(minute) })
        } else {
          const signed = known(minute)
          for (const { out, back } of bookUses(signed, counts))
            movements = [...movements, received(out + back)]
          open = open.filter((each) => !signed.includes(each))
        }
      })
      // Everything comes in, everything is signed: the book is the bin.
      const late = list.length + 20
      expect(
        stockOf([lot], movements, '2026-10-14', 1, takenByOpen(known(late), counts)).lots[0]!.onHand,
      ).toBe(bin)
      for (const { out, back } of bookUses(open, counts)) movements = [...movements, received(out + back)]
      expect(stockOf([lot], movements, '2026-10-14').lots[0]!.onHand).toBe(bin)
    }),
  )
})
