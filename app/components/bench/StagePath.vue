<!-- The stages as one run of cable from lever to derailleur. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import { staysBecause } from '#core/ledger/reduce'

const props = defineProps<{ state: JobState; number: number; right: number | null; here: 'rear' | 'sheet' }>()
const stages = computed(() => {
  const { trace, handedBack } = props.state
  const stops = Boolean(trace?.seenL && trace.seenH)
  const index = (props.right ?? 0) >= 0.88
  return [
    { name: 'Taken in', done: true, to: null },
    { name: 'Stops seen', done: stops, to: `/jobs/${props.number}/rear` },
    { name: 'Index', done: index, to: `/jobs/${props.number}/rear` },
    { name: 'Brakes proven', done: staysBecause(props.state) === null, to: `/jobs/${props.number}/sheet` },
    { name: 'Hand back', done: handedBack !== null, to: `/jobs/${props.number}/sheet` },
  ]
})
const current = computed(() => {
  if (props.state.handedBack) return stages.value.length - 1
  const first = stages.value.findIndex(s => !s.done)
  return props.here === 'sheet' ? Math.max(3, first) : Math.min(first < 0 ? 2 : first, 2)
})
</script>

<template>
  <ol class="path">
    <li v-for="(s, i) in stages" :key="s.name" :class="{ done: s.done }" :aria-current="i === current ? 'step' : undefined">
      <span class="bead" aria-hidden="true" />
      <NuxtLink v-if="s.to" :to="s.to" class="flex min-h-9 items-center" :class="i === current ? 'font-bold' : 'text-soft'">{{ s.name }}<span class="sr-only">{{ s.done ? ', done' : '' }}</span></NuxtLink>
      <span v-else class="text-soft flex min-h-9 items-center">{{ s.name }}</span>
    </li>
  </ol>
</template>

<style scoped>
.path li { position: relative; padding-left: 32px; }
.path li::before { content: ''; position: absolute; left: 7px; top: -18px; height: 36px; width: 3px; background: var(--rule); }
.path li:first-child::before { display: none; }
.path li.done::before { background: var(--ink); }
.bead { position: absolute; left: 1px; top: 9px; width: 15px; height: 18px; border: 3px solid var(--rule); border-radius: 4px; background: var(--ground); }
.done .bead { background: var(--ink); border-color: var(--ink); }
[aria-current='step'] .bead { border-color: var(--ink); }
</style>
