<script setup lang="ts">
import { sayNet, SCREW_WORDS } from '#core/chapter/screws'
import { CROSSED_DEG, ringLines, sprocketLines } from '#core/front/chainLine'
import { FRONT_SCREWS, FRONT_SEEN } from '#core/front/moves'
import type { FrontSight } from '#core/front/events'
import type { FrontOrder } from '#core/procedure/frontOrders'
import { ownAnswer } from '#core/front/glance'
import { FRONT_STEPS, nextFrontStep } from '#core/front/orders'
import { ringName } from '#core/front/parts'
import { cageSpan, frontTroubles, rubIsModelled, rubMap, sayPair, type Pair } from '#core/front/rub'
import { frontGeometry, usualSpans } from '#core/front/response'
import { frontSetupOf } from '#core/front/setup'
import { rubSeen, unguarded } from '#core/front/looks'
import { frontStepsDone } from '#core/front/state'
import { throwsChain } from '#core/procedure/otherSays'
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
const geometry = computed(() => (setup.value ? frontGeometry(setup.value) : null))
const looked = ref<{ from: number; to: number }>()
/** A pair that was tapped stays in the picture until a shift is, or something was done: not when the advice arrives. */
const chosenAt = ref<{ ring: number; sprocket: number } | null>(null)
const doneSoFar = computed(() => front.value.log.filter(e => e.kind !== 'frontRub').length)
watch(doneSoFar, () => (chosenAt.value = null))
const pair = computed<Pair | null>(() => {
  if (!map.value) return null
  // the picture follows the shift that is looked at
  const at =
    chosenAt.value ??
    (looked.value && geometry.value
      ? { ring: looked.value.to, sprocket: geometry.value.judgedOn(looked.value.to) }
      : null)
  return (at && map.value[at.ring]?.[at.sprocket]) ?? map.value[0]!.at(-1)!
})
const cage = computed(() => (setup.value && pair.value ? cageSpan(setup.value, front.value.gaps, pair.value) : null))
const modelled = computed(() => parts.value !== null && rubIsModelled(parts.value))
const rubbing = computed(() => (modelled.value ? (map.value?.flat().filter(p => p.rubs).length ?? 0) : 0))
/** What was last seen of a pair since anything was turned or set: that may have moved the cage. */
const seenOf = (ring: number, sprocket: number) => rubSeen(front.value.log, ring, sprocket)
const RUBS = [
  ['inner', 'Rubs inner plate'],
  ['outer', 'Rubs outer plate'],
  [null, 'Quiet here'],
] as const

const throws = computed(() => throwsChain(state.value.rear.said))
/** Ends the customer saw the chain thrown over, whose stop was not seen yet. */
const open = computed(() => unguarded(front.value.log, throws.value))
const question = computed(() =>
  setup.value
    ? {
        setup: setup.value,
        log: front.value.log,
        wishes: {
          order: schools.value.front.id,
          endGapMm: schools.value.endGap.targetMm,
          throws: throws.value,
        },
      }
    : null,
)
const answer = useFront(question)
const advice = computed(() => answer.value.value)
const opinions = computed(() => (advice.value ? { front: { right: advice.value.right } } : {}))
/**
 * The rings and where each wants its cage are drawn at once; where it rests once that is worked out: nothing moves
 * below.
 */
