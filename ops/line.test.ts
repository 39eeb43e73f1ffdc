import pg from 'pg'
import { afterAll, afterEach, expect, inject, test, vi } from 'vitest'
import { throwawayPooler } from './testPooler'
import type { Said } from '../server/live/line'

type Process = { line: typeof import('../server/live/line'); end(): Promise<void>; heard: Said[] }
const running: Process[] = []

/** The modules of a server process, each with a memory of its own. */
async function process_(url = inject('appUrl'), listen = ''): Promise<Process> {
  vi.resetModules()
  process.env.OCHO_DATABASE_URL = url
  process.env.OCHO_LISTEN_URL = listen
  const line = await import('../server/live/line')
  const { db, closeDb } = await import('../server/db/shared')
  db()
  const heard: Said[] = []
  line.onSaid(said => heard.push(said))
  const made = {
    line,
    heard,
    async end() {
      await line.closeLine()
      await closeDb()
    },
  }
  running.push(made)
  return made
}
afterEach(async () => {
  for (const p of running.splice(0)) await p.end()
})
// the files after this one share its process
afterAll(() => {
  vi.resetModules()
  delete process.env.OCHO_DATABASE_URL
  delete process.env.OCHO_LISTEN_URL
})
const listening = (p: Process) => vi.waitFor(() => expect(p.line.hearsOthers()).toBe(true), 10_000)

test('what one process says, the other hears, once however often it was said at once', async () => {
  const a = await process_()
  await listening(a)
  const b = await process_()
  await listening(b)
  b.heard.length = 0
  for (let i = 0; i < 50; i++) a.line.tell(['job', 'shop', 7, 'page'])
  a.line.tell(['ended', 's'])
  await vi.waitFor(() => expect(b.heard).toContainEqual(['ended', 's']), 5_000)
  expect(b.heard.filter(h => h[0] === 'job')).toEqual([['job', 'shop', 7, 'page']])
  // the one that said it heard each at once, and not a second time over the line
  expect(a.heard.filter(h => h[0] === 'job')).toHaveLength(50)
})

test('much at once goes over in parts: a notification has a most', async () => {
  const a = await process_()
  await listening(a)
  const b = await process_()
  await listening(b)
  for (let i = 0; i < 1_000; i++) a.line.tell(['job', '7d9f0f2e-6f3d-4c6c-9a40-5c7d7f9f3b11', i, null])
  await vi.waitFor(() => expect(b.heard.filter(h => h[0] === 'job')).toHaveLength(1_000), 10_000)
})

test('a line that breaks is opened again; nothing is kept meanwhile, and all look again after it', async () => {
  const p = await process_()
  await listening(p)
  p.heard.length = 0
  const owner = new pg.Client({ connectionString: inject('ownerUrl') })
  await owner.connect()
  await owner.query(`select pg_terminate_backend(pid) from pg_stat_activity where query ilike 'listen ocho_news%'`)
  await owner.end()
  await vi.waitFor(() => expect(p.line.hearsOthers()).toBe(false), 5_000)
  await listening(p)
  expect(p.heard).toContainEqual(['all'])
})

test('through a pooler in transaction mode it says that it hears nothing, and hears when it listens directly', async () => {
  const pooler = await throwawayPooler(inject('appUrl'))
  const said = vi.spyOn(console, 'error').mockImplementation(() => undefined)
  try {
    const deaf = await process_(pooler.appUrl)
    await vi.waitFor(() => expect(String(said.mock.calls)).toContain('set OCHO_LISTEN_URL'), 20_000)
    expect(deaf.line.hearsOthers()).toBe(false)
    await running.pop()!.end()

    const a = await process_(pooler.appUrl, inject('appUrl'))
    await listening(a)
    const b = await process_(pooler.appUrl, inject('appUrl'))
    await listening(b)
    a.line.tell(['changed', 'x'])
    await vi.waitFor(() => expect(b.heard).toContainEqual(['changed', 'x']), 5_000)
  } finally {
    said.mockRestore()
    for (const p of running.splice(0)) await p.end()
    await pooler.stop()
  }
})
