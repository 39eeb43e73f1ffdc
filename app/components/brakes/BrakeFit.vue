<!-- Fitting in order, centring by what is seen, and how close the rider likes it. -->
<script setup lang="ts">
import { whyOf } from '#core/procedure/schoolWhys'
import { cameEven, centringMove, hasCentring, nearerOfPush, sayScrewTurn } from '#core/brake/centring'
import { SIDES, type Nearer, type Side } from '#core/brake/sides'
import { hasPadGapSchool, stepsOf } from '#core/brake/fitting'
import type { Brake, BrakeKind } from '#core/brake/kinds'
import type { BrakeState } from '#core/brake/state'
import { armRatio, barrelTurnsFor, wearLeftMm } from '#core/brake/sums'
import { BRAKE_BARREL } from '#core/brake/barrel'
import { schemaOf, type LedgerEvent } from '#core/ledger/events'
import { PAD_GAPS, PADS, type SchoolChoice } from '#core/procedure/schools'
import { fromSixteenths, sayTurns, toSixteenths } from '#core/quantity/turns'
import { typedNumber } from '#core/quantity/typed'
import { capital } from '#core/quantity/words'

const props = defineProps<{
  brake: Brake
  kind: BrakeKind
  state: BrakeState
  pads: (typeof PADS)[number]
  padGap: (typeof PAD_GAPS)[number]
}>()
const emit = defineEmits<{ put: [event: LedgerEvent]; school: [choice: SchoolChoice] }>()
const { standards } = storeToRefs(useLedger())
const steps = computed(() => stepsOf(props.kind, props.padGap.id))
const next = computed(() => steps.value.find(s => !props.state.steps.includes(s.id)) ?? null)
const screwSide = ref<Side>('right')
const move = computed(() => centringMove(props.kind, props.state.centring, screwSide.value))
type Look = { test: string; words: string; nearer: Nearer; by?: 'rim' }
/** The same seen in two ways: by the pads once let go, or by the rim as it is squeezed. */
const LOOKS: readonly { label: string; keys: readonly Look[] }[] = [
  {
    label: 'Which pad stands nearer, let go',
    keys: [
      { test: 'nearer-left', words: 'Left pad nearer', nearer: 'left' },
      { test: 'nearer-even', words: 'Both alike', nearer: 'even' },
      { test: 'nearer-right', words: 'Right pad nearer', nearer: 'right' },
    ],
  },
  {
    label: 'Which way the rim is pushed, squeezed',
    keys: (
      [
        ['left', 'Rim goes left'],
        [null, 'Rim stays'],
        ['right', 'Rim goes right'],
      ] as const
    ).map(([to, words]) => ({ test: `pushed-${to ?? 'not'}`, words, nearer: nearerOfPush(to), by: 'rim' })),
  },
]
const look = ({ nearer, by }: Look) =>
  emit('put', { kind: 'brakeNearer', brake: props.brake, nearer, ...(by ? { by } : {}) })
