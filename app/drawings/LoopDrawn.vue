<!-- A housing's loop as it lies, its tightest bend marked; what it ends at goes into the slot. No store, no physics. -->
<script setup lang="ts">
import type { LoopAt } from '#core/cable/loop'

const props = defineProps<{
  loop: LoopAt | null
  /** The tightest that its housing may be bent, mm. */
  leastMm: number
  /** Where a place of it lies in the drawing. */
  at: (place: LoopAt['points'][number]) => readonly [number, number]
  width: number
  height: number
  /** How far below the tightest bend its figure stands. */
  figureBelow: number
}>()
const path = computed(() =>
  (props.loop?.points ?? [])
    .map((p, i) => {
      const [x, y] = props.at(p)
      return `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`
    })
    .join(''),
)
const tight = computed(() => {
  const l = props.loop
  if (!l) return null
  const [x, y] = props.at(l.points[Math.round(l.tightestAt * (l.points.length - 1))]!)
  return { x, y, ink: l.minRadiusMm < props.leastMm ? 'var(--mat-stop)' : 'var(--mat-clean)', mm: l.minRadiusMm }
})
</script>

<template>
  <g>
    <path v-if="loop" :d="path" fill="none" stroke="var(--mat-ink)" stroke-width="5" stroke-linecap="round" />
    <slot />
    <g v-if="tight">
      <circle :cx="tight.x" :cy="tight.y" r="11" fill="none" :stroke="tight.ink" stroke-width="3" />
      <text
        :x="Math.min(width - 90, tight.x + 18)"
        :y="tight.y + figureBelow"
        font-size="15"
        font-weight="700"
        :fill="tight.ink"
        class="figure"
      >
        {{ Math.round(tight.mm) }} mm
      </text>
    </g>
    <text
      v-if="!loop"
      :x="width / 2"
      :y="height - 16"
      text-anchor="middle"
      font-size="16"
      font-weight="700"
      fill="var(--mat-stop)"
    >
      too short: it pulls straight here
    </text>
  </g>
</template>
