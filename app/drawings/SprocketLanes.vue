<!-- Where everything is: the cassette from behind. True across, tooth heights are not. No store, no physics. -->
<script setup lang="ts">
import { columnsAcross } from './columns'

const props = defineProps<{
  width: number
  height: number
  teeth: readonly number[]
  placeMm: readonly number[]
  /** Where the pulley stands now, mm from the smallest sprocket; null while not known. */
  pulleyMm: number | null
  selected: number | null
  /** Sprockets at and beyond this are barred until L is seen. */
  barredFrom: number | null
  inset: number
}>()

const THICK_MM = 1.7
const columns = computed(() => columnsAcross(props.placeMm, props.inset, props.width - props.inset))
const floor = computed(() => props.height - 14)
/** What is written above stays clear of the largest sprocket's teeth, px. */
const HEAD = 42
const SHORTEST = 22
const tall = (teeth: number) => {
  const most = Math.max(...props.teeth)
  return SHORTEST + ((floor.value - HEAD - SHORTEST) * (teeth - 8)) / (most - 8)
}
const grid = computed(() => {
  const { mmPx } = columns.value
  const count = Math.floor((props.width - 16) / mmPx / 2)
  const middle = props.width / 2
  return Array.from({ length: count * 2 + 1 }, (_, i) => ({
    x: middle + (i - count) * mmPx,
    heavy: (i - count) % 5 === 0,
  }))
})
const pulleyX = computed(() =>
  props.pulleyMm === null ? null : (columns.value.at[0] ?? 0) - props.pulleyMm * columns.value.mmPx,
)
</script>

<template>
  <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true" class="block">
    <path
      v-for="line in grid"
      :key="line.x"
      :d="`M${line.x} 30V${floor}`"
      :stroke="line.heavy ? 'var(--mat-line)' : 'var(--mat-grid)'"
    />
    <g fill="var(--mat-soft)" font-size="13">
      <text x="14" y="20" fill="var(--mat-ink)">spokes</text>
      <text :x="width / 2" y="20" text-anchor="middle">seen from behind, 1 mm grid, true across</text>
      <text :x="width - 14" y="20" text-anchor="end" fill="var(--mat-ink)">frame</text>
    </g>
    <g v-for="(t, k) in teeth" :key="k">
      <rect
        :x="columns.at[k] - Math.max(5, (THICK_MM * columns.mmPx) / 2)"
        :width="Math.max(10, THICK_MM * columns.mmPx)"
        :y="floor - tall(t)"
        :height="tall(t)"
        rx="2"
        :fill="barredFrom !== null && k >= barredFrom ? 'var(--mat-mid)' : 'var(--bone)'"
      />
      <text
        :x="columns.at[k]"
        :y="floor - tall(t) - 6"
        text-anchor="middle"
        font-size="15"
        fill="var(--mat-ink)"
        class="figure"
        :font-weight="selected === k ? 600 : 400"
      >
        {{ t }}
      </text>
      <rect
        v-if="barredFrom !== null && k >= barredFrom"
        :x="columns.at[k] - 14"
        :y="floor - 6"
        width="28"
        height="6"
        fill="var(--mat-stop)"
      />
    </g>
    <g v-if="pulleyX !== null" class="pulley" :transform="`translate(${pulleyX} ${height - 7})`">
      <circle r="6" fill="none" stroke="var(--mat-ink)" stroke-width="2" />
      <path d="M0 -12v6" stroke="var(--mat-ink)" stroke-width="2" />
    </g>
  </svg>
</template>

<style scoped>
.pulley {
  transition: transform 200ms ease-out;
}
@media (prefers-reduced-motion: reduce) {
  .pulley {
    transition: none;
  }
}
</style>
