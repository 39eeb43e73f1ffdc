import { defineEventHandler } from 'h3'
import type { Done } from '#core/http/answers'
import { requireOwner } from '../../auth/actor'

/** Whether an owner's act would be done now, or asks for the password first. */
export default defineEventHandler(async (event): Promise<Done> => {
  await requireOwner(event)
  return { ok: true }
})
