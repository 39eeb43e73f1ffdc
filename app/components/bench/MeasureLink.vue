<!-- The way to measuring a figure in a photograph, instead of by eye. -->
<script setup lang="ts">
import type { MeasureId } from '#core/sight/page'

defineProps<{ what: MeasureId }>()
const { number } = storeToRefs(useLedger())
</script>

<template>
  <NuxtLink
    :to="{ path: `/jobs/${number}/measure`, query: { what } }"
    class="quiet justify-start text-[0.9375rem] underline"
    data-test="measure-link"
    >Measure it in a photograph</NuxtLink
  >
</template>
