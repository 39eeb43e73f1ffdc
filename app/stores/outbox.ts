import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { AppendAnswer, EVENT_VERSION, Entry, type EntryAnswer, type LedgerEvent } from '#core/ledger/events'
import type { EventId } from '#core/chapter/ids'
import { tellsWhatItKnew } from '#core/ledger/gates'
import { issuesOf } from '#core/http/words'
import { ask } from '~/composables/ask'
import { newUuid } from '~/composables/ids'
import { kept } from './kept'
import { useSession } from './session'

/** Why something is not as it should be; the screen says what to do. */
export type Trouble =
  | { is: 'offline' }
  | { is: 'signed-out' }
  | { is: 'refused'; job: number; field: string; message: string; entry: Entry | null }

/** A mechanic's hand at a gate: name and PIN, for that one. */
export type Sign = { person: string; pin: string }
type Answered = (job: number, answers: readonly EntryAnswer[]) => Promise<void> | void

/** How long to wait before asking a server that was away, ms. */
const AGAIN_MS = 2500
/** Entries sent at once. */
const AT_ONCE = 200

/** Every entry of this device on its way to the server: kept before it is sent, sent in the order it was made. */
export const useOutbox = defineStore('outbox', () => {
  const session = useSession()
  /** Taps of every shop that signed in on this device; what is seen and sent is this one's. */
  const all = shallowRef<readonly { job: number; entry: Entry; shop: string }[]>([])
  const here = () => session.now?.shop.code ?? ''
  const waiting = computed(() => all.value.filter(w => w.shop === here()))
  const trouble = shallowRef<Trouble | null>(null)
  const listeners = new Set<Answered>()
  const read = new Map<string, Promise<void>>()
  let queue: Promise<unknown> = Promise.resolve()
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const next = queue.then(work, work)
    queue = next.catch(() => undefined)
    return next
  }

  /** Taps of this shop left from before, read once. */
  function ready(): Promise<void> {
    const shop = here()
    const again =
      read.get(shop) ??
      kept.taps(shop).then(taps => {
        const known = new Set(all.value.map(w => w.entry.id))
        all.value = [...taps.filter(t => !known.has(t.entry.id)), ...all.value]
      })
    read.set(shop, again)
    return again
  }

  const of = (job: number): Entry[] => waiting.value.filter(w => w.job === job).map(w => w.entry)

  /** Hears what became of entries that were sent, until the returned function is called. */
  function onAnswered(heard: Answered): () => void {
    listeners.add(heard)
    return () => listeners.delete(heard)
  }

  /**
   * Records something on a job: on screen in this frame, kept here before it is sent. `basedOn` is the last place seen
   * of its log.
   */
  async function put(
    job: number,
    event: LedgerEvent,
    basedOn: number,
    sign?: Sign,
    at = new Date().toISOString(),
  ): Promise<EventId | null> {
    const by = session.now?.person?.id
    if (!by) {
      trouble.value = { is: 'refused', job, field: 'by', message: 'Say who works: choose your name first', entry: null }
      return null
    }
    const read = Entry.safeParse({
      id: newUuid(),
      v: EVENT_VERSION,
      at,
      // entries that wait count as placed: the next one is based on them too; some only on what came back
      basedOn: tellsWhatItKnew(event) ? basedOn : basedOn + of(job).length,
      by,
      event,
    })
    if (!read.success) {
      const [issue] = issuesOf(read.error)
      trouble.value = { is: 'refused', job, field: issue!.field, message: issue!.message, entry: null }
      return null
    }
    const entry = read.data
    const shop = here()
    all.value = [...all.value, { job, entry, shop }]
    if (trouble.value?.is === 'refused') trouble.value = null
    await kept.putTap(shop, job, entry)
    await inTurn(() => send(job, sign))
    return entry.id
  }

  /** Sends what waits, of one job or of all. */
  const flush = (job?: number): Promise<void> =>
    inTurn(async () => {
      await ready()
      const jobs = job === undefined ? [...new Set(waiting.value.map(w => w.job))] : [job]
      for (const one of jobs) await send(one)
    })

  async function send(job: number, sign?: Sign): Promise<void> {
    const entries = of(job).slice(0, AT_ONCE)
    if (!entries.length) return
    const asked = await ask(AppendAnswer, `/api/jobs/${job}/events`, {
      method: 'POST',
      body: { entries, ...(sign ? { sign } : {}) },
    })
    if (asked.is === 'offline') {
      trouble.value = { is: 'offline' }
      setTimeout(() => void flush(), AGAIN_MS)
      return
    }
    if (asked.is === 'refused') {
      const last = entries.at(-1)!
      if (asked.status === 401 && !sign) {
        trouble.value = { is: 'signed-out' }
        void session.load() // signed out from afar, it forgets what it keeps
      } else {
        const field = asked.issues[0]?.field ?? 'entry'
        trouble.value = { is: 'refused', job, field, message: asked.message, entry: last }
        if (sign) await drop([last.id]) // a gate is not kept without its hand
      }
      return
    }
    if (trouble.value?.is === 'offline') trouble.value = null
    const { answers } = asked.value
    answers.forEach((answer, i) => {
      if (answer.is === 'refused')
        trouble.value = { is: 'refused', job, field: answer.field, message: answer.message, entry: entries[i] }
    })
    for (const heard of listeners) await heard(job, answers)
    await drop(entries.map(e => e.id))
    if (of(job).length) await send(job)
  }

  async function drop(ids: readonly string[]): Promise<void> {
    all.value = all.value.filter(w => !ids.includes(w.entry.id))
    await kept.dropTaps(ids)
  }

  const clearTrouble = () => {
    trouble.value = null
  }
  /** The server answered somebody else: it is back. */
  const isBack = () => {
    if (trouble.value?.is === 'offline') trouble.value = null
  }

  return { waiting, trouble, ready, of, onAnswered, put, flush, clearTrouble, isBack }
})
