import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import type { LedgerEvent } from '#core/ledger/events'
import { kept } from './kept'
import { useOutbox } from './outbox'
import { useSession } from './session'
import { emptied, ME, OTHER_SHOP, reload, sessionOf, SHOP, tapsWaiting, testServer } from './testServer'

const turn = (sixteenths: number): LedgerEvent => ({ kind: 'turn', screw: 'barrel', sixteenths })
const PROOF: LedgerEvent = { kind: 'proof', brake: 'rear', holds: true }
const turns = (entries: readonly { event: LedgerEvent }[]) =>
  entries.map(e => (e.event.kind === 'turn' ? e.event.sixteenths : e.event.kind))

let server: ReturnType<typeof testServer>
async function page() {
  reload()
  const session = useSession()
  await session.load()
  return useOutbox()
}
beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['setTimeout'] })
  await emptied()
  server = testServer()
})
afterEach(() => {
  vi.useRealTimers()
})

describe('on the way to the server', () => {
  test('a tap is on screen at once, kept before it is sent, and gone from here once it is answered', async () => {
    const outbox = await page()
    let keptFirst = 0
    server.before = async () => {
      keptFirst = await tapsWaiting()
    }
    const put = outbox.put(4, turn(2), 7)
    expect(turns(outbox.of(4))).toEqual([2])
    await put
    expect(keptFirst).toBe(1)
    expect(server.log.map(e => [e.by, e.basedOn])).toEqual([[ME, 7]])
    expect(outbox.of(4)).toEqual([])
    expect(await tapsWaiting()).toBe(0)
  })
  test('taps made faster than the line carries arrive once, in their order, each based on those before it', async () => {
    const outbox = await page()
    await Promise.all([1, 2, 3, 4, 5].map(n => outbox.put(4, turn(n), 10)))
    expect(turns(server.log)).toEqual([1, 2, 3, 4, 5])
    expect(server.log.map(e => e.basedOn)).toEqual([10, 11, 12, 13, 14])
    expect(new Set(server.log.map(e => e.id)).size).toBe(5)
  })
  test('what says what the bike is, or is signed, is based on what came back alone', async () => {
    const outbox = await page()
    const named: LedgerEvent = {
      kind: 'brakeParts',
      parts: { brake: 'rear', kind: 'drum', lever: null, leverSide: null },
    }
    await Promise.all([turn(1), turn(2), named, PROOF, turn(3)].map(e => outbox.put(4, e, 10)))
    expect(server.log.map(e => e.basedOn)).toEqual([10, 11, 10, 10, 14])
  })
  test('what became of it is told before it leaves the screen, until nobody listens', async () => {
    const outbox = await page()
    const heard: string[] = []
    const stop = outbox.onAnswered((job, answers) => {
      heard.push(`${job} ${answers.map(a => a.is).join()} ${outbox.of(job).length}`)
    })
    await outbox.put(4, turn(1), 0)
    stop()
    await outbox.put(4, turn(1), 1)
    expect(heard).toEqual(['4 stored 1'])
  })
  test('more than a batch goes in batches', async () => {
    server.line = 'down'
    const outbox = await page()
    useSession().now = sessionOf()
    for (let n = 0; n < 230; n++) await outbox.put(4, turn(1), 0)
    server.line = 'up'
    await outbox.flush()
    expect(server.sent.map(s => s.entries.length)).toEqual([200, 30])
    expect(server.log).toHaveLength(230)
  }, 30_000)
})

