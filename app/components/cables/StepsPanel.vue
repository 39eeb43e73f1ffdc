<!-- The job itself, one touch a step. -->
<script setup lang="ts">
import { L_FIRST } from '#core/rear/gates'
import type { RunName } from '#core/cable/housing'
import type { CableStep } from '#core/cable/stepNames'
import { nextStep, stepsOf, type Fitting } from '#core/cable/steps'

const props = defineProps<{
  run: RunName
  /** What hangs on it, and the school of the inner. */
  fitting: Fitting
  done: readonly CableStep[]
  mayLargest: boolean
  rear: boolean
}>()
const emit = defineEmits<{ step: [step: CableStep] }>()
const shown = computed(() => stepsOf(props.run, props.fitting, props.done))
const next = computed(() => nextStep(props.run, props.done, props.fitting))
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
            'font-bold': next === s.step,
          }"
          >{{ s.what }}<span class="sr-only">{{ done.includes(s.step) ? ', done' : '' }}</span></span
        >
        <span v-if="next === s.step" class="small col-start-2">{{ s.how }}</span>
        <span v-if="s.caution && next === s.step" class="col-start-2 text-sm font-semibold text-stop">{{
          s.caution
        }}</span>
        <span v-if="barred(s.step)" class="small col-start-2">{{ L_FIRST }}.</span>
      </button>
    </li>
  </ol>
</template>
