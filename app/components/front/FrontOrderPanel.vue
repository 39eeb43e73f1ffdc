<!-- The written order of setting a front derailleur, one touch a step. -->
<script setup lang="ts">
import { FRONT_ORDER_WORDS, FRONT_ORDERS, type FrontOrder } from '#core/procedure/frontOrders'
import { FRONT_STEPS, nextFrontStep } from '#core/front/orders'
import { whyOf } from '#core/procedure/schoolWhys'
import { asksFigure, frontStepsDone, type FrontState } from '#core/front/state'

const props = defineProps<{ state: FrontState }>()
const emit = defineEmits<{ step: [order: FrontOrder, step: string]; figure: [step: string] }>()
const order = defineModel<FrontOrder>('order', { required: true })
const ORDERS = FRONT_ORDERS.map(value => ({ value, words: FRONT_ORDER_WORDS[value] }))
const steps = computed(() => FRONT_STEPS[order.value])
const done = computed(() => frontStepsDone(props.state, order.value))
/** A step that asks a figure goes to where it is read; the others are ticked. */
const take = (step: string) => (asksFigure(step) ? emit('figure', step) : emit('step', order.value, step))
const next = computed(() => nextFrontStep(order.value, done.value))
</script>

<template>
  <ChoiceRow v-model="order" label="Which order" :choices="ORDERS" :columns="2" test="order" />
  <p class="small">{{ whyOf('front', order) }}</p>
  <ol class="grid">
    <li v-for="s in steps" :key="s.id" class="border-b border-rule">
      <button
        type="button"
        class="grid min-h-13 w-full gap-0.5 py-1.5 text-left"
        :disabled="done.includes(s.id) && !asksFigure(s.id)"
        :data-test="`front-step-${s.id}`"
        @click="take(s.id)"
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
