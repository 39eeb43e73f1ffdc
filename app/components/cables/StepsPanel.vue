<!-- The job itself, one touch a step. -->
<script setup lang="ts">
import { L_FIRST } from '#core/rear/gates'
import { CABLE_STEPS_OF, stepsLeft, type CableStep } from '#core/cable/steps'

const props = defineProps<{ done: readonly CableStep[]; mayLargest: boolean; rear: boolean }>()
const emit = defineEmits<{ step: [step: CableStep] }>()
const left = computed(() => stepsLeft(props.done))
const shown = computed(() => CABLE_STEPS_OF.filter(s => !(s.instead && props.done.includes(s.instead))))
const barred = (step: CableStep) => step === 'bedded' && props.rear && !props.mayLargest
</script>

<template>
  <ol class="grid">
    <li v-for="s in shown" :key="s.step" class="border-b border-rule">
      <button
        type="button"
        class="grid min-h-13 w-full grid-cols-[1.75rem_1fr] items-center gap-x-2 py-1.5 text-left"
        :disabled="done.includes(s.step) || barred(s.step)"
        :data-test="`step-${s.step}`"
        @click="emit('step', s.step)"
      >
        <span
          class="grid size-6 place-items-center rounded border-2"
          :class="done.includes(s.step) ? 'border-clean bg-clean text-white' : 'border-soft'"
          aria-hidden="true"
          >{{ done.includes(s.step) ? '✓' : '' }}</span
        >
        <span
          :class="{
            'text-soft': done.includes(s.step),
            'font-bold': left[0] === s.step || (s.instead && left[0] === s.instead),
          }"
          >{{ s.what }}<span class="sr-only">{{ done.includes(s.step) ? ', done' : '' }}</span></span
        >
        <span v-if="left[0] === s.step" class="small col-start-2">{{ s.how }}</span>
        <span v-if="s.caution && left[0] === s.step" class="col-start-2 text-sm font-semibold text-stop">{{
          s.caution
        }}</span>
        <span v-if="barred(s.step)" class="small col-start-2">{{ L_FIRST }}.</span>
      </button>
    </li>
  </ol>
</template>
