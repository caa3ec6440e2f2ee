import { existsSync, readdirSync } from 'node:fs'
import path from 'node:path'
import sharp from 'sharp'
import { v7 as uuid } from 'uuid'
import { addDocument, documentsOf, readDocument, removeDocument } from '@/services/fleet'
import { getMachine } from '@/services/fleet'
import { at, workshop, type Workshop } from '../support/bench'
import { problemIn, removeDatabase } from '../support/database'

let shop: Workshop
const now = <T>(work: () => Promise<T>) => at('2026-08-03', work)
beforeEach(async () => {
  shop = await workshop()
})
afterAll(removeDatabase)

const photo = () =>
  sharp({ create: { width: 2400, height: 1200, channels: 3, background: '#456' } })
    // Taken sideways, with the camera's name in it.
    .withMetadata({ orientation: 6, exif: { IFD0: { Make: 'Some camera' } } })
    .jpeg()
    .toBuffer()
const add = (bytes: Uint8Array, more = {}) =>
  addDocument(shop.technician, { id: uuid(), machineId: shop.machineId, name: 'plate.jpg', ...more }, bytes)

test('a photo is kept upright, smaller and without what its camera wrote into it', () =>
  now(async () => {
    const bytes = await photo()
    expect((await sharp(bytes).metadata()).exif).toBeDefined()
    const id = uuid()
    await add(bytes, { id })
    await add(bytes, { id })
    const [view, ...rest] = await documentsOf(shop.viewer, shop.machineId)
    expect(rest).toEqual([])
    expect(view).toMatchObject({ name: 'plate.jpg', photo: true, by: 'M. Osei', day: '2026-08-03' })
    const kept = await sharp((await readDocument(shop.viewer, view!.id)).bytes).metadata()
    expect([kept.width, kept.height, kept.exif]).toEqual([800, 1600, undefined])
    const { changes } = await getMachine(shop.viewer, 'T-04')
    expect(changes[0]?.summary).toBe('Photo added: plate.jpg')
  }))

test('a PDF is kept as it is, and taken off again', () =>
  now(async () => {
    const bytes = Buffer.from('%PDF-1.4\n% one page')
    await add(bytes, { name: 'Wiring, sheet 2.pdf' })
    const [view] = await documentsOf(shop.viewer, shop.machineId)
    expect((await readDocument(shop.viewer, view!.id)).bytes.equals(bytes)).toBe(true)
    expect(await problemIn(removeDocument(shop.technician, view!))).toMatchObject({ kind: 'notAllowed' })
    await removeDocument(shop.coordinator, { id: view!.id, version: view!.version })
    expect(await documentsOf(shop.viewer, shop.machineId)).toEqual([])
    expect(await problemIn(readDocument(shop.viewer, view!.id))).toMatchObject({ kind: 'notFound' })
  }))

test.each([
  ['a text that calls itself a photo', Buffer.from('hello'), 'is neither a photo'],
  ['a photo cut off after its first bytes', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 1]), 'it may be damaged'],
  ['40 MB', new Uint8Array(40_000_000), 'has 40 MB; at most 25 MB'],
  ['nothing at all', new Uint8Array(0), 'is neither a photo'],
])('%s is refused in plain words and leaves no file behind', (_what, bytes, says) =>
  now(async () => {
    expect((await problemIn(add(bytes))).fields?.file).toContain(says)
    expect(await documentsOf(shop.viewer, shop.machineId)).toEqual([])
    const folder = path.join(process.env.ATELIER_DATA!, 'documents')
    expect(existsSync(folder) ? readdirSync(folder) : []).toEqual([])
  }),
)

test('an id that would leave the folder is refused', () =>
  now(async () => {
    expect(await problemIn(add(Buffer.from('%PDF-1.4'), { id: '../../../etc/passwd' }))).toMatchObject({
      kind: 'invalid',
    })
  }))
