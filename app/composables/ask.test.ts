import { afterEach, expect, test, vi } from 'vitest'
import { z } from 'zod'
import { PROGRESS_TYPE } from '#core/http/progress'
import { REQUEST_HEADER } from '#core/http/page'
import { dropDrafts } from '../stores/drafts'
import { ask, askWithFile } from './ask'

const Answer = z.strictObject({ rows: z.number() })
const file = new Blob(['kind,entry\n'], { type: 'text/csv' })
afterEach(() => vi.unstubAllGlobals())

/** A server that sends these pieces, one after the other, wherever they were cut. */
function serverSends(pieces: readonly string[], type = PROGRESS_TYPE, status = 200) {
  const asked = vi.fn(async (_url: string, init: RequestInit) => {
    void init
    const body = new ReadableStream<Uint8Array>({
      start(to) {
        for (const piece of pieces) to.enqueue(new TextEncoder().encode(piece))
        to.close()
      },
    })
    return new Response(body, { status, headers: { 'content-type': type } })
  })
  vi.stubGlobal('fetch', asked)
  return asked
}
async function told() {
  const shares: number[] = []
  const answer = await askWithFile(Answer, '/api/standards/import', file, 'text/csv', share => shares.push(share))
  return { answer, shares }
}

test('how far it is comes line by line, wherever the lines were cut, and the last is the answer', async () => {
  const asked = serverSends(['{"share":0}\n{"sha', 're":0.25}\n', '{"share":0.9}\n{"done":{"rows":3', '}}\n'])
  expect(await told()).toEqual({ answer: { is: 'done', value: { rows: 3 } }, shares: [0, 0.25, 0.9] })
  expect(new Headers(asked.mock.calls[0]![1].headers).get('accept')).toBe(PROGRESS_TYPE)
})

test('what is refused in the last line is refused in its words', async () => {
  const data = { message: '2 rows are refused', issues: [{ field: 'line 4', message: 'value: a number' }] }
  serverSends(['{"share":0.5}\n', `${JSON.stringify({ refused: { status: 409, data } })}\n`])
  expect((await told()).answer).toEqual({ is: 'refused', status: 409, ...data })
  serverSends(['{"refused":{"status":503,"data":null}}\n'])
  expect((await told()).answer).toEqual({ is: 'offline' })
})

test.each([
  ['cut off before its last line', ['{"share":0.5}\n', '{"done":{"ro']],
  ['a line that is none', ['{"share":0.5}\n', 'Bad gateway\n']],
  ['nothing at all', []],
])('%s: nobody knows whether it was done', async (_what, pieces) => {
  serverSends(pieces)
  expect((await told()).answer).toEqual({ is: 'offline' })
})

test('an answer that tells no shares is read as always, and so is an early refusal', async () => {
  serverSends(['{"rows":4}'], 'application/json')
  expect(await told()).toEqual({ answer: { is: 'done', value: { rows: 4 } }, shares: [] })
  const data = { message: 'The file is larger than 4 MB', issues: [] }
  serverSends([JSON.stringify({ data })], 'application/json', 413)
  expect((await told()).answer).toEqual({ is: 'refused', status: 413, ...data })
})

/** A tab's own store, as the browser has it. */
function tabStore() {
  const rows: Record<string, string> = {}
  const methods = {
    getItem: (key: string) => rows[key] ?? null,
    setItem: (key: string, value: string) => void (rows[key] = value),
    removeItem: (key: string) => void Reflect.deleteProperty(rows, key),
  }
  for (const [name, value] of Object.entries(methods)) Object.defineProperty(rows, name, { value, enumerable: false })
  return rows
}

test('what is asked again while its answer is lost bears the same id; done, refused or another, a new one', async () => {
  vi.stubGlobal('sessionStorage', tabStore())
  const ids: string[] = []
  let answers: () => Promise<Response> = () => Promise.reject(new TypeError('the line is cut'))
  vi.stubGlobal('fetch', (_url: string, init: RequestInit) => {
    ids.push(new Headers(init.headers).get(REQUEST_HEADER) ?? 'none')
    return answers()
  })
  const tell = (body: object, url = '/api/jobs') => ask(Answer, url, { method: 'POST', body, once: true })
  const json = (status: number, body: object) => () =>
    Promise.resolve(new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } }))
  await tell({ tag: '5' })
  await tell({ tag: '6' })
  answers = json(503, {})
  await tell({ tag: '5' })
  answers = json(200, { rows: 1 })
  await tell({ tag: '5' }, '/api/jobs/1/notes')
  expect(await tell({ tag: '5' })).toEqual({ is: 'done', value: { rows: 1 } })
  await tell({ tag: '5' })
  answers = json(409, { data: { message: 'taken', issues: [] } })
  await tell({ tag: '5' })
  await tell({ tag: '5' })
  const [first, other, again, elsewhere, done, ...anew] = ids
  expect([again, done]).toEqual([first, first])
  expect(new Set([first, other, elsewhere, ...anew]).size).toBe(6)
  // one that was never answered bears it after the page was loaded anew, and no longer once somebody signed out
  vi.resetModules()
  const { ask: afterReload } = await import('./ask')
  const tellAnew = (tag: string) => afterReload(Answer, '/api/jobs', { method: 'POST', body: { tag }, once: true })
  answers = () => Promise.reject(new TypeError('the line is cut'))
  await tellAnew('6')
  expect(ids.at(-1)).toBe(other)
  dropDrafts()
  await tellAnew('6')
  expect(ids.at(-1)).not.toBe(other)
  // nothing is kept of any other, neither a password nor taps that wait
  await ask(Answer, '/api/floor')
  await ask(Answer, '/api/sign-in', { method: 'POST', body: { password: 'x' } })
  expect(ids.slice(-2)).toEqual(['none', 'none'])
})
