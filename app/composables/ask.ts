import type { z } from 'zod'
import { PAGE_HEADER, REQUEST_HEADER, SHOP_HEADER } from '#core/http/page'
import { PROGRESS_TYPE, ProgressLine, type Tell } from '#core/http/progress'
import { Refusal } from '#core/http/words'
import { answered, idUntilAnswered } from '../stores/drafts'
import { newUuid, THIS_PAGE } from './ids'

/** What a request came to. The caller can act on each. */
export type Asked<T> =
  | { is: 'done'; value: T }
  | { is: 'offline' }
  | { is: 'refused'; status: number; message: string; issues: Refusal['issues'] }

/** The shop this page is of, by its code; null before anybody signed in, and while it is asked who did. */
let pageShop: string | null = null
export const pageIsOf = (code: string | null): void => {
  pageShop = code
}

type Request = {
  method?: 'GET' | 'POST' | 'DELETE'
  body?: unknown
  timeoutMs?: number
  /** It makes something anew each time it is asked: asked again while its answer is lost, the server does it once. */
  once?: boolean
}

/** Asks the server and reads its answer by the contract's schema; never throws for what a person can put right. */
export async function ask<S extends z.ZodType>(
  schema: S,
  url: string,
  { method = 'GET', body: given, timeoutMs = 15_000, once }: Request = {},
): Promise<Asked<z.infer<S>>> {
  const headers: Record<string, string> = given === undefined ? {} : { 'content-type': 'application/json' }
  const body = given === undefined ? given : JSON.stringify(given)
  if (!once) return asked(schema, url, { method, headers, body }, timeoutMs)
  const what = url + body
  const bearing = { ...headers, [REQUEST_HEADER]: idUntilAnswered(what, newUuid) }
  const answer = await asked(schema, url, { method, headers: bearing, body }, timeoutMs)
  if (answer.is !== 'offline') answered(what)
  return answer
}

/** The same with a file as it is; it may take longer, and then `tell` hears how much is done. */
export const askWithFile = <S extends z.ZodType>(
  schema: S,
  url: string,
  file: Blob,
  type = file.type,
  tell?: Tell,
): Promise<Asked<z.infer<S>>> => {
  const headers = { 'content-type': type, ...(tell ? { accept: PROGRESS_TYPE } : {}) }
  return asked(schema, url, { method: 'POST', headers, body: file }, 60_000, tell)
}

async function asked<S extends z.ZodType>(
  schema: S,
  url: string,
  init: RequestInit,
  timeoutMs: number,
  tell?: Tell,
): Promise<Asked<z.infer<S>>> {
  let response: Response
  try {
    const headers = { ...init.headers, [PAGE_HEADER]: THIS_PAGE, ...(pageShop ? { [SHOP_HEADER]: pageShop } : {}) }
    response = await fetch(url, { ...init, headers, signal: AbortSignal.timeout(timeoutMs) })
  } catch {
    return { is: 'offline' }
  }
  const last = response.headers.get('content-type')?.startsWith(PROGRESS_TYPE) ? await lastTold(response, tell) : null
  // cut off before its last line: whether it was done is not known here
  if (last === 'cut') return { is: 'offline' }
  const { status, body } = last ?? { status: response.status, body: await response.json().catch(() => null) }
  if (status < 400) {
    const read = schema.safeParse(body)
    if (read.success) return { is: 'done', value: read.data }
    const message = 'The server answered in a way this page does not know: reload to update'
    return { is: 'refused', status, message, issues: [] }
  }
  // 500 is our own fault, and said so; above, the database or something before the server stands in the way
  if (status > 500) return { is: 'offline' }
  const said = Refusal.safeParse((body as { data?: unknown } | null)?.data)
  if (said.success) return { is: 'refused', status, ...said.data }
  const message =
    status >= 500
      ? 'Something went wrong on the server: try again'
      : 'The server refused it: reload the page and try again'
  return { is: 'refused', status, message, issues: [] }
}

/** Reads an answer that tells how far it is, to its last line: what came of it, as a plain answer would say it. */
async function lastTold(response: Response, tell?: Tell): Promise<{ status: number; body: unknown } | 'cut'> {
  let rest = ''
  const read = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  try {
    for (let part = await read.read(); !part.done; part = await read.read()) {
      const lines = (rest + part.value).split('\n')
      rest = lines.pop()!
      for (const text of lines) {
        const line = ProgressLine.parse(JSON.parse(text))
        if ('share' in line) tell?.(line.share)
        else if ('done' in line) return { status: 200, body: line.done }
        else return { status: line.refused.status, body: { data: line.refused.data } }
      }
    }
  } catch {
    // told below
  }
  return 'cut'
}
