<!-- B gap: measured or from teeth and centres, the turn to go, sag, what a wrong one does. -->
<script setup lang="ts">
import { schemaOf } from '#core/ledger/events'
import { typedNumber, typedNumbers } from '#core/quantity/typed'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { sayTurns, sayTurnsOf, toSixteenths } from '#core/quantity/turns'
import { mayReachLargest } from '#core/rear/gates'
import { capacityJudged, capacityNeeded } from '#core/rear/chain'
import { GAP_SYMPTOMS, guideGap, USUAL_PULLEY_TEETH } from '#core/rear/gap'
import { BY_EYE, BY_TEMPLATE, BY_TOUCH, GAP_LOOK_WORDS, type GapLook } from '#core/rear/gapLook'
import { gapNext } from '#core/rear/gapNext'
import { within } from '#core/quantity/within'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const teeth = computed(() => props.state.rear.setup!.teeth)
const largest = computed(() => teeth.value.at(-1)!)
const LOADS = [
  { value: 'stand', words: 'In the stand' },
  { value: 'sagged', words: 'With sag' },
] as const
const load = ref<'stand' | 'sagged'>('stand')
const pulleyText = ref(String(USUAL_PULLEY_TEETH))
const centresText = ref('')
const next = computed(() => gapNext(props.state.rear, props.schools.gap))
/** What is typed here is kept with the bike's parts, for its next visit too. */
const makerText = ref('')
const Maker = within('The maker’s figure, mm', 1, 30)
const makerWrong = ref<string | null>(null)
function noteMaker() {
  const read = Maker.safeParse(typedNumber(makerText.value))
  makerWrong.value = read.success ? null : read.error.issues[0]!.message
  if (!read.success) return
  emit('record', { kind: 'gapWanted', gapMm: read.data }, 'Kept with the parts')
  makerText.value = ''
}
/** Ticks round what is wanted on this bike. */
const ticks = computed(() => {
  const { from, to } = next.value.targetMm
  const half = (mm: number) => Math.round(mm * 2) / 2
  const marks = [from - 2, from - 1, from, (from + to) / 2, to, to + 2, to + 5].map(half)
  return [...new Set(marks)]
})
/** The smallest that clears is found by whether it touches, as long as no figure is wanted. */
const byTouch = computed(() => props.schools.gap.id === 'smallest-clear' && !next.value.byMaker)
const LOOKS: readonly { words: string; looks: readonly GapLook[] }[] = [
  { words: 'By eye', looks: BY_EYE },
  { words: 'Pulley against a template', looks: BY_TEMPLATE },
]
const looked = (look: GapLook) =>
  emit('record', { kind: 'gapSeen', look }, `Noted: ${GAP_LOOK_WORDS[look].toLowerCase()}`)
const way = computed(() => (next.value.turns > 0 ? 'in' : 'out'))
const pulleyTeeth = computed(() => {
  const teeth = typedNumber(pulleyText.value)
  return Number.isInteger(teeth) && teeth >= 8 && teeth <= 20 ? teeth : USUAL_PULLEY_TEETH
})
const fromCentres = computed<{ mm: number | null; words: string }>(() => {
  if (!centresText.value.trim()) return { mm: null, words: '' }
  try {
    const mm = guideGap({
      sprocketTeeth: largest.value,
      pulleyTeeth: typedNumber(pulleyText.value),
      centresMm: typedNumber(centresText.value),
    })
    const read = schemaOf('gap').safeParse({ kind: 'gap', gapMm: mm, how: 'centres', at: load.value })
    return read.success
      ? { mm, words: `${mm.toFixed(1)} mm, tips to tips` }
      : { mm: null, words: `That gives a gap of ${mm.toFixed(1)} mm: check the distance` }
  } catch (error) {
    return { mm: null, words: (error as Error).message }
  }
})
const measured = (gapMm: number) =>
  emit('record', { kind: 'gap', gapMm, how: 'measured', at: load.value }, 'Noted the gap')
const computedGap = () => {
  if (fromCentres.value.mm !== null) {
    emit(
      'record',
      { kind: 'gap', gapMm: Math.round(fromCentres.value.mm * 10) / 10, how: 'centres', at: load.value },
      'Noted the gap',
    )
    centresText.value = ''
  }
}
const turned = () =>
  emit(
    'record',
    { kind: 'turn', screw: 'B', sixteenths: toSixteenths(next.value.turns) },
    `Logged ${sayTurns(next.value.turns)}`,
  )
