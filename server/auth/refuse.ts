import { createHash } from 'node:crypto'
import { createError, getRequestHeader, getRouterParam, getQuery, setResponseHeader, type H3Event } from 'h3'
import { z } from 'zod'
import { REQUEST_HEADER } from '#core/http/page'
import { issuesOf, type Refusal } from '#core/http/words'
import { newId } from '../db/ids'

/** Largest body taken: 200 entries with room to spare. */
const MAX_BODY_BYTES = 256 * 1024

/** An answer that says what to do; thrown, so that nothing after it runs. */
export function refuse(statusCode: number, message: string, issues: Refusal['issues'] = []) {
  return createError({ statusCode, message, data: { message, issues } satisfies Refusal })
}

function parsed<S extends z.ZodType>(schema: S, value: unknown): z.infer<S> {
  const field = unkeepable(value)
  if (field !== null) {
    const message = 'There is a character in it that cannot be kept: type it again'
    throw refuse(400, message, [{ field, message }])
  }
  const read = schema.safeParse(value)
  if (read.success) return read.data
  const issues = issuesOf(read.error)
  throw refuse(400, issues.map(i => i.message).join('. '), issues)
}

/**
 * The id of what a request makes: the same for the same one sent again under its own id, because the answer was lost;
 * new for any other, so that nothing is taken for done that says something else.
 * @param asks what it asks, as it was read
 */
export function madeBy(event: H3Event, asks: unknown): string {
  const read = z.uuid().optional().safeParse(getRequestHeader(event, REQUEST_HEADER))
  if (!read.success) throw refuse(400, `${REQUEST_HEADER} must be a UUID`)
  if (!read.data) return newId()
  const hex = createHash('sha256')
    .update(JSON.stringify([read.data, event.path, asks]))
    .digest('hex')
  // version 8 is for what is made by a rule of one's own (RFC 9562, 5.8)
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

/**
 * The request's JSON body by a schema, read no further than its limit. Throws 413, 415 or 400 with each field and what
 * to do.
 */
export async function body<S extends z.ZodType>(event: H3Event, schema: S): Promise<z.infer<S>> {
  if (!/^application\/json\b/.test(getRequestHeader(event, 'content-type') ?? '')) throw refuse(415, 'Send JSON')
  const raw = await bytesBody(event, MAX_BODY_BYTES, 'send less at once')
  let value: unknown
  try {
    value = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(raw))
  } catch {
    throw refuse(400, 'The request is not valid JSON')
  }
  return parsed(schema, value)
}

/** Where a value holds text that cannot be kept: a null character, or half of a character. Null when nowhere. */
function unkeepable(value: unknown, path: readonly string[] = []): string | null {
  if (typeof value === 'string') return value.includes('\0') || !value.isWellFormed() ? path.join('.') : null
  if (typeof value !== 'object' || value === null) return null
  for (const [key, of] of Object.entries(value)) {
    const at = unkeepable(key, [...path, 'name']) ?? unkeepable(of, [...path, key])
    if (at !== null) return at
  }
  return null
}

/**
 * The request's body as it is, read no further than so many bytes: what is larger is refused while it comes in. Throws
 * 413.
 */
export async function bytesBody(event: H3Event, mostBytes: number, instead: string): Promise<Buffer> {
  const most = mostBytes < 1024 * 1024 ? `${mostBytes / 1024} kB` : `${mostBytes / 1024 / 1024} MB`
  const tooLarge = () => refuse(413, `What was sent is larger than ${most}: ${instead}`)
  if (Number(getRequestHeader(event, 'content-length') ?? 0) > mostBytes) throw tooLarge()
  const parts: Buffer[] = []
  let size = 0
  // left as it is where it is too large: the answer still goes out, and then the connection ends
  for await (const part of event.node.req.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    size += part.length
    if (size > mostBytes) {
      setResponseHeader(event, 'connection', 'close')
      throw tooLarge()
    }
    parts.push(part)
  }
  return Buffer.concat(parts)
}

/** The request's body as text. Throws 413, or 400 when it is not UTF-8 text. */
export async function textBody(event: H3Event, mostBytes: number): Promise<string> {
  const bytes = await bytesBody(event, mostBytes, 'split it and send the parts')
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    throw refuse(400, 'The file is not UTF-8 text: save it as UTF-8 (or as CSV UTF-8) and choose it again')
  }
}

export const param = <S extends z.ZodType>(event: H3Event, name: string, schema: S): z.infer<S> =>
  parsed(schema, getRouterParam(event, name))
/** The address's query by a schema. Throws 400 with the field and what to do. */
export function query<S extends z.ZodType>(event: H3Event, schema: S): z.infer<S> {
  const asked = getQuery(event)
  const at = unkeepable(asked)
  if (at !== null) throw refuse(400, `${at}: it holds a character that is none: type it anew`)
  return parsed(schema, asked)
}
