<!-- The rear at the practice stand: seen from behind, heard, turned; nothing is told that an eye or an ear would not
     find. -->
<script setup lang="ts">
import type { RearAct } from '#core/practice/rearStand'
import type { PracticeRun } from '#core/practice/asked'
import { HELPS, HELP_WORDS, type Help } from '#core/practice/helps'
import type { RearShown } from '#core/practice/rearShown'
import { RENEWED_WORDS } from '#core/rear/renewedWords'
import { sayTurns } from '#core/quantity/turns'
import { plain } from '~/workers/latest'
import { practiceWorker } from '~/workers/usePractice'
import { HEARD_KEYS } from '../bench/heard'

const run = defineModel<PracticeRun>({ required: true })
const emit = defineEmits<{ over: [shown: RearShown] }>()
const shown = shallowRef<RearShown | null>(null)
const words = ref('')
const helped = ref<{ step: Help; words: string } | null>(null)
const refused = ref('')
const inWords = ref(false)
const busy = ref(false)
const sound = usePracticeSound()
const screw = ref<'barrel' | 'H' | 'L' | 'B'>('barrel')
const part = ref<keyof typeof RENEWED_WORDS | ''>('')
async function renew() {
  if (part.value) await act({ do: 'replace', part: part.value })
  part.value = ''
}
const SCREW_CHOICES = [
  { value: 'barrel' as const, words: 'Barrel' },
  { value: 'H' as const, words: 'H' },
  { value: 'L' as const, words: 'L' },
  { value: 'B' as const, words: 'B' },
]
const STEPS = [-1 / 2, -1 / 8, 1 / 8, 1 / 2] as const
const plainActs = () => plain(run.value.acts) as RearAct[]
const asked = () => plain(run.value.asked)

/** Plays the last act and how the chain runs on: the one at once, the other while that is heard. */
async function hear(acts: RearAct[]): Promise<void> {
  const worker = practiceWorker()
  const [shift, running] = [worker.shiftSound(asked(), acts), worker.runningSound(asked(), acts)]
  sound.begin(await shift)
  const runs = await running
  if (!shown.value?.over) sound.runOn(runs)
}
/** Looks at the stand as it now is; a shift is heard at once. */
async function look(heard: boolean, acts = plainActs()): Promise<void> {
  const worker = practiceWorker()
  const hears = heard ? hear(acts) : null
  const [seen, said] = await Promise.all([worker.rear(asked(), acts), worker.soundWords(asked(), acts)])
  shown.value = seen
  words.value = said ?? ''
  await hears
  if (seen.over) {
    sound.stop()
    emit('over', seen)
  }
}
onMounted(async () => {
  const [click] = await Promise.all([practiceWorker().leverSound(), look(false)])
  sound.prepare(click)
})

const last = computed(() => (shown.value?.teeth.length ?? 1) - 1)
const whyNot = (act: RearAct): string => {
  const s = shown.value
  if (!s) return 'One moment'
  if (act.do === 'shift' && act.to === last.value && !s.mayLargest)
    return 'See L by hand first: the largest sprocket is next to the spokes'
  if (act.do === 'turn' && act.screw === 'barrel') {
    if (s.barrel.turns + act.turns < 0) return 'The barrel is all the way in: clamp again'
    if (s.barrel.turns + act.turns > s.barrel.range) return 'The barrel would come out of its thread: clamp again'
  }
  return ''
}
async function act(what: RearAct): Promise<void> {
  if (busy.value || shown.value?.over) return
  refused.value = whyNot(what)
  if (refused.value) return
  if (what.do === 'shift') sound.click()
  busy.value = true
  helped.value = null
  // asked before the page draws anew: the sound does not wait for it
  const acts = [...plainActs(), what]
  run.value = { ...run.value, acts: acts as PracticeRun['acts'] }
  try {
    // once it runs, what a turn does is heard as it is made
    await look(what.do === 'shift' || ((what.do === 'turn' || what.do === 'turnB') && heardOnce.value), acts)
  } finally {
    busy.value = false
  }
}
const heardOnce = computed(() => run.value.acts.some(a => a.do === 'shift'))
const shift = (by: number) => {
  const to = (shown.value?.lever ?? 0) + by
  if (to >= 0 && to <= last.value) void act({ do: 'shift', to })
}
const turn = (turns: number) =>
  void act(screw.value === 'B' ? { do: 'turnB', turns } : { do: 'turn', screw: screw.value, turns })
