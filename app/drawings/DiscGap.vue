<!-- Rotor and pads from above, thickness and gaps to scale, with the lines where each is scrap. No store, no physics.
  -->
<script setup lang="ts">
const props = defineProps<{
  rotorMm: number
  padMm: number
  gapMm: number
  /** How far the lever is drawn, and where it bites, 0 to 1. */ share?: number
  biteShare?: number | null
  scrap: { rotorMm: number; padMm: number }
}>()
const W = 690
const H = 230
const MM = 62 // px a mm: tenths are seen
const half = computed(() => (props.rotorMm * MM) / 2)
const pad = computed(() => Math.min(4.5, props.padMm) * MM * 0.5) // pads at half the scale, else they do not fit
const now = computed(() =>
  props.biteShare ? Math.max(0, props.gapMm * (1 - (props.share ?? 0) / props.biteShare)) : props.gapMm,
)
const bites = computed(() => Boolean(props.biteShare) && (props.share ?? 0) >= props.biteShare!)
const at = (side: -1 | 1) => W / 2 + side * (half.value + Math.min(1.2, now.value) * MM)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="block h-auto w-full"
    role="img"
    :aria-label="`Rotor ${rotorMm.toFixed(1)} mm, scrap at ${scrap.rotorMm}; pads ${padMm.toFixed(1)} mm, scrap at ${scrap.padMm}; ${now.toFixed(1)} mm a side${bites ? ', biting' : ''}`"
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">rotor and gaps to scale, pads at half of it</text>
    <rect
      :x="W / 2 - half"
      y="36"
      :width="2 * half"
      height="150"
      :fill="rotorMm <= scrap.rotorMm ? 'var(--mat-stop)' : 'var(--bone)'"
    />
    <path
      v-for="s in [-1, 1] as const"
      :key="`r${s}`"
      :d="`M${W / 2 + (s * (scrap.rotorMm * MM)) / 2} 30V192`"
      stroke="var(--mat-out)"
      stroke-width="2"
      stroke-dasharray="6 4"
    />
    <g v-for="s in [-1, 1] as const" :key="s">
      <rect
        :x="s < 0 ? at(s) - pad : at(s)"
        y="62"
        :width="pad"
        height="98"
        :fill="padMm <= scrap.padMm ? 'var(--mat-stop)' : bites ? 'var(--mat-clean)' : 'var(--mat-dim)'"
      />
      <rect :x="s < 0 ? at(s) - pad - 14 : at(s) + pad" y="56" width="14" height="110" fill="var(--mat-mid)" />
    </g>
    <text :x="W / 2" y="212" font-size="15" fill="var(--bone)" text-anchor="middle" class="figure">
      rotor {{ rotorMm.toFixed(1) }}
    </text>
    <text :x="W - 18" y="84" font-size="34" fill="var(--mat-ink)" text-anchor="end" class="figure" font-weight="600">
      {{ now.toFixed(1) }}
    </text>
    <text :x="W - 18" y="106" font-size="13" fill="var(--mat-soft)" text-anchor="end">mm a side</text>
    <text x="18" y="212" font-size="15" fill="var(--mat-soft)" class="figure">pads {{ padMm.toFixed(1) }}</text>
    <text :x="W - 18" y="212" font-size="13" fill="var(--mat-out)" text-anchor="end">
      scrap at {{ scrap.rotorMm }} and {{ scrap.padMm }} mm
    </text>
  </svg>
</template>
