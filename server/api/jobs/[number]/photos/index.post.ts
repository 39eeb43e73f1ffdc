import { defineEventHandler } from 'h3'
import { JobNumber } from '#core/http/job'
import { MAX_PHOTO_BYTES, photoKind, PhotoAsk, type PhotoView } from '#core/http/photos'
import { requirePerson, tapped } from '../../../../auth/actor'
import { bytesBody, param, query, refuse } from '../../../../auth/refuse'
import { inShop } from '../../../../db/connect'
import { jobByNumber } from '../../../../db/jobs'
import { addPhoto, photosOf, TooManyPhotos } from '../../../../db/photos'
import { db } from '../../../../db/shared'

/** Adds a photograph of a run as it was found; the body is the picture itself. */
export default defineEventHandler(async (event): Promise<PhotoView[]> => {
  const actor = await requirePerson(event)
  const number = param(event, 'number', JobNumber)
  const { run } = query(event, PhotoAsk)
  const bytes = await bytesBody(event, MAX_PHOTO_BYTES, 'make it smaller')
  const mime = photoKind(bytes)
  if (!mime) throw refuse(400, 'That is not a JPEG or PNG picture: take it again with the camera')
  try {
    const now = await inShop(db(), actor.shop, async tx => {
      const job = await jobByNumber(tx, actor.shop, number)
      if (!job) throw refuse(404, `There is no job ${number} here: look on the Floor`)
      await addPhoto(tx, actor.shop, job.id, actor.person.id, { run, mime, bytes })
      return photosOf(tx, actor.shop, job.id)
    })
    tapped(actor, actor.person.id)
    return now
  } catch (error) {
    if (error instanceof TooManyPhotos) throw refuse(409, error.message)
    throw error
  }
})