/** Turned while pumping until both left together: how far it was in the end, sixteenths. */
const UNTIL = [2, 4, 6, 8]
function untilEven(sixteenths: number) {
  if (!turn.value) return
  const { side } = turn.value
  for (const e of cameEven({ side, sixteenths: Math.sign(turn.value.sixteenths) * sixteenths }))
    emit(
      'put',
      e.kind === 'seen'
        ? { kind: 'brakeNearer', brake: props.brake, nearer: e.nearer }
        : { kind: 'brakeScrew', brake: props.brake, side: e.side, sixteenths: e.sixteenths },
    )
}
const PAD_GAP_SCHOOLS = PAD_GAPS.map(p => ({ value: p.id, words: p.name }))
const turn = computed(() => (move.value.do === 'turn' ? move.value.turn : null))
const SCREW_SIDES = SIDES.map(value => ({ value, words: `Screw on the ${value}` }))
const PAD_SCHOOLS = PADS.map(p => ({ value: p.id, words: p.name }))
const noted = props.state.close
const close = useEntryForm({
  initial: {
    barrel: String(fromSixteenths(noted?.barrelSixteenthsOut ?? 0)),
    letOut: noted === null || noted.letOutMm === null ? '' : String(noted.letOutMm),
  },
  schema: schemaOf('brakeClose'),
  read: typed => ({
    kind: 'brakeClose',
    brake: props.brake,
    barrelSixteenthsOut: toSixteenths(typedNumber(typed.barrel)),
    letOutMm: typed.letOut.trim() === '' ? null : typedNumber(typed.letOut),
  }),
  line: field => (field === 'letOutMm' ? 'letOut' : 'barrel'),
  done: event => emit('put', event),
})
const barrel = close.form.useStore(s => s.values.barrel)
const left = computed(() => {
  try {
    return armRatio(props.kind, standards.value) === null
      ? null
      : wearLeftMm(props.kind, typedNumber(barrel.value), standards.value)
  } catch {
    return null
  }
})
/** How much nearer the pads are asked for, mm, and the barrel's turns for it. */
const CLOSER_MM = [0.25, 0.5, 1]
const closer = computed(() =>
  armRatio(props.kind, standards.value) === null
    ? []
    : CLOSER_MM.map(mm => ({
        mm,
        sixteenths: toSixteenths(barrelTurnsFor(props.kind, mm, BRAKE_BARREL.threadMm, standards.value)),
      })),
)
/** The barrel's count goes on by as much, to be noted as the rider likes it. */
function bringCloser(sixteenths: number) {
  const now = typedNumber(barrel.value)
  close.form.setFieldValue('barrel', String((Number.isFinite(now) ? now : 0) + fromSixteenths(sixteenths)))
}
</script>

