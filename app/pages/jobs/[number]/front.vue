<script setup lang="ts">
import { sayNet, SCREW_WORDS } from '#core/chapter/screws'
import { CROSSED_DEG, ringLines, sprocketLines } from '#core/front/chainLine'
import { FRONT_SCREWS, FRONT_SEEN } from '#core/front/moves'
import { FRONT_STEPS, nextFrontStep, type FrontOrder } from '#core/front/orders'
import { ringName } from '#core/front/parts'
import { cageSpan, frontTroubles, rubMap, sayPair, type Pair } from '#core/front/rub'
import { frontGeometry, usualSpans } from '#core/front/response'
import { frontSetupOf } from '#core/front/setup'
import { mayReachLargest } from '#core/rear/gates'
import { sayTurnsOf, fromSixteenths } from '#core/quantity/turns'
import type FrontShiftPanel from '~/components/front/FrontShiftPanel.vue'
import { useFront } from '~/workers/useFront'
import type { BenchKeys } from '~/composables/benchKeys'

const bench = useBench(
  () => 'Front',
  ['front'],
  () => keys(),
)
const { number, state, standards, put } = bench
const front = computed(() => state.value.front)
const parts = computed(() => front.value.parts)
const schools = useSchools()
const mayLargest = computed(() => mayReachLargest(state.value.rear.trace))

const cassette = computed(() => state.value.rear.parts?.cassette ?? null)
const setup = computed(() =>
  parts.value && cassette.value ? frontSetupOf(parts.value, cassette.value, standards.value) : null,
)
const map = computed(() =>
  setup.value ? rubMap(setup.value.parts, setup.value.pitchMm, setup.value.chainWidthMm, front.value.gaps) : null,
)
const chosenAt = ref<{ ring: number; sprocket: number } | null>(null)
const pair = computed<Pair | null>(() => {
  if (!map.value) return null
  const at = chosenAt.value
  return (at && map.value[at.ring]?.[at.sprocket]) ?? map.value[0]!.at(-1)!
})
const cage = computed(() => (setup.value && pair.value ? cageSpan(setup.value, front.value.gaps, pair.value) : null))
const rubbing = computed(() => map.value?.flat().filter(p => p.rubs).length ?? 0)

const question = computed(() => (setup.value ? { setup: setup.value, log: front.value.log } : null))
const answer = useFront(question)
const advice = computed(() => answer.value.value)
const opinions = computed(() => (advice.value ? { front: { right: advice.value.right } } : {}))
const rows = computed(() => {
  const now = advice.value
  if (!setup.value || !now || now.clicks.length !== setup.value.parts.rings.length) return null
  const spans = usualSpans(frontGeometry(setup.value))
  const last = now.clicks.length - 1
  return now.clicks.map(c => ({
    name: ringName(setup.value!.parts, c.ring),
    outward: c.ring > 0 ? c.outward : null,
    inward: c.ring < last ? c.inward : null,
    clean: spans[c.ring]!,
  }))
})

const PANELS = [
  ['shift', 'Shift'],
  ['position', 'Place'],
  ['gaps', 'Gaps'],
  ['order', 'Order'],
  ['numbers', 'Parts'],
] as const
const panel = ref<(typeof PANELS)[number][0]>('numbers')
watch(
  parts,
  (p, was) => {
    if (p && !was) panel.value = 'shift'
  },
  { immediate: true },
)
const order = ref<FrontOrder>('conventional')
watch(
  () => parts.value?.cage,
  c => {
    if (c) order.value = c
  },
  { immediate: true },
)
const done = computed(() => front.value.steps[order.value] ?? [])
const next = computed(() => nextFrontStep(order.value, done.value))

