import { type LikeHere, StandardId } from '#core/http/records'
import { FrameKind } from '#core/standards/frames'
import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { requireSession } from '../../auth/actor'
import { query } from '../../auth/refuse'
import { inShop } from '../../db/connect'
import { likeHere } from '../../db/recordViews'
import { db } from '../../db/shared'

/** A bike has no more parts and runs than this. */
const MOST = 12
const Asked = z.object({
  standard: z
    .union([StandardId, z.array(StandardId)])
    .transform(s => [s].flat())
    .refine(s => s.length <= MOST, `Ask for at most ${MOST} standards at once`),
  frame: FrameKind.nullable().default(null),
})

/** What this shop has seen on bikes like one: by its standards, and by its kind of frame. */
export default defineEventHandler(async (event): Promise<LikeHere> => {
  const { shop } = await requireSession(event)
  const { standard, frame } = query(event, Asked)
  return inShop(db(), shop, tx => likeHere(tx, shop, standard, frame))
})
