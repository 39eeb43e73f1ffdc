import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, test, vi } from 'vitest'
import { EventId } from '#core/chapter/ids'
import { kept } from './kept'
import { useLedger } from './ledger'
import { useOutbox } from './outbox'
import { useSession } from './session'
import { emptied, ME, OTHER_SHOP, reload, sessionOf, SHOP, tapsWaiting, testServer } from './testServer'

let server: ReturnType<typeof testServer>
beforeEach(async () => {
  await emptied()
  server = testServer()
  reload()
})

describe('who works on this device', () => {
  test('is asked of the server and kept for when it is away', async () => {
    expect(await useSession().load()).toBe(true)
    reload()
    server.line = 'down'
    const later = useSession()
    expect(await later.load()).toBe(true)
    expect([later.offline, later.now?.person?.id]).toEqual([true, ME])
    server.line = 'up'
    await later.load()
    expect(later.offline).toBe(false)
  })
  test('is nobody where nobody signed in, and away from the server where nothing was kept', async () => {
    server.session = null
    expect(await useSession().load()).toBe(false)
    server.line = 'down'
    expect(await useSession().load()).toBe(false)
  })
  test('choosing a name reads the session anew; a refused one changes nothing', async () => {
    const session = useSession()
    await session.load()
    server.session = sessionOf(null)
    expect((await session.choose(ME, '2468')).is).toBe('done')
    expect(session.now?.person).toBeNull()
    server.status = 401
    expect((await session.choose(ME)).is).toBe('refused')
    expect(session.now?.person).toBeNull()
  })
})

describe('another shop on the same tablet', () => {
  const tap = { kind: 'turn', screw: 'barrel', sixteenths: 2 } as const
  test('is never sent what was tapped before, nor shown it; it is sent when the first signs in again', async () => {
    const session = useSession()
    await session.load()
    await useLedger().open(4)
    await kept.keepFloor({ jobs: [] } as never)
    server.line = 'down'
    await useOutbox().put(4, tap, 0)
    // the other shop signs in
    server.line = 'up'
    server.session = sessionOf(ME, OTHER_SHOP)
    reload()
    await useSession().load()
    const theirs = useOutbox()
    await theirs.flush()
    expect([server.sent, theirs.waiting, theirs.of(4)]).toEqual([[], [], []])
    expect([await kept.job(4), await kept.floor()]).toEqual([undefined, undefined])
    expect(await useSession().signOut()).toBe(0) // nothing of theirs waits
    expect(await tapsWaiting()).toBe(1)
    // and the first again
    server.session = sessionOf()
    reload()
    await useSession().load()
    await useOutbox().flush()
    expect(server.log.map(e => e.event)).toEqual([tap])
    expect(await tapsWaiting()).toBe(0)
  })
  test('every request says of which shop the page is, but the one that asks who is signed in', async () => {
    const said: [string, string | undefined][] = []
    const answer = globalThis.fetch
    globalThis.fetch = ((url: string, init: RequestInit) => {
      said.push([url, (init.headers as Record<string, string>)['x-ocho-shop']])
      return answer(url, init)
    }) as typeof fetch
    await useSession().load()
    await useOutbox().put(4, tap, 0)
    await useSession().load()
    expect(said).toEqual([
      ['/api/session', undefined],
      ['/api/jobs/4/events', SHOP],
      ['/api/session', undefined],
    ])
  })
  test('a page open since before keeps its taps when the server says that another shop is here', async () => {
    const session = useSession()
    await session.load()
    const outbox = useOutbox()
    server.status = 409
    server.refusal = { message: 'Another shop is signed in', issues: [{ field: 'shop', message: 'sign in' }] }
    await outbox.put(4, tap, 0)
    expect(outbox.trouble).toMatchObject({ is: 'refused', field: 'shop' })
    expect(await tapsWaiting()).toBe(1)
  })
})

