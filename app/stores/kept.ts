import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { FloorView } from '#core/http/floor'
import type { JobView } from '#core/http/job'
import type { LikeHere } from '#core/http/records'
import type { SessionView } from '#core/http/session'
import type { Entry, Stored } from '#core/ledger/events'
import { justMade, type Made } from './justMade'

/**
 * A tap that is not yet with the server, and of which shop it is, by its code; `order` is its place in the outbox,
 * given by the database, not by a clock.
 */
export type Tap = { order: number; job: number; entry: Entry; shop: string }
/** A job as it was last read, and whether some of its log was written by a later version. */
export type KeptJob = { number: number; record: JobView; stored: Stored[]; newer: boolean }

/** The Floor as it was last seen, and when. */
export type KeptFloor = { view: FloorView; at: string }

/**
 * What this browser keeps: who is signed in, the Floor and jobs as last seen, and taps that are not yet with the
 * server.
 */
type Kept = DBSchema & {
  session: { key: 'now'; value: SessionView }
  jobs: { key: number; value: KeptJob }
  floor: { key: 'now'; value: KeptFloor }
  /** What was seen on bikes like one, by what was asked. */
  likes: { key: string; value: LikeHere }
  taps: { key: number; value: Omit<Tap, 'order'> & { order?: number }; indexes: { job: number; id: string } }
}
/** Version 1 kept the outbox by id, with a clock's time as its order. */
type FirstOutbox = { id: string; job: number; order: number; entry: Entry }

let opened: Promise<IDBPDatabase<Kept>> | undefined

const open = () =>
  (opened ??= openDB<Kept>('ocho', 5, {
    async upgrade(db, from, _to, tx) {
      db.createObjectStore('likes')
      if (from === 4) return
      if (from < 1) {
        db.createObjectStore('session')
        db.createObjectStore('jobs', { keyPath: 'number' })
      }
      if (from === 3) {
        // taps were made in the shop that is kept as signed in
        const now = await tx.objectStore('session').get('now')
        for (let at = await tx.objectStore('taps').openCursor(); at; at = await at.continue())
          await at.update({ ...at.value, shop: now?.shop.code ?? '' })
        return
      }
      db.createObjectStore('floor')
      if (from === 2) return
      const taps = db.createObjectStore('taps', { keyPath: 'order', autoIncrement: true })
      taps.createIndex('job', 'job')
      taps.createIndex('id', 'entry.id', { unique: true })
      if (from !== 1) return
      const old = tx as unknown as { objectStore(name: 'outbox'): { getAll(): Promise<FirstOutbox[]> } }
      const rows = await old.objectStore('outbox').getAll()
      const shop = (await tx.objectStore('session').get('now'))?.shop.code ?? ''
      for (const { job, entry } of rows.sort((a, b) => a.order - b.order)) await taps.add({ job, entry, shop })
      db.deleteObjectStore('outbox' as never)
    },
    // another tab brings a newer database: this one lets go, and opens it anew when it is asked
    blocking(_from, _to, event) {
      ;(event.target as IDBDatabase).close()
      opened = undefined
    },
  }))

/** Adds a tap, unless another tab has brought it here already. */
async function addTap(made: Made): Promise<void> {
  const tx = (await open()).transaction('taps', 'readwrite')
  if ((await tx.store.index('id').getKey(made.entry.id)) === undefined) await tx.store.add(made)
  await tx.done
}

export const kept = {
  session: async () => (await open()).get('session', 'now'),
  /**
   * Another shop than before: nothing of the one before is shown any more. Its taps wait, unseen, until it signs in
   * again.
   */
  keepSession: async (session: SessionView) => {
    const tx = (await open()).transaction(['session', 'jobs', 'floor', 'likes'], 'readwrite')
    const before = await tx.objectStore('session').get('now')
    if (before && before.shop.code !== session.shop.code)
      await Promise.all((['jobs', 'floor', 'likes'] as const).map(name => tx.objectStore(name).clear()))
    await tx.objectStore('session').put(session, 'now')
    await tx.done
  },
  job: async (number: number) => (await open()).get('jobs', number),
  keepJob: async (job: KeptJob) => {
    await (await open()).put('jobs', job)
  },
  like: async (asked: string) => (await open()).get('likes', asked),
  keepLike: async (asked: string, like: LikeHere) => {
    await (await open()).put('likes', like, asked)
  },
  floor: async () => (await open()).get('floor', 'now'),
  keepFloor: async (view: FloorView) => {
    // what Vue watches cannot be kept as it is
    const plain = JSON.parse(JSON.stringify(view)) as FloorView
    await (await open()).put('floor', { view: plain, at: new Date().toISOString() }, 'now')
  },
  /** Every tap of a shop that waits, in the order they were made. */
  taps: async (shop: string): Promise<Tap[]> => {
    for (const { made, taken } of justMade.left()) {
      await addTap(made)
      taken()
    }
    return ((await (await open()).getAll('taps')) as Tap[]).filter(t => t.shop === shop)
  },
  putTap: async (shop: string, job: number, entry: Entry): Promise<void> => {
    const taken = justMade.put({ job, entry, shop })
    await addTap({ job, entry, shop })
    taken()
  },
  dropTaps: async (ids: readonly string[]) => {
    const tx = (await open()).transaction('taps', 'readwrite')
    const keys = await Promise.all(ids.map(id => tx.store.index('id').getKey(id)))
    await Promise.all([...keys.flatMap(k => (k === undefined ? [] : [tx.store.delete(k)])), tx.done])
  },
  /**
   * All that can be seen, at sign-out. Taps that wait are another shop's, or of a session that was ended: sent when it
   * is back.
   */
  wipe: async () => {
    const stores = ['session', 'jobs', 'floor', 'likes'] as const
    const tx = (await open()).transaction(stores, 'readwrite')
    await Promise.all([...stores.map(name => tx.objectStore(name).clear()), tx.done])
  },
}
