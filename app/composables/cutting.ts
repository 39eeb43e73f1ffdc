import type { CutPlan } from '#core/cable/cutList'
import { piecesToCut, runsCut, type LaidOut, type WantedPiece } from '#core/cable/wanted'
import { StockView, type NewStock } from '#core/http/cables'
import { FloorView } from '#core/http/job'
import { EntriesAnswer } from '#core/ledger/events'
import { reduce } from '#core/ledger/reduce'
import type { z } from 'zod'
import type { Wanted } from '~/components/cables/CutPanel.vue'
import type { CutAnswer, useCables } from '~/workers/useCables'
import type { Asked } from './ask'
import type { Bench } from './bench'

const Stock = StockView.array()

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
  const others = shallowRef<LaidOut[]>([])
  async function allBikes(on: boolean) {
    all.value = on
    if (!on) return
    const floor = await told(ask(FloorView, '/api/floor'))
    const open = floor?.jobs.filter(j => j.closedAt === null && j.number !== bench.number) ?? []
    others.value = (
      await Promise.all(
        open.map(async j => {
          const log = await ask(EntriesAnswer, `/api/jobs/${j.number}/events`)
          if (log.is !== 'done') return []
          const { runs, cabled } = reduce(log.value.entries).cable
          return runs.length ? [{ job: j.number, tag: j.tag, runs, cabled }] : []
        }),
      )
    ).flat()
  }
  const extras = ref<Wanted[]>([])
  const planned = computed<WantedPiece[]>(() => {
    const { runs, cabled } = bench.state.value.cable
    const here = { job: bench.number, tag: bench.record.value?.tag ?? '', runs, cabled }
    return [here, ...(all.value ? others.value : [])].flatMap(piecesToCut)
  })
  const wanted = computed<Wanted[]>(() => [...planned.value, ...extras.value])
  const answers = ref<Record<string, CutAnswer>>({})
  watch(wanted, () => {
    answers.value = {}
  })
  async function workOut() {
    said.value = ''
    answers.value = {}
    for (const kind of new Set(wanted.value.map(w => w.kind))) {
      answers.value = { ...answers.value, [kind]: { is: 'thinking' } }
      const answer = await cut(
        wanted.value.filter(w => w.kind === kind).map(({ name, lengthMm }) => ({ name, lengthMm })),
        stock.value!.filter(s => s.kind === kind).map(({ id, lengthMm, roll }) => ({ id, lengthMm, roll })),
      )
      answers.value = { ...answers.value, [kind]: answer }
    }
  }
  const plans = computed<CutPlan['cuts']>(() =>
    Object.values(answers.value).flatMap(a => (a.is === 'ready' ? a.plan.cuts : [])),
  )
  const labels = computed(() =>
    plans.value.flatMap(c => c.pieces).flatMap(name => wanted.value.find(w => w.name === name) ?? []),
  )
  /** Cut as planned: the wall is told first, then each bike whose run is cut whole. */
  async function done() {
    const cuts = plans.value.map(c => ({
      id: c.id,
      lengthMm: stock.value!.find(s => s.id === c.id)!.lengthMm,
      keptMm: c.keep ? c.leftMm : 0,
    }))
    const names = new Set(plans.value.flatMap(c => c.pieces))
    const finished = runsCut(planned.value, names)
    const now = await told(ask(Stock, '/api/cables/cut', { method: 'POST', body: { cuts } }))
    if (!now) {
      // somebody else cut meanwhile: the wall as it is now
      const seen = await ask(Stock, '/api/cables/stock')
      if (seen.is === 'done') stock.value = seen.value
      return
    }
    stock.value = now
    extras.value = extras.value.filter(x => !names.has(x.name))
    said.value = 'Cut, and what is left hangs on the wall again'
    for (const { job, run } of finished)
      await outbox.put(job, { kind: 'cabled', run, step: 'cut' }, job === bench.number ? bench.ledger.lastSeq : 0)
    if (all.value) await allBikes(true)
  }
  const add = async (item: z.input<typeof NewStock>) => {
    stock.value = (await told(ask(Stock, '/api/cables/stock', { method: 'POST', body: item }))) ?? stock.value
  }
  const drop = async (id: string) => {
    stock.value = (await told(ask(Stock, `/api/cables/stock/${id}`, { method: 'DELETE' }))) ?? stock.value
  }
  return { stock, trouble, busy, said, load, all, allBikes, wanted, extras, answers, workOut, labels, done, add, drop }
}
export type Cutting = ReturnType<typeof useCutting>
