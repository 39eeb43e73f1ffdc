<script setup lang="ts">
import { BarLoop, loopGeometry, USUAL_BAR_LOOP } from '#core/cable/barLoop'
import { isBrake, leastRadiusMm, RUN_WORDS, RUNS, type RunName } from '#core/cable/housing'
import { piecesToCut, runsCut, type LaidOut, type WantedPiece } from '#core/cable/wanted'
import { apartMm, type LoopAt, type LoopGeometry, type PoseName } from '#core/cable/loop'
import { SuspensionLoop, suspensionGeometry, USUAL_SUSPENSION_LOOP } from '#core/cable/suspensionLoop'
import { lossAlong, sayRead, type Run } from '#core/cable/run'
import type { CableStep } from '#core/cable/steps'
import type { StockView, TemplateView } from '#core/http/cables'
import type { FloorView } from '#core/http/job'
import { priorFor } from '#core/ledger/belief'
import { Stored } from '#core/ledger/events'
import { reduce } from '#core/ledger/reduce'
import { typedNumber } from '#core/quantity/typed'
import { ratioForSums } from '#core/ledger/typedParts'
import { placeOfPiece } from '#core/records/collect'
import { newUuid } from '~/composables/ids'
import type { Wanted } from '~/components/cables/CutPanel.vue'
import type { LoopKind } from '~/components/cables/LoopPanel.vue'
import { useAdvice, type Question } from '~/workers/useAdvice'
import { LOOP_FRAMES, useCables, type CutAnswer } from '~/workers/useCables'

const route = useRoute()
const session = useSession()
const { number, ledger, state, record } = useJobPage(() => 'Cables')
useAwake()

const name = ref<RunName>(RUNS.find(r => r === route.query.run) ?? 'rear')
const panel = ref<'pieces' | 'loop' | 'friction' | 'steps' | 'cut'>('pieces')
const PANELS = [
  ['pieces', 'Pieces'],
  ['loop', 'Loop'],
  ['friction', 'Friction'],
  ['steps', 'Steps'],
  ['cut', 'Cut'],
] as const
const run = computed(() => state.value.noted.runs.find(r => r.run === name.value) ?? null)
const done = computed(() => state.value.noted.cabled[name.value] ?? [])
const chosen = ref<string | null>(null)
const { said, put, undo } = useTouches(ledger)
watch(name, () => {
  chosen.value = null
})
const losses = computed(() => (run.value ? lossAlong(run.value) : []))

const outlier = useOutlier(state, record)
const doubtful = shallowRef<{ run: Run; question: string } | null>(null)
/** A piece of the rear run that was typed anew and lies far from what the shop has seen is asked about. */
function questionOf(next: Run): string | null {
  if (next.run !== 'rear' || !run.value) return null
  for (const p of next.pieces) {
    const place = p.kind === 'housing' ? placeOfPiece(p.name) : undefined
    const before = run.value.pieces.find(x => x.name === p.name)
    if (p.kind !== 'housing' || !place || (before?.kind === 'housing' && before.lengthMm === p.lengthMm)) continue
    const question = outlier({ kind: 'housing', place, lengthMm: p.lengthMm, of: '4 mm', ends: 'metal' })
    if (question) return question
  }
  return null
}
function keep(next: Run, sure = false) {
  const question = sure ? null : questionOf(next)
  doubtful.value = question ? { run: next, question } : null
  if (question) return
  put({ kind: 'run', run: next }, 'Noted the run')
}
const step = (s: CableStep) => put({ kind: 'cabled', run: name.value, step: s })

// the loop at the bars, or across a rear pivot
const asText = (usual: object) =>
  Object.fromEntries(Object.entries(usual).map(([k, v]) => [k, typeof v === 'number' ? String(v) : v])) as Record<
    string,
    string | boolean
  >
