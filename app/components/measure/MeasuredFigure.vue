<!-- What touched pictures tell: the figure with its spread, and what else was seen on the way. -->
<script setup lang="ts">
import type { MeasureId } from '#core/sight/page'
import { sayLean, sayMeasured, sayView, type Told } from '#core/sight/tell'

const props = defineProps<{ what: MeasureId; told: Exclude<Told, { is: 'unusable' }> }>()
const pads = computed(() => ('pads' in props.told ? props.told.pads : undefined))
const NEARER = { left: 'Left pad nearer', right: 'Right pad nearer', even: 'Both alike' }
const said = computed(() => sayMeasured(props.what, props.told))
</script>

<template>
  <div aria-live="polite">
    <p class="figure text-3xl font-bold" data-test="measured">{{ said.mm }}</p>
    <p class="figure">± {{ said.off }} mm{{ pads ? ' between the two' : '' }}, 19 times in 20</p>
    <p v-if="pads" class="text-lg font-semibold" data-test="measured-pads">{{ NEARER[pads.nearer] }}</p>
    <p v-if="told.behind" class="small figure" data-test="measured-more">
      {{ sayLean(told.behind.leanDeg) }}; {{ sayView(told.behind.viewDeg.at(-1)!) }}
    </p>
  </div>
</template>
