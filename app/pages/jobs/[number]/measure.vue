<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { MEASURED } from '#core/http/photos'
import { geometryOf } from '#core/response/setup'
import {
  BEHIND_PLACES,
  besidePlaces,
  PAD_PLACES,
  PLACE_LINES,
  SIDE_PLACES,
  UNMEASURABLE_WORDS,
  type LengthId,
} from '#core/sight/measures'
import { askOfMeasure, MEASURE_PART, MEASURE_WAYS, MEASURE_WORDS, type MeasureId } from '#core/sight/page'
import { entryOf, lookOf, planeOf, sayMeasured, type Told, type TouchedPicture, type ToTell } from '#core/sight/tell'
import type { StandInAsk } from '#core/bench/standInCamera'
import { REACH_PX, type Touch } from '#core/sight/touch'
import { tipDiameterMm } from '#core/standards/sprockets'
import type { BenchKeys } from '~/composables/benchKeys'

const bench = useBench(
  () => 'Measure in a photograph',
  ['rear', 'front', 'hub', 'brake'],
  () => keys(),
)
const { number, state, put } = bench
const route = useRoute()
/** What is measured, by the address; anything else is the pulley's offset. */
const what = computed(() => askOfMeasure(route.query.what))
const setup = computed(() => state.value.rear.setup)
const geometry = computed(() => (setup.value ? geometryOf(setup.value) : null))
const click = computed(() => {
  const n = setup.value?.teeth.length ?? 0
  return Math.min(Math.max(0, n - 1), state.value.rear.trace?.lever ?? 0)
})
const look = computed(() => lookOf(what.value))
const places = computed(() => {
  if (look.value !== 'beside') return { behind: BEHIND_PLACES, side: SIDE_PLACES, pads: PAD_PLACES }[look.value]
  return besidePlaces(what.value as LengthId)
})
/** None where they were not counted: the figure is wider then. */
const pulleyTeeth = ref<number | null>(null)
const PULLEYS = [10, 11, 12, 13, 14].map(value => ({ value, words: String(value) }))
const measure = useMeasure(
  () => places.value,
  () => {
    const teeth = setup.value?.teeth.at(-1) ?? 34
    return { teeth, radiusMm: tipDiameterMm(teeth) / 2 }
  },
  () => pulleyTeeth.value,
)
const { shots, shot, next, inHand, nudged, alone, blurred, trouble, busy, looking, touches } = measure

const told = shallowRef<Told | null>(null)
watch([touches, what, pulleyTeeth], () => void work(), { flush: 'post' })
/** Tips of other teeth that were found from the touched ones. */
const tipsFound = shallowRef<readonly Touch[]>([])
const dots = computed(() => [...(shot.value?.along ?? []), ...(shot.value?.pulleyAlong ?? []), ...tipsFound.value])
async function work() {
  told.value = null
  tipsFound.value = []
  const pictures = touches.value
  if (!pictures) return
  if (blurred.value) return void (told.value = { is: 'unusable', words: UNMEASURABLE_WORDS.blurred })
  const start = performance.now()
  const now = await measure.sight().tell(askOf(pictures))
  if (pictures !== touches.value) return
  tipsFound.value = now.besides
  performance.measure('sight', { start }) // read by the tests
  told.value = now.told
}
const askOf = (pictures: readonly TouchedPicture[]): ToTell => ({
  what: what.value,
  pictures,
  teeth: [...(setup.value?.teeth ?? [])],
  placeMm: [...(geometry.value?.placeMm ?? [])],
  click: click.value,
  pulleyTeeth: pulleyTeeth.value,
})
watch(next, place => {
  if (look.value === 'side' && place?.id === 'pulley3') void measure.sight().ahead(askOf(measure.touchedSoFar()))
})
const figure = computed(() => (told.value && told.value.is !== 'unusable' ? told.value : null))
/** What can be noted; a wide one only says what would help. */
const sign = ref<1 | -1>(1)
const ways = computed(() =>
  MEASURE_WAYS[what.value]?.map((words, i) => ({ value: i === 0 ? (1 as const) : (-1 as const), words })),
)
const entry = computed(() =>
  told.value?.is === 'told' ? entryOf(what.value, click.value, told.value, sign.value) : null,
)

