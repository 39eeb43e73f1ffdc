<script setup lang="ts">
import { useIntervalFn, useLocalStorage } from '@vueuse/core'
import { LEAST_S, MOST_S, type Listened, type NotHeard } from '#core/hearing/listen'
import { entriesOf, type HeardAt, type Wound } from '#core/hearing/wound'
import { NOT_HEARD_WORDS, sayBeside, sayOdds, saySounded } from '#core/hearing/words'
import { sayTurns } from '#core/quantity/turns'
import type { BenchKeys } from '~/composables/benchKeys'
import { useHearing } from '~/workers/useHearing'

const bench = useBench(
  () => 'Listen',
  ['rear'],
  () => keys(),
)
const { number, state, put } = bench
const setup = computed(() => state.value.rear.setup)
const lever = computed(() => state.value.rear.trace?.lever ?? 0)
const teeth = computed(() => setup.value?.teeth[lever.value] ?? 11)
const inner = computed(() => lever.value > 0 && lever.value < (setup.value?.teeth.length ?? 0) - 1)
/** The ring the chain is on: the bike's own where it is known, otherwise as last said on this tablet. */
const rings = computed(() => state.value.front.parts?.rings ?? [])
const said = useLocalStorage('ocho-listen-ring', 42)
const picked = ref<number | null>(null)
const ring = computed<number>({
  get: () => picked.value ?? rings.value.at(-1) ?? said.value,
  set: v => {
    picked.value = v
    said.value = v
  },
})

/** A chain is listened to anew this often, ms. */
const EVERY_MS = 2000
const hearing = useHearing()
const microphone = useMicrophone(MOST_S)
const standIns = useStandIns()
/** A stand-in is listened to in place of the microphone, and says so. */
const standing = ref(false)
const listening = computed(() => microphone.on.value || standing.value)
const heard = shallowRef<Listened | NotHeard | null>(null)
const eighths = ref(0)
/** Which way the barrel was last wound: the run's slack lies between the two. */
const way = ref<HeardAt['way']>('out')
const along = shallowRef<HeardAt[]>([])
const wound = shallowRef<Wound>({ in: null, out: null, quiet: null })

const turning = computed(() => ({ ringTeeth: ring.value, sprocketTeeth: teeth.value }))
const place = () => ({ eighths: eighths.value, way: way.value })
const recording = () => (standing.value ? hearing().standIn(turning.value, place()) : microphone.recording())
let busy = false
async function hear() {
  if (!listening.value || busy) return
  busy = true
  const at = place()
  const here = (h: { eighths: number; way: HeardAt['way'] }) => h.eighths === at.eighths && h.way === at.way
  try {
    const { samples, rateHz } = await recording()
    const { heard: told, tookMs } = await hearing().listen(samples, rateHz, turning.value)
    performance.measure('hearing', { start: performance.now() - tookMs }) // read by the tests
    // wound on meanwhile: that was another place of the barrel
    if (!here(place()) || !listening.value) return
    heard.value = told
    if (told.is === 'heard') {
      along.value = [...along.value.filter(h => !here(h)), { ...at, rubDb: told.rubDb }]
      wound.value = await hearing().edges(along.value)
    }
  } finally {
    busy = false
  }
}
const { pause, resume } = useIntervalFn(() => void hear(), EVERY_MS, { immediate: false })
async function begin(standIn: boolean) {
  again()
  if (standIn) standing.value = true
  else await microphone.start()
  if (listening.value) {
    resume()
    void hear()
  }
}
function end() {
  pause()
  microphone.stop()
  standing.value = false
}
function again() {
  heard.value = null
  along.value = []
  eighths.value = 0
  way.value = 'out'
  wound.value = { in: null, out: null, quiet: null }
  microphone.afresh()
}
/** The barrel was wound on by hand: what comes from now on is of the new place. */
function wind(by: 1 | -1) {
  if (!inner.value) return
  eighths.value += by
  way.value = by > 0 ? 'out' : 'in'
  heard.value = null
  microphone.afresh()
  void hear()
}
watch(lever, again)

