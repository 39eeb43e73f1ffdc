<!-- The arrivals of a pass, in the order they come: the one where it was not clean is touched. -->
<script setup lang="ts">
import type { PassArrival } from '#core/rear/arrivals'

const props = defineProps<{ arrivals: readonly PassArrival[]; teeth: readonly number[]; stoppedAt: number | null }>()
const emit = defineEmits<{ stop: [arrival: number] }>()
const ways = computed(() => {
  const first = props.arrivals[0]?.way
  return (['spokes', 'frame'] as const)
    .map(way => ({
      way,
      // as the sprockets stand above: the largest at the left
      cells: props.arrivals
        .flatMap((a, at) => (a.way === way ? [{ at, to: a.to, teeth: props.teeth[a.to]! }] : []))
        .sort((a, b) => b.to - a.to),
    }))
    .filter(w => w.cells.length)
    .sort(a => (a.way === first ? -1 : 1))
})
</script>

<template>
  <div class="grid gap-1" role="group" aria-label="Where it was not clean" data-test="pass-strip">
    <div v-for="w in ways" :key="w.way">
      <p class="small" :class="{ 'text-right': w.way === 'frame' }">
        {{ w.way === 'spokes' ? '◀ towards the spokes' : 'towards the frame ▷' }}
      </p>
      <div class="cells">
        <button
          v-for="c in w.cells"
          :key="c.at"
          type="button"
          class="figure cell"
          :class="{ past: stoppedAt !== null && c.at < stoppedAt }"
          :aria-pressed="c.at === stoppedAt"
          :aria-label="`Not clean on the ${c.teeth}, towards the ${w.way}`"
          :data-test="`stop-${c.at}`"
          @click="emit('stop', c.at)"
        >
          {{ c.teeth }}
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.cells {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 64px);
  gap: 2px;
}
.cell {
  min-height: 44px;
  min-width: 0;
  border: 2px solid var(--rule);
  border-radius: 5px;
  background: var(--panel);
  font-size: 0.9375rem;
  font-weight: 600;
}
.cell.past {
  border-color: var(--clean);
  color: var(--clean);
}
.cell[aria-pressed='true'] {
  border-color: var(--ink);
  background: var(--ink);
  color: var(--panel);
}
</style>
