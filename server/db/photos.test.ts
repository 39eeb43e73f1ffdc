import { randomBytes, randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { MAX_PHOTOS, photoKind, type PhotoOf } from '#core/http/photos'
import { stockParts } from '#core/rear/typedParts'
import { connect, inShop, type Db } from './connect'
import { jobByNumber, takeIn } from './jobs'
import { createShop } from './people'
import { addPhoto, dropPhoto, photo, photosOf, TooManyPhotos } from './photos'

let db: Db
beforeAll(() => {
  db = connect(inject('appUrl'), 4)
})
afterAll(() => db.destroy())

async function newJob() {
  const shop = randomUUID()
  const person = await createShop(
    db,
    { id: shop, code: `f-${shop.slice(0, 8)}`, name: 'A', zone: 'UTC', demo: false },
    { name: 'Ishbel', role: 'owner', passwordHash: null, pinHash: 'x' },
  )
  const number = await takeIn(db, shop, person, null, {
    customer: { name: 'B', contact: '' },
    bike: { name: 'C', frameNumber: '' },
    tag: '1',
    promisedAt: new Date().toISOString(),
    complaint: 'c',
    parts: stockParts('r17-9'),
    sameParts: false,
  })
  const job = (await inShop(db, shop, tx => jobByNumber(tx, shop, number)))!.id
  const add = (bytes = randomBytes(50), of: PhotoOf = 'rear') =>
    inShop(db, shop, tx => addPhoto(tx, shop, job, person, { of, mime: 'image/jpeg', bytes }))
  return { shop, job, add }
}

test('a photograph comes back byte by byte, is taken off once, and belongs to its shop', async () => {
  const { shop, job, add } = await newJob()
  const bytes = randomBytes(5000)
  const id = await add(bytes)
  expect((await inShop(db, shop, tx => photo(tx, shop, job, id)))!.bytes.equals(bytes)).toBe(true)
  const other = await newJob()
  expect(await inShop(db, other.shop, tx => photo(tx, shop, job, id))).toBeUndefined()
  expect(await inShop(db, other.shop, tx => photosOf(tx, shop, job))).toEqual([])
  expect(await inShop(db, other.shop, tx => dropPhoto(tx, shop, job, id))).toBe(false)
  expect(await inShop(db, shop, tx => dropPhoto(tx, shop, job, id))).toBe(true)
  expect(await inShop(db, shop, tx => dropPhoto(tx, shop, job, id))).toBe(false)
  expect(await inShop(db, shop, tx => photosOf(tx, shop, job))).toEqual([])
})

test('the same picture sent again is there once; of another thing, another, or taken off before, it is new', async () => {
  const { shop, job, add } = await newJob()
  const bytes = randomBytes(5000)
  const id = await add(bytes)
  expect(await add(bytes)).toBe(id)
  expect(
    new Set([id, await add(bytes, 'bike'), await add(randomBytes(5000)), await (await newJob()).add(bytes)]).size,
  ).toBe(4)
  await inShop(db, shop, tx => dropPhoto(tx, shop, job, id))
  expect(await add(bytes)).not.toBe(id)
  expect(await inShop(db, shop, tx => photosOf(tx, shop, job))).toHaveLength(3)
})

test('a job that has as many as it may takes one of them again without a word', async () => {
  const { add } = await newJob()
  const first = randomBytes(50)
  const id = await add(first)
  for (let i = 1; i < MAX_PHOTOS; i++) await add()
  expect(await add(first)).toBe(id)
})

test('no more than a job may have', async () => {
  const { add } = await newJob()
  for (let i = 0; i < MAX_PHOTOS; i++) await add()
  await expect(add()).rejects.toThrow(TooManyPhotos)
})

// Published source: file signatures of JPEG (ISO/IEC 10918-1) and PNG (ISO/IEC 15948), recalled
test.each([
  [[0xff, 0xd8, 0xff, 0xe0], 'image/jpeg'],
  [[0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0], 'image/png'],
  [[0x3c, 0x73, 0x76, 0x67], null],
  [[0xff, 0xd8], null],
  [[], null],
] as const)('bytes %j are %s', (bytes, kind) => {
  expect(photoKind(Uint8Array.from(bytes))).toBe(kind)
})
