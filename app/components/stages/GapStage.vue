<!-- B gap: measured or from teeth and centres, the turn to go, sag, what a wrong one does. -->
<script setup lang="ts">
import { typedNumber } from '#core/quantity/typed'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { fromSixteenths, sayTurns, sayTurnsOf } from '#core/quantity/turns'
import { capacityNeeded } from '#core/rear/chain'
import { GAP_SYMPTOMS, gapInStandFor, gapNow, gapTurn, guideGap, learntGapPerTurn } from '#core/rear/gap'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const teeth = computed(() => props.state.setup!.teeth)
const largest = computed(() => teeth.value.at(-1)!)
const load = ref<'stand' | 'sagged'>('stand')
const pulleyText = ref('12')
const centresText = ref('')
const makerText = ref('')
const B = computed(() => fromSixteenths(props.state.netSixteenths.B))
const stood = computed(() =>
  props.state.noted.gaps
    .filter(x => x.event.at === 'stand')
    .map(x => ({ turnsIn: fromSixteenths(x.bSixteenths), gapMm: x.event.gapMm })),
)
const sagged = computed(() =>
  props.state.noted.gaps
    .filter(x => x.event.at === 'sagged')
    .map(x => ({ turnsIn: fromSixteenths(x.bSixteenths), gapMm: x.event.gapMm })),
)
const learnt = computed(() => learntGapPerTurn(stood.value))
const now = computed(() => gapNow(stood.value, B.value, learnt.value.mmPerTurn))
const nowSagged = computed(() => gapNow(sagged.value, B.value, learnt.value.mmPerTurn))
const wanted = computed(() => {
  const maker = typedNumber(makerText.value)
  return props.schools.gap.id === 'maker' && maker > 0 && maker < 30
    ? { from: maker - 0.5, to: maker + 0.5 }
    : props.schools.gap.targetMm
})
/** With sag the target in the stand follows from the two measurements. */
const target = computed(() => {
  if (!props.schools.gap.sagged) return wanted.value
  if (now.value === null || nowSagged.value === null) return { from: 4, to: 5 }
  const { from, to } = wanted.value
  return {
    from: gapInStandFor({ standMm: Math.max(0, now.value), saggedMm: Math.max(0, nowSagged.value), wantedMm: from }),
    to: gapInStandFor({ standMm: Math.max(0, now.value), saggedMm: Math.max(0, nowSagged.value), wantedMm: to }),
  }
})
const turn = computed(() => (now.value === null ? 0 : gapTurn(now.value, target.value, learnt.value.mmPerTurn)))
const way = computed(() => (turn.value > 0 ? 'in' : 'out'))
const fromCentres = computed<{ mm: number | null; words: string }>(() => {
  if (!centresText.value.trim()) return { mm: null, words: '' }
  try {
    const mm = guideGap({
      sprocketTeeth: largest.value,
      pulleyTeeth: typedNumber(pulleyText.value),
      centresMm: typedNumber(centresText.value),
    })
    return mm < -20 || mm > 60
      ? { mm: null, words: `That gives a gap of ${mm.toFixed(1)} mm: check the distance` }
      : { mm, words: `${mm.toFixed(1)} mm, tips to tips` }
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
    { kind: 'turn', screw: 'B', sixteenths: Math.round(turn.value * 16) },
    `Logged ${sayTurns(turn.value)}`,
  )
const ringsText = ref('')
const capacityText = ref('')
const capacity = computed<string | null>(() => {
  if (!ringsText.value.trim()) return null
  try {
    const need = capacityNeeded({
      rings: ringsText.value
        .trim()
        .split(/[\s,]+/)
        .map(Number),
      smallest: teeth.value[0],
      largest: largest.value,
    })
    const has = typedNumber(capacityText.value)
    return Number.isFinite(has)
      ? need > has
        ? `${need} teeth needed, ${has} there: ${need - has} more than its capacity. Small and small will sag, or big and big tear.`
        : `${need} teeth needed, ${has} there: enough`
      : `${need} teeth needed`
  } catch (error) {
    return (error as Error).message
  }
})
</script>

<template>
  <div>
    <section class="look" aria-label="B gap">
      <div class="mat min-h-0 p-2">
        <GapView
          :sprocket-teeth="largest"
          :pulley-teeth="
            Number.isInteger(typedNumber(pulleyText)) && typedNumber(pulleyText) >= 8 && typedNumber(pulleyText) <= 20
              ? typedNumber(pulleyText)
              : 12
          "
          :gap-mm="now"
          :target="target"
        />
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
      <p class="small">{{ schools.gap.name }}</p>
      <p class="text-3xl leading-none font-bold" data-test="gap-now">
        {{ now === null ? 'Measure it' : `${now.toFixed(1)} mm` }}
      </p>
      <p class="text-[0.9375rem] leading-snug">
        Chain on the largest sprocket, cranks turned by hand. Wheel still, no hand near it while it moves.
      </p>
      <p v-if="!state.trace?.seenL" class="stopped" data-test="gap-barred">
        The chain goes onto the largest for this: see L by hand first.
      </p>
      <div v-if="schools.gap.sagged" class="grid grid-cols-2 gap-1">
        <button
          v-for="s in ['stand', 'sagged'] as const"
          :key="s"
          type="button"
          class="also min-h-11! justify-center"
          :class="{ 'bg-act! text-act-ink!': load === s }"
          :aria-pressed="load === s"
          :data-test="`gap-${s}`"
          @click="load = s"
        >
          {{ s === 'stand' ? 'In the stand' : 'With sag' }}
        </button>
      </div>
      <FigurePad
        label="Gap"
        unit="mm"
        :usual="[3, 4, 5, 6, 8, 10, 15]"
        :least="-20"
        :most="60"
        in-word="close"
        out-word="wide"
        hint="mm, tips to tips"
        @figure="measured"
      />
      <div v-if="turn !== 0" class="flex items-center gap-3 border-t border-rule pt-2" data-test="gap-turn">
        <ClockFace :turns="turn" :way="way" class="shrink-0" />
        <p :class="way === 'out' ? 'text-out' : 'text-in'">
          <span class="block font-bold">B screw {{ way }}, gap {{ way === 'in' ? 'grows' : 'shrinks' }}</span
          ><span class="block text-3xl font-bold">{{ sayTurnsOf(turn) }}</span>
        </p>
      </div>
      <button v-if="turn !== 0" type="button" class="act" data-test="gap-turned" @click="turned">
        Turned {{ sayTurns(turn) }} {{ way }}
      </button>
      <p v-else-if="now !== null" class="font-semibold text-clean" data-test="gap-good">
        The gap is where it should be.
      </p>
      <p v-if="now !== null" class="small" data-test="gap-learnt">
        A turn in makes {{ learnt.mmPerTurn.toFixed(2) }} ± {{ learnt.sdMm.toFixed(2) }} mm{{
          stood.length > 1 ? ', as measured here' : ', as usual'
        }}. On most; some screws work the other way.
      </p>
      <p v-if="schools.gap.sagged && nowSagged !== null && now !== null" class="small">
        Sag changes it by {{ (nowSagged - now).toFixed(1) }} mm: in the stand it is to be
        {{ target.from.toFixed(1) }} to {{ target.to.toFixed(1) }} mm.
      </p>
      <label v-if="schools.gap.id === 'maker'" class="label"
        >The maker’s figure, mm<input
          v-model="makerText"
          class="field figure"
          inputmode="decimal"
          autocomplete="off"
          data-test="maker-gap"
      /></label>
      <details class="border-t border-rule pt-2">
        <summary class="min-h-11 cursor-pointer font-semibold">From teeth and centres</summary>
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
            :class="fromCentres.mm === null ? 'text-sm font-semibold text-stop' : ''"
            :role="fromCentres.mm === null ? 'alert' : 'status'"
            data-test="gap-from-centres"
          >
            {{ fromCentres.words }}
          </p>
          <button class="also col-span-2" :disabled="fromCentres.mm === null">Note it</button>
        </form>
      </details>
      <details class="border-t border-rule pt-2">
        <summary class="min-h-11 cursor-pointer font-semibold">Capacity</summary>
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
        <p
          v-if="capacity"
          :class="/more than|must|whole/.test(capacity) ? 'text-sm font-semibold text-stop' : ''"
          role="status"
          data-test="capacity-words"
        >
          {{ capacity }}
        </p>
      </details>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>
