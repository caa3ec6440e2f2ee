import fc from 'fast-check'
import { recordOf } from '@/core/sheets'

const visit = (number: number, day: string, state = 'booked', services: object[] = []) => ({
  id: `visit ${number}`,
  number,
  day,
  state,
  services,
})
const sheet = (number: number, day: string, state = 'signed', visitId: string | null = null) => ({
  id: `sheet ${number}`,
  number,
  state,
  visitId,
  startedOn: day,
  signedOn: state === 'signed' ? day : null,
})
const record = (visits: object[], sheets: object[]) => {
  const { coming, past } = recordOf(visits as never, sheets as never)
  return [coming, past].map((list) =>
    list.map((line) => [line.sheet?.id, line.visit?.id].filter(Boolean).join(' of ')),
  )
}

test('a visit and its sheet are one line of the record', () => {
  expect(
    record(
      [
        visit(3, '2026-11-02'),
        visit(1, '2026-05-02', 'done'),
        visit(2, '2026-10-14', 'inWork'),
        visit(4, '2026-06-01', 'cancelled'),
      ],
      [
        sheet(9, '2026-05-03', 'signed', 'visit 1'),
        sheet(10, '2026-10-14', 'open', 'visit 2'),
        sheet(8, '2026-04-01'),
      ],
    ),
  ).toEqual([
    ['sheet 10 of visit 2', 'visit 3'],
    ['visit 4', 'sheet 9 of visit 1', 'sheet 8'],
  ])
})

test('nothing of the record is lost or told twice', () => {
  const day = fc.integer({ min: 1, max: 28 }).map((n) => `2026-09-${String(n).padStart(2, '0')}`)
  const made = fc
    .array(fc.tuple(day, fc.constantFrom('booked', 'inWork', 'done', 'cancelled', 'missed')), {
      maxLength: 6,
    })
    .chain((visits) =>
      fc.tuple(
        fc.constant(visits.map(([on, state], index) => visit(index, on, state))),
        fc
          .array(
            fc.tuple(day, fc.constantFrom('open', 'signed', 'abandoned'), fc.integer({ min: 0, max: 8 })),
            { maxLength: 6 },
          )
          .map((sheets) =>
            sheets.map(([on, state, of], index) =>
              sheet(index, on, state, of < visits.length ? `visit ${of}` : null),
            ),
          ),
      ),
    )
  fc.assert(
    fc.property(made, ([visits, sheets]) => {
      const { coming, past } = recordOf(visits as never, sheets as never)
      const lines = [...coming, ...past]
      expect(lines.flatMap((line) => line.sheet?.id ?? []).sort()).toEqual(sheets.map(({ id }) => id).sort())
      expect(new Set(lines.flatMap((line) => line.visit?.id ?? []))).toEqual(
        new Set(visits.map(({ id }) => id)),
      )
      const days = past.map((line) => line.day)
      expect(days).toEqual([...days].sort().reverse())
    }),
  )
})
