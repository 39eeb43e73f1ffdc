import { defineEventHandler } from 'h3'
import { z } from 'zod'
import type { JoinCodeState } from '#core/http/joining'
import { requireOwnerToLook } from '../../../auth/actor'
import { param, refuse } from '../../../auth/refuse'
import { inShop } from '../../../db/connect'
import { joiningState } from '../../../db/joining'
import { db } from '../../../db/shared'

/** What became of a joining code: the owner's screen says when the device is in. */
export default defineEventHandler(async (event): Promise<z.infer<typeof JoinCodeState>> => {
  const actor = await requireOwnerToLook(event)
  const id = param(event, 'id', z.uuid('That code is not known'))
  const state = await inShop(db(), actor.shop, tx => joiningState(tx, actor.shop, id))
  if (!state) throw refuse(404, 'That code is not known here: make a new one')
  return state
})