describe('while the server is away', () => {
  test('taps wait, survive the page, and go in the order of making with the same ids', async () => {
    const outbox = await page()
    server.line = 'down'
    await outbox.put(4, turn(1), 0)
    await outbox.put(5, turn(2), 0)
    await outbox.put(4, turn(3), 0)
    expect(outbox.trouble).toEqual({ is: 'offline' })
    const ids = outbox.of(4).map(e => e.id)

    const again = await page()
    expect(useSession().offline).toBe(true)
    await again.ready()
    expect(turns(again.of(4))).toEqual([1, 3])
    await again.put(4, turn(4), 0)
    server.line = 'up'
    await again.flush()
    expect(server.sent.map(s => [s.job, turns(s.entries)])).toEqual([
      [4, [1, 3, 4]],
      [5, [2]],
    ])
    expect(server.log.slice(0, 2).map(e => e.id)).toEqual(ids)
    expect(again.trouble).toBeNull()
    expect(await tapsWaiting()).toBe(0)
  })
  test('the order is the outbox’s own, whatever the clock of the device does', async () => {
    const outbox = await page()
    server.line = 'down'
    const clock = vi.spyOn(Date, 'now')
    for (const [n, now] of [3_000, 2_000, 1_000].entries()) {
      clock.mockReturnValue(now)
      await outbox.put(4, turn(n + 1), 0)
    }
    clock.mockRestore()
    expect((await kept.taps(SHOP)).map(t => turns([t.entry])[0])).toEqual([1, 2, 3])
  })
  test('it asks again by itself', async () => {
    const outbox = await page()
    server.line = 'down'
    await outbox.put(4, turn(1), 0)
    server.line = 'up'
    await vi.advanceTimersByTimeAsync(2_600)
    await vi.waitFor(() => expect(server.log).toHaveLength(1))
    await vi.waitFor(() => expect(outbox.trouble).toBeNull())
  })
  test('an answer lost on the line is asked for again, and the tap stands once', async () => {
    const outbox = await page()
    server.line = 'gone'
    await outbox.put(4, turn(1), 0)
    expect(outbox.of(4)).toHaveLength(1) // nothing says that it arrived
    server.line = 'up'
    const heard: string[] = []
    outbox.onAnswered((_, answers) => {
      heard.push(...answers.map(a => a.is))
    })
    await outbox.flush()
    expect(heard).toEqual(['held'])
    expect(server.log).toHaveLength(1)
    expect(outbox.of(4)).toEqual([])
  })
  test('another tap’s answer says that it is back', async () => {
    const outbox = await page()
    outbox.trouble = { is: 'offline' }
    outbox.isBack()
    expect(outbox.trouble).toBeNull()
    outbox.trouble = { is: 'signed-out' }
    outbox.isBack()
    expect(outbox.trouble).toEqual({ is: 'signed-out' })
  })
})

describe('a page that ends under a tap', () => {
  /** What a browser writes at once: a map with the names of Storage. */
  class AtOnce {
    private readonly at = new Map<string, string>()
    full = false
    get length() {
      return this.at.size
    }
    key = (i: number) => [...this.at.keys()].reverse()[i] ?? null
    getItem = (key: string) => this.at.get(key) ?? null
    removeItem = (key: string) => void this.at.delete(key)
    setItem = (key: string, value: string) => {
      if (this.full) throw new DOMException('no room', 'QuotaExceededError')
      this.at.set(key, value)
    }
  }
  let atOnce: AtOnce
  beforeEach(() => {
    atOnce = new AtOnce()
    vi.stubGlobal('localStorage', atOnce)
  })
  afterEach(() => {
    vi.unstubAllGlobals()
  })
  const away = async () => {
    const outbox = await page()
    server.line = 'down'
    return outbox
  }
  /** Taps that are seen, of which the database never hears: the page ends first. */
  async function tapsCutOff(outbox: Awaited<ReturnType<typeof page>>, sixteenths: readonly number[]) {
    const never = vi.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(() => {
      throw new DOMException('the page ends', 'AbortError')
    })
    const puts = sixteenths.map(n => outbox.put(4, turn(n), 0))
    await Promise.allSettled(puts)
    never.mockRestore()
  }

  test('what was on screen is there again after it, in the order it was made, and goes once', async () => {
    await tapsCutOff(await away(), [1, 2, 3])
    expect(atOnce.length).toBe(3)
    const again = await page()
    await again.ready()
    expect(turns(again.of(4))).toEqual([1, 2, 3])
    expect([atOnce.length, await tapsWaiting()]).toEqual([0, 3])
    server.line = 'up'
    await again.flush()
    expect(turns(server.log)).toEqual([1, 2, 3])
    expect(await tapsWaiting()).toBe(0)
  })
  test('the database has it: nothing is left beside it, nor twice in it', async () => {
    const outbox = await away()
    await outbox.put(4, turn(1), 0)
    expect([atOnce.length, await tapsWaiting()]).toEqual([0, 1])
    // the page ended after the database had it, before it was taken away here
    atOnce.setItem('ocho-tap:1:x', JSON.stringify({ job: 4, entry: outbox.of(4)[0], shop: SHOP }))
    const again = await page()
    await again.ready()
    expect([atOnce.length, await tapsWaiting(), again.of(4).length]).toEqual([0, 1, 1])
  })
  test('another shop’s waits for its shop; what is no tap is left alone', async () => {
    await tapsCutOff(await away(), [1])
    atOnce.setItem('ocho-tap:7:x', '{"job":')
    atOnce.setItem('ocho-tick', 'off')
    server.session = sessionOf(ME, OTHER_SHOP)
    server.line = 'up'
    const other = await page()
    await other.flush()
    expect(server.sent).toEqual([])
    expect([await tapsWaiting(SHOP), await tapsWaiting(OTHER_SHOP), atOnce.length]).toEqual([1, 0, 2])
  })
  test('a browser that has no room for it still keeps it in the database', async () => {
    atOnce.full = true
    const outbox = await away()
    await outbox.put(4, turn(1), 0)
    expect([atOnce.length, await tapsWaiting()]).toEqual([0, 1])
  })
  test('nor is anything lost in one that may keep nothing there at all', async () => {
    const outbox = await away()
    Object.defineProperty(globalThis, 'localStorage', {
      configurable: true,
      get: () => {
        throw new DOMException('not allowed', 'SecurityError')
      },
    })
    await outbox.put(4, turn(1), 0)
    expect(await tapsWaiting()).toBe(1)
  })
})

