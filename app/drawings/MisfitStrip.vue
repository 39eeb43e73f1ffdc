<!-- What is wrong: each gear's error in mm, by the way of arriving, over the band that is clean. No store, no physics.
  -->
<script setup lang="ts">
import { along } from './along'
import type { GearBelief, Spread } from '#core/advice/know'
import { columnsAcross } from './columns'

type Stop = { seen: boolean; offset: Spread }
const props = defineProps<{
  width: number
  height: number
  placeMm: readonly number[]
  gears: readonly GearBelief[]
  stops: { H: Stop; L: Stop } | null
  inset: number
  /** Without words and scale, for the Floor. */
  small?: boolean
}>()

const columns = computed(() => columnsAcross(props.placeMm, props.inset, props.width - props.inset))
/** Reach of the scale, mm, and where its lines lie. */
const STEPS = [1, 1.5, 2, 3, 4, 6]
const lines = computed(() => {
  const mm = reach.value <= 1 ? 0.5 : reach.value <= 2 ? 1 : reach.value <= 4 ? 2 : 4
  return [mm, 0, -mm]
})
const reach = computed(() => {
  const means = props.gears.flatMap(g => [g.inMm, g.outMm].flatMap(s => (s ? [Math.abs(s.mean)] : [])))
  const need = Math.max(0.9, ...means) + 0.1
  return STEPS.find(s => s >= need) ?? 6
})
const top = computed(() => (props.small ? 6 : 30))
const bottom = computed(() => props.height - (props.small ? 6 : 8))
const y = computed(() => along([reach.value, -reach.value], [top.value, bottom.value], true))
const half = computed(() => Math.min(30, columns.value.stepPx / 2))
const size = computed(() => Math.min(9, half.value * 0.52))
const spoke = (x: number, at: number) =>
  `M${x + size.value} ${at - size.value}v${2 * size.value}l${-1.9 * size.value} ${-size.value}z`
const frame = (x: number, at: number) =>
  `M${x - size.value} ${at - size.value}v${2 * size.value}l${1.9 * size.value} ${-size.value}z`
const last = computed(() => props.placeMm.length - 1)
const say = (mm: number) => `${mm > 0 ? '+' : mm < 0 ? '−' : ''}${Math.abs(mm)}`
</script>

<template>
  <svg :width="width" :height="height" :viewBox="`0 0 ${width} ${height}`" aria-hidden="true" class="block">
    <g v-if="!small" font-size="13" fill="var(--mat-soft)">
      <text x="14" y="18">pulley past the sprocket, mm · + to the spokes</text>
      <path :d="`M${width - 262} 14l12 -6v12z`" fill="var(--mat-ink)" />
      <text :x="width - 245" y="18" fill="var(--mat-ink)">to the spokes</text>
      <path :d="`M${width - 132} 8v12l12 -6z`" fill="none" stroke="var(--mat-ink)" stroke-width="1.5" />
      <text :x="width - 114" y="18" fill="var(--mat-ink)">to the frame</text>
    </g>
    <rect
      v-for="(g, k) in gears"
      :key="`band${k}`"
      :x="columns.at[k] - columns.stepPx / 2"
      :width="columns.stepPx"
      :y="y(g.cleanMm.to)"
      :height="Math.max(0, y(g.cleanMm.from) - y(g.cleanMm.to))"
      fill="var(--mat-band)"
    />
    <path :d="`M${inset - half} ${y(0)}H${width - inset + half}`" stroke="var(--mat-dim)" />
    <g v-if="!small" class="figure" font-size="13" fill="var(--mat-soft)">
      <g v-for="mm in lines" :key="mm">
        <path v-if="mm !== 0" :d="`M${inset - half} ${y(mm)}H${width - inset + half}`" stroke="var(--mat-grid)" />
        <text :x="inset - half - 6" :y="y(mm) + 4" text-anchor="end">{{ say(mm) }}</text>
      </g>
    </g>
    <g v-for="(g, k) in gears" :key="k">
      <template v-if="g.outMm">
        <path
          v-if="!small"
          :d="`M${columns.at[k] + 4} ${y(g.outMm.low)}V${y(g.outMm.high)}`"
          stroke="var(--mat-dim)"
          stroke-width="2"
        />
        <path
          class="mark"
          :d="frame(columns.at[k] + (small ? 0 : 4), y(g.outMm.mean))"
          fill="var(--mat)"
          stroke="var(--mat-ink)"
          stroke-width="2"
        />
      </template>
      <template v-if="g.inMm">
        <path
          v-if="!small"
          :d="`M${columns.at[k] - 4} ${y(g.inMm.low)}V${y(g.inMm.high)}`"
          stroke="var(--mat-dim)"
          stroke-width="2"
        />
        <path class="mark" :d="spoke(columns.at[k] - (small ? 0 : 4), y(g.inMm.mean))" fill="var(--mat-ink)" />
      </template>
    </g>
    <g v-if="stops && !small" font-size="15" font-weight="700" fill="var(--mat-stop)">
      <g
        v-for="s in [
          { k: last, of: stops.L, name: 'L' },
          { k: 0, of: stops.H, name: 'H' },
        ]"
        :key="s.name"
      >
        <path
          v-if="s.of.seen"
          :d="`M${columns.at[s.k] - half + 3} ${y(s.of.offset.mean)}h${2 * half - 6}`"
          stroke="var(--mat-stop)"
          stroke-width="6"
        />
        <path
          v-else
          :d="`M${columns.at[s.k] - half + 3} ${y(s.of.offset.mean)}h${2 * half - 6}`"
          stroke="var(--mat-stop)"
          stroke-width="2"
          stroke-dasharray="4 4"
        />
        <text
          :x="columns.at[s.k] + (s.name === 'L' ? 1 : -1) * (half + 2)"
          :y="Math.max(top + 14, Math.min(bottom - 2, y(s.of.offset.mean) + (s.name === 'L' ? -8 : 18)))"
          :text-anchor="s.name === 'L' ? 'end' : 'start'"
        >
          {{ s.name }}
        </text>
      </g>
    </g>
  </svg>
</template>

<style scoped>
.mark {
  transition: d 200ms ease-out;
}
@media (prefers-reduced-motion: reduce) {
  .mark {
    transition: none;
  }
}
</style>