const loopKind = ref<LoopKind>('bars')
const tape = ref<Record<LoopKind, Record<string, string | boolean>>>({
  bars: asText(USUAL_BAR_LOOP),
  suspension: asText(USUAL_SUSPENSION_LOOP),
})
const given = ref('')
const measured = computed<{ geometry: LoopGeometry | null; axleMm: number; trouble: string }>(() => {
  const figures = Object.fromEntries(
    Object.entries(tape.value[loopKind.value]).map(([k, v]) => [
      k,
      typeof v === 'string' && k !== 'exit' ? typedNumber(v) : v,
    ]),
  )
  const least = leastRadiusMm(name.value)
  if (loopKind.value === 'suspension') {
    const read = SuspensionLoop.safeParse(figures)
    return read.success
      ? { geometry: suspensionGeometry(read.data, least), axleMm: read.data.axleMm, trouble: '' }
      : { geometry: null, axleMm: 0, trouble: read.error.issues[0]!.message }
  }
  const read = BarLoop.safeParse(figures)
  return read.success
    ? { geometry: loopGeometry(read.data, least), axleMm: 0, trouble: '' }
    : { geometry: null, axleMm: 0, trouble: read.error.issues[0]!.message }
})
const cables = useCables()
const givenMm = computed(() => {
  const mm = typedNumber(given.value)
  return given.value.trim() === '' ? null : Number.isInteger(mm) && mm >= 20 && mm <= 2000 ? mm : NaN
})
const asked = computed(() =>
  panel.value === 'loop' && measured.value.geometry && !Number.isNaN(givenMm.value)
    ? { geometry: measured.value.geometry, givenMm: givenMm.value }
    : null,
)
const loop = cables.useLoop(asked)
const loopTrouble = computed(
  () =>
    measured.value.trouble ||
    (Number.isNaN(givenMm.value)
      ? 'Length: whole mm from 20 to 2000'
      : loop.value.is === 'failed'
        ? loop.value.message
        : ''),
)
/** What the figures say and a touch may take: never of a question that was changed meanwhile. The drawing keeps the last shape. */
const picture = computed(() => (!loopTrouble.value && loop.value.is === 'ready' ? loop.value.value : null))
const shapes = computed(() => (loopTrouble.value || loop.value.is === 'failed' ? null : loop.value.value))
/** Degrees about the loop's axis, between the ends of its turn. */
const turnDeg = ref(0)
const ends = computed(() => {
  const degs = measured.value.geometry?.poses.map(p => p.deg) ?? [0]
  return { from: Math.min(...degs), to: Math.max(...degs) }
})
const drawn = computed<LoopAt | null>(() => {
  const { from, to } = ends.value
  const at = to > from ? Math.max(0, Math.min(1, (turnDeg.value - from) / (to - from))) * (LOOP_FRAMES - 1) : 0
  const [a, b] = [shapes.value?.frames[Math.floor(at)], shapes.value?.frames[Math.ceil(at)]]
  if (!a || !b) return a ?? b ?? null
  const share = at - Math.floor(at)
  return {
    ...(share < 0.5 ? a : b),
    points: a.points.map((p, i) => p.map((v, k) => v + share * (b.points[i]![k]! - v)) as unknown as typeof p),
  }
})
let turning = 0
function turnTo(pose: PoseName) {
  const to = measured.value.geometry?.poses.find(p => p.name === pose)?.deg ?? 0
  cancelAnimationFrame(turning)
  if (matchMedia('(prefers-reduced-motion: reduce)').matches) return void (turnDeg.value = to)
  const from = turnDeg.value
  const began = performance.now()
  const frame = (now: number) => {
    const share = Math.min(1, (now - began) / 420)
    turnDeg.value = from + (to - from) * (1 - (1 - share) ** 3)
    if (share < 1) turning = requestAnimationFrame(frame)
  }
  turning = requestAnimationFrame(frame)
}
const slack = computed(() =>
  picture.value && measured.value.geometry
    ? picture.value.lengthMm - apartMm(measured.value.geometry, turnDeg.value)
    : 0,
)
watch(loopKind, () => {
  turnDeg.value = 0
  given.value = ''
})
const takeLength = (piece: string) => {
  const lengthMm = picture.value?.lengthMm
  if (run.value && lengthMm)
    keep({
      ...run.value,
      pieces: run.value.pieces.map(p =>
        p.name === piece && p.kind === 'housing'
          ? {
              ...p,
              lengthMm,
              read: {
                by: 'loop' as const,
                why: loopKind.value === 'bars' ? 'pulls nowhere from lock to lock' : 'pulls nowhere to full travel',
              },
            }
          : p,
      ),
    })
}

