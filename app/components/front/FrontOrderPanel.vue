<!-- The written order of setting a front derailleur, one touch a step. -->
<script setup lang="ts">
import { FRONT_ORDERS, FRONT_STEPS, nextFrontStep, type FrontOrder } from '#core/front/orders'
import type { FrontState } from '#core/front/state'

const props = defineProps<{ state: FrontState }>()
const emit = defineEmits<{ step: [order: FrontOrder, step: string] }>()
const order = defineModel<FrontOrder>('order', { required: true })
const ORDERS = FRONT_ORDERS.map(value => ({ value, words: value }))
const steps = computed(() => FRONT_STEPS[order.value])
const done = computed(() => props.state.steps[order.value] ?? [])
const next = computed(() => nextFrontStep(order.value, done.value))
</script>

<template>
  <ChoiceRow v-model="order" label="Which order" :choices="ORDERS" test="order" />
  <ol class="grid">
    <li v-for="s in steps" :key="s.id" class="border-b border-rule">
      <button
        type="button"
        class="grid min-h-13 w-full gap-0.5 py-1.5 text-left"
        :disabled="done.includes(s.id)"
        :data-test="`front-step-${s.id}`"
        @click="emit('step', order, s.id)"
      >
        <span :class="done.includes(s.id) ? 'text-soft' : 'font-bold'"
          >{{ done.includes(s.id) ? '✓ ' : '' }}{{ s.what }}
          <span class="small font-normal">cable {{ s.cable }}</span></span
        ><span v-if="s.id === next?.id" class="text-[0.9375rem] leading-snug">{{ s.how }}</span
        ><span v-if="s.caution && s.id === next?.id" class="text-sm font-semibold text-stop">{{ s.caution }}</span>
      </button>
    </li>
  </ol>
</template>
