<!-- What happened last, for who cannot see it; the hand that a gate waits for; and the list of keys. -->
<script setup lang="ts">
import type { Bench } from '~/composables/bench'

defineProps<{ bench: Bench }>()
</script>

<template>
  <p class="sr-only" aria-live="polite">{{ bench.said.value }}</p>
  <LazySignGate
    v-if="bench.signing.value"
    :what="bench.signing.value.what"
    :why="bench.signing.value.why"
    :own="bench.signing.value.own"
    @sign="bench.signed"
    @close="bench.leaveGate"
  />
  <LazyKeyList v-if="bench.keysShown.value" :bench="bench" />
</template>
