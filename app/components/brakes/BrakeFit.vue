<!-- Fitting in order, centring by what is seen, and how close the rider likes it. -->
<script setup lang="ts">
import { centringMove, hasCentring, SIDES, type Nearer, type Side } from '#core/brake/centring'
import { BRAKE_STEPS } from '#core/brake/fitting'
import type { Brake } from '#core/brake/kinds'
import type { BrakeState } from '#core/brake/state'
import { BRAKE_BARREL, wearLeftMm } from '#core/brake/sums'
import { ARM_RATIO } from '#core/brake/kinds'
import type { LedgerEvent } from '#core/ledger/events'
import { PADS } from '#core/procedure/schools'
import { sayTurns } from '#core/quantity/turns'
import { typedNumber } from '#core/quantity/typed'

const props = defineProps<{ brake: Brake; state: BrakeState; pads: (typeof PADS)[number] }>()
const emit = defineEmits<{ put: [event: LedgerEvent]; pads: [id: string] }>()
const kind = computed(() => props.state.parts!.kind)
const steps = computed(() => BRAKE_STEPS[kind.value] ?? [])
const next = computed(() => steps.value.find(s => !props.state.steps.includes(s.id)) ?? null)
const screwSide = ref<Side>('right')
const move = computed(() => centringMove(kind.value, props.state.centring, screwSide.value))
const SEEN: readonly [Nearer, string][] = [
  ['left', 'Left pad nearer'],
  ['even', 'Both alike'],
  ['right', 'Right pad nearer'],
]
const turn = computed(() => (move.value.do === 'turn' ? move.value.turn : null))
const sayTurn = (t: { side: Side; sixteenths: number }) =>
  `${t.side} screw ${sayTurns(Math.abs(t.sixteenths) / 16)} turn ${t.sixteenths > 0 ? 'in' : 'out'}`
const barrel = ref(String((props.state.close?.barrelSixteenthsOut ?? 0) / 16))
const letOut = ref(
  props.state.close?.letOutMm === null || props.state.close === null ? '' : String(props.state.close.letOutMm),
)
const trouble = ref('')
const left = computed(() => {
  try {
    return ARM_RATIO[kind.value] === undefined ? null : wearLeftMm(kind.value, typedNumber(barrel.value))
  } catch {
    return null
  }
})
watch([barrel, letOut], () => {
  trouble.value = ''
})
function close() {
  const turns = typedNumber(barrel.value)
  const mm = letOut.value.trim() === '' ? null : typedNumber(letOut.value)
  if (!(turns >= 0 && turns <= BRAKE_BARREL.turns))
    return void (trouble.value = `Barrel: from 0 to ${BRAKE_BARREL.turns} turns out`)
  if (mm !== null && !(mm >= 0 && mm <= 25)) return void (trouble.value = 'Let out: from 0 to 25 mm of cable')
  trouble.value = ''
  emit('put', { kind: 'brakeClose', brake: props.brake, barrelSixteenthsOut: Math.round(turns * 16), letOutMm: mm })
}
</script>

<template>
  <div class="grid gap-3">
    <section aria-label="Fitting in order">
      <p class="text-2xl leading-tight font-bold" data-test="fit-next">
        {{ next ? next.what : 'All fitted: prove it' }}
      </p>
      <p v-if="next" class="leading-snug">{{ next.how }}</p>
      <p v-if="next?.id === 'pads'" class="font-semibold">{{ pads.name }}: {{ pads.why }}</p>
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
      <div
        v-if="steps.some(s => s.id === 'pads')"
        class="mt-1 grid grid-cols-2 gap-1"
        role="group"
        aria-label="School of pads"
      >
        <button
          v-for="p in PADS"
          :key="p.id"
          type="button"
          class="also min-h-11! justify-center px-1! text-sm"
          :class="{ 'bg-act! text-act-ink!': pads.id === p.id }"
          :aria-pressed="pads.id === p.id"
          :data-test="`pads-${p.id}`"
          @click="emit('pads', p.id)"
        >
          {{ p.name }}
        </button>
      </div>
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
                : sayTurn(move.turn).replace(/^./, c => c.toUpperCase())
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
      <div v-if="kind === 'dual-pivot'" class="mt-1 grid grid-cols-2 gap-1">
        <button
          v-for="s in SIDES"
          :key="s"
          type="button"
          class="also min-h-11! justify-center text-sm"
          :class="{ 'bg-act! text-act-ink!': screwSide === s }"
          :aria-pressed="screwSide === s"
          @click="screwSide = s"
        >
          Screw on the {{ s }}
        </button>
      </div>
    </section>
    <form
      v-if="kind !== 'coaster'"
      class="grid gap-2 border-t border-rule pt-2"
      novalidate
      aria-label="How close"
      @submit.prevent="close"
    >
      <div class="grid grid-cols-2 gap-2">
        <TextField v-model="barrel" label="Barrel, turns out" mono inputmode="decimal" /><TextField
          v-model="letOut"
          label="Let out, mm"
          mono
          inputmode="decimal"
        />
      </div>
      <p v-if="trouble" class="text-sm font-semibold text-stop" role="alert" data-test="close-trouble">{{ trouble }}</p>
      <p v-else-if="left !== null" class="small" data-test="wear-left">
        The thread left takes up {{ left.toFixed(1) }} mm of wear at each pad.
      </p>
      <button class="also justify-center" data-test="close">As the rider likes it</button>
      <p v-if="state.close" class="small" data-test="closed-at">
        Noted: barrel {{ sayTurns(state.close.barrelSixteenthsOut / 16) }} out{{
          state.close.letOutMm === null ? '' : `, ${state.close.letOutMm} mm let out`
        }}. New pads: barrel back in.
      </p>
    </form>
  </div>
</template>
