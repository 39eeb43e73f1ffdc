<!-- A count on one gear: cranks round so often, what did the wheel do; what it names shows as it is typed. -->
<script setup lang="ts">
import type { HubParts } from '#core/hub/kinds'
import { turnsToSettle, wheelTurnsOf } from '#core/hub/ratio'
import { sayCount } from '#core/hub/words'
import { typedNumber } from '#core/quantity/typed'
import { useEventListener } from '@vueuse/core'
import { FIGURE_TYPED } from '~/composables/benchKeys'

const props = defineProps<{ parts: HubParts; gear: number }>()
const emit = defineEmits<{ count: [gear: number, crankTurns: number, wheelTurns: number | null] }>()
const settles = computed(() => turnsToSettle(props.parts, props.gear))
const cranks = ref(String(Math.max(5, settles.value)))
const wheel = ref('')
const crankTurns = computed(() => typedNumber(cranks.value))
const wheelTurns = computed(() => typedNumber(wheel.value))
const trouble = computed(() => {
  if (!Number.isInteger(crankTurns.value) || crankTurns.value < 1 || crankTurns.value > 50)
    return 'Crank turns: whole turns from 1 to 50'
  if (wheel.value.trim() === '') return null
  if (!(wheelTurns.value > 0)) return 'Wheel turns: more than 0; a wheel that does not turn slips, say so'
  return wheelTurns.value > 300 ? 'Wheel turns: at most 300' : null
})
const reads = computed(() =>
  trouble.value || wheel.value.trim() === ''
    ? null
    : sayCount(props.parts, { gear: props.gear, crankTurns: crankTurns.value, wheelTurns: wheelTurns.value }),
)
const expected = computed(() =>
  trouble.value?.startsWith('Crank') ? null : wheelTurnsOf(props.parts, props.gear, crankTurns.value),
)
useEventListener(FIGURE_TYPED, typed => {
  wheel.value = String(typed.detail)
  send()
})
function send() {
  if (trouble.value || wheel.value.trim() === '') return
  emit('count', props.gear, crankTurns.value, wheelTurns.value)
  wheel.value = ''
}
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="send">
    <div class="grid grid-cols-2 gap-2">
      <TextField v-model="cranks" label="Crank turns, slow" mono inputmode="numeric" /><TextField
        v-model="wheel"
        label="Wheel turns, to a tenth"
        mono
        inputmode="decimal"
      />
    </div>
    <p v-if="trouble" class="text-sm font-semibold text-stop" role="alert" data-test="count-trouble">{{ trouble }}</p>
    <p v-else class="min-h-6 font-semibold" data-test="count-reads">
      {{
        reads ??
        (expected
          ? `Right would be ${expected.toFixed(1)}; ${settles} ${settles === 1 ? 'turn tells' : 'turns tell'} it from its neighbours`
          : '')
      }}
    </p>
    <div class="grid grid-cols-2 gap-2">
      <button
        class="also min-h-13! justify-center"
        :disabled="wheel.trim() === '' || trouble !== null"
        data-test="count-note"
      >
        Note it</button
      ><button
        type="button"
        class="also min-h-13! justify-center border-stop! text-stop!"
        :disabled="trouble?.startsWith('Crank')"
        data-test="count-slips"
        @click="emit('count', gear, crankTurns, null)"
      >
        Slips, no gear
      </button>
    </div>
  </form>
</template>