// what the shifting says, from the same belief as the rear bench
const question = computed<Question | null>(() =>
  state.value.setup &&
  record.value &&
  panel.value === 'friction' &&
  name.value === 'rear' &&
  state.value.bench.some(e => e.kind === 'shift' || e.kind === 'edge')
    ? {
        job: number,
        setup: state.value.setup,
        log: state.value.bench,
        prior: priorFor(state.value, record.value.known),
      }
    : null,
)
const { answer } = useAdvice(question)
const heard = computed(() => (answer.value.is === 'ready' && question.value ? answer.value.picture.backlashMm : null))

// the wall and the cut list
const stock = shallowRef<StockView[] | null>(null)
const own = shallowRef<TemplateView[]>([])
const trouble = ref('')
const busy = ref(false)
const cutSaid = ref('')
async function told<T>(asking: ReturnType<typeof ask<T>>): Promise<T | null> {
  trouble.value = ''
  busy.value = true
  const a = await asking
  busy.value = false
  if (a.is === 'done') return a.value
  trouble.value = a.is === 'offline' ? OFFLINE_WORDS : a.message
  return null
}
onMounted(async () => {
  own.value = (await told(ask<TemplateView[]>('/api/cables/templates'))) ?? []
})
watch(panel, async p => {
  if (p === 'cut' && !stock.value) stock.value = await told(ask<StockView[]>('/api/cables/stock'))
})
const all = ref(false)
const others = shallowRef<LaidOut[]>([])
async function allBikes(on: boolean) {
  all.value = on
  if (!on) return
  const floor = await told(ask<FloorView>('/api/floor'))
  const open = floor?.jobs.filter(j => j.closedAt === null && j.number !== number) ?? []
  others.value = (
    await Promise.all(
      open.map(async j => {
        const log = await ask<{ entries: unknown[] }>(`/api/jobs/${j.number}/events`)
        if (log.is !== 'done') return []
        const { noted } = reduce(Stored.array().parse(log.value.entries))
        return noted.runs.length ? [{ job: j.number, tag: j.tag, runs: noted.runs, cabled: noted.cabled }] : []
      }),
    )
  ).flat()
}
const extras = ref<Wanted[]>([])
const planned = computed<WantedPiece[]>(() =>
  [
    { job: number, tag: record.value?.tag ?? '', runs: state.value.noted.runs, cabled: state.value.noted.cabled },
    ...(all.value ? others.value : []),
  ].flatMap(piecesToCut),
)
const wanted = computed<Wanted[]>(() => [...planned.value, ...extras.value])
const answers = ref<Record<string, CutAnswer>>({})
async function workOut() {
  cutSaid.value = ''
  answers.value = {}
  for (const kind of new Set(wanted.value.map(w => w.kind))) {
    answers.value = { ...answers.value, [kind]: { is: 'thinking' } }
    const answer = await cables.cut(
      wanted.value.filter(w => w.kind === kind).map(({ name: n, lengthMm }) => ({ name: n, lengthMm })),
      stock.value!.filter(s => s.kind === kind).map(s => ({ id: s.id, lengthMm: s.lengthMm, roll: s.roll })),
    )
    answers.value = { ...answers.value, [kind]: answer }
  }
}
watch(wanted, () => {
  answers.value = {}
})
async function cutDone() {
  const plans = Object.values(answers.value).flatMap(a => (a.is === 'ready' ? a.plan.cuts : []))
  const cuts = plans.map(c => ({
    id: c.id,
    lengthMm: stock.value!.find(s => s.id === c.id)!.lengthMm,
    keptMm: c.keep ? c.leftMm : 0,
  }))
  const finished = runsCut(planned.value, new Set(plans.flatMap(c => c.pieces)))
  const cutNames = new Set(plans.flatMap(c => c.pieces))
  const now = await told(ask<StockView[]>('/api/cables/cut', { method: 'POST', body: { cuts } }))
  if (!now)
    return void (stock.value = await ask<StockView[]>('/api/cables/stock').then(a =>
      a.is === 'done' ? a.value : stock.value,
    ))
  stock.value = now
  extras.value = extras.value.filter(x => !cutNames.has(x.name))
  cutSaid.value = 'Cut, and what is left hangs on the wall again'
  for (const { job, run: which } of finished) {
    if (job === number) await ledger.append({ kind: 'cabled', run: which, step: 'cut' })
    else if (session.now?.person)
      await told(
        ask(`/api/jobs/${job}/events`, {
          method: 'POST',
          body: {
            entries: [
              {
                id: newUuid(),
                v: 1,
                at: new Date().toISOString(),
                basedOn: 0,
                by: session.now.person.id,
                event: { kind: 'cabled', run: which, step: 'cut' },
              },
            ],
          },
        }),
      )
  }
  if (all.value) await allBikes(true)
}
const addStock = async (item: object) => {
  stock.value = (await told(ask<StockView[]>('/api/cables/stock', { method: 'POST', body: item }))) ?? stock.value
}
const dropStock = async (id: string) => {
  stock.value = (await told(ask<StockView[]>(`/api/cables/stock/${id}`, { method: 'DELETE' }))) ?? stock.value
}
async function keepTemplate(templateName: string) {
  const now = await told(
    ask<TemplateView[]>('/api/cables/templates', {
      method: 'POST',
      body: { name: templateName, runs: state.value.noted.runs },
    }),
  )
  if (now) {
    own.value = now
    said.value = `Kept as ${templateName}`
  }
}
useBenchKeys(() => ({ z: undo }))
const labels = computed(() =>
  Object.values(answers.value)
    .flatMap(a => (a.is === 'ready' ? a.plan.cuts.flatMap(c => c.pieces) : []))
    .map(n => wanted.value.find(w => w.name === n)!)
    .filter(Boolean),
)
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :number="number"
    left-label="Runs"
    look-label="The run"
    :panels="PANELS"
    :said="said"
    runs-first
    @undo="undo"
  >
    <template #left>
      <button
        v-for="r in RUNS"
        :key="r"
        type="button"
        class="flex min-h-13 w-full items-center justify-between border-l-[6px] pl-2 text-left"
        :class="name === r ? 'border-ink font-bold' : 'border-transparent'"
        :aria-pressed="name === r"
        :data-test="`run-${r}`"
        @click="name = r"
      >
        {{ RUN_WORDS[r]
        }}<span
          v-if="state.noted.runs.some(x => x.run === r)"
          class="size-2.5 rounded-full bg-ink"
          aria-label="laid out"
        />
      </button>
      <NuxtLink class="quiet mt-3 w-full border-t border-rule" :to="`/jobs/${number}/rear`">Rear bench</NuxtLink>
    </template>
    <template #above>
      <p v-if="trouble && panel !== 'cut'" class="stopped no-print" role="alert">{{ trouble }}</p>
      <DoubtfulFigure
        v-if="doubtful"
        class="no-print mx-4 mt-2"
        :question="doubtful.question"
        @keep="keep(doubtful.run, true)"
        @leave="doubtful = null"
      />
    </template>
    <template #look>
      <div class="mat p-1">
        <CableRun
          v-if="run"
          :run="run"
          :losses="losses"
          :chosen="chosen"
          @choose="
            p => {
              chosen = p
              panel = 'pieces'
            }
          "
        />
        <p v-else class="p-8 text-mat-soft">This run is not laid out yet: choose how it goes, at the right.</p>
      </div>
      <div v-if="panel === 'loop' && measured.geometry" class="mat mx-auto w-full max-w-xl p-1">
        <BarLoopView
          v-if="loopKind === 'bars'"
          :geometry="measured.geometry"
          :loop="drawn"
          :turn-deg="turnDeg"
          :slack-mm="slack"
          :least-mm="leastRadiusMm(name)"
        /><SuspensionLoopView
          v-else
          :geometry="measured.geometry"
          :loop="drawn"
          :turn-deg="turnDeg"
          :axle-mm="measured.axleMm"
          :slack-mm="slack"
          :least-mm="leastRadiusMm(name)"
        />
      </div>
      <ul v-else-if="run" class="grid gap-x-6 sm:grid-cols-2">
        <li v-for="p in run.pieces" :key="p.name" class="border-b border-rule">
          <button
            type="button"
            class="flex min-h-11 w-full items-center justify-between gap-3 text-left"
            :class="{ 'font-bold': chosen === p.name }"
            :data-test="`piece-${p.name}`"
            @click="
              chosen = p.name
              panel = 'pieces'
            "
          >
            <span
              >{{ p.name }}
              <span class="small">{{
                p.kind === 'housing' ? p.of : p.kind === 'bare' ? 'bare wire' : 'guide'
              }}</span><span
                v-if="p.kind !== 'guide' && p.read"
                class="small block font-normal"
                :data-test="`length-${p.name}`"
                >{{ sayRead(p.read) }}</span
              ></span
            ><span class="figure whitespace-nowrap">{{
              p.kind === 'guide' ? `${p.bend.deg}°` : `${p.lengthMm} mm`
            }}</span>
          </button>
        </li>
      </ul>
      <p v-if="isBrake(name)" class="small">
        A brake that was worked on is proven before the bike leaves: both levers squeezed hard, a roll, a ride.
      </p>
    </template>
    <PiecesPanel
      v-if="panel === 'pieces'"
      :key="name"
      :name="name"
      :run="run"
      :own="own"
      :last="record?.known?.runs.find(r => r.run === name) ?? null"
      :chosen="chosen"
      :may-keep="session.now?.person !== null && session.now?.person?.role !== 'trainee'"
      @keep="keep"
      @choose="chosen = $event"
      @template="keepTemplate"
    />
    <LoopPanel
      v-else-if="panel === 'loop'"
      v-model="tape[loopKind]"
      :kind="loopKind"
      :judged="picture?.judged ?? null"
      :length-mm="picture?.lengthMm ?? null"
      :trouble="loopTrouble"
      :busy="loop.is === 'thinking'"
      :given="given"
      :pieces="run?.pieces.filter(p => p.kind === 'housing').map(p => p.name) ?? []"
      @kind="loopKind = $event"
      @turn="turnTo"
      @take="takeLength"
      @length="given = $event"
    />
    <template v-else-if="panel === 'friction'"
      ><FrictionPanel
        v-if="run"
        :run="run"
        :setup="state.setup"
        :ratio="state.parts ? ratioForSums(state.parts) : null"
        :heard="heard"
      />
      <p v-else class="text-soft">Lay the run out first.</p></template
    >
    <template v-else-if="panel === 'steps'"
      ><RunPhotos :key="name" :job="number" :run="name" /><StepsPanel
        :done="done"
        :seen-l="state.trace?.seenL ?? false"
        :rear="name === 'rear'"
        @step="step"
    /></template>
    <CutPanel
      v-else
      :wanted="wanted"
      :stock="stock"
      :answers="answers"
      :all="all"
      :trouble="trouble"
      :said="cutSaid"
      :busy="busy"
      @all="allBikes"
      @work="workOut"
      @cut="cutDone"
      @add="addStock"
      @drop="dropStock"
      @extra="extras.push($event)"
    />
    <template #below>
      <ul class="labels" aria-label="Labels">
        <li v-for="w in labels" :key="w.name">
          <b>{{ w.name }}</b
          ><span class="figure">{{ w.lengthMm }} mm</span><span>{{ w.kind }}</span>
        </li>
      </ul>
    </template>
  </JobBench>
</template>

<style scoped>
.labels {
  display: none;
}
@media print {
  .bench-frame {
    display: block;
    height: auto;
  }
  .labels {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 4mm;
  }
  .labels li {
    display: grid;
    gap: 1mm;
    border: 1px solid #000;
    padding: 3mm;
    break-inside: avoid;
  }
}
</style>
