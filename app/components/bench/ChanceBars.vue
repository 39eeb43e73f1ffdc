<!-- What it can be, the likeliest first, each with its chance as a bar and a figure. -->
<script setup lang="ts">
import { sayChance } from '#core/quantity/chance'

const props = defineProps<{ faults: readonly { id: string; words: string; chance: number }[]; test: string }>()
const MOST = 6
const LEAST = 0.02
const shown = computed(() => props.faults.filter(f => f.chance >= LEAST).slice(0, MOST))
</script>

<template>
  <ul class="grid border-t border-rule pt-1" aria-label="What it can be">
    <li v-for="f in shown" :key="f.id" class="grid grid-cols-[1fr_4.5rem_3rem] items-center gap-2 leading-7">
      <span>{{ f.words }}</span
      ><span class="h-2 rounded-sm bg-ground"
        ><span class="block h-2 rounded-sm bg-ink" :style="{ width: `${Math.round(f.chance * 100)}%` }" /></span
      ><span class="figure text-right" :data-test="`${test}-${f.id}`">{{ sayChance(f.chance) }}</span>
    </li>
  </ul>
</template>