<template>
  <div class="grid gap-3">
    <section aria-label="Fitting in order">
      <p class="text-2xl leading-tight font-bold" data-test="fit-next">
        {{ next ? next.what : 'All fitted: prove it' }}
      </p>
      <p v-if="next" class="leading-snug">{{ next.how }}</p>
      <p v-if="next?.id === 'pads'" class="font-semibold">{{ pads.name }}: {{ whyOf('pads', pads.id) }}</p>
      <p v-if="next?.caution" class="mt-1 border-l-[6px] border-stop pl-2 text-sm font-semibold">{{ next.caution }}</p>
      <button
        v-if="next"
        type="button"
        class="act mt-2 w-full"
        :data-test="`fit-${next.id}`"
        @click="emit('put', { kind: 'brakeStep', brake, step: next.id })"
      >
        Done <kbd class="key">Enter</kbd>
      </button>
      <details class="mt-1">
        <summary class="small min-h-11 cursor-pointer py-2" data-test="fit-all">
          {{ state.steps.filter(id => steps.some(s => s.id === id)).length }} of {{ steps.length }} steps
        </summary>
        <ol>
          <li v-for="s in steps" :key="s.id">
            <button
              type="button"
              class="min-h-11 w-full border-b border-rule text-left"
              :class="state.steps.includes(s.id) ? 'text-soft' : ''"
              :disabled="state.steps.includes(s.id)"
              @click="emit('put', { kind: 'brakeStep', brake, step: s.id })"
            >
              {{ state.steps.includes(s.id) ? '✓ ' : '' }}{{ s.what }}
            </button>
          </li>
        </ol>
      </details>
      <ChoiceRow
        v-if="steps.some(s => s.id === 'pads')"
        class="mt-1"
        :model-value="pads.id"
        label="School of pads"
        :choices="PAD_SCHOOLS"
        test="pads"
        @update:model-value="id => id && emit('school', { pads: id })"
      />
      <details v-if="hasPadGapSchool(kind)" class="mt-1">
        <summary class="small min-h-11 cursor-pointer py-2" data-test="pad-gap-school">
          Pad gap: {{ padGap.name.toLowerCase() }}
        </summary>
        <ChoiceRow
          :model-value="padGap.id"
          label="How the pad gap is set"
          :choices="PAD_GAP_SCHOOLS"
          :columns="1"
          :centred="false"
          test="pad-gap"
          @update:model-value="id => id && emit('school', { padGap: id })"
        />
        <p class="small">{{ whyOf('padGap', padGap.id) }}</p>
      </details>
    </section>
    <section v-if="hasCentring(kind)" class="border-t border-rule pt-2" aria-label="Centring">
      <p class="text-lg font-bold" data-test="centring">
        {{
          move.do === 'look'
            ? 'Squeeze, let go: which pad stands nearer?'
            : move.do === 'done'
              ? 'Central: both leave together'
              : move.do === 'body'
                ? 'Shift the body'
                : capital(sayScrewTurn(move.turn))
        }}
      </p>
      <p v-if="move.do === 'turn' || move.do === 'body'" class="leading-snug">{{ move.why }}</p>
      <button
        v-if="turn"
        type="button"
        class="act mt-1 w-full"
        data-test="screw-turned"
        @click="emit('put', { kind: 'brakeScrew', brake, side: turn.side, sixteenths: turn.sixteenths })"
      >
        Turned, and pumped
      </button>
      <div
        v-if="turn"
        class="mt-1 grid grid-cols-[auto_repeat(4,1fr)] items-center gap-1"
        role="group"
        aria-label="Turned while pumping until even"
      >
        <span class="small pr-1">came even at</span>
        <button
          v-for="u in UNTIL"
          :key="u"
          type="button"
          class="also figure min-h-11! justify-center px-1!"
          :data-test="`even-at-${u}`"
          @click="untilEven(u)"
        >
          {{ sayTurns(fromSixteenths(u)) }}
        </button>
      </div>
      <div v-for="l in LOOKS" :key="l.label" class="mt-1 grid grid-cols-3 gap-1" role="group" :aria-label="l.label">
        <button
          v-for="k in l.keys"
          :key="k.test"
          type="button"
          class="also min-h-13! justify-center px-1! text-center text-sm leading-tight"
          :data-test="k.test"
          @click="look(k)"
        >
          {{ k.words }}
        </button>
      </div>
      <MeasureLink v-if="move.do === 'look'" :what="brake === 'front' ? 'frontPads' : 'rearPads'" />
      <ChoiceRow
        v-if="kind === 'dual-pivot'"
        v-model="screwSide"
        class="mt-1"
        label="Where the screw is"
        :choices="SCREW_SIDES"
        test="screw-side"
      />
    </section>
    <form
      v-if="kind !== 'coaster'"
      class="grid gap-2 border-t border-rule pt-2"
      novalidate
      aria-label="How close"
      data-test="closeness"
      @submit.prevent="close.form.handleSubmit()"
    >
      <div class="grid grid-cols-2 gap-2">
        <FormLine :of="close" name="barrel" label="Barrel, turns out" mono inputmode="decimal" /><FormLine
          :of="close"
          name="letOut"
          label="Let out, mm"
          mono
          inputmode="decimal"
        />
      </div>
      <LikeHere
        :run="`${brake}-brake`"
        :figure="`brake-barrel ${brake}`"
        @take="close.form.setFieldValue('barrel', String($event))"
      />
      <p v-if="closer.length" id="closer" class="label">Pads closer by</p>
      <div v-if="closer.length" class="-mt-2 grid grid-cols-3 gap-1" role="group" aria-labelledby="closer">
        <button
          v-for="c in closer"
          :key="c.mm"
          type="button"
          class="also min-h-14! flex-col items-start! justify-center! gap-0.5! px-2! leading-tight"
          :data-test="`closer-${c.mm}`"
          @click="bringCloser(c.sixteenths)"
        >
          {{ c.mm }} mm
          <span class="figure text-[0.8125rem] whitespace-nowrap text-out"
            >{{ sayTurns(fromSixteenths(c.sixteenths)) }} out</span
          >
        </button>
      </div>
      <p v-if="left !== null" class="small" data-test="wear-left">
        The thread left takes up {{ left.toFixed(1) }} mm of wear at each pad.
      </p>
      <button class="also justify-center" data-test="close">As the rider likes it</button>
      <p v-if="state.close" class="small" data-test="closed-at">
        Noted: barrel {{ sayTurns(fromSixteenths(state.close.barrelSixteenthsOut)) }} out{{
          state.close.letOutMm === null ? '' : `, ${state.close.letOutMm} mm let out`
        }}. New pads: barrel back in.
      </p>
    </form>
  </div>
</template>
