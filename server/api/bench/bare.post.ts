import { randomUUID } from 'node:crypto'
import { createError, defineEventHandler, readBody } from 'h3'
import { sql } from 'kysely'
import { db } from '../../db/shared'

/** What an append is measured against: a bare insert over HTTP. Answers only while benchmarking. */
export default defineEventHandler(async event => {
  if (process.env.OCHO_BENCH !== '1') throw createError({ statusCode: 404, message: 'Not found' })
  const body: unknown = await readBody(event)
  await sql`insert into bare_insert (id, body) values (${randomUUID()}, ${JSON.stringify(body)}::jsonb)`.execute(db())
  return { ok: true }
})
