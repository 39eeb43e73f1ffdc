<!-- An end sprocket seen from behind, true across: its plane, where the stop holds the pulley, where it is to stand.
  -->
<script setup lang="ts">
const props = defineProps<{
  stop: 'H' | 'L'
  teeth: number
  neighbourTeeth: number
  pitchMm: number
  offsetMm: number | null
  target: { from: number; to: number }
  safe: { from: number; to: number }
}>()
const W = useTrueWidth(320, 460)
const H = 250
/** As many px a mm as there is room for; from 18 on half a millimetre is seen at arm's length. */
const MM = computed(() => Math.min(30, W.value / 17.7))
// the stop's own sprocket in the middle; spokes left, frame right
const x = (mm: number) => W.value / 2 - mm * MM.value
const clamp = (mm: number) => Math.max(-7.5, Math.min(7.5, mm))
const side = computed(() => (props.stop === 'L' ? -1 : 1)) // where its neighbour lies, in + inboard
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="`${stop} stop, ${offsetMm === null ? 'not seen yet' : `${offsetMm.toFixed(1)} mm from the plane of the ${teeth}, + towards the spokes`}`"
  >
    <text x="12" y="18" font-size="13" fill="var(--mat-soft)">
      {{ stop }} stop at the {{ teeth }}, from behind, 1 mm grid
    </text>
    <path v-for="i in 17" :key="i" :d="`M${x(i - 9)} 30V${H - 44}`" stroke="var(--mat-line)" />
    <rect :x="x(safe.to)" :width="(safe.to - safe.from) * MM" y="150" height="18" fill="var(--mat-band)" />
    <rect
      :x="x(target.to)"
      :width="(target.to - target.from) * MM"
      y="150"
      height="18"
      fill="var(--mat-clean)"
      opacity="0.8"
    />
    <rect :x="x(0) - 8" y="44" width="16" height="96" fill="var(--bone)" />
    <text :x="x(0)" y="40" font-size="14" fill="var(--mat-ink)" text-anchor="middle" class="figure">{{ teeth }}</text>
    <rect :x="x(side * pitchMm) - 8" y="70" width="16" height="70" fill="var(--bone)" opacity="0.4" />
    <text :x="x(side * pitchMm)" y="64" font-size="13" fill="var(--mat-soft)" text-anchor="middle" class="figure">
      {{ neighbourTeeth }}
    </text>
    <g v-if="offsetMm !== null" class="slides" :style="{ transform: `translateX(${x(clamp(offsetMm))}px)` }">
      <rect x="-3" y="142" width="6" height="34" fill="var(--mat-stop)" />
      <circle cy="192" r="11" fill="none" stroke="var(--mat-ink)" stroke-width="3" />
      <text y="222" font-size="15" fill="var(--mat-ink)" text-anchor="middle" class="figure">
        {{ offsetMm > 0.04 ? '+' : offsetMm < -0.04 ? '−' : '' }}{{ Math.abs(offsetMm).toFixed(1) }}
      </text>
    </g>
    <text x="12" :y="H - 8" font-size="13" fill="var(--mat-soft)">spokes</text>
    <text :x="W - 12" :y="H - 8" font-size="13" fill="var(--mat-soft)" text-anchor="end">frame</text>
    <text :x="W / 2" :y="H - 8" font-size="13" fill="var(--mat-clean)" text-anchor="middle">
      {{ W < 420 ? 'bright: wanted; dark: safe' : 'bright: where it is to stand; dark: safe' }}
    </text>
  </svg>
</template>
