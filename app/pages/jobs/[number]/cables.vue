<script setup lang="ts">
import type { Fitting } from '#core/cable/steps'
import type { FarEnd } from '#core/cable/wire'
import { farEndOf, leverSide } from '#core/ledger/farEnd'
import { isBrake, leastRadiusMm, RUN_WORDS, RUNS, type RunName } from '#core/cable/housing'
import { sayRead, type Run } from '#core/cable/run'
import { lossAlong } from '#core/cable/friction'
import { TemplateView } from '#core/http/cables'
import { mayReachLargest } from '#core/rear/gates'
import { ratioForSums } from '#core/rear/typedParts'
import type { Asked } from '~/composables/ask'
import { useCables } from '~/workers/useCables'

const bench = useBench(() => 'Cables', ['cable'])
const { number, state, record, said, put } = bench
const route = useRoute()
const session = useSession()

const name = ref<RunName>(RUNS.find(r => r === route.query.run) ?? 'rear')
const NAMES = RUNS.map(value => ({ value, words: RUN_WORDS[value] }))
const PANELS = [
  ['pieces', 'Pieces'],
  ['loop', 'Loop'],
  ['friction', 'Friction'],
  ['steps', 'Steps'],
  ['cut', 'Cut'],
] as const
const panel = ref<(typeof PANELS)[number][0]>('pieces')
const run = computed(() => state.value.cable.runs.find(r => r.run === name.value) ?? null)
const done = computed(() => state.value.cable.cabled[name.value] ?? [])
/** The brake at the end of this run, where it was said; a hub with two cables ends in couplings. */
const at = computed<FarEnd>(() => farEndOf(state.value, name.value))
const schools = useSchools()
const fitting = computed<Fitting>(() => ({
  brake: at.value,
  twin: state.value.hub.parts?.way === 'twin',
  film: schools.value.film.id,
}))
const chosen = ref<string | null>(null)
watch(name, () => {
  chosen.value = null
})
function choose(piece: string) {
  chosen.value = piece
  panel.value = 'pieces'
}
const losses = computed(() => (run.value ? lossAlong(run.value) : []))

const keep = (next: Run) => put({ kind: 'run', run: next }, 'Noted the run')

const cables = useCables()
const loop = useLoopBench(
  name,
  computed(() => leverSide(state.value, name.value)),
  computed(() => panel.value === 'loop'),
  cables.useLoop,
)
const { kind: loopKind, tape, given, measured, drawn, turnDeg, slackMm } = loop
const WHY = { bars: 'pulls nowhere from lock to lock', suspension: 'pulls nowhere to full travel' } as const
function takeLength(piece: string) {
  const lengthMm = loop.picture.value?.lengthMm
  if (!run.value || !lengthMm) return
  const pieces = run.value.pieces.map(p =>
    p.name === piece && p.kind === 'housing'
      ? { ...p, lengthMm, read: { by: 'loop' as const, why: WHY[loopKind.value] } }
      : p,
  )
  keep({ ...run.value, pieces })
}

const cutting = useCutting(bench, cables.cut)
watch(panel, p => {
  if (p === 'cut') void cutting.load()
})

