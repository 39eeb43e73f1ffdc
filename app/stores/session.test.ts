import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, test } from 'vitest'
import { EventId } from '#core/chapter/ids'
import { kept } from './kept'
import { useLedger } from './ledger'
import { useOutbox } from './outbox'
import { useSession } from './session'
import { ME, reload, sessionOf, testServer } from './testServer'

let server: ReturnType<typeof testServer>
beforeEach(async () => {
  await kept.wipe()
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
    expect([session.now, await kept.session(), await kept.job(4), await kept.tapsWaiting()]).toEqual([
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
  for (const [n, order] of [30, 10, 20].entries())
    await old.put('outbox', { id: `${n}`, job: 4, order, entry: entry(n) })
  old.close()
  const { kept: fresh } = await import('./kept')
  expect((await fresh.taps()).map(t => t.entry.id.at(-1))).toEqual(['1', '2', '0'])
})