const ringsText = ref('')
const capacityText = ref('')
const capacity = computed<{ words: string; wrong: boolean } | null>(() => {
  if (!ringsText.value.trim()) return null
  try {
    const need = capacityNeeded({
      rings: typedNumbers(ringsText.value),
      smallest: teeth.value[0]!,
      largest: largest.value,
    })
    return capacityJudged(need, typedNumber(capacityText.value))
  } catch (error) {
    return { words: (error as Error).message, wrong: true }
  }
})
</script>

<template>
  <div>
    <section class="look" aria-label="B gap">
      <div class="mat min-h-0 p-2">
        <GapView :sprocket-teeth="largest" :pulley-teeth="pulleyTeeth" :gap-mm="next.standMm" :target="next.targetMm" />
      </div>
      <div class="grid gap-x-4 gap-y-1 xl:grid-cols-2">
        <p>{{ GAP_SYMPTOMS.small }}</p>
        <p>{{ GAP_SYMPTOMS.large }}</p>
        <p class="small xl:col-span-2">
          Twice: roughly with the stops, finely with chain and tension on; after it look at L and index again. A damping
          clutch is off for gap and sighting, on for the final proof.
        </p>
      </div>
    </section>
    <aside class="panel" aria-label="Gap and turn">
      <p class="small" data-test="gap-by">
        {{
          next.byMaker
            ? `The maker’s figure, ${next.targetMm.from.toFixed(1)} to ${next.targetMm.to.toFixed(1)} mm`
            : schools.gap.name
        }}
      </p>
      <p class="text-3xl leading-none font-bold" data-test="gap-now">
        {{
          next.look
            ? GAP_LOOK_WORDS[next.look]
            : next.standMm === null
              ? byTouch
                ? 'Does it clear?'
                : 'Measure it'
              : `${next.standMm.toFixed(1)} mm`
        }}
      </p>
      <p class="text-[0.9375rem] leading-snug">
        {{
          byTouch
            ? 'One gear before the largest, cranks turned by hand: shift in and look. Touches: in a quarter. Clears: out a quarter, until it touches, and a quarter back.'
            : 'Chain on the largest sprocket, cranks turned by hand. Wheel still, no hand near it while it moves.'
        }}
      </p>
      <div v-if="byTouch" class="grid grid-cols-2 gap-2">
        <button
          v-for="l in BY_TOUCH"
          :key="l"
          type="button"
          class="act justify-center"
          :disabled="!mayReachLargest(state.rear.trace)"
          :data-test="`gap-${l}`"
          @click="looked(l)"
        >
          {{ GAP_LOOK_WORDS[l] }}
        </button>
      </div>
      <p v-if="!mayReachLargest(state.rear.trace)" class="stopped" data-test="gap-barred">
        The chain goes onto the largest for this: see L by hand first.
      </p>
      <ChoiceRow v-if="schools.gap.sagged" v-model="load" label="Measured how" :choices="LOADS" test="gap" />
      <FigurePad
        label="Gap"
        unit="mm"
        :usual="ticks"
        :least="-20"
        :most="60"
        in-word="close"
        out-word="wide"
        hint="mm, tips to tips"
        :like="{ run: 'rear', figure: load === 'sagged' ? 'gap-sagged' : 'gap' }"
        @figure="measured"
      />
      <MeasureLink what="gap" />
      <div v-if="next.turns !== 0" class="flex items-center gap-3 border-t border-rule pt-2" data-test="gap-turn">
        <ClockFace :turns="next.turns" :way="way" class="shrink-0" />
        <p :class="way === 'out' ? 'text-out' : 'text-in'">
          <span class="block font-bold">B screw {{ way }}, gap {{ way === 'in' ? 'grows' : 'shrinks' }}</span
          ><span class="block text-3xl font-bold">{{ sayTurnsOf(next.turns) }}</span>
        </p>
      </div>
      <button v-if="next.turns !== 0" type="button" class="act" data-test="gap-turned" @click="turned">
        Turned {{ sayTurns(next.turns) }} {{ way }}
      </button>
      <p v-else-if="next.good" class="font-semibold text-clean" data-test="gap-good">The gap is where it should be.</p>
      <p v-else-if="next.look" class="font-semibold" data-test="gap-again">Turned: look at it again.</p>
      <p v-if="next.standMm !== null" class="small" data-test="gap-learnt">
        A turn in makes {{ next.learnt.mmPerTurn.toFixed(2) }} ± {{ next.learnt.sdMm.toFixed(2) }} mm{{
          next.measured > 1 ? ', as measured here' : ', as usual'
        }}. On most; some screws work the other way.
      </p>
      <p v-if="schools.gap.sagged && next.saggedMm !== null && next.standMm !== null" class="small">
        Sag changes it by {{ (next.saggedMm - next.standMm).toFixed(1) }} mm: in the stand it is to be
        {{ next.targetMm.from.toFixed(1) }} to {{ next.targetMm.to.toFixed(1) }} mm.
      </p>
      <details class="border-t border-rule">
        <summary class="min-h-11 cursor-pointer leading-[2.75rem] font-semibold">By eye or template</summary>
        <div v-for="row in LOOKS" :key="row.words" class="mt-1">
          <p class="label" aria-hidden="true">{{ row.words }}</p>
          <div class="grid grid-cols-3 gap-1" role="group" :aria-label="row.words">
            <button
              v-for="l in row.looks"
              :key="l"
              type="button"
              class="also min-h-12! justify-center px-1!"
              :data-test="`gap-${l}`"
              @click="looked(l)"
            >
              {{ GAP_LOOK_WORDS[l] }}
            </button>
          </div>
        </div>
      </details>
      <details class="border-t border-rule" :open="schools.gap.id === 'maker' && !next.byMaker">
        <summary class="min-h-11 cursor-pointer leading-[2.75rem] font-semibold">
          The maker’s figure{{ next.byMaker ? ', kept with the parts' : '' }}
        </summary>
        <form class="grid grid-cols-[1fr_auto] items-end gap-2" novalidate @submit.prevent="noteMaker">
          <label class="label"
            >mm, tips to tips<input
              v-model="makerText"
              class="field figure"
              inputmode="decimal"
              autocomplete="off"
              data-test="maker-gap"
          /></label>
          <button class="also" data-test="maker-note">Keep it</button>
        </form>
        <p v-if="makerWrong" class="wrong" role="alert">{{ makerWrong }}</p>
        <p class="small">Where there is one it wins over every school, on this bike’s next visit too.</p>
      </details>
      <details class="border-t border-rule">
        <summary class="min-h-11 cursor-pointer leading-[2.75rem] font-semibold">From teeth and centres</summary>
        <form class="grid grid-cols-2 gap-2" @submit.prevent="computedGap">
          <label class="label"
            >Pulley, teeth<input v-model="pulleyText" class="field figure" inputmode="numeric" autocomplete="off"
          /></label>
          <label class="label"
            >Centres, mm<input
              v-model="centresText"
              class="field figure"
              inputmode="decimal"
              autocomplete="off"
              data-test="centres"
          /></label>
          <p
            v-if="fromCentres.words"
            class="col-span-2"
            :class="fromCentres.mm === null ? 'wrong' : ''"
            :role="fromCentres.mm === null ? 'alert' : 'status'"
            data-test="gap-from-centres"
          >
            {{ fromCentres.words }}
          </p>
          <button class="also col-span-2" :disabled="fromCentres.mm === null">Note it</button>
        </form>
      </details>
      <details class="border-t border-rule">
        <summary class="min-h-11 cursor-pointer leading-[2.75rem] font-semibold">Capacity</summary>
        <div class="grid grid-cols-2 gap-2">
          <label class="label"
            >Rings, teeth<input
              v-model="ringsText"
              class="field figure"
              autocomplete="off"
              placeholder="34 50"
              data-test="rings"
          /></label>
          <label class="label"
            >It takes up<input
              v-model="capacityText"
              class="field figure"
              inputmode="numeric"
              autocomplete="off"
              data-test="capacity"
          /></label>
        </div>
        <p v-if="capacity" :class="{ wrong: capacity.wrong }" role="status" data-test="capacity-words">
          {{ capacity.words }}
        </p>
      </details>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>
