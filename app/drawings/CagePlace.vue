<!-- Cage over the big ring from the side, its height to scale, and from above, its turn as measured. No store, no
     physics. -->
<script setup lang="ts">
import { tipDiameterMm } from '#core/standards/sprockets'

const props = defineProps<{
  teeth: number
  heightMm: number | null
  angleDeg: number | null
  wanted: { from: number; to: number }
  marks: boolean
}>()
const W = 690
const H = 300
const PX = 9 // px a mm across the gap
const tips = 200 // where the ring's tips stand, px from the top
const height = computed(() => Math.max(-4, Math.min(14, props.heightMm ?? 2)))
const turn = computed(() => Math.max(-12, Math.min(12, props.angleDeg ?? 0)))
const arc = computed(() => {
  const r = (tipDiameterMm(props.teeth) / 2) * 3
  return `M20 ${tips + r - Math.sqrt(r * r - 150 * 150)}A${r} ${r} 0 0 1 320 ${tips + r - Math.sqrt(r * r - 150 * 150)}V${H}H20Z`
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="block h-auto w-full"
    role="img"
    :aria-label="`Outer plate ${heightMm === null ? 'not measured' : `${heightMm.toFixed(1)} mm`} over the ${teeth}, wanted ${wanted.from} to ${wanted.to}; cage ${angleDeg === null ? 'not measured' : `turned ${angleDeg.toFixed(1)}°`}`"
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">
      from the side: outer plate over the {{ teeth }}, height to scale
    </text>
    <path :d="arc" fill="var(--bone)" />
    <rect
      x="20"
      width="300"
      :y="tips - wanted.to * PX"
      :height="(wanted.to - wanted.from) * PX"
      fill="var(--mat-clean)"
      opacity="0.5"
    />
    <text x="26" :y="tips - wanted.to * PX - 6" font-size="13" fill="var(--mat-clean)">
      {{ wanted.from }}–{{ wanted.to }} mm
    </text>
    <g class="plate" :style="{ transform: `translateY(${tips - height * PX}px)` }">
      <path
        d="M90 0V-90Q90 -110 112 -110H228Q250 -110 250 -90V0Q170 12 90 0Z"
        :fill="heightMm === null ? 'none' : 'var(--mat-ink)'"
        stroke="var(--mat-ink)"
        stroke-width="2"
        :stroke-dasharray="heightMm === null ? '5 5' : undefined"
        fill-opacity="0.9"
      />
      <text
        x="170"
        y="-46"
        font-size="26"
        text-anchor="middle"
        :fill="heightMm === null ? 'var(--mat-ink)' : 'var(--night)'"
        class="figure"
        font-weight="600"
      >
        {{ heightMm === null ? '?' : heightMm.toFixed(1) }}
      </text>
    </g>
    <path :d="`M345 30V${H - 16}`" stroke="var(--mat-line)" />
    <text x="360" y="20" font-size="13" fill="var(--mat-soft)">
      from above: {{ marks ? 'both marks in line with the ring' : 'plates in line with the rings' }}, ×2
    </text>
    <path d="M365 190H675" stroke="var(--mat-dim)" stroke-width="5" />
    <text x="520" y="212" font-size="13" fill="var(--mat-soft)" text-anchor="middle">the big ring</text>
    <g class="plate" :style="{ transform: `translate(520px, 130px) rotate(${-2 * turn}deg)` }">
      <path
        d="M-100 -34H80Q100 -34 108 -26M-100 34H80Q100 34 108 26"
        fill="none"
        stroke="var(--mat-ink)"
        stroke-width="6"
        :stroke-dasharray="angleDeg === null ? '8 6' : undefined"
      />
      <path v-if="marks" d="M-70 34V44M70 34V44" stroke="var(--mat-ink)" stroke-width="4" />
    </g>
    <text x="520" y="262" font-size="26" fill="var(--mat-ink)" text-anchor="middle" class="figure" font-weight="600">
      {{ angleDeg === null ? '?' : `${Math.abs(angleDeg).toFixed(1)}°` }}
    </text>
    <text x="520" y="284" font-size="13" fill="var(--mat-soft)" text-anchor="middle">
      {{
        angleDeg === null
          ? 'not looked at'
          : Math.abs(angleDeg) < 0.25
            ? 'in line'
            : angleDeg > 0
              ? 'tail outboard'
              : 'tail inboard'
      }}
    </text>
  </svg>
</template>

<style scoped>
.plate {
  transition: transform 200ms ease;
}
@media (prefers-reduced-motion: reduce) {
  .plate {
    transition: none;
  }
}
</style>
