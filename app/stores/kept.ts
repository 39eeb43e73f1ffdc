import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { JobView } from '#core/http/job'
import type { SessionView } from '#core/http/session'
import type { Entry, Stored } from '#core/ledger/events'

/** What this browser keeps: who is signed in, jobs it has opened, and taps that are not yet with the server. */
type Kept = DBSchema & {
  session: { key: 'now'; value: SessionView }
  jobs: { key: number; value: { number: number; record: JobView; stored: Stored[] } }
  outbox: { key: string; value: { id: string; job: number; order: number; entry: Entry }; indexes: { job: number } }
}

let opened: Promise<IDBPDatabase<Kept>> | undefined

const open = () =>
  (opened ??= openDB<Kept>('ocho', 1, {
    upgrade(db) {
      db.createObjectStore('session')
      db.createObjectStore('jobs', { keyPath: 'number' })
      db.createObjectStore('outbox', { keyPath: 'id' }).createIndex('job', 'job')
    },
  }))

export const kept = {
  session: async () => (await open()).get('session', 'now'),
  keepSession: async (session: SessionView) => {
    await (await open()).put('session', session, 'now')
  },
  job: async (number: number) => (await open()).get('jobs', number),
  keepJob: async (number: number, record: JobView, stored: readonly Stored[]) => {
    await (await open()).put('jobs', { number, record, stored: [...stored] })
  },
  waiting: async (job: number): Promise<Entry[]> => {
    const rows = await (await open()).getAllFromIndex('outbox', 'job', job)
    return rows.sort((a, b) => a.order - b.order).map(r => r.entry)
  },
  waitingAnywhere: async () => (await open()).count('outbox'),
  jobsWaiting: async (): Promise<number[]> => [...new Set((await (await open()).getAll('outbox')).map(r => r.job))],
  putOut: async (job: number, entry: Entry, order: number) => {
    await (await open()).put('outbox', { id: entry.id, job, order, entry })
  },
  takeOut: async (ids: readonly string[]) => {
    const tx = (await open()).transaction('outbox', 'readwrite')
    await Promise.all([...ids.map(id => tx.store.delete(id)), tx.done])
  },
  /** Everything, at sign-out. */
  wipe: async () => {
    const tx = (await open()).transaction(['session', 'jobs', 'outbox'], 'readwrite')
    await Promise.all([
      tx.objectStore('session').clear(),
      tx.objectStore('jobs').clear(),
      tx.objectStore('outbox').clear(),
      tx.done,
    ])
  },
}
