<!-- Where winding the barrel began to rub: entered afterwards, three hands being too few. -->
<script setup lang="ts">
import { sayTurns } from '#core/quantity/turns'

const props = defineProps<{ way: 'out' | 'in'; limitTurns: number; chosen: number | null }>()
const emit = defineEmits<{ edge: [turns: number, found: boolean] }>()
const steps = computed(() => Array.from({ length: Math.round(props.limitTurns * 8) + 1 }, (_, i) => i / 8))
</script>

<template>
  <div>
    <p class="small">Turns {{ way }} when it began to rub:</p>
    <div class="mt-1 grid grid-cols-6 gap-1">
      <button
        v-for="t in steps"
        :key="t"
        type="button"
        class="also min-h-11! justify-center px-0! text-base whitespace-nowrap tabular-nums"
        :class="{ chosen: chosen !== null && Math.abs(t - chosen) < 0.01 }"
        :data-test="`edge-${t}`"
        @click="emit('edge', t, true)"
      >
        {{ t === 0 ? '0' : sayTurns(t) }}
      </button>
      <button
        type="button"
        class="also min-h-11! justify-center px-0! text-base"
        :aria-label="`No rub within ${sayTurns(steps.at(-1)!)} turns`"
        data-test="edge-none"
        @click="emit('edge', steps.at(-1)!, false)"
      >
        none
      </button>
    </div>
  </div>
</template>
