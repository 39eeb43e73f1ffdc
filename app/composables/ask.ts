import type { Refusal } from '#core/http/words'

/** What a request came to. The caller can act on each. */
export type Asked<T> =
  | { is: 'done'; value: T }
  | { is: 'offline' }
  | { is: 'refused'; status: number; message: string; issues: Refusal['issues'] }

type Request = { method?: 'GET' | 'POST' | 'DELETE'; body?: unknown; timeoutMs?: number }

/** Asks the server; never throws for what a person can put right. */
export const ask = <T>(url: string, options: Request = {}): Promise<Asked<T>> =>
  asked<T>(
    url,
    {
      method: options.method ?? 'GET',
      headers: options.body === undefined ? {} : { 'content-type': 'application/json' },
      body: options.body === undefined ? undefined : JSON.stringify(options.body),
    },
    options.timeoutMs ?? 15_000,
  )

/** The same with a file as it is; it may take longer. */
export const askWithFile = <T>(url: string, file: Blob, type = file.type): Promise<Asked<T>> =>
  asked<T>(url, { method: 'POST', headers: { 'content-type': type }, body: file }, 60_000)

async function asked<T>(url: string, init: RequestInit, timeoutMs: number): Promise<Asked<T>> {
  let response: Response
  try {
    response = await fetch(url, { ...init, signal: AbortSignal.timeout(timeoutMs) })
  } catch {
    return { is: 'offline' }
  }
  if (response.ok) return { is: 'done', value: (await response.json()) as T }
  // the server answers for itself below 500 only; above, something stands in its way
  if (response.status >= 502) return { is: 'offline' }
  const said = (await response.json().catch(() => null)) as { data?: Refusal; message?: string } | null
  const message =
    said?.data?.message ??
    (response.status >= 500 ? 'Something went wrong on the server: try again' : (said?.message ?? 'Refused'))
  return { is: 'refused', status: response.status, message, issues: said?.data?.issues ?? [] }
}

export const OFFLINE_WORDS = 'The server cannot be reached: check the network, then try again'
