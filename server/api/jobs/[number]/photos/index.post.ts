import { defineEventHandler } from 'h3'
import { JobNumber } from '#core/http/job'
import { MAX_PHOTO_BYTES, photoKind, PhotoAsk, type PhotoView } from '#core/http/photos'
import { requirePerson, tapped } from '../../../../auth/actor'
import { answering } from '../../../../auth/answering'
import { bytesBody, param, query, refuse } from '../../../../auth/refuse'
import { inShop } from '../../../../db/connect'
import { lockOpenJob } from '../../../../db/ledger'
import { addPhoto, photosOf } from '../../../../db/photos'
import { db } from '../../../../db/shared'
import { cleanPhoto } from '../../../../photos/clean'

/** Adds a photograph of a run or of the bike as it was found; the body is the picture itself. */
export default defineEventHandler(async (event): Promise<PhotoView[]> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const { of } = query(event, PhotoAsk)
  const bytes = await bytesBody(event, MAX_PHOTO_BYTES, 'make it smaller')
  const mime = photoKind(bytes)
  if (!mime) throw refuse(400, 'That is not a JPEG or PNG picture: take it again with the camera')
  const clean = await cleanPhoto(bytes, mime).catch(() => {
    throw refuse(400, 'That picture cannot be read, or is larger than a camera makes them: take it again')
  })
  const now = await answering(number, () =>
    inShop(db(), actor.shop, async tx => {
      const job = await lockOpenJob(tx, actor.shop, number)
      await addPhoto(tx, actor.shop, job, actor.person.id, { of, mime, bytes: clean })
      return photosOf(tx, actor.shop, job)
    }),
  )
  tapped(actor, actor.person.id)
  return now
})
