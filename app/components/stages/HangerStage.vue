<!-- Hanger: readings round the clock, the plane fitted to them, what to do about it, what it does to each gear. -->
<script setup lang="ts">
import { GAUGE_RADIUS_MM } from '#core/rear/gaugeRadius'
import { HANGER_KINDS, HANGER_KIND_WORDS, type HangerKind, acrossTolerance } from '#core/rear/hangerLimit'
import { HANGER_LOOKS, HANGER_LOOK_WORDS, type HangerLook } from '#core/rear/hangerEye'
import { typedNumber } from '#core/quantity/typed'
import { cleanBands } from '#core/rear/fit'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import {
  badReading,
  fitHanger,
  fromTouchPoint,
  hangerMisfitMm,
  hangerPlan,
  hangerSpreadDeg,
  READING_SD_MM,
  wasStraightened,
  type HangerFit,
  type HangerReading,
} from '#core/rear/hanger'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const kind = ref<HangerKind>(props.state.rear.gauges.at(-1)?.event.hanger ?? 'replaceable')
const KINDS = HANGER_KINDS.map(value => ({ value, words: HANGER_KIND_WORDS[value] }))
const LOOKS = HANGER_LOOKS.map(value => ({ value, words: HANGER_LOOK_WORDS[value] }))
const look = computed<HangerLook | null>({
  get: () => props.state.rear.eyed,
  set: hanger => hanger && emit('record', { kind: 'eyed', hanger }, 'Noted the hanger by eye'),
})
const radiusText = ref(String(GAUGE_RADIUS_MM))
const texts = reactive<Record<number, string>>({})
const active = ref(12)
const field = useTemplateRef<HTMLInputElement>('field')
const radius = computed(() => typedNumber(radiusText.value))
const speeds = computed(() => props.state.rear.parts!.cassette.teeth.length)
const typed = computed(() =>
  Object.entries(texts)
    .filter(([, t]) => t.trim() !== '')
    .map(([h, t]) => ({ hour: Number(h), gapMm: typedNumber(t) })),
)
const wrong = computed(() => {
  const bad = typed.value.find(r => !Number.isFinite(r.gapMm) || r.gapMm < -60 || r.gapMm > 150)
  if (bad)
    return `${bad.hour} o’clock: a gap is up to 150 mm, or from a touch point closer − or wider +; check the figure`
  if (!(radius.value >= 50 && radius.value <= 500)) return 'Bolt to gauge tip: from 50 to 500 mm'
  return null
})
const readings = computed<HangerReading[]>(() => (wrong.value ? [] : fromTouchPoint(typed.value)))
const fitted = computed<{ fit: HangerFit | null; words: string }>(() => {
  if (wrong.value || readings.value.length < 3) return { fit: null, words: '' }
  try {
    return { fit: fitHanger(readings.value, radius.value), words: '' }
  } catch (error) {
    return { fit: null, words: (error as Error).message }
  }
})
const last = computed(() => props.state.rear.gauges.at(-1) ?? null)
/** What the drawing shows: the readings being taken, else the last gauging. */
const shown = computed(() =>
  fitted.value.fit
    ? { fit: fitted.value.fit, readings: readings.value, radiusMm: radius.value }
    : last.value && !last.value.bentBefore && typed.value.length === 0
      ? {
          fit: { ...last.value.event, tiltDeg: 0, residualMm: 0 },
          readings: last.value.event.readings ?? [],
          radiusMm: last.value.event.radiusMm ?? radius.value,
        }
      : null,
)
const spread = computed(() =>
  hangerSpreadDeg(
    shown.value?.readings ?? [],
    radius.value > 0 ? radius.value : GAUGE_RADIUS_MM,
    READING_SD_MM.caliper,
  ),
)
/** Two places, and no sign on nothing. */
const figure = (v: number) => (Math.abs(v) < 0.005 ? 0 : v).toFixed(2)
const bad = computed(() =>
  readings.value.length && fitted.value.fit ? badReading(readings.value, radius.value) : null,
)
const { standards } = storeToRefs(useLedger())
const plan = computed(
  () =>
    shown.value &&
    hangerPlan(
      shown.value.fit,
      speeds.value,
      kind.value,
      standards.value,
      wasStraightened(props.state.rear.gauges, acrossTolerance(speeds.value, standards.value)),
    ),
)
const clean = computed(() =>
  props.state.rear.setup
    ? cleanBands({
        pullMm: props.state.rear.setup.pullMm,
        ratio: props.state.rear.setup.pullRatio,
        pitchMm: props.state.rear.setup.pitchMm,
      })
    : [],
)
const misfit = computed(() =>
  shown.value && props.state.rear.setup ? hangerMisfitMm(props.state.rear.setup, shown.value.fit.camberDeg) : null,
)
const history = computed(() => props.state.rear.gauges.map(g => g.event.acrossMm))

async function choose(hour: number) {
  active.value = hour
  await nextTick()
  field.value?.focus()
}
/** On round the clock to the next place that was not read. */
function onward() {
  const order = [12, 3, 6, 9, 1, 2, 4, 5, 7, 8, 10, 11]
  void choose(order.find(h => !(texts[h] ?? '').trim()) ?? active.value)
}
useFigureTyped(text => {
  texts[active.value] = text
  onward()
})
function note() {
  const { fit } = fitted.value
  if (!fit) return
  emit(
    'record',
    {
      kind: 'gauge',
      camberDeg: fit.camberDeg,
      toeDeg: fit.toeDeg,
      acrossMm: fit.acrossMm,
      readings: readings.value,
      radiusMm: radius.value,
      hanger: kind.value,
    },
    'Noted the hanger',
  )
  for (const h of Object.keys(texts)) texts[Number(h)] = ''
  active.value = 12
}
const bend = (hour: number, tipMm: number) => emit('record', { kind: 'bend', hour, tipMm }, 'Levered: gauge again')
const renew = () => emit('record', { kind: 'replace', part: 'hanger' }, 'New hanger')
</script>