describe('signed out from afar', () => {
  test('the tablet forgets all it could show; what waits is sent when the shop signs in again', async () => {
    const session = useSession()
    await session.load()
    await useLedger().open(4)
    const outbox = useOutbox()
    server.status = 401
    server.refusal = { message: 'Sign in', issues: [{ field: 'session', message: 'revoked' }] }
    await outbox.put(4, { kind: 'turn', screw: 'barrel', sixteenths: 2 }, 0)
    await expect.poll(() => session.now).toBeNull()
    expect([await kept.session(), await kept.job(4), await kept.floor()]).toEqual([undefined, undefined, undefined])
    expect(await tapsWaiting()).toBe(1)
  })
  test('a session that only ended by itself keeps what the bench shows', async () => {
    const session = useSession()
    await session.load()
    await useLedger().open(4)
    server.status = 401
    server.refusal = { message: 'Sign in', issues: [] }
    expect(await session.load()).toBe(false)
    expect(await kept.job(4)).toBeDefined()
  })
})

describe('signing out', () => {
  test('waits until every tap is with the server, then wipes everything kept here', async () => {
    const [session, outbox, ledger] = [useSession(), useOutbox(), useLedger()]
    await session.load()
    await ledger.open(4)
    server.line = 'down'
    await outbox.put(4, { kind: 'turn', screw: 'barrel', sixteenths: 2 }, 0)
    expect(await session.signOut()).toBe(1)
    expect(await kept.session()).toBeDefined()
    server.line = 'up'
    await outbox.flush()
    server.line = 'down'
    expect(await session.signOut()).toBe(-1) // the server must know of it
    expect(session.now).not.toBeNull()
    server.line = 'up'
    expect(await session.signOut()).toBe(0)
    expect([session.now, await kept.session(), await kept.job(4), await tapsWaiting()]).toEqual([
      null,
      undefined,
      undefined,
      0,
    ])
  })
})

describe('a job on this device', () => {
  test('opens from the server, then from what was kept while it is away, with what waits', async () => {
    await useSession().load()
    const ledger = useLedger()
    await ledger.open(4)
    await ledger.append({ kind: 'turn', screw: 'barrel', sixteenths: 2 })
    expect([ledger.loaded, ledger.lastSeq, ledger.waiting.length]).toEqual(['ready', 1, 0])

    reload()
    server.line = 'down'
    await useSession().load()
    const later = useLedger()
    await later.open(4)
    await later.append({ kind: 'turn', screw: 'barrel', sixteenths: 3 })
    expect([later.loaded, later.record?.tag, later.stored.length, later.waiting.length]).toEqual(['ready', 'A1', 1, 1])
    expect(later.log.map(t => t?.event.kind)).toEqual(['turn', 'turn'])
    expect(later.trouble).toEqual({ is: 'offline' })

    server.line = 'up'
    await later.refresh()
    expect([later.stored.length, later.waiting.length, later.trouble]).toEqual([2, 0, null])
  })
  test('never kept and away, or not there at all, is said', async () => {
    await useSession().load()
    const ledger = useLedger()
    server.line = 'down'
    await ledger.open(9)
    expect(ledger.loaded).toBe('unreachable')
    server.line = 'up'
    server.status = 404
    await ledger.refresh()
    expect(ledger.loaded).toBe('missing')
    server.status = 401
    await ledger.refresh()
    expect(ledger.trouble).toEqual({ is: 'signed-out' })
  })
  test('hints while it looks are one look more, which sees what they hinted at; one that hangs is not waited for', async () => {
    await useSession().load()
    const ledger = useLedger()
    let answer = () => {}
    server.beforeLook = () => new Promise(resolve => (answer = resolve))
    const opened = ledger.open(4)
    await vi.waitFor(() => expect(server.looks).toBe(1))
    const hints = [ledger.refresh(), ledger.refresh(), ledger.refresh()]
    server.job = { ...server.job, tag: 'B2' }
    answer()
    await opened
    await vi.waitFor(() => expect(server.looks).toBe(2))
    answer()
    await Promise.all(hints)
    expect([server.looks, ledger.record?.tag]).toEqual([2, 'B2'])

    const hung = ledger.refresh()
    const now = vi.spyOn(performance, 'now').mockReturnValue(performance.now() + 2500)
    server.beforeLook = async () => undefined
    server.job = { ...server.job, tag: 'C3' }
    await ledger.refresh()
    expect([server.looks, ledger.record?.tag]).toEqual([4, 'C3'])
    now.mockRestore()
    // its answer is of before, and tells nothing any more
    answer()
    await hung
    expect([ledger.record?.tag, (await kept.job(4))?.record.tag]).toEqual(['C3', 'C3'])
  })
  test('entries that another tablet put between ours are fetched, and stand in their order', async () => {
    await useSession().load()
    const ledger = useLedger()
    await ledger.open(4)
    await ledger.append({ kind: 'turn', screw: 'barrel', sixteenths: 1 })
    const other = { ...server.log[0]!, id: EventId.parse('00000000-0000-4000-8000-0000000000cc'), seq: 2 }
    server.log.push({ ...other, event: { kind: 'turn', screw: 'barrel', sixteenths: 8 } })
    await ledger.append({ kind: 'turn', screw: 'barrel', sixteenths: 2 })
    expect(ledger.stored.map(e => e.seq)).toEqual([1, 2, 3])
    expect(ledger.log.map(t => t?.event.kind === 'turn' && t.event.sixteenths)).toEqual([1, 8, 2])
  })
  test('of a later version in part: the log ends in what cannot be read, here and after a reload', async () => {
    await useSession().load()
    server.newer = true
    await useLedger().open(4)
    expect([useLedger().newer, useLedger().log.at(-1), useLedger().state.unread]).toEqual([true, null, true])
    reload()
    server.line = 'down'
    await useLedger().open(4)
    expect(useLedger().newer).toBe(true)
  })
  test('what was refused on another job is not said on this one', async () => {
    await useSession().load()
    const [ledger, outbox] = [useLedger(), useOutbox()]
    await ledger.open(4)
    outbox.trouble = { is: 'refused', job: 5, field: 'event', message: 'no', entry: null }
    expect(ledger.trouble).toBeNull()
    outbox.trouble = { is: 'refused', job: 4, field: 'event', message: 'no', entry: null }
    expect(ledger.trouble).toMatchObject({ message: 'no' })
  })
})