const rows = computed(() => {
  if (!setup.value) return null
  const { parts: of } = setup.value
  const spans = usualSpans(geometry.value!)
  const last = of.rings.length - 1
  const clicks = advice.value?.clicks.length === of.rings.length ? advice.value.clicks : []
  return of.rings.map((_, ring) => ({
    name: ringName(of, ring),
    outward: (ring > 0 && clicks[ring]?.outward) || null,
    inward: (ring < last && clicks[ring]?.inward) || null,
    clean: spans[ring]!,
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
const order = computed<FrontOrder>({
  get: () => schools.value.front.id,
  set: id => void put({ kind: 'schools', choice: { ...state.value.job.schools, front: id } }),
})
const done = computed(() => frontStepsDone(front.value, order.value))
const next = computed(() => nextFrontStep(order.value, done.value))

/** Noted because the next move asked for it: back to the next move. */
let asked = false
function back() {
  if (asked) panel.value = 'shift'
  asked = false
}
/** A step of the order that asks a figure: where it is read. */
const stepGap = ref<{ plate: 'inner' | 'outer'; byStop: boolean } | null>(null)
function figureOf(step: string) {
  stepGap.value = step === 'L' || step === 'H' ? { plate: step === 'L' ? 'inner' : 'outer', byStop: true } : null
  panel.value = step === 'height' ? 'position' : 'gaps'
}
watch(panel, p => {
  if (p !== 'gaps') stepGap.value = null
})
const gapAsked = computed(() => {
  if (stepGap.value) return stepGap.value
  const move = advice.value?.move
  return move?.do === 'gap' ? { plate: move.plate, byStop: move.byStop === true } : null
})
function look(at: 'position' | 'gaps') {
  asked = true
  panel.value = at
}
/** What the next move asks is answered once: a tap that bounces answers nothing else. */
const { live, once: answered } = useOneAnswer((events: readonly FrontSight[], words?: string) => {
  shifting.value?.follow()
  return bench.putAll(events.map(event => ({ event, words })))
})
const FIRST = 'Say first, under Parts, what is in front.'
const leave = () => navigateTo(`/jobs/${number}`)
/** The advice's own answer when it is one touch. */
function accept() {
  const move = advice.value?.move
  if (!move || answer.value.is !== 'ready' || panel.value !== 'shift') return
  const own = geometry.value && ownAnswer(move, geometry.value.judgedOn)
  if (own) answered(own, move.do === 'turn' ? `Logged ${sayTurnsOf(fromSixteenths(move.sixteenths))}` : undefined)
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
        <div v-if="rows" class="mat p-1" data-test="cage-strip">
          <CageStrip :rows="rows" :stops="advice?.stops ?? null" />
        </div>
        <p class="text-lg" data-test="pair-words">
          <b class="figure">{{ parts.rings[pair.ring] }} × {{ cassette.teeth[pair.sprocket] }}</b
          >{{ modelled ? `: ${sayPair(pair)},` : ':' }} chain at {{ Math.abs(pair.angleDeg).toFixed(1) }}°{{
            Math.abs(pair.angleDeg) > CROSSED_DEG ? ', crossed' : ''
          }}.
        </p>
        <p v-if="!modelled" data-test="rub-not-modelled">
          A rotating cage needs no trim: its nose swings farther than its tail, and which plate is near in a pair is not
          modelled. Ride every pair and look; tap the one that rubs.
        </p>
        <RubMap
          :map="map"
          :rings="parts.rings"
          :teeth="cassette.teeth"
          :chosen="pair"
          :modelled="modelled"
          :seen="seenOf"
          @choose="chosenAt = $event"
        />
        <div class="grid grid-cols-3 gap-1" role="group" aria-label="What this pair does">
          <button
            v-for="[plate, words] in RUBS"
            :key="words"
            type="button"
            class="also min-h-11! justify-center px-1! leading-tight"
            :data-test="`rub-${plate ?? 'quiet'}`"
            @click="put({ kind: 'frontRub', ring: pair.ring, sprocket: pair.sprocket, plate })"
          >
            {{ words }}
          </button>
        </div>
        <p v-for="w in frontTroubles(parts)" :key="w" class="stopped" data-test="front-trouble">{{ w }}.</p>
      </template>
      <div v-else class="mat p-8 text-mat-soft">
        Say first what is in front: rings, chain line, cage. Chain lines and the map of rub show here.
      </div>
    </template>
    <template #shift>
      <template v-if="parts">
        <LazyFrontMove
          v-if="advice && geometry"
          :advice="advice"
          :parts="parts"
          :teeth="cassette?.teeth ?? []"
          :judged-on="geometry.judgedOn"
          :height="schools.height"
          :end-gap="schools.endGap"
          :neither-stop="front.byStop.inner === null && front.byStop.outer === null"
          :live="live"
          :stale="answer.is !== 'ready'"
          @put="es => answered(es)"
          @look="look"
          @leave="leave"
        />
        <p v-else-if="answer.is === 'failed'" class="stopped" role="alert">
          No advice: {{ answer.message }}. The order and the map of rub still hold.
        </p>
        <p v-else class="small min-h-72" aria-busy="true">Working out what is likely</p>
        <FrontShiftPanel
          v-if="geometry && cassette"
          ref="shifting"
          v-model:looked="looked"
          :state="front"
          :teeth="cassette.teeth"
          :judged-on="geometry.judgedOn"
          :unguarded="open"
          :parts="parts"
          :advised="advice?.move.do === 'shift' ? advice.move : null"
          :rubbing="rubbing"
          :pairs="map?.flat().length ?? 0"
          :live="live"
          @put="put"
          @picked="chosenAt = null"
          @answer="(e: FrontSight) => answered([e])"
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
        :state="front"
        :school="schools.endGap"
        :asked="gapAsked"
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
        @figure="figureOf"
      />
    </template>
    <template #numbers>
      <LazyFrontNumbers :parts="parts" @keep="put({ kind: 'frontParts', parts: $event }, 'Noted the front')" />
    </template>
  </JobBench>
</template>
