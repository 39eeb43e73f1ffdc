import type { JobView } from '#core/http/job'
import {
  EVENT_VERSION,
  Entry,
  type EntryAnswer,
  type EventId,
  type LedgerEvent,
  type Stored,
} from '#core/ledger/events'
import { reduce, undoable } from '#core/ledger/reduce'
import { kept } from './kept'
import { useSession } from './session'

/** Why something is not as it should be; the screen says what to do. */
export type Trouble =
  { is: 'offline' } | { is: 'refused'; field: string; message: string; entry: Entry | null } | { is: 'signed-out' }

type Sign = { person: string; pin: string }

/** How long to wait before asking a server that was away, ms. */
const AGAIN_MS = 2500

/** One job's log on this device: what the server holds, what waits to be sent, and the state they make. */
export const useLedger = defineStore('ledger', () => {
  const session = useSession()
  const number = ref(0)
  const record = shallowRef<JobView | null>(null)
  const stored = shallowRef<readonly Stored[]>([])
  const waiting = shallowRef<readonly Entry[]>([])
  const trouble = shallowRef<Trouble | null>(null)
  const loaded = ref<'loading' | 'ready' | 'missing' | 'unreachable'>('loading')
  const outdated = ref(false)
  const state = computed(() => reduce([...stored.value, ...waiting.value]))
  const lastSeq = computed(() => stored.value.at(-1)?.seq ?? 0)
  const canUndo = computed(() => undoable(state.value))

  let queue: Promise<unknown> = Promise.resolve()
  const inTurn = <T>(work: () => Promise<T>): Promise<T> => {
    const next = queue.then(work, work)
    queue = next.catch(() => undefined)
    return next
  }

  /** Opens a job: first what is kept here, then what the server holds. */
  async function open(job: number): Promise<void> {
    if (number.value !== job) {
      number.value = job
      record.value = null
      stored.value = []
      trouble.value = null
      loaded.value = 'loading'
    }
    waiting.value = await kept.waiting(job)
    const here = await kept.job(job)
    if (here && number.value === job && !record.value) {
      record.value = here.record
      stored.value = here.stored
      loaded.value = 'ready'
    }
    await refresh()
  }

  /** Takes what is new from the server, and sends what waits. */
  const refresh = () =>
    inTurn(async () => {
      const job = number.value
      const [got, log] = await Promise.all([
        ask<JobView>(`/api/jobs/${job}`),
        ask<{ entries: Stored[]; newer: boolean }>(`/api/jobs/${job}/events?after=${lastSeq.value}`),
      ])
      if (number.value !== job) return
      if (got.is === 'done' && log.is === 'done') {
        record.value = got.value
        outdated.value = log.value.newer
        take(log.value.entries)
        loaded.value = 'ready'
        if (trouble.value?.is === 'offline') trouble.value = null
        await keep()
        await send()
        return
      }
      if (got.is === 'refused' && got.status === 404) loaded.value = 'missing'
      else if (got.is === 'refused' && got.status === 401) trouble.value = { is: 'signed-out' }
      else {
        trouble.value = { is: 'offline' }
        if (!record.value) loaded.value = 'unreachable'
      }
    })

  function take(entries: readonly Stored[]): void {
    if (!entries.length) return
    const known = new Set(stored.value.map(e => e.seq))
    const fresh = entries.filter(e => !known.has(e.seq))
    stored.value = [...stored.value, ...fresh].sort((a, b) => a.seq - b.seq)
    const ids = new Set(entries.map(e => e.id))
    if (waiting.value.some(e => ids.has(e.id))) waiting.value = waiting.value.filter(e => !ids.has(e.id))
  }

  const keep = async () => {
    if (record.value) await kept.keepJob(number.value, record.value, stored.value)
  }

  /** Records something: on screen in this frame, kept here before it is sent. */
  async function append(event: LedgerEvent, sign?: Sign): Promise<void> {
    const by = session.now?.person?.id
    if (!by) {
      trouble.value = { is: 'refused', field: 'by', message: 'Say who works: choose your name first', entry: null }
      return
    }
    // entries that wait count as placed: the next one is based on them too
    const entry = Entry.parse({
      id: newUuid(),
      v: EVENT_VERSION,
      at: new Date().toISOString(),
      basedOn: lastSeq.value + waiting.value.length,
      by,
      event,
    })
    waiting.value = [...waiting.value, entry]
    if (trouble.value?.is === 'refused') trouble.value = null
    await kept.putOut(number.value, entry, Date.now() + (performance.now() % 1))
    await inTurn(() => send(sign))
  }

  async function send(sign?: Sign): Promise<void> {
    const job = number.value
    const entries = waiting.value
    if (!entries.length) return
    const body = { entries: entries.slice(0, 200), ...(sign ? { sign } : {}) }
    const asked = await ask<{ answers: EntryAnswer[] }>(`/api/jobs/${job}/events`, { method: 'POST', body })
    if (asked.is === 'offline') {
      trouble.value = { is: 'offline' }
      setTimeout(() => {
        if (number.value === job) void refresh()
      }, AGAIN_MS)
      return
    }
    if (asked.is === 'refused') {
      if (asked.status === 401 && !sign) trouble.value = { is: 'signed-out' }
      else {
        trouble.value = {
          is: 'refused',
          field: asked.issues[0]?.field ?? 'entry',
          message: asked.message,
          entry: entries.at(-1) ?? null,
        }
        if (sign) await drop([entries.at(-1)!.id]) // a gate is not kept without its hand
      }
      return
    }
    if (trouble.value?.is === 'offline') trouble.value = null
    await settle(asked.value.answers, entries)
  }

  /** Files each answer: stored ones move over, refused ones are taken out and said. */
  async function settle(answers: EntryAnswer[], sent: readonly Entry[]): Promise<void> {
    take(answers.flatMap(a => (a.is === 'stored' ? [a.stored] : [])))
    const gone: EventId[] = []
    answers.forEach((answer, i) => {
      const entry = sent[i]
      gone.push(entry.id)
      if (answer.is === 'refused')
        trouble.value = { is: 'refused', field: answer.field, message: answer.message, entry }
    })
    await keep()
    await drop(gone)
    if (answers.some(a => a.is === 'held') || lastSeq.value > stored.value.length) await catchUp()
  }

  async function drop(ids: readonly string[]): Promise<void> {
    waiting.value = waiting.value.filter(e => !ids.includes(e.id))
    await kept.takeOut(ids)
  }

  /** Fetches entries that another tablet put between ours. */
  async function catchUp(): Promise<void> {
    let gap = 0
    while (stored.value[gap]?.seq === gap + 1) gap++
    const asked = await ask<{ entries: Stored[] }>(`/api/jobs/${number.value}/events?after=${gap}`)
    if (asked.is === 'done') {
      take(asked.value.entries)
      await keep()
    }
  }

  async function undo(): Promise<void> {
    const last = canUndo.value
    if (last) await append({ kind: 'undo', undoes: last.id })
  }

  const clearTrouble = () => {
    trouble.value = null
  }

  return {
    number,
    record,
    stored,
    waiting,
    trouble,
    loaded,
    outdated,
    state,
    lastSeq,
    canUndo,
    open,
    refresh,
    append,
    undo,
    clearTrouble,
  }
})