test('an outbox of the first version is carried over in its order', async () => {
  const { deleteDB, openDB } = await import('idb')
  const name = 'ocho'
  await (await import('vitest')).vi.resetModules()
  await deleteDB(name)
  const old = await openDB(name, 1, {
    upgrade(db) {
      db.createObjectStore('session')
      db.createObjectStore('jobs', { keyPath: 'number' })
      db.createObjectStore('outbox', { keyPath: 'id' })
    },
  })
  const entry = (n: number) => ({ id: `00000000-0000-4000-8000-00000000010${n}` })
  await old.put('session', sessionOf(), 'now')
  for (const [n, order] of [30, 10, 20].entries())
    await old.put('outbox', { id: `${n}`, job: 4, order, entry: entry(n) })
  old.close()
  const { kept: fresh } = await import('./kept')
  expect((await fresh.taps(SHOP)).map(t => t.entry.id.at(-1))).toEqual(['1', '2', '0'])
})

test('taps of the third version are of the shop that was kept as signed in', async () => {
  const { deleteDB, openDB } = await import('idb')
  await (await import('vitest')).vi.resetModules()
  await deleteDB('ocho')
  const old = await openDB('ocho', 3, {
    upgrade(db) {
      db.createObjectStore('session')
      db.createObjectStore('jobs', { keyPath: 'number' })
      db.createObjectStore('floor')
      const taps = db.createObjectStore('taps', { keyPath: 'order', autoIncrement: true })
      taps.createIndex('job', 'job')
      taps.createIndex('id', 'entry.id', { unique: true })
    },
  })
  await old.put('session', sessionOf(), 'now')
  for (const n of [0, 1]) await old.put('taps', { job: 4, entry: { id: `00000000-0000-4000-8000-00000000020${n}` } })
  old.close()
  const { kept: fresh } = await import('./kept')
  expect((await fresh.taps(SHOP)).map(t => [t.entry.id.at(-1), t.shop])).toEqual([
    ['0', SHOP],
    ['1', SHOP],
  ])
  expect(await fresh.taps(OTHER_SHOP)).toEqual([])
})