describe('what is refused', () => {
  test('one entry is told with its reason and leaves; the others of the batch are stored', async () => {
    const outbox = await page()
    server.line = 'down'
    await outbox.put(4, turn(1), 0)
    await outbox.put(4, PROOF, 0)
    await outbox.put(4, turn(2), 0)
    server.line = 'up'
    server.refuses.set('proof', 'A mechanic signs this')
    await outbox.flush()
    expect(turns(server.log)).toEqual([1, 2])
    expect(outbox.trouble).toMatchObject({
      is: 'refused',
      job: 4,
      message: 'A mechanic signs this',
      entry: { event: PROOF },
    })
    expect(await tapsWaiting()).toBe(0)
    await outbox.put(4, turn(3), 0) // the next tap clears it
    expect(outbox.trouble).toBeNull()
  })
  test('nonsense is never kept or sent: it is said where it was tapped', async () => {
    const outbox = await page()
    await outbox.put(4, { kind: 'turn', screw: 'barrel', sixteenths: 0.5 }, 0)
    expect(outbox.trouble).toMatchObject({ is: 'refused', field: 'event.sixteenths', entry: null })
    expect(server.sent).toEqual([])
    expect(await tapsWaiting()).toBe(0)
    outbox.clearTrouble()
    expect(outbox.trouble).toBeNull()
  })
  test('nobody works here: a name first', async () => {
    server.session = sessionOf(null)
    const outbox = await page()
    await outbox.put(4, turn(1), 0)
    expect(outbox.trouble).toMatchObject({ is: 'refused', field: 'by' })
    expect(server.sent).toEqual([])
  })
  test('signed out: what waits stays and is not thrown away', async () => {
    const outbox = await page()
    server.status = 401
    await outbox.put(4, turn(1), 0)
    expect(outbox.trouble).toEqual({ is: 'signed-out' })
    expect(await tapsWaiting()).toBe(1)
    server.status = 200
    await outbox.flush()
    expect(server.log).toHaveLength(1)
  })
})

describe('a gate', () => {
  const SIGN = { person: ME, pin: '2468' }
  test('goes with its hand, and that hand is never sent again', async () => {
    const outbox = await page()
    await outbox.put(4, PROOF, 0, SIGN)
    await outbox.put(4, turn(1), 0)
    expect(server.sent.map(s => s.sign ?? null)).toEqual([SIGN, null])
  })
  test('with a wrong PIN is not kept: nothing waits that was never signed', async () => {
    const outbox = await page()
    server.status = 401
    server.refusal = { message: 'That PIN is not right', issues: [{ field: 'pin', message: 'Type it again' }] }
    await outbox.put(4, PROOF, 0, SIGN)
    expect(outbox.trouble).toMatchObject({ is: 'refused', field: 'pin', message: 'That PIN is not right' })
    expect(outbox.of(4)).toEqual([])
    expect(await tapsWaiting()).toBe(0)
  })
})
