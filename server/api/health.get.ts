import { sql } from 'kysely'
import { defineEventHandler, setResponseStatus } from 'h3'
import { db } from '../db/shared'

export default defineEventHandler(async event => {
  try {
    await sql`select 1`.execute(db())
    return { ok: true }
  } catch {
    setResponseStatus(event, 503)
    return { ok: false }
  }
})