const Templates = TemplateView.array()
const own = shallowRef<TemplateView[]>([])
const trouble = ref('')
async function templates(asking: Promise<Asked<TemplateView[]>>): Promise<boolean> {
  const asked = await asking
  trouble.value = sayTrouble(asked)
  if (asked.is === 'done') own.value = asked.value
  return asked.is === 'done'
}
onMounted(() => templates(ask(Templates, '/api/cables/templates')))
async function keepTemplate(templateName: string) {
  const body = { name: templateName, runs: state.value.cable.runs }
  if (await templates(ask(Templates, '/api/cables/templates', { method: 'POST', body })))
    said.value = `Kept as ${templateName}`
}
const mayKeep = computed(() => Boolean(session.now?.person) && session.now?.person?.role !== 'trainee')
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :bench="bench"
    here="cables"
    left-label="Runs"
    look-label="The run"
    :panels="PANELS"
    runs-first
  >
    <template #left>
      <SideChoice v-model="name" label="Which run" :choices="NAMES" test="run">
        <template #default="{ choice }">
          <span class="flex items-center justify-between"
            >{{ choice.words
            }}<span
              v-if="state.cable.runs.some(x => x.run === choice.value)"
              class="size-2.5 rounded-full bg-ink"
              role="img"
              aria-label="laid out"
          /></span>
        </template>
      </SideChoice>
      <NuxtLink class="quiet mt-3 w-full border-t border-rule" :to="`/jobs/${number}/rear`">Rear bench</NuxtLink>
    </template>
    <template #above>
      <p v-if="trouble && panel !== 'cut'" class="stopped no-print" role="alert">{{ trouble }}</p>
    </template>
    <template #look>
      <div class="mat p-1">
        <CableRun v-if="run" :run="run" :losses="losses" :chosen="chosen" @choose="choose" />
        <p v-else class="p-8 text-mat-soft">This run is not laid out yet: choose first how it goes.</p>
      </div>
      <div v-if="panel === 'loop' && measured.geometry" class="mat mx-auto w-full max-w-xl p-1">
        <LazyBarLoopView
          v-if="loopKind === 'bars'"
          :geometry="measured.geometry"
          :loop="drawn"
          :turn-deg="turnDeg"
          :slack-mm="slackMm"
          :least-mm="leastRadiusMm(name)"
        /><LazySuspensionLoopView
          v-else
          :geometry="measured.geometry"
          :loop="drawn"
          :turn-deg="turnDeg"
          :axle-mm="measured.axleMm"
          :slack-mm="slackMm"
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
            @click="choose(p.name)"
          >
            <span
              >{{ p.name }}
              <span class="small">{{ p.kind === 'housing' ? p.of : p.kind === 'bare' ? 'bare wire' : 'guide' }}</span
              ><span
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
    <template #pieces>
      <LazyPiecesPanel
        :key="name"
        :name="name"
        :run="run"
        :own="own"
        :last="record?.known?.runs.find(r => r.run === name) ?? null"
        :at="at"
        :chosen="chosen"
        :may-keep="mayKeep"
        @keep="keep"
        @choose="chosen = $event"
        @template="keepTemplate"
      />
    </template>
    <template #loop>
      <LazyLoopPanel
        v-model="tape[loopKind]"
        :kind="loopKind"
        :judged="loop.picture.value?.judged ?? null"
        :length-mm="loop.picture.value?.lengthMm ?? null"
        :trouble="loop.trouble.value"
        :busy="loop.answer.value.is === 'thinking'"
        :given="given"
        :pieces="run?.pieces.filter(p => p.kind === 'housing').map(p => p.name) ?? []"
        @kind="loopKind = $event"
        @turn="loop.turnTo"
        @take="takeLength"
        @length="given = $event"
      />
    </template>
    <template #friction>
      <LazyFrictionPanel
        v-if="run"
        :run="run"
        :at="at"
        :setup="state.rear.setup"
        :ratio="state.rear.parts ? ratioForSums(state.rear.parts) : null"
      />
      <p v-else class="text-soft">Lay the run out first.</p>
    </template>
    <template #steps>
      <LazyFoundPhotos
        :key="name"
        class="border-b border-rule pb-2"
        :job="number"
        :of="name"
        :closed="bench.closed.value"
      /><LazyStepsPanel
        :run="name"
        :fitting="fitting"
        :done="done"
        :may-largest="mayReachLargest(state.rear.trace)"
        :rear="name === 'rear' && state.rear.setup !== null"
        @step="put({ kind: 'cabled', run: name, step: $event })"
      />
    </template>
    <template #cut><LazyCutPanel :cutting="cutting" /></template>
    <template #below>
      <ul class="labels" aria-label="Labels">
        <li v-for="w in cutting.labels.value" :key="w.name">
          <b>{{ w.name }}</b><span class="figure">{{ w.lengthMm }} mm</span><span>{{ w.kind }}</span>
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
    border: 1px solid currentColor;
    padding: 3mm;
    break-inside: avoid;
  }
}
</style>
