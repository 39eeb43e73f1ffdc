import type { z } from 'zod'
import { PAGE_HEADER, SHOP_HEADER } from '#core/http/page'
import { Refusal } from '#core/http/words'
import { THIS_PAGE } from './ids'

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

type Request = { method?: 'GET' | 'POST' | 'DELETE'; body?: unknown; timeoutMs?: number }

/** Asks the server and reads its answer by the contract's schema; never throws for what a person can put right. */
export const ask = <S extends z.ZodType>(schema: S, url: string, options: Request = {}): Promise<Asked<z.infer<S>>> =>
  asked(
    schema,
    url,
    {
      method: options.method ?? 'GET',
      headers: options.body === undefined ? {} : { 'content-type': 'application/json' },
      body: options.body === undefined ? undefined : JSON.stringify(options.body),
    },
    options.timeoutMs ?? 15_000,
  )

/** The same with a file as it is; it may take longer. */
export const askWithFile = <S extends z.ZodType>(
  schema: S,
  url: string,
  file: Blob,
  type = file.type,
): Promise<Asked<z.infer<S>>> =>
  asked(schema, url, { method: 'POST', headers: { 'content-type': type }, body: file }, 60_000)

async function asked<S extends z.ZodType>(
  schema: S,
  url: string,
  init: RequestInit,
  timeoutMs: number,
): Promise<Asked<z.infer<S>>> {
  let response: Response
  try {
    const headers = { ...init.headers, [PAGE_HEADER]: THIS_PAGE, ...(pageShop ? { [SHOP_HEADER]: pageShop } : {}) }
    response = await fetch(url, { ...init, headers, signal: AbortSignal.timeout(timeoutMs) })
  } catch {
    return { is: 'offline' }
  }
  const body: unknown = await response.json().catch(() => null)
  if (response.ok) {
    const read = schema.safeParse(body)
    if (read.success) return { is: 'done', value: read.data }
    const message = 'The server answered in a way this page does not know: reload to update'
    return { is: 'refused', status: response.status, message, issues: [] }
  }
  // 500 is our own fault, and said so; above, the database or something before the server stands in the way
  if (response.status > 500) return { is: 'offline' }
  const said = Refusal.safeParse((body as { data?: unknown } | null)?.data)
  if (said.success) return { is: 'refused', status: response.status, ...said.data }
  const message =
    response.status >= 500
      ? 'Something went wrong on the server: try again'
      : 'The server refused it: reload the page and try again'
  return { is: 'refused', status: response.status, message, issues: [] }
}
