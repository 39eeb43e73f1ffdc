<!-- Rings, sprockets and cage from above, true across; the chosen pair's chain between them. No store, no physics. -->
<script setup lang="ts">
import { along } from './along'

const props = defineProps<{
  ringMm: readonly number[]
  rings: readonly number[]
  sprocketMm: readonly number[]
  teeth: readonly number[]
  cage: { from: number; to: number; behindMm: number } | null
  chainstayMm: number
  pair: { ring: number; sprocket: number; angleDeg: number } | null
}>()
const W = 690
const H = 250
/** Across is true; along is shortened, so that a chain's slant is seen: the scale says so. */
const y = computed(() => {
  const all = [...props.ringMm, ...props.sprocketMm]
  return along([Math.min(...all) - 8, Math.max(...all) + 8], [H - 30, 40])
})
const x = computed(() => along([0, props.chainstayMm], [120, W - 110]))
const ringHalf = (t: number) => 18 + t * 0.55
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="drawn block h-auto w-full"
    role="img"
    :aria-label="
      pair
        ? `Chain from the ${rings[pair.ring]} to the ${teeth[pair.sprocket]}: ${pair.angleDeg.toFixed(1)} degrees`
        : 'Rings and sprockets from above'
    "
  >
    <text x="14" y="20" font-size="14" fill="var(--mat-soft)">
      from above, outboard is up
      <tspan class="wide-only">(true across, shortened along)</tspan>
    </text>
    <text :x="W - 14" y="20" font-size="14" fill="var(--mat-soft)" text-anchor="end" class="figure">
      chainstay {{ chainstayMm }} mm
    </text>
    <g v-for="(r, i) in ringMm" :key="`r${i}`">
      <path
        :d="`M${x(0) - ringHalf(rings[i])} ${y(r)}H${x(0) + ringHalf(rings[i])}`"
        :stroke="pair?.ring === i ? 'var(--mat-ink)' : 'var(--mat-dim)'"
        :stroke-width="pair?.ring === i ? 6 : 4"
      />
      <text
        :x="x(0) - ringHalf(rings[i]) - 8"
        :y="y(r) + 5"
        text-anchor="end"
        font-size="15"
        fill="var(--mat-ink)"
        class="figure"
      >
        {{ rings[i] }}
      </text>
    </g>
    <g v-for="(s, k) in sprocketMm" :key="`s${k}`">
      <path
        :d="`M${x(chainstayMm) - 10 - teeth[k] * 0.5} ${y(s)}H${x(chainstayMm) + 10 + teeth[k] * 0.5}`"
        :stroke="pair?.sprocket === k ? 'var(--mat-ink)' : 'var(--mat-dim)'"
        :stroke-width="pair?.sprocket === k ? 5 : 2.5"
      />
      <text
        v-if="k === 0 || k === teeth.length - 1 || pair?.sprocket === k"
        :x="W - 14"
        :y="y(s) + 5"
        text-anchor="end"
        font-size="15"
        fill="var(--mat-ink)"
        class="figure"
      >
        {{ teeth[k] }}
      </text>
    </g>
    <g v-if="cage">
      <rect :x="x(0) - 6" :width="x(cage.behindMm) - x(0) + 12" :y="y(cage.to) - 3" height="3" fill="var(--mat-stop)" />
      <rect :x="x(0) - 6" :width="x(cage.behindMm) - x(0) + 12" :y="y(cage.from)" height="3" fill="var(--mat-stop)" />
    </g>
    <path
      v-if="pair"
      :d="`M${x(0)} ${y(ringMm[pair.ring])}L${x(chainstayMm)} ${y(sprocketMm[pair.sprocket])}`"
      stroke="var(--mat-clean)"
      stroke-width="3"
    />
    <text
      v-if="pair"
      :x="x(chainstayMm / 2)"
      :y="H - 8"
      text-anchor="middle"
      font-size="17"
      font-weight="700"
      fill="var(--mat-clean)"
      class="figure"
    >
      {{ rings[pair.ring] }} × {{ teeth[pair.sprocket] }}, {{ Math.abs(pair.angleDeg).toFixed(1) }}°
    </text>
  </svg>
</template>
