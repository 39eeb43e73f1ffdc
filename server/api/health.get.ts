import { sql } from 'kysely'
import { defineEventHandler, setResponseStatus } from 'h3'
import { db } from '../db/shared'

/** Asked by anybody: tried on the disk at most this often. */
const KEEP_MS = 1_000
let last: { at: number; ok: Promise<boolean> } = { at: 0, ok: Promise.resolve(false) }

/** Would a tap be kept now? Written, not only read: a full disk reads well. */
const tried = (): Promise<boolean> =>
  sql`insert into gate.pulse (one, at) values (true, now()) on conflict (one) do update set at = now()`
    .execute(db())
    .then(
      () => true,
      () => false,
    )

export default defineEventHandler(async event => {
  if (Date.now() - last.at > KEEP_MS) last = { at: Date.now(), ok: tried() }
  const ok = await last.ok
  if (!ok) setResponseStatus(event, 503)
  return { ok }
})