const KEEP = MEASURED.map(value => ({ value, words: value === 'measured-found' ? 'As found' : 'As left' }))
const keepAs = ref<(typeof MEASURED)[number]>('measured-found')
const kept = ref('')
const keeping = ref(false)
const photos = useJobPhotos(number)
/** The picture with its lines is kept with the job, as evidence; nothing else of it leaves this tablet. */
async function keepPicture(): Promise<boolean> {
  const s = shot.value
  if (!s || !figure.value) return false
  const { mm, off } = sayMeasured(what.value, figure.value)
  keeping.value = true
  try {
    const picture = await linedPhoto(s, PLACE_LINES[look.value], `${MEASURE_WORDS[what.value]}: ${mm} ± ${off}`)
    const done = await photos.take(keepAs.value, picture)
    kept.value = done ? 'Kept with the job' : photos.trouble.value
    return done
  } catch {
    kept.value = 'The photograph could not be kept: take it anew'
    return false
  } finally {
    keeping.value = false
  }
}
/** Is this figure in the ledger already? Its picture alone can then be tried again. */
const noted = ref(false)
watch([told, what], () => {
  noted.value = false
  kept.value = ''
})
async function note() {
  if (!entry.value || keeping.value) return
  if (!noted.value) await put(entry.value, 'Noted')
  if (bench.doubtful.value || bench.signing.value || bench.hint.value) return
  noted.value = true
  if (await keepPicture()) await navigateTo(backTo.value)
}
const BENCHES: Record<string, string> = { rear: 'rear', front: 'front', hub: 'hub', cables: 'cables' }
const backTo = computed(() => {
  if (what.value === 'gap') return stageLink(number, 'gap')
  if (what.value === 'H' || what.value === 'L') return stageLink(number, 'stops')
  const part = MEASURE_PART[what.value]
  return part === 'front-brake' || part === 'rear-brake'
    ? `/jobs/${number}/brakes?brake=${part === 'front-brake' ? 'front' : 'rear'}`
    : `/jobs/${number}/${BENCHES[part] ?? ''}`
})

const standIns = useStandIns()
const standInAsk = (viewDeg: number): StandInAsk => ({
  teeth: [...(setup.value?.teeth ?? [])],
  placeMm: [...(geometry.value?.placeMm ?? [])],
  from: look.value === 'side' ? 'side' : 'behind',
  click: look.value === 'side' ? (setup.value?.teeth.length ?? 1) - 1 : click.value,
  ...(look.value === 'behind' ? { pushedTo: planeOf(what.value, click.value, setup.value?.teeth.length ?? 1) } : {}),
  viewDeg,
  seed: number,
  shot: shots.value.length + 1,
})
const standIn = async () => measure.open(await measure.sight().rendered(standInAsk(standIns.value.cameraDeg)))
/** The camera is held live, and led into the plane. */
const live = ref(false)
watch(what, () => void (live.value = false))
async function taken(picture: Blob) {
  live.value = false
  await measure.open(picture)
}
const touchNext = (at: readonly [number, number], reachPx: number) =>
  next.value && void measure.touch(next.value, at, reachPx, reachPx < REACH_PX.finger)
