<!-- Fitting in order, centring by what is seen, and how close the rider likes it. -->
<script setup lang="ts">
import { whyOf } from '#core/procedure/schoolWhys'
import { centringMove, hasCentring, sayScrewTurn, SIDES, type Nearer, type Side } from '#core/brake/centring'
import { BRAKE_STEPS } from '#core/brake/fitting'
import type { Brake, BrakeKind } from '#core/brake/kinds'
import type { BrakeState } from '#core/brake/state'
import { armRatio, wearLeftMm } from '#core/brake/sums'
import { schemaOf, type LedgerEvent } from '#core/ledger/events'
import { PADS } from '#core/procedure/schools'
import { fromSixteenths, sayTurns, toSixteenths } from '#core/quantity/turns'
import { typedNumber } from '#core/quantity/typed'
import { capital } from '#core/quantity/words'

const props = defineProps<{ brake: Brake; kind: BrakeKind; state: BrakeState; pads: (typeof PADS)[number] }>()
const emit = defineEmits<{ put: [event: LedgerEvent]; pads: [id: string] }>()
const { standards } = storeToRefs(useLedger())
const steps = computed(() => BRAKE_STEPS[props.kind] ?? [])
const next = computed(() => steps.value.find(s => !props.state.steps.includes(s.id)) ?? null)
const screwSide = ref<Side>('right')
const move = computed(() => centringMove(props.kind, props.state.centring, screwSide.value))
const SEEN: readonly [Nearer, string][] = [
  ['left', 'Left pad nearer'],
  ['even', 'Both alike'],
  ['right', 'Right pad nearer'],
]
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
        @update:model-value="id => id && emit('pads', id)"
      />
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
      <div class="mt-1 grid grid-cols-3 gap-1">
        <button
          v-for="[id, words] in SEEN"
          :key="id"
          type="button"
          class="also min-h-13! justify-center px-1! text-center text-sm leading-tight"
          :data-test="`nearer-${id}`"
          @click="emit('put', { kind: 'brakeNearer', brake, nearer: id })"
        >
          {{ words }}
        </button>
      </div>
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