const sure = computed(() => (heard.value?.is === 'heard' ? heard.value : null))
const oddsWords = computed(() => sayOdds(sure.value?.rubOdds ?? 1, 'a rub', 'clean'))
async function note() {
  const s = sure.value
  if (!s) return
  const rubOdds = Math.round(s.rubOdds * 1000) / 1000
  await put({ kind: 'sounded', click: lever.value, rubOdds }, 'Noted what it heard')
}
/** Both rubs as they would have been wound to by ear, and the barrel where it stands now. */
const found = computed(() => entriesOf(wound.value, lever.value, eighths.value))
async function noteEdges() {
  const words = (kind: string) => (kind === 'edge' ? 'Edge noted' : 'Barrel where it stands')
  // one that was refused is said here, and what rests on it is not noted
  if (!(await bench.putAll(found.value.map(event => ({ event, words: words(event.kind) }))))) return
  await navigateTo(`/jobs/${number}/rear`)
}
const sayAt = (eighths: number) => `${Math.abs(eighths).toFixed(1)} eighths ${eighths < 0 ? 'in' : 'out'}`
const keys = (): BenchKeys => ({
  '[': () => wind(-1),
  ']': () => wind(1),
  Enter: () => void note(),
  Escape: end,
})
const RINGS = computed(() => (rings.value.length ? rings.value : [34, 38, 42, 46, 50]))
const ringChoices = computed(() => RINGS.value.map(value => ({ value, words: String(value) })))
const PANELS = [['listen', 'Listen']] as const
const panel = ref<'listen'>('listen')
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :bench="bench"
    here="rear"
    left-label="Ring and gear"
    look-label="What is heard"
    :panels="PANELS"
    act-first
  >
    <template #left>
      <p class="small">Chain on the</p>
      <p class="figure text-2xl font-bold" data-test="listen-gear">{{ teeth }}</p>
      <p class="small mt-2">Ring, teeth</p>
      <ChoiceRow v-model="ring" label="Ring" :choices="ringChoices" :columns="2" test="ring" />
    </template>
    <template #look>
      <div class="mat p-2">
        <HissOverEighths
          :heard="along"
          :now="eighths"
          :from="wound.quiet?.from ?? null"
          :to="wound.quiet?.to ?? null"
          :label="
            along.length
              ? `Hiss at ${along.length} places of the barrel${wound.quiet ? `, quiet from ${wound.quiet.from.toFixed(1)} to ${wound.quiet.to.toFixed(1)} eighths` : ''}`
              : 'Nothing heard yet'
          "
        />
      </div>
      <p v-if="!along.length">
        To find both rubs, wind the barrel an eighth at a time while it listens, and tell it with its two buttons: a few
        seconds at each. What is loud stands high; between the rubs it is quiet.
      </p>
      <p v-if="along.length > 1" class="figure" data-test="edges">
        {{ wound.in ? `Rubs from ${sayAt(wound.in.eighths)}` : 'No rub reached winding in' }};
        {{ wound.out ? `from ${sayAt(wound.out.eighths)}` : 'none winding out' }}.
      </p>
    </template>
    <template #listen>
      <p v-if="!setup" class="stopped" role="status">Name the drivetrain first.</p>
      <template v-else>
        <div aria-live="polite">
          <p class="text-3xl leading-tight font-bold first-letter:uppercase" data-test="sounds">
            {{ sure ? saySounded(sure.rubOdds) : listening ? 'Listening' : 'Not listening' }}
          </p>
          <p v-if="sure" class="figure" data-test="cadence">
            {{ sure.cadenceRpm.toFixed(0) }} rpm{{ oddsWords ? `, ${oddsWords}` : '' }}
          </p>
          <p v-else-if="heard && heard.is === 'nothing'" data-test="not-heard">{{ NOT_HEARD_WORDS[heard.why] }}</p>
          <p v-else class="small">
            Somebody pedals evenly in the stand, fingers clear; the tablet within half a metre. {{ LEAST_S }} seconds
            and more are listened to.
          </p>
          <p v-if="sure && sayBeside(sure)" class="stopped" data-test="beside">{{ sayBeside(sure) }}</p>
        </div>
        <p v-if="microphone.trouble.value" class="stopped" role="alert" data-test="mic-trouble">
          {{ microphone.trouble.value }}.
        </p>
        <p v-if="standing" class="small font-semibold" data-test="standing">
          A stand-in plays in place of the microphone.
        </p>
        <button v-if="!listening" type="button" class="act justify-center" data-test="listen" @click="begin(false)">
          Listen
        </button>
        <button
          v-if="!listening && standIns.microphone"
          type="button"
          class="also justify-center"
          data-test="stand-in-microphone"
          @click="begin(true)"
        >
          From the stand-in microphone
        </button>
        <template v-if="listening">
          <button
            type="button"
            class="act"
            :disabled="!sure || bench.closed.value"
            data-test="note-sound"
            @click="note"
          >
            Note what it heard <kbd class="key">Enter</kbd>
          </button>
          <p class="small">It counts beside what you say, never instead.</p>
          <div class="grid grid-cols-2 gap-2 border-t border-rule pt-2">
            <button type="button" class="also justify-center" :disabled="!inner" data-test="wind-in" @click="wind(-1)">
              1/8 in <kbd class="key">[</kbd>
            </button>
            <button type="button" class="also justify-center" :disabled="!inner" data-test="wind-out" @click="wind(1)">
              1/8 out <kbd class="key">]</kbd>
            </button>
          </div>
          <p class="figure font-semibold" data-test="wound-at">
            {{
              eighths === 0 ? 'Where winding began' : `${sayTurns(Math.abs(eighths) / 8)} ${eighths > 0 ? 'out' : 'in'}`
            }}
          </p>
          <p v-if="!inner" class="small">Winding wants a gear with a neighbour on both sides.</p>
          <button
            type="button"
            class="also"
            :disabled="!found.some(e => e.kind === 'edge') || bench.closed.value"
            data-test="note-edges"
            @click="noteEdges"
          >
            Note the rubs it found
          </button>
          <button type="button" class="quiet" data-test="stop-listening" @click="end">Stop listening</button>
        </template>
        <p class="small">Nothing heard is kept or sent: only what you note.</p>
      </template>
      <NuxtLink class="also mt-auto justify-center" :to="`/jobs/${number}/rear`" data-test="back-to-bench"
        >Back</NuxtLink
      >
    </template>
  </JobBench>
</template>
