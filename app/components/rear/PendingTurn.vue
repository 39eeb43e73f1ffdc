<!-- What was wound with the bracket keys and is not noted yet. -->
<script setup lang="ts">
import { SCREW_WORDS } from '#core/chapter/screws'
import { sayTurns } from '#core/quantity/turns'
import type { RearBench } from '~/composables/rearBench'

const props = defineProps<{ rear: RearBench }>()
const { pending, screw } = props.rear
const way = computed(() => (pending.value > 0 ? 'out' : 'in'))
</script>

<template>
  <div v-if="pending" class="mb-3 rounded-md border-2 border-ink p-3" data-test="pending">
    <p class="font-bold" :class="way === 'out' ? 'text-out' : 'text-in'">
      {{ SCREW_WORDS[screw] }} {{ way }} {{ sayTurns(pending / 8) }}
    </p>
    <div class="mt-2 flex gap-2">
      <button type="button" class="act flex-1" @click="rear.logPending">Log it <kbd class="key">Enter</kbd></button
      ><button type="button" class="also" @click="pending = 0">Drop</button>
    </div>
  </div>
</template>
