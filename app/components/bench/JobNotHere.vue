<!-- A job whose log is not here: still being read, unknown, or out of reach. -->
<script setup lang="ts">
import type { Bench } from '~/composables/bench'

defineProps<{ bench: Bench }>()
</script>

<template>
  <div class="p-6">
    <p v-if="bench.loaded.value === 'loading'">Reading the log</p>
    <template v-else>
      <p class="stopped" role="alert">
        {{
          bench.loaded.value === 'missing'
            ? `There is no job ${bench.number} here.`
            : `${OFFLINE_WORDS}. This job has not been opened on this device before.`
        }}
      </p>
      <NuxtLink to="/" class="act mt-4 max-w-sm">To the Floor</NuxtLink>
    </template>
  </div>
</template>
