<!-- A rear derailleur as an eye sees it from behind: cassette, chain, guide pulley and cage with its lean. No figures,
     no store, no physics. -->
<script setup lang="ts">
import { columnsAcross } from './columns'

const props = defineProps<{
  teeth: readonly number[]
  placeMm: readonly number[]
  pulleyMm: number
  /** Sprocket the chain lies on. */
  chain: number
  /** How far the cage leans over a hand's breadth, mm, + foot inboard. */
  leanMm: number
  barredFrom: number | null
  label: string
}>()
const W = useTrueWidth(320, 680)
const H = 330
const FOOT = 196
const THICK_MM = 1.7
const columns = computed(() => columnsAcross(props.placeMm, 0.13 * W.value, 0.84 * W.value))
const tall = (teeth: number) => 26 + (112 * (teeth - 8)) / (Math.max(...props.teeth) - 8)
const x = (mm: number) => (columns.value.at[0] ?? 0) - mm * columns.value.mmPx
const pulleyX = computed(() => x(props.pulleyMm))
const chainX = computed(() => columns.value.at[props.chain] ?? 0)
const chainTop = computed(() => FOOT - tall(props.teeth[props.chain] ?? 11))
/** The cage hangs from the guide pulley; its foot goes aside by its lean. */
const footX = computed(() => pulleyX.value - props.leanMm * columns.value.mmPx)
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="label"
  >
    <text x="14" y="22" font-size="14" fill="var(--mat-ink)">spokes</text>
    <text :x="W - 14" y="22" font-size="14" fill="var(--mat-ink)" text-anchor="end">frame</text>
    <text :x="W / 2" y="22" font-size="14" fill="var(--mat-soft)" text-anchor="middle">from behind, true across</text>
    <path :d="`M14 ${FOOT}H${W - 14}`" stroke="var(--mat-line)" stroke-width="2" />
    <g v-for="(t, k) in teeth" :key="k">
      <rect
        :x="columns.at[k]! - Math.max(5, (THICK_MM * columns.mmPx) / 2)"
        :width="Math.max(10, THICK_MM * columns.mmPx)"
        :y="FOOT - tall(t)"
        :height="tall(t)"
        rx="2"
        :fill="barredFrom !== null && k >= barredFrom ? 'var(--mat-mid)' : 'var(--bone)'"
      />
      <text
        :x="columns.at[k]"
        :y="FOOT - tall(t) - 8"
        text-anchor="middle"
        font-size="16"
        fill="var(--mat-ink)"
        class="figure"
        :font-weight="chain === k ? 700 : 400"
      >
        {{ t }}
      </text>
    </g>
    <path
      :d="`M${chainX} ${chainTop}V${FOOT + 4}L${pulleyX} ${FOOT + 34}`"
      class="moves"
      fill="none"
      stroke="var(--mat-ink)"
      stroke-width="7"
      stroke-linejoin="round"
      stroke-dasharray="9 4"
    />
    <path
      :d="`M${pulleyX - 7} ${FOOT + 34}L${footX - 7} ${H - 30}M${pulleyX + 7} ${FOOT + 34}L${footX + 7} ${H - 30}`"
      class="moves"
      stroke="var(--mat-soft)"
      stroke-width="4"
    />
    <rect :x="pulleyX - 4" :y="FOOT + 20" width="8" height="30" rx="2" fill="var(--mat-ink)" class="moves" />
    <rect :x="footX - 4" :y="H - 44" width="8" height="30" rx="2" fill="var(--mat-ink)" class="moves" />
  </svg>
</template>

<style scoped>
.moves {
  transition: all 180ms ease-out;
}
@media (prefers-reduced-motion: reduce) {
  .moves {
    transition: none;
  }
}
</style>
