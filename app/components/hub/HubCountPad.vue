<!-- A count on one gear: cranks round so often, what did the wheel do; what it names shows as it is typed. -->
<script setup lang="ts">
import type { HubParts } from '#core/hub/kinds'
import { turnsToSettle, wheelTurnsOf } from '#core/hub/ratio'
import { sayCount } from '#core/hub/words'
import { schemaOf } from '#core/ledger/events'
import { typedNumber } from '#core/quantity/typed'
import { countOf } from '#core/quantity/words'

const props = defineProps<{ parts: HubParts; gear: number; live: boolean }>()
const emit = defineEmits<{ count: [gear: number, crankTurns: number, wheelTurns: number | null, neutral?: boolean] }>()
const settles = computed(() => turnsToSettle(props.parts, props.gear))
/** Cranks turned at least, so that a tenth of the wheel tells. `practice` */
const LEAST_TURNS = 5
const schema = schemaOf('hubCount')
const read = (typed: { crankTurns: string; wheelTurns: string }, slips = false) => ({
  kind: 'hubCount',
  gear: props.gear,
  crankTurns: typedNumber(typed.crankTurns),
  wheelTurns: slips ? null : typedNumber(typed.wheelTurns),
})
const count = useEntryForm({
  initial: { crankTurns: String(Math.max(LEAST_TURNS, settles.value)), wheelTurns: '' },
  schema,
  read,
  done: event => {
    emit('count', event.gear, event.crankTurns, event.wheelTurns)
    count.form.reset()
  },
})
const typed = count.form.useStore(s => s.values)
const reads = computed(() => {
  const now = schema.safeParse(read(typed.value))
  return now.success ? sayCount(props.parts, now.data) : null
})
/** Slipped, or found no gear: only the cranks were counted. */
const slip = computed(() => schema.safeParse(read(typed.value, true)))
const expected = computed(() =>
  slip.value.success ? wheelTurnsOf(props.parts, props.gear, slip.value.data.crankTurns) : null,
)
useFigureTyped(text => {
  count.form.setFieldValue('wheelTurns', text)
  void count.form.handleSubmit()
})
const slips = (neutral: boolean) => {
  if (slip.value.success) emit('count', props.gear, slip.value.data.crankTurns, null, neutral)
}
const NO_GEAR = [
  ['slips', 'Slips', false],
  ['neutral', 'Neutral', true],
] as const
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="count.form.handleSubmit()">
    <div class="grid grid-cols-2 gap-2">
      <FormLine :of="count" name="crankTurns" label="Crank turns, slow" mono inputmode="numeric" /><FormLine
        :of="count"
        name="wheelTurns"
        label="Wheel turns, to a tenth"
        mono
        inputmode="decimal"
      />
    </div>
    <p class="min-h-6 font-semibold" data-test="count-reads">
      {{
        reads ??
        (expected
          ? `Right would be ${expected.toFixed(1)}; ${countOf(settles, 'turn tells', 'turns tell')} it from its neighbours`
          : '')
      }}
    </p>
    <div class="grid grid-cols-3 gap-2">
      <button class="also min-h-13! justify-center" data-test="count-note">Note it</button
      ><button
        v-for="[id, words, neutral] in NO_GEAR"
        :key="id"
        type="button"
        class="also min-h-13! justify-center border-stop! text-stop!"
        :disabled="!slip.success"
        :aria-disabled="!live"
        :data-test="`count-${id}`"
        @click="slips(neutral)"
      >
        {{ words }}
      </button>
    </div>
    <p class="small">Slips: it gives way under load. Neutral: the cranks turn free.</p>
  </form>
</template>
