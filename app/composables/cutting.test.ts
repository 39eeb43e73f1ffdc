import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { computed, effectScope, nextTick, ref, shallowRef, watch, type EffectScope } from 'vue'
import type { StockItem, ToCut } from '#core/cable/cutList'
import type { StockView } from '#core/http/cables'
import { reduce } from '#core/ledger/reduce'
import type { CutAnswer } from '~/workers/useCables'
import type { Asked } from './ask'
import type { Bench } from './bench'
import { watchContents } from './contents'
import { useCutting } from './cutting'
import { sayTrouble } from './trouble'

/* A plan is worked out beside the page, and takes its time: the list and the wall may be others when it is there. */

type Request = { method?: string; body?: unknown }
let answers: Record<string, (request: Request) => Asked<unknown>>
let sent: { url: string; body: unknown }[]
/** What was asked of the worker, to be answered when a test says so. */
let working: { pieces: ToCut[]; wall: StockItem[]; ready: () => void }[]
let scope: EffectScope

const done = <T>(value: T): Asked<T> => ({ is: 'done', value })
const roll = (id: string, lengthMm: number): StockView => ({
  id,
  kind: 'shift 4 mm',
  lengthMm,
  roll: true,
  label: '',
  madeAt: '2026-11-02T09:00:00.000Z',
})
const piece = (name: string) => ({ name, lengthMm: 400, kind: 'shift 4 mm' as const })

/** Every piece from the first thing on the wall, as a plan would have it. */
const allFrom = (pieces: ToCut[], [first]: StockItem[]): CutAnswer => {
  const leftMm = first!.lengthMm - 402 * pieces.length
  return {
    is: 'ready',
    plan: {
      cuts: [{ id: first!.id, pieces: pieces.map(p => p.name), leftMm, keep: true }],
      short: [],
      proven: true,
    } as unknown as Extract<CutAnswer, { is: 'ready' }>['plan'],
  }
}
function cutting() {
  const bench = { number: 7, state: ref(reduce([])), record: ref({ tag: '7' }), ledger: { lastSeq: 1 } }
  const cut = (pieces: ToCut[], wall: StockItem[]) =>
    new Promise<CutAnswer>(answered => working.push({ pieces, wall, ready: () => answered(allFrom(pieces, wall)) }))
  return scope.run(() => useCutting(bench as unknown as Bench, cut))!
}
/** The wall is read, and one piece is to be cut. */
async function wanting(name: string) {
  const at = cutting()
  await at.load()
  at.extras.value = [piece(name)]
  await nextTick()
  return at
}
/** What waits for a promise that is kept already has gone on. */
const soon = () => new Promise(after => setTimeout(after))
/** The worker answers what it was asked, by its place among all that was. */
async function workedOut(nth: number) {
  working[nth]!.ready()
  await soon()
}

beforeEach(() => {
  scope = effectScope()
  sent = []
  working = []
  answers = { '/api/cables/stock': () => done([roll('one', 3000), roll('two', 5000)]) }
  const ask = async (_: unknown, url: string, request: Request = {}) => {
    sent.push({ url, body: request.body })
    return (answers[url] ?? (() => ({ is: 'offline' })))(request)
  }
  const outbox = { put: vi.fn() }
  const given = { ref, shallowRef, computed, watch, watchContents, ask, sayTrouble, useOutbox: () => outbox }
  for (const [name, is] of Object.entries(given)) vi.stubGlobal(name, is)
})
afterEach(() => {
  scope.stop()
  vi.unstubAllGlobals()
})

test('a plan that comes when the list is another is not shown, and nothing can be cut by it', async () => {
  const at = await wanting('gear, rear loop')
  void at.workOut()
  expect(at.answers.value).toEqual({ 'shift 4 mm': { is: 'thinking' } })
  at.extras.value = [piece('gear, rear loop'), piece('gear, lever')]
  await nextTick()
  await workedOut(0)
  expect(at.answers.value).toEqual({})
  expect(at.labels.value).toEqual([])

  // asked again it is of both
  void at.workOut()
  await workedOut(1)
  expect(at.labels.value.map(w => w.name)).toEqual(['gear, rear loop', 'gear, lever'])
})

test('tapped twice, the first answer is of no list any more', async () => {
  const at = await wanting('gear, rear loop')
  void at.workOut()
  void at.workOut()
  await workedOut(1)
  const shown = at.answers.value
  await workedOut(0)
  expect(at.answers.value).toBe(shown)
})

test('a roll that is gone from the wall takes the plan with it: it was to be cut from that', async () => {
  const at = await wanting('gear, rear loop')
  void at.workOut()
  await workedOut(0)
  expect(at.labels.value).toHaveLength(1)
  answers['/api/cables/stock/one'] = () => done([roll('two', 5000)])
  await at.drop('one')
  await nextTick()
  expect(at.answers.value).toEqual({})
  void at.workOut()
  await workedOut(1)
  answers['/api/cables/cut'] = () => done([roll('two', 4598)])
  await at.done()
  expect(sent.at(-1)).toEqual({
    url: '/api/cables/cut',
    body: { cuts: [{ id: 'two', lengthMm: 5000, keptMm: 4598 }] },
  })
})

test('all bikes means all: one that could not be read is named, and the list is of this bike alone', async () => {
  const at = cutting()
  const jobs = [
    { number: 7, tag: '7', closedAt: null },
    { number: 8, tag: '8', closedAt: null },
    { number: 9, tag: '9', closedAt: null },
    { number: 10, tag: '10', closedAt: '2026-11-03T09:00:00.000Z' },
  ]
  await at.allBikes(true)
  expect(at.all.value).toBe(false)
  expect(at.trouble.value).toContain('cannot be reached')

  answers['/api/floor'] = () => done({ jobs })
  answers['/api/jobs/8/events'] = () => done({ entries: [] })
  await at.allBikes(true)
  expect(at.all.value).toBe(false)
  expect(at.trouble.value).toBe(
    'Tag 9 could not be read, so the list is of this bike alone: choose all open bikes again',
  )

  answers['/api/jobs/9/events'] = () => done({ entries: [] })
  await at.allBikes(true)
  expect(at.all.value).toBe(true)
  expect(at.trouble.value).toBe('')
  // what has left is not planned for
  expect(sent.filter(s => s.url.includes('/10/'))).toEqual([])
})
