<!-- The lever drawn by a finger, 0 to its whole stroke. -->
<script setup lang="ts">
const share = defineModel<number>({ required: true })
</script>

<template>
  <label class="label"
    >Draw the lever<input
      v-model.number="share"
      type="range"
      min="0"
      max="1"
      step="0.01"
      class="mt-2 h-11 w-full accent-ink"
      data-test="draw"
  /></label>
</template>
