import { v7 as uuid } from 'uuid'
import { locksOf, recordLines, sheetState, type Lock } from '@/core/sheets'
import { changesOf } from '@/services/house'
import { addPerson } from '@/services/access'
import { appendEntries, takeInEntries } from '@/services/sheets'
import { addSheetPhoto } from '@/services/sheets'
import { entriesOf } from '@/services/sheets'
import { aPhoto, listSheetPhotos } from '../support/photos'
import { at, bookedSheet, Tablet, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

/** Somebody else who works here: A ticks, B signs in on the same tablet. */
async function second() {
  const person = { id: uuid(), name: 'B. Thorne', role: 'technician' as const }
  await addPerson(shop.coordinator, {
    ...person,
    signInName: 'thorne',
    password: 'a long enough one',
  })
  return person
}

const day = '2026-08-03'
const openSheet = async (what: 'seals' | 'oil' = 'seals') =>
  (
    await bookedSheet(
      shop,
      what === 'oil'
        ? [{ task: 'oilChange', positions: ['oil'] }]
        : [{ task: 'hpSeals', positions: ['hpSeal@1'] }],
    )
  ).sheetId

test('what one person ticked is never recorded as another’s: it waits for its author', () =>
  at(day, async () => {
    const b = await second()
    const sheetId = await openSheet()
    const tablet = new Tablet(shop.technician, sheetId)
    const lock = tablet.entry('lock', { name: 'M. Osei', goes: 'on', reason: '' })
    const remark = tablet.entry('remark', { text: 'seal weeps' })
    // B is signed in when the line comes back.
    const answer = await appendEntries(b, sheetId, [lock, remark], null)
    expect(answer.taken).toEqual([])
    expect(answer.refused).toEqual([])
    expect(answer.held).toEqual([
      { id: lock.id, why: 'author', message: 'It waits for M. Osei, who made it.' },
      { id: remark.id, why: 'author', message: 'It waits for M. Osei, who made it.' },
    ])
    expect(answer.actor).toEqual({ id: b.id, name: 'B. Thorne' })
    // What is B's own goes through beside it.
    const own = { ...tablet.entry('remark', { text: 'mine' }), authorId: b.id, deviceId: uuid() }
    expect((await appendEntries(b, sheetId, [lock, own], null)).taken).toEqual([own.id])
    // A signs in again.
    expect((await tablet.send(lock, remark)).taken).toEqual([lock.id, remark.id])
    const entries = await entriesOf(sheetId)
    expect(entries.slice(1).map(({ byName }) => byName)).toEqual(['B. Thorne', 'M. Osei', 'M. Osei'])
    expect(locksOf(sheetState(entries)!).map(({ name, on }: Lock) => [name, on.byId])).toEqual([
      ['M. Osei', shop.technician.id],
    ])
  }))

test('a coordinator takes in what an author cannot send; the record names both and why', () =>
  at(day, async () => {
    const sheetId = await openSheet()
    const tablet = new Tablet(shop.technician, sheetId)
    const remark = tablet.entry('remark', { text: 'seal weeps' })
    expect(
      await problemIn(takeInEntries(shop.technician, sheetId, [remark], 'tablet broken', null)),
    ).toMatchObject({ kind: 'notAllowed' })
    expect(await problemIn(takeInEntries(shop.coordinator, sheetId, [remark], ' ', null))).toMatchObject({
      kind: 'invalid',
    })
    const stranger = { ...tablet.entry('remark', { text: 'x' }), authorId: uuid() }
    const answer = await takeInEntries(shop.coordinator, sheetId, [remark, stranger], 'has left us', null)
    expect(answer.taken).toEqual([remark.id])
    expect(answer.held.map(({ id }) => id)).toEqual([stranger.id])
    // Sent again it is kept once, and its author may still send it.
    expect((await tablet.send(remark)).taken).toEqual([remark.id])
    const entries = await entriesOf(sheetId)
    expect(entries.filter(({ kind }) => kind === 'remark')).toMatchObject([
      { byName: 'M. Osei', takenInByName: 'H. Lindqvist', takenInWhy: 'has left us' },
    ])
    const line = recordLines(sheetState(entries)!).find(({ kind }) => kind === 'remark')!
    expect([line.by, line.detail]).toEqual(['M. Osei', 'taken in by H. Lindqvist: has left us'])
    const told = (await changesOf('sheet', sheetId)).find(({ action }) => action === 'takenIn')!
    expect([told.actorName, told.reason]).toEqual(['H. Lindqvist', 'has left us'])
  }))

test('an entry without an author is refused with what to do, and an entry is answered by itself', () =>
  at(day, async () => {
    const sheetId = await openSheet()
    const tablet = new Tablet(shop.technician, sheetId)
    const { authorId: _authorId, ...without } = tablet.entry('remark', { text: 'from an old page' })
    const good = tablet.entry('remark', { text: 'good' })
    const answer = await appendEntries(shop.technician, sheetId, [without, 'nonsense', null, good], null)
    expect(answer.taken).toEqual([good.id])
    expect(answer.refused.map(({ id }) => id)).toEqual([without.id, '', ''])
    expect(answer.refused[0]!.message).toContain('Load the page again')
  }))

test('an id that another sheet uses is refused, and the good entries beside it are kept', () =>
  at(day, async () => {
    const first = new Tablet(shop.technician, await openSheet())
    const taken = first.entry('remark', { text: 'on the first sheet' })
    await first.send(taken)
    const other = new Tablet(shop.technician, await openSheet('oil'))
    const clash = { ...other.entry('remark', { text: 'same id' }), id: taken.id }
    const good = other.entry('remark', { text: 'good' })
    const answer = await appendEntries(shop.technician, other.sheetId, [clash, good], null)
    expect(answer.taken).toEqual([good.id])
    expect(answer.refused.map(({ id }) => id)).toEqual([taken.id])
    // A reading whose id is that of a reading elsewhere is refused too, and leaves nothing half-done.
    const before = (await entriesOf(other.sheetId)).length
    const reading = other.entry('reading', {
      meterId: shop.meterId,
      typed: '830',
      unreadable: '',
      vouched: true,
    })
    const again = { ...other.entry('reading', { meterId: uuid(), typed: '830' }), id: reading.id }
    await other.send(reading)
    expect((await appendEntries(shop.technician, first.sheetId, [again], null)).refused).toHaveLength(1)
    expect((await entriesOf(other.sheetId)).length).toBe(before + 1)
  }))

test('a photo belongs to whoever took it; twelve of one at once are kept once', () =>
  at(day, async () => {
    const b = await second()
    const sheetId = await openSheet()
    const id = uuid()
    const bytes = await aPhoto()
    const theirs = addSheetPhoto(b, sheetId, { id, name: 'a.jpg', authorId: shop.technician.id }, bytes)
    expect(await problemIn(theirs)).toMatchObject({ kind: 'notAllowed' })
    const sent = Array.from({ length: 12 }, () =>
      addSheetPhoto(shop.technician, sheetId, { id, name: 'a.jpg', authorId: shop.technician.id }, bytes),
    )
    await Promise.all(sent)
    expect(await listSheetPhotos()).toEqual([
      { id, recordedById: shop.technician.id, file: true, leftovers: 0 },
    ])
    const other = await openSheet('oil')
    expect(
      await problemIn(addSheetPhoto(shop.technician, other, { id, name: 'a.jpg' }, bytes)),
    ).toMatchObject({
      kind: 'conflict',
    })
    const late = uuid()
    await addSheetPhoto(
      shop.coordinator,
      sheetId,
      { id: late, name: 'b.jpg', authorId: shop.technician.id },
      bytes,
    )
    expect((await listSheetPhotos()).find((each) => each.id === late)!.recordedById).toBe(shop.technician.id)
  }))
