import { MAX_PHOTOS, PhotoOf, type PhotoView } from '#core/http/photos'
import { sql } from 'kysely'
import type { ShopTx } from './connect'
import { newId } from './ids'

/** A job, or the shop, has as many photographs as it may. */
export class TooManyPhotos extends Error {}

/** All photographs of a shop together: about 20,000 as a tablet sends them. */
export const SHOP_PHOTO_BYTES = 8 * 1024 ** 3

const there = (tx: ShopTx, shop: string, job: string) =>
  tx.selectFrom('photo').where('shop', '=', shop).where('job', '=', job).where('gone_at', 'is', null)

/** A job's photographs, the oldest first, without their bytes. */
export async function photosOf(tx: ShopTx, shop: string, job: string): Promise<PhotoView[]> {
  const rows = await there(tx, shop, job)
    .select(['id', 'run', 'person', 'made_at'])
    .orderBy('made_at')
    .limit(MAX_PHOTOS)
    .execute()
  return rows.map(r => ({ id: r.id, of: PhotoOf.parse(r.run), by: r.person, madeAt: r.made_at.toISOString() }))
}

/**
 * Keeps a photograph. The same picture of the same thing sent again, because its answer was lost, is kept once: a
 * second one out of the same camera differs in its bytes.
 * @returns its id
 * @throws TooManyPhotos
 */
export async function addPhoto(
  tx: ShopTx,
  shop: string,
  job: string,
  person: string,
  photo: { of: PhotoOf; mime: string; bytes: Buffer },
): Promise<string> {
  const same = await there(tx, shop, job)
    .select('id')
    .where('run', '=', photo.of)
    .where('bytes', '=', photo.bytes)
    .executeTakeFirst()
  if (same) return same.id
  const { count } = await there(tx, shop, job)
    .select(eb => eb.fn.countAll<string>().as('count'))
    .executeTakeFirstOrThrow()
  if (Number(count) >= MAX_PHOTOS) throw new TooManyPhotos(`A job keeps ${MAX_PHOTOS} photographs: take one off first`)
  const { bytes } = await tx
    .selectFrom('photo')
    .select(sql<string>`coalesce(sum(size), 0)`.as('bytes'))
    .where('shop', '=', shop)
    .where('gone_at', 'is', null)
    .executeTakeFirstOrThrow()
  if (Number(bytes) + photo.bytes.length > SHOP_PHOTO_BYTES)
    throw new TooManyPhotos(
      `The shop's photographs take ${SHOP_PHOTO_BYTES / 1024 ** 3} GB, as much as they may: take some off old jobs first`,
    )
  const id = newId()
  await tx
    .insertInto('photo')
    .values({ shop, id, job, person, run: photo.of, mime: photo.mime, bytes: photo.bytes })
    .execute()
  return id
}

export async function photo(
  tx: ShopTx,
  shop: string,
  job: string,
  id: string,
): Promise<{ mime: string; bytes: Buffer } | undefined> {
  const row = await there(tx, shop, job).select(['mime', 'bytes']).where('id', '=', id).executeTakeFirst()
  return row?.bytes ? { mime: row.mime, bytes: row.bytes } : undefined
}

/** Takes a photograph off: its bytes are gone, who took it when is kept. @returns false when it is not there */
export async function dropPhoto(tx: ShopTx, shop: string, job: string, id: string, at = new Date()): Promise<boolean> {
  const { numUpdatedRows } = await tx
    .updateTable('photo')
    .set({ gone_at: at, bytes: null })
    .where('shop', '=', shop)
    .where('job', '=', job)
    .where('id', '=', id)
    .where('gone_at', 'is', null)
    .executeTakeFirst()
  return Number(numUpdatedRows) === 1
}
