import type { CutPlan } from '#core/cable/cutList'
import { piecesToCut, runsCut, type LaidOut, type WantedPiece } from '#core/cable/wanted'
import { StockView, TakenView, type NewStock } from '#core/http/cables'
import type { JobState } from '#core/ledger/reduce'
import type { EventId } from '#core/chapter/ids'
import { FloorView } from '#core/http/floor'
import { EntriesAnswer } from '#core/ledger/events'
import { reduce } from '#core/ledger/reduce'
import type { z } from 'zod'
import type { Wanted } from '~/components/cables/CutPanel.vue'
import type { CutAnswer, useCables } from '~/workers/useCables'
import type { Asked } from './ask'
import type { Bench } from './bench'

const Stock = StockView.array()
const Taken = TakenView.array()

/** The wall and the cut list: what is to be cut on this bike or on all, from which roll, and what that leaves. */
export function useCutting(bench: Bench, cut: ReturnType<typeof useCables>['cut']) {
  const outbox = useOutbox()
  const stock = shallowRef<StockView[] | null>(null)
  const trouble = ref('')
  const busy = ref(false)
  const said = ref('')
  async function told<T>(asking: Promise<Asked<T>>): Promise<T | null> {
    busy.value = true
    const answer = await asking
    busy.value = false
    trouble.value = sayTrouble(answer)
    return answer.is === 'done' ? answer.value : null
  }
  const load = async () => {
    stock.value ??= await told(ask(Stock, '/api/cables/stock'))
  }

  const all = ref(false)
  const others = shallowRef<(LaidOut & Pick<JobState, 'brake'>)[]>([])
  async function allBikes(on: boolean) {
    all.value = on
    if (!on) return
    const floor = await told(ask(FloorView, '/api/floor'))
    const open = floor?.jobs.filter(j => j.closedAt === null && j.number !== bench.number) ?? []
    const logs = await Promise.all(
      open.map(async j => ({ ...j, log: await ask(EntriesAnswer, `/api/jobs/${j.number}/events`) })),
    )
    // asked for this one alone meanwhile
    if (!all.value) return
    const unread = logs.filter(j => j.log.is !== 'done').map(j => j.tag)
    // a list that lacks a bike is not of all: better only this one, and said so
    all.value = floor !== null && unread.length === 0
    if (unread.length)
      trouble.value = `Tag ${unread.join(', ')} could not be read, so the list is of this bike alone: choose all open bikes again`
    others.value = logs.flatMap(({ number: job, tag, log }) => {
      if (log.is !== 'done') return []
      const { cable, brake } = reduce(log.value.entries)
      return cable.runs.length ? [{ job, tag, ...cable, brake }] : []
    })
  }
  const extras = ref<Wanted[]>([])
  const bikes = computed(() => {
    const { cable, brake } = bench.state.value
    const here = { job: bench.number, tag: bench.record.value?.tag ?? '', ...cable, brake }
    return [here, ...(all.value ? others.value : [])]
  })
  const planned = computed<WantedPiece[]>(() => bikes.value.flatMap(piecesToCut))
  const wanted = computed<Wanted[]>(() => [...planned.value, ...extras.value])
  const answers = ref<Record<string, CutAnswer>>({})
  /** Which working out the answers are of: one that is still under way when they are forgotten is of none. */
  let asked = 0
  function forget() {
    asked++
    answers.value = {}
  }
  // a plan is of one list and of one wall: of another it would cut what nobody wants, or from what is gone
  watchContents(() => [wanted.value, stock.value], forget)
  async function workOut() {
    said.value = ''
    forget()
    const mine = asked
    for (const kind of new Set(wanted.value.map(w => w.kind))) {
      answers.value = { ...answers.value, [kind]: { is: 'thinking' } }
      const answer = await cut(
        wanted.value.filter(w => w.kind === kind).map(({ name, lengthMm }) => ({ name, lengthMm })),
        stock.value!.filter(s => s.kind === kind).map(({ id, lengthMm, roll }) => ({ id, lengthMm, roll })),
      )
      if (mine !== asked) return
      answers.value = { ...answers.value, [kind]: answer }
    }
  }
  const plans = computed<CutPlan['cuts']>(() =>
    Object.values(answers.value).flatMap(a => (a.is === 'ready' ? a.plan.cuts : [])),
  )
  const labels = computed(() =>
    plans.value.flatMap(c => c.pieces).flatMap(name => wanted.value.find(w => w.name === name) ?? []),
  )
  async function lookAgain() {
    const seen = await ask(Stock, '/api/cables/stock')
    if (seen.is === 'done') stock.value = seen.value
    forget()
  }
  /** Cut as planned: the wall is told first, then each bike whose run is cut whole. */
  async function done() {
    const cuts = plans.value.map(c => ({
      id: c.id,
      lengthMm: stock.value!.find(s => s.id === c.id)!.lengthMm,
      keptMm: c.keep ? c.leftMm : 0,
    }))
    const names = new Set(plans.value.flatMap(c => c.pieces))
    const finished = runsCut(planned.value, names)
    const asking = ask(Stock, '/api/cables/cut', { method: 'POST', body: { cuts }, once: true })
    const now = await told(asking)
    if (!now) {
      // not heard: tapped again it is the same cut, done once. Refused, the wall is another than was planned on
      if ((await asking).is === 'refused') await lookAgain()
      return
    }
    stock.value = now
    taken.value = null
    extras.value = extras.value.filter(x => !names.has(x.name))
    said.value = 'Cut, and what is left hangs on the wall again'
    for (const { job, run } of finished) {
      const entry = await outbox.put(
        job,
        { kind: 'cabled', run, step: 'cut' },
        job === bench.number ? bench.ledger.lastSeq : 0,
      )
      if (entry) noted.push({ job, entry, ids: cuts.map(c => c.id) })
    }
    if (all.value) await allBikes(true)
  }
  /** Steps noted here with a cut, to be taken back with it. */
  const noted: { job: number; entry: EventId; ids: string[] }[] = []
  const taken = shallowRef<TakenView[] | null>(null)
  const loadTaken = async () => {
    taken.value = await told(ask(Taken, '/api/cables/stock/taken'))
  }
  /** Not cut after all: the wall as it was, and the steps that said so taken back. */
  async function putBack(ids: string[]) {
    const now = await told(ask(Stock, '/api/cables/stock/put-back', { method: 'POST', body: { ids } }))
    if (now) {
      stock.value = now
      const undone = noted.filter(n => n.ids.some(id => ids.includes(id)))
      for (const { job, entry } of undone) {
        await outbox.put(job, { kind: 'undo', undoes: entry }, job === bench.number ? bench.ledger.lastSeq : 0)
        noted.splice(
          noted.findIndex(n => n.entry === entry),
          1,
        )
      }
      said.value = undone.length
        ? 'On the wall again, and the runs are to be cut'
        : 'On the wall again: where a run says it is cut, take that step back too'
      if (all.value) await allBikes(true)
    }
    await loadTaken()
  }
  const add = async (item: z.input<typeof NewStock>) => {
    stock.value =
      (await told(ask(Stock, '/api/cables/stock', { method: 'POST', body: item, once: true }))) ?? stock.value
  }
  const drop = async (id: string) => {
    stock.value = (await told(ask(Stock, `/api/cables/stock/${id}`, { method: 'DELETE' }))) ?? stock.value
  }
  return {
    taken,
    loadTaken,
    putBack,
    bikes,
    stock,
    trouble,
    busy,
    said,
    load,
    all,
    allBikes,
    wanted,
    extras,
    answers,
    workOut,
    labels,
    done,
    add,
    drop,
  }
}
export type Cutting = ReturnType<typeof useCutting>