const moved = (id: string, at: readonly [number, number]) => {
  const place = places.value.find(p => p.id === id)
  if (place) void measure.touch(place, at, REACH_PX.magnified, true)
}
const keys = (): BenchKeys => ({
  Backspace: () => measure.back(),
  Enter: () => void note(),
})
/** The place in hand goes where the arrow points, by a pixel of the picture; with Shift by a fiftieth of it. */
const NUDGES: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
useEventListener('keydown', (event: KeyboardEvent) => {
  const by = NUDGES[event.key]
  if (!by || !inHand.value || (event.target as HTMLElement).closest('input, [role=radiogroup], [role=tablist]')) return
  event.preventDefault()
  const times = event.shiftKey ? Math.round((shot.value?.width ?? 50) / 50) : 1
  measure.nudge(times * by[0], times * by[1])
})
const needsRear = computed(() => (look.value === 'behind' || look.value === 'side') && !setup.value)
const PANELS = [
  ['measure', 'Measure'],
  ['beside', 'Found and left'],
] as const
const panel = ref<(typeof PANELS)[number][0]>('measure')
/** What else of the same bench can be measured; the other benches lead here themselves. */
const offered = computed(() => {
  const way = state.value.hub.parts?.way
  const here = (id: MeasureId) =>
    MEASURE_PART[id] === MEASURE_PART[what.value] && (MEASURE_PART[id] !== 'hub' || id === way)
  return (Object.keys(MEASURE_WORDS) as MeasureId[]).filter(id => id === what.value || here(id))
})
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :bench="bench"
    :here="MEASURE_PART[what]"
    left-label="What is measured"
    look-label="Photograph"
    :panels="PANELS"
  >
    <template #left>
      <nav aria-label="What is measured" class="grid gap-1">
        <NuxtLink
          v-for="id in offered"
          :key="id"
          :to="{ query: { what: id } }"
          replace
          class="quiet justify-start rounded px-2"
          :class="{ 'bg-panel font-bold': id === what }"
          :aria-current="id === what ? 'page' : undefined"
          @click="measure.again()"
          >{{ MEASURE_WORDS[id] }}</NuxtLink
        >
      </nav>
      <template v-if="look === 'behind' || look === 'side'">
        <p class="small mt-2">Guide pulley’s teeth, if you counted them</p>
        <ChoiceRow v-model="pulleyTeeth" label="Guide pulley’s teeth" :choices="PULLEYS" :columns="3" test="pulley" />
      </template>
    </template>
    <template #look>
      <p v-if="needsRear" class="stopped" role="status">Name the drivetrain first: its sprockets are the ruler.</p>
      <LazyLiveView
        v-else-if="live"
        :sight="measure.sight"
        :stand-in="standIns.camera ? standInAsk : null"
        @taken="taken"
        @close="live = false"
      />
      <PhotoTouch
        v-else-if="shot"
        :shot="shot"
        :dots="dots"
        :in-hand="inHand"
        :lines="PLACE_LINES[look]"
        :next="next?.words ?? null"
        :nudged="nudged"
        :looking="looking > 0"
        @put="at => next && measure.put(next, at)"
        @touch="touchNext"
        @move="moved"
      />
      <div v-else class="mat grid min-h-56 flex-1 place-items-center p-6 text-center">
        <p class="max-w-prose text-mat-ink">
          <b class="block text-xl">{{
            look === 'behind'
              ? 'From straight behind, camera at the axle’s height, half a metre off'
              : look === 'side'
                ? 'From the drive side, square to the wheel, at the gap’s height, half a metre off'
                : 'Square to it, with the ruler and what is measured both sharp'
          }}</b>
          {{
            look === 'behind'
              ? (what === 'offset'
                  ? ''
                  : 'Cable slack: push the derailleur by hand until it stops, and hold it there. ') +
                'The largest sprocket closes to a line when you stand right. A light behind you, something plain and darker than the metal behind the bike. The wheel stands still, no hand near it.'
              : (look === 'side'
                  ? 'The pulley under the largest sprocket, something plain and darker than the metal behind the wheel. '
                  : '') + 'A light behind you. The wheel stands still, no hand near it.'
          }}
        </p>
      </div>
    </template>
    <template #measure>
      <p class="small">{{ MEASURE_WORDS[what] }}</p>
      <template v-if="!needsRear && shot">
        <p v-if="next" class="text-2xl leading-tight font-bold" aria-live="polite" data-test="touch-next">
          Touch {{ next.words }}
        </p>
        <MeasuredFigure v-else-if="figure" :what="what" :told="figure" />
        <p v-if="told?.is === 'wide'" class="stopped" role="status" data-test="oblique">{{ told.words }}.</p>
        <p v-if="told?.is === 'unusable'" class="stopped" role="alert" data-test="unusable">{{ told.words }}.</p>
        <p v-if="alone.length" class="font-semibold" role="status" data-test="alone">
          {{ alone.length === 1 ? 'One place was' : 'Two places were' }} found without a touch, dashed: look at each,
          drag what is off.
        </p>
        <p class="small">
          Drag a place to move it by the picture’s own pixels, or arrow keys: by one, with Shift far. Where no edge
          stood out a place has ticks and counts for less, until you put it right yourself.
          <template v-if="dots.length">Small dots were found besides, by your places: nothing to be done.</template>
        </p>
        <template v-if="told?.is === 'told'">
          <ChoiceRow v-if="ways" v-model="sign" label="Which way" :choices="ways" test="way" />
          <ChoiceRow v-model="keepAs" label="Keep the photograph" :choices="KEEP" test="keep" />
          <button
            v-if="entry"
            type="button"
            class="act"
            :disabled="keeping || bench.closed.value"
            data-test="note"
            @click="note"
          >
            {{ keeping ? 'Keeping' : noted ? 'Keep the picture' : 'Note it and keep the picture' }}
            <kbd class="key">Enter</kbd>
          </button>
          <button
            v-else
            type="button"
            class="act"
            :disabled="keeping || bench.closed.value"
            data-test="keep"
            @click="keepPicture"
          >
            {{ keeping ? 'Keeping' : 'Keep the picture' }}
          </button>
          <p v-if="kept" role="status" data-test="kept">{{ kept }}</p>
        </template>
        <div class="grid grid-cols-2 gap-2">
          <button type="button" class="also justify-center" data-test="touch-back" @click="measure.back">
            Take off
          </button>
          <button type="button" class="also justify-center" data-test="again" @click="measure.again">
            New picture
          </button>
        </div>
      </template>
      <p v-if="trouble" class="stopped" role="alert" data-test="no-picture">{{ trouble }}.</p>
      <TakePicture
        v-if="!needsRear && !live && (!shot || told?.is === 'wide')"
        :busy="busy"
        :another="shot !== null && look === 'behind'"
        :stand-in="standIns.camera && (look === 'behind' || look === 'side')"
        @taken="measure.open"
        @stand-in="standIn"
      />
      <button
        v-if="look === 'behind' && !needsRear && !live && (!shot || told?.is === 'wide')"
        type="button"
        class="also justify-center"
        :disabled="busy"
        data-test="live-open"
        @click="live = true"
      >
        See it live, led into the plane
      </button>
      <p class="small">
        Measured on this tablet; the picture leaves it only when it is kept, and only for this shop’s own server. The
        figure can always be typed at the bench.
      </p>
      <NuxtLink class="also mt-auto justify-center" :to="backTo" data-test="back-to-bench">Back</NuxtLink>
    </template>
    <template #beside><SlideOver :of="photos" :closed="bench.closed.value" /></template>
  </JobBench>
</template>