/** Noted because the next move asked for it: back to the next move. */
let asked = false
function back() {
  if (asked) panel.value = 'shift'
  asked = false
}
const plate = ref<'inner' | 'outer'>('inner')
function look(at: 'position' | 'gaps') {
  const move = advice.value?.move
  if (move?.do === 'gap') plate.value = move.plate
  asked = true
  panel.value = at
}
const FIRST = 'Say first, under Parts, what is in front.'
const leave = () => navigateTo(`/jobs/${number}`)
/** The advice's own answer when it is one touch. */
function accept() {
  const move = advice.value?.move
  if (!move || answer.value.is !== 'ready' || panel.value !== 'shift') return
  if (move.do === 'turn')
    void put(
      { kind: 'frontTurn', screw: move.screw, sixteenths: move.sixteenths },
      `Logged ${sayTurnsOf(fromSixteenths(move.sixteenths))}`,
    )
  else if (move.do === 'set') void put({ kind: 'frontSet', what: move.what })
  else if (move.do === 'position' || move.do === 'gap') look(move.do === 'gap' ? 'gaps' : 'position')
  else if (move.do === 'done') void leave()
}
const shifting = useTemplateRef<InstanceType<typeof FrontShiftPanel>>('shifting')
const keys = (): BenchKeys => ({
  Enter: accept,
  ...answerKeys(FRONT_SEEN.map(s => () => shifting.value?.seen(s))),
})
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :bench="bench"
    here="front"
    :opinions="opinions"
    left-label="Order and turns"
    look-label="Chain lines"
    :panels="PANELS"
    act-first
  >
    <template #left>
      <ol>
        <li
          v-for="s in FRONT_STEPS[order]"
          :key="s.id"
          class="flex min-h-10 items-center gap-2"
          :class="s.id === next?.id ? 'font-bold' : 'text-soft'"
        >
          <span
            class="inline-block size-3.5 rounded-sm border-2"
            :class="done.includes(s.id) ? 'border-ink bg-ink' : 'border-rule'"
            aria-hidden="true"
          />{{ s.what }}<span class="sr-only">{{ done.includes(s.id) ? ', done' : '' }}</span>
        </li>
      </ol>
      <dl class="mt-4 border-t border-rule pt-2">
        <div v-for="s in FRONT_SCREWS" :key="s" class="flex justify-between">
          <dt>{{ SCREW_WORDS[s] }}</dt>
          <dd class="figure">{{ sayNet(s, front.net[s]) }}</dd>
        </div>
      </dl>
      <NuxtLink class="quiet mt-2 w-full border-t border-rule" :to="`/jobs/${number}/rear`">Rear bench</NuxtLink>
    </template>
    <template #look>
      <template v-if="parts && map && pair && cassette">
        <div v-if="panel === 'position'" class="mat p-1">
          <CagePlace
            :teeth="parts.rings.at(-1)!"
            :height-mm="front.position.heightMm"
            :angle-deg="front.position.angleDeg"
            :wanted="schools.height.targetMm"
            :marks="parts.cage === 'rotating'"
          />
        </div>
        <div v-else class="mat p-1">
          <ChainLines
            :ring-mm="ringLines(parts)"
            :rings="parts.rings"
            :sprocket-mm="sprocketLines(parts.rearLineMm, cassette.pitchMm)"
            :teeth="cassette.teeth"
            :cage="cage"
            :chainstay-mm="parts.chainstayMm"
            :pair="pair"
          />
        </div>
        <div v-if="rows && advice" class="mat p-1" data-test="cage-strip">
          <CageStrip :rows="rows" :stops="advice.stops" />
        </div>
        <p class="text-lg" data-test="pair-words">
          <b class="figure">{{ parts.rings[pair.ring] }} × {{ cassette.teeth[pair.sprocket] }}</b
          >: {{ sayPair(pair) }}, chain at {{ Math.abs(pair.angleDeg).toFixed(1) }}°{{
            Math.abs(pair.angleDeg) > CROSSED_DEG ? ', crossed' : ''
          }}.
        </p>
        <RubMap :map="map" :rings="parts.rings" :teeth="cassette.teeth" :chosen="pair" @choose="chosenAt = $event" />
        <p v-for="w in frontTroubles(parts)" :key="w" class="stopped" data-test="front-trouble">{{ w }}.</p>
      </template>
      <div v-else class="mat p-8 text-mat-soft">
        Say at the right what is in front: rings, chain line, cage. Chain lines and the map of rub show here.
      </div>
    </template>
    <template #shift>
      <template v-if="parts">
        <LazyFrontMove
          v-if="advice"
          :advice="advice"
          :parts="parts"
          :stale="answer.is !== 'ready'"
          @put="put"
          @look="look"
          @leave="leave"
        />
        <p v-else-if="answer.is === 'failed'" class="stopped" role="alert">
          No advice: {{ answer.message }}. The order and the map of rub still hold.
        </p>
        <p v-else class="small" aria-busy="true">Working out what is likely</p>
        <FrontShiftPanel
          ref="shifting"
          :state="front"
          :parts="parts"
          :advised="advice?.move.do === 'shift' ? advice.move : null"
          :rubbing="rubbing"
          :pairs="map?.flat().length ?? 0"
          @put="put"
        />
      </template>
      <p v-else class="text-soft">{{ FIRST }}</p>
    </template>
    <template #position>
      <LazyFrontPlacePanel
        v-if="parts"
        :state="front"
        :parts="parts"
        :height="schools.height"
        :may-largest="mayLargest"
        :job="number"
        @put="put"
        @school="put({ kind: 'schools', choice: { ...state.job.schools, height: $event } })"
        @done="back"
      />
      <p v-else class="text-soft">{{ FIRST }}</p>
    </template>
    <template #gaps>
      <LazyFrontGapPanel
        v-if="parts"
        v-model:plate="plate"
        :state="front"
        :may-largest="mayLargest"
        :job="number"
        @put="put"
        @done="back"
      />
      <p v-else class="text-soft">{{ FIRST }}</p>
    </template>
    <template #order>
      <LazyFrontOrderPanel
        v-model:order="order"
        :state="front"
        @step="(o, step) => put({ kind: 'frontStep', order: o, step })"
      />
    </template>
    <template #numbers>
      <LazyFrontNumbers :parts="parts" @keep="put({ kind: 'frontParts', parts: $event }, 'Noted the front')" />
    </template>
  </JobBench>
</template>