<template>
  <div>
    <section class="look" aria-label="Hanger">
      <div class="grid gap-2.5 md:grid-cols-[356px_1fr]">
        <div class="mat grid place-items-center p-2">
          <HangerClock
            :size="340"
            :readings="readings.length ? readings : (shown?.readings ?? [])"
            :active="active"
            :fit="shown?.fit ?? null"
            :radius-mm="shown?.radiusMm ?? 311"
            :lever="plan?.do === 'bend' ? plan.hour : null"
            :bad="bad?.hour ?? null"
            @choose="choose"
          />
        </div>
        <div class="mat p-2"><TipHistory :across-mm="history" :limit-mm="acrossTolerance(speeds, standards)" /></div>
      </div>
      <div v-if="misfit && state.rear.setup" class="mat p-2" data-test="hanger-misfit">
        <MatchStrip :labels="state.rear.setup.teeth" :error-mm="misfit" :clean-mm="clean" />
      </div>
    </section>
    <aside class="panel" aria-label="Readings and what to do">
      <form class="grid gap-2" @submit.prevent="onward">
        <label class="label" for="gap"
          >Gap at {{ active }} o’clock, mm
          <input
            id="gap"
            ref="field"
            v-model="texts[active]"
            class="field figure text-2xl"
            inputmode="decimal"
            autocomplete="off"
            data-test="gap"
          />
        </label>
        <button class="also" :disabled="!(texts[active] ?? '').trim()" data-test="gap-next">
          Next place <kbd class="key">Enter</kbd>
        </button>
      </form>
      <p v-if="wrong ?? fitted.words" class="wrong" role="alert" data-test="hanger-wrong">
        {{ wrong ?? fitted.words }}
      </p>
      <p v-else-if="readings.length < 3 && !shown" class="small">
        Any three places or more, at one spot of the rim (start at the valve): wheel and gauge turned together, so that
        an untrue wheel does not count. Axle home and bearings tight first.
      </p>
      <template v-if="shown">
        <p class="text-3xl leading-none font-bold" data-test="across">
          <span class="figure">{{ shown.fit.acrossMm.toFixed(1) }}</span> mm across
        </p>
        <dl class="grid grid-cols-[auto_1fr] gap-x-3">
          <dt>Camber</dt>
          <dd class="figure text-right" data-test="camber">
            {{ figure(shown.fit.camberDeg) }} ± {{ spread.toFixed(2) }}°
          </dd>
          <dt>Toe</dt>
          <dd class="figure text-right">{{ figure(shown.fit.toeDeg) }} ± {{ spread.toFixed(2) }}°</dd>
          <template v-if="fitted.fit"
            ><dt>Left over</dt>
            <dd class="figure text-right">{{ fitted.fit.residualMm.toFixed(2) }} mm</dd></template
          >
        </dl>
        <p v-if="bad" class="stopped" role="status" data-test="bad-reading">
          {{ bad.hour }} o’clock does not go with the others: read it again.
        </p>
      </template>
      <p v-if="plan" :class="plan.do === 'refuse' ? 'stopped' : 'font-semibold'" data-test="plan">{{ plan.why }}</p>
      <button v-if="fitted.fit" type="button" class="act" data-test="gauge-note" @click="note">
        Note this gauging
      </button>
      <template v-else-if="plan?.do === 'bend' && last">
        <p class="text-xl font-bold">At {{ plan.hour }} o’clock, tip {{ plan.tipMm.toFixed(1) }} mm towards the rim</p>
        <button type="button" class="act" data-test="bend" @click="bend(plan.hour, plan.tipMm)">Levered so</button>
      </template>
      <template v-else-if="plan?.do === 'replace' && last">
        <button type="button" class="act" data-test="new-hanger" @click="renew">The hanger is new</button>
        <details v-if="plan.once" class="border-t border-rule pt-1">
          <summary class="min-h-11 cursor-pointer font-semibold">No new one to be had</summary>
          <p class="text-[0.9375rem] leading-snug">
            Once, in small steps, never hammered: at {{ plan.once.hour }} o’clock bring the tip
            {{ plan.once.tipMm.toFixed(1) }} mm towards the rim. It is weaker after: the sheet says so, and a new one is
            ordered. Any crack: it is not ridden.
          </p>
          <button
            type="button"
            class="also mt-1 w-full"
            data-test="bend-once"
            @click="bend(plan.once.hour, plan.once.tipMm)"
          >
            Levered so, this once
          </button>
        </details>
      </template>
      <div>
        <p class="label" aria-hidden="true">No gauge at hand: by eye, from behind</p>
        <ChoiceRow
          v-model="look"
          label="The hanger by eye"
          :choices="LOOKS"
          :columns="2"
          :centred="false"
          test="look"
        />
      </div>
      <div>
        <p class="label" aria-hidden="true">What it hangs on</p>
        <ChoiceRow
          v-model="kind"
          label="What it hangs on"
          :choices="KINDS"
          :columns="2"
          :centred="false"
          test="hanger"
        />
      </div>
      <label class="small flex items-center justify-between gap-2"
        >Bolt to gauge tip, mm
        <input v-model="radiusText" class="field figure max-w-24" inputmode="decimal" data-test="radius"
      /></label>
      <p class="small">
        The derailleur can be unbolted with chain and cable left on. After any of this: stops, gap and index again.
        Never bend titanium, carbon, a cast part or one with a crack.
      </p>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>