const say = (heard: (typeof HEARD_KEYS)[number]['heard']) => {
  if (shown.value?.unsaid) void act({ do: 'said', heard })
}
async function help(step: Help): Promise<void> {
  run.value = { ...run.value, helps: [...run.value.helps, step] }
  helped.value = { step, words: '…' }
  helped.value = { step, words: await practiceWorker().help(asked(), plainActs(), step) }
}
const again = () => hear(plainActs())
/** A turn out is + at the barrel, in at a stop. */
const sayStep = (t: number) =>
  `${screw.value === 'barrel' ? (t > 0 ? 'out' : 'in') : t > 0 ? 'in' : 'out'} ${sayTurns(Math.abs(t))}`

useBenchKeys(() => ({
  ArrowLeft: () => shift(1),
  ArrowRight: () => shift(-1),
  '[': () => turn(-1 / 8),
  ']': () => turn(1 / 8),
  b: () => (screw.value = 'barrel'),
  h: () => (screw.value = 'H'),
  l: () => (screw.value = 'L'),
  r: () => void again(),
  ...answerKeys(HEARD_KEYS.map(k => () => say(k.heard))),
}))
const found = computed(() =>
  (shown.value?.found ?? [])
    .filter(f => f.is)
    .slice(-4)
    .reverse(),
)
const label = computed(() => {
  const s = shown.value
  return s ? `Chain on the ${s.teeth[s.chain]}, lever at click ${s.lever + 1} of ${s.teeth.length}` : 'The stand'
})
</script>

