import { createApp, eventHandler, toWebHandler } from 'h3'
import { afterAll, beforeEach, expect, test, vi } from 'vitest'
import { PROGRESS_TYPE, ProgressLine, type Tell } from '#core/http/progress'
import { refuse } from './refuse'
import { telling } from './telling'

const log = vi.spyOn(console, 'error')
beforeEach(() => void log.mockReset().mockImplementation(() => {}))
afterAll(() => log.mockRestore())

async function asked(work: (tell: Tell) => Promise<unknown>, accept = PROGRESS_TYPE) {
  const app = createApp().use(
    '/',
    eventHandler(event => telling(event, work)),
  )
  const response = await toWebHandler(app)(new Request('http://shop.local/', { headers: { accept } }))
  return { type: response.headers.get('content-type'), status: response.status, text: await response.text() }
}
const linesOf = (text: string) =>
  text
    .trim()
    .split('\n')
    .map(l => ProgressLine.parse(JSON.parse(l)))

test('told line by line: nothing done at first, shares within bounds, the answer last', async () => {
  const { type, text } = await asked(async tell => {
    await new Promise(resolve => setTimeout(resolve, 120))
    tell(1.5)
    tell(0.7) // too soon after to be worth a line
    return { rows: 3 }
  })
  expect(type).toContain(PROGRESS_TYPE)
  expect(linesOf(text)).toEqual([{ share: 0 }, { share: 1 }, { done: { rows: 3 } }])
})

test('who did not ask to be told is answered once', async () => {
  const { type, text } = await asked(async tell => {
    tell(0.5)
    return { rows: 3 }
  }, 'application/json')
  expect([type, JSON.parse(text)]).toEqual(['application/json', { rows: 3 }])
})

test.each([
  [
    'refused on purpose',
    () => refuse(409, '2 rows are refused', [{ field: 'line 4', message: 'a number' }]),
    { status: 409, data: { message: '2 rows are refused', issues: [{ field: 'line 4', message: 'a number' }] } },
  ],
  [
    'stopped by its time limit',
    () => Object.assign(new Error('canceling statement'), { code: '57014' }),
    { status: 503, data: { message: expect.stringContaining('does not answer at this moment'), issues: [] } },
  ],
  [
    'a figure no column holds',
    () => Object.assign(new Error('out of range'), { code: '22003' }),
    { status: 400, data: { message: expect.stringContaining('cannot be kept'), issues: [] } },
  ],
  ['our own fault', () => new TypeError('undefined is no function'), { status: 500, data: null }],
])('%s: the last line says what a plain answer would', async (what, error, refused) => {
  const { text } = await asked(() => Promise.reject(error()))
  expect(linesOf(text).at(-1)).toEqual({ refused })
  expect(log).toHaveBeenCalledTimes(what === 'refused on purpose' ? 0 : 1)
})
