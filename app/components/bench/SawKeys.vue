<!-- What a look may show, a key each, and "don't know". -->
<script setup lang="ts">
import { UNKNOWN } from '#core/chapter/looks'

defineProps<{ outcomes: readonly (readonly [id: string, words: string])[]; live: boolean; test: string }>()
const emit = defineEmits<{ saw: [outcome: string] }>()
</script>

<template>
  <div class="grid gap-1">
    <button
      v-for="([id, words], i) in outcomes"
      :key="id"
      type="button"
      class="also min-h-12! leading-tight"
      :class="{ 'text-clean': i === 0 }"
      :aria-disabled="!live"
      :data-test="`${test}-${id}`"
      @click="emit('saw', id)"
    >
      {{ words }} <kbd class="key">{{ i + 1 }}</kbd>
    </button>
    <button
      type="button"
      class="quiet min-h-11 text-left"
      :aria-disabled="!live"
      :data-test="`${test}-unknown`"
      @click="emit('saw', UNKNOWN)"
    >
      Don’t know
    </button>
  </div>
</template>