<template>
  <div v-if="shown" class="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)]">
    <div class="min-w-0">
      <div class="mat p-2" data-test="stand">
        <StandFromBehind
          :teeth="shown.teeth"
          :place-mm="shown.placeMm"
          :pulley-mm="shown.pulleyMm"
          :chain="shown.chain"
          :lean-mm="shown.leanMm"
          :barred-from="shown.mayLargest ? null : last"
          :label="label"
        />
      </div>
      <div class="mt-2 grid grid-cols-2 gap-1.5">
        <button type="button" class="act min-h-14!" :disabled="shown.over" data-test="shift-in" @click="shift(1)">
          ← To the spokes
        </button>
        <button type="button" class="act min-h-14!" :disabled="shown.over" data-test="shift-out" @click="shift(-1)">
          To the frame →
        </button>
      </div>
      <section class="mt-4" aria-labelledby="heard-title">
        <h2 id="heard-title" class="font-bold">
          {{ shown.unsaid ? 'What did you hear?' : heardOnce ? 'Said. Shift on, or turn.' : 'Shift, and listen.' }}
        </h2>
        <div class="mt-1 grid grid-cols-4 gap-1.5">
          <button
            v-for="k in HEARD_KEYS"
            :key="k.key"
            type="button"
            class="also min-h-14! px-1! py-1! text-center leading-tight"
            :disabled="!shown.unsaid || shown.over"
            :data-test="`say-${k.heard}`"
            @click="say(k.heard)"
          >
            <span class="w-full"
              ><b class="block">{{ k.word }}</b
              ><span class="block text-[0.8125rem] font-normal">{{ k.more }}</span></span
            >
          </button>
        </div>
        <div class="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1">
          <button
            type="button"
            class="quiet min-h-11 underline"
            :disabled="!heardOnce"
            data-test="again"
            @click="again"
          >
            Hear it again
          </button>
          <label class="flex min-h-11 items-center gap-2"
            >Loudness <input v-model.number="sound.volume.value" type="range" min="0" max="1" step="0.05" class="w-28"
          /></label>
          <button
            type="button"
            class="quiet min-h-11 underline"
            :aria-pressed="inWords"
            data-test="in-words"
            @click="inWords = !inWords"
          >
            {{ inWords ? 'Only by ear' : 'In words' }}
          </button>
        </div>
        <p v-if="sound.silent.value" class="small" role="status">There is no sound here: take it in words.</p>
        <p
          v-if="(inWords || sound.silent.value) && words"
          class="mt-1 border-l-[6px] border-ink pl-3"
          data-test="sound-words"
          aria-live="polite"
        >
          {{ words }}
        </p>
      </section>
    </div>
    <div class="min-w-0">
      <p v-if="refused" class="stopped mb-2" role="alert" data-test="refused">{{ refused }}</p>
      <ChoiceRow v-model="screw" label="Screw" :choices="SCREW_CHOICES" test="screw" />
      <div class="mt-1.5 grid grid-cols-4 gap-1.5">
        <button
          v-for="t in STEPS"
          :key="t"
          type="button"
          class="also min-h-13! justify-center px-1!"
          :disabled="shown.over"
          :data-test="`turn-${t}`"
          @click="turn(t)"
        >
          {{ sayStep(t) }}
        </button>
      </div>
      <p class="small mt-1">
        Barrel {{ sayTurns(shown.barrel.turns) }} out of {{ shown.barrel.range }}. A turn is heard while the chain runs.
      </p>
      <div class="mt-3 grid grid-cols-2 gap-1.5">
        <button
          type="button"
          class="also min-h-12!"
          :disabled="shown.over"
          data-test="see-L"
          @click="act({ do: 'sight', at: 'L' })"
        >
          See L by hand
        </button>
        <button
          type="button"
          class="also min-h-12!"
          :disabled="shown.over"
          data-test="see-H"
          @click="act({ do: 'sight', at: 'H' })"
        >
          See H by hand
        </button>
        <button
          type="button"
          class="also min-h-12!"
          :disabled="shown.over"
          data-test="offset"
          @click="act({ do: 'offset', click: shown.lever === last ? last - 1 : Math.max(1, shown.lever) })"
        >
          Measure the pulley
        </button>
        <button
          type="button"
          class="also min-h-12!"
          :disabled="shown.over"
          data-test="gauge"
          @click="act({ do: 'hanger' })"
        >
          Gauge the hanger
        </button>
        <button type="button" class="also min-h-12!" :disabled="shown.over" data-test="gap" @click="act({ do: 'gap' })">
          Measure the B gap
        </button>
        <button
          type="button"
          class="also min-h-12!"
          :disabled="shown.over"
          data-test="reclamp"
          @click="act({ do: 'reclamp', barrelTurnsOut: 2 })"
        >
          Clamp anew, 2 out
        </button>
        <label class="also min-h-12! px-2!"
          ><span class="sr-only">Which part is renewed</span
          ><select v-model="part" class="w-full bg-transparent" :disabled="shown.over" data-test="renew">
            <option value="">A part …</option>
            <option v-for="(w, key) in RENEWED_WORDS" :key="key" :value="key">{{ w }}</option>
          </select></label
        >
        <button
          type="button"
          class="also min-h-12!"
          :disabled="shown.over || !part"
          data-test="renew-it"
          @click="renew"
        >
          Renew it
        </button>
      </div>
      <ul v-if="found.length" class="mt-3 border-t-2 border-ink" aria-live="polite" data-test="found">
        <li v-for="(f, i) in found" :key="`${i} ${f.asked}`" class="border-b border-rule py-1.5">
          <b>{{ f.asked }}</b><span class="block">{{ f.is }}</span>
        </li>
      </ul>
      <button
        type="button"
        class="act mt-4 min-h-14! w-full"
        :disabled="shown.over"
        data-test="done"
        @click="act({ do: 'done' })"
      >
        It is right: hand it back
      </button>
      <details class="mt-4">
        <summary class="quiet min-h-11 cursor-pointer py-2 underline" data-test="help">Help, in steps</summary>
        <div class="mt-1 grid grid-cols-2 gap-1.5">
          <button
            v-for="h in HELPS"
            :key="h"
            type="button"
            class="also min-h-12!"
            :disabled="shown.over"
            :data-test="`help-${h}`"
            @click="help(h)"
          >
            {{ HELP_WORDS[h] }}
          </button>
        </div>
        <p v-if="helped" class="mt-2 border-l-[6px] border-ink pl-3" aria-live="polite" data-test="helped">
          {{ helped.words }}
        </p>
        <p class="small mt-1">Each is counted: {{ run.helps.length }} so far.</p>
      </details>
    </div>
  </div>
  <p v-else class="text-soft" role="status">Putting a bike on the stand …</p>
</template>
