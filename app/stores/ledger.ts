import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { JobView } from '#core/http/job'
import { EntriesAnswer, type LedgerEvent, type Stored } from '#core/ledger/events'
import { reduce } from '#core/ledger/reduce'
import { standardsWith } from '#core/standards/inForce'
import { ask } from '~/composables/ask'
import { kept } from './kept'
import { useOutbox, type Sign } from './outbox'

/** A look at the server that takes longer hangs, ms. */
const HANGS_MS = 2000
type Look = { job: number; since: number; until: Promise<void>; again: Promise<void> | null }

/** One job's log on this device: what the server holds, what waits to be sent, and the state they make. */
export const useLedger = defineStore('ledger', () => {
  const outbox = useOutbox()
  const number = ref(0)
  const record = shallowRef<JobView | null>(null)
  const stored = shallowRef<readonly Stored[]>([])
  const loaded = ref<'loading' | 'ready' | 'missing' | 'unreachable'>('loading')
  /** Some of the log was written by a later version: reload to update. */
  const newer = ref(false)
  /** What is on its way, but for what the server has answered already. */
  const waiting = computed(() => {
    const here = new Set(stored.value.map(e => e.id))
    return outbox.of(number.value).filter(e => !here.has(e.id))
  })
  const trouble = computed(() => {
    const t = outbox.trouble
    return t?.is === 'refused' && t.job !== number.value ? null : t
  })
  /** The log as far as this device knows it; null stands for what it cannot read. */
  const log = computed(() => [...stored.value, ...waiting.value, ...(newer.value ? [null] : [])])
  const state = computed(() => reduce(log.value))
  const standards = computed(() => standardsWith(record.value?.own ?? [], record.value?.settled))
  const lastSeq = computed(() => stored.value.at(-1)?.seq ?? 0)
  const closed = computed(() => Boolean(record.value?.closedAt))

  outbox.onAnswered(async (job, answers) => {
    if (job !== number.value) return
    take(answers.flatMap(a => (a.is === 'stored' ? [a.stored] : [])))
    await keep()
    if (answers.some(a => a.is === 'held') || lastSeq.value > stored.value.length) await catchUp()
  })

  /** Opens a job: first what is kept here, then what the server holds. */
  async function open(job: number): Promise<void> {
    if (number.value !== job) {
      number.value = job
      record.value = null
      stored.value = []
      newer.value = false
      loaded.value = 'loading'
    }
    await outbox.ready()
    const here = await kept.job(job)
    if (here && number.value === job && !record.value) {
      record.value = here.record
      stored.value = here.stored
      newer.value = here.newer ?? false
      loaded.value = 'ready'
    }
    await refresh()
  }

  let looking: Look | null = null
  let looks = 0
  /** Which look the job's record is of. */
  let taken = 0
  /**
   * Takes what is new from the server, and sends what waits: one look at a time, and one more after it for all that was
   * hinted at meanwhile. One that hangs on a dead line is not waited for.
   */
  function refresh(): Promise<void> {
    const job = number.value
    const under = looking
    if (under?.job === job && performance.now() - under.since < HANGS_MS) {
      const once = () => (number.value === job ? refresh() : undefined)
      return (under.again ??= under.until.then(once, once))
    }
    const mine: Look = { job, since: performance.now(), until: look(job), again: null }
    looking = mine
    const over = () => {
      if (looking === mine) looking = null
    }
    void mine.until.then(over, over)
    return mine.until
  }

  async function look(job: number): Promise<void> {
    const order = ++looks
    const [got, entries] = await Promise.all([
      ask(JobView, `/api/jobs/${job}`),
      ask(EntriesAnswer, `/api/jobs/${job}/events?after=${lastSeq.value}`),
    ])
    if (number.value !== job) return
    // one that hung comes after a later one: what is in the log stays in it, all else it knows is old
    if (order < taken) {
      if (entries.is !== 'done') return
      newer.value ||= entries.value.newer
      take(entries.value.entries)
      return keep()
    }
    if (got.is === 'done' && entries.is === 'done') {
      taken = order
      // the same again stays the same object: nothing is worked out anew, or taken from under a hand, for a look
      if (JSON.stringify(got.value) !== JSON.stringify(record.value)) record.value = got.value
      newer.value ||= entries.value.newer
      take(entries.value.entries)
      loaded.value = 'ready'
      outbox.isBack()
      await keep()
      await outbox.flush()
      return
    }
    if (got.is === 'refused' && got.status === 404) loaded.value = 'missing'
    else if (got.is === 'refused' && got.status === 401) outbox.trouble = { is: 'signed-out' }
    else {
      outbox.trouble = { is: 'offline' }
      if (!record.value) loaded.value = 'unreachable'
    }
  }

  function take(entries: readonly Stored[]): void {
    if (!entries.length) return
    const known = new Set(stored.value.map(e => e.seq))
    const fresh = entries.filter(e => !known.has(e.seq))
    if (fresh.length) stored.value = [...stored.value, ...fresh].sort((a, b) => a.seq - b.seq)
  }

  const keep = async () => {
    if (record.value)
      await kept.keepJob({
        number: number.value,
        record: record.value,
        stored: [...stored.value],
        newer: newer.value,
      })
  }

  /** Fetches entries that another tablet put between ours. */
  async function catchUp(): Promise<void> {
    let gap = 0
    while (stored.value[gap]?.seq === gap + 1) gap++
    const job = number.value
    const asked = await ask(EntriesAnswer, `/api/jobs/${job}/events?after=${gap}`)
    if (asked.is !== 'done' || number.value !== job) return
    newer.value ||= asked.value.newer
    take(asked.value.entries)
    await keep()
  }

  /** @param at when it was done, for what one touch noted as several entries: they bear one moment */
  const append = (event: LedgerEvent, sign?: Sign, at?: string) =>
    outbox.put(number.value, event, lastSeq.value, sign, at)

  return {
    number,
    record,
    stored,
    waiting,
    trouble,
    loaded,
    newer,
    log,
    state,
    standards,
    lastSeq,
    closed,
    open,
    refresh,
    append,
  }
})
