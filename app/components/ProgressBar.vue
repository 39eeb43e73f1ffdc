<!-- How much of something is done, from 0 to 1. -->
<script setup lang="ts">
const { share, what } = defineProps<{ share: number; what: string }>()
</script>

<template>
  <p
    class="h-3 rounded-sm bg-rule"
    role="progressbar"
    :aria-label="what"
    :aria-valuenow="Math.round(100 * share)"
    aria-valuemin="0"
    aria-valuemax="100"
  >
    <span class="block h-3 rounded-sm bg-ink" :style="{ width: `${100 * share}%` }" />
  </p>
</template>
