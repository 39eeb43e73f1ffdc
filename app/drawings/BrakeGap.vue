<!-- The two pads and the rim from above, across to scale, as the lever is drawn. No store, no physics. -->
<script setup lang="ts">
const props = defineProps<{
  gapMm: number
  share: number
  biteShare: number
  kindWords: string
  /** The gap was not read on this bike: it is the usual one, drawn dashed. */ assumed?: boolean
  /** Which pad stands nearer, as seen; by how much is not known. */ nearer?: 'left' | 'right' | 'even' | null
  /** Where it bites once a pad is worn by so much more. */ worn?: { mm: number; share: number } | null
}>()
const W = 690
const H = 250
const MM = 26 // px a mm: tenths of a gap are seen
const RIM = 150
const now = computed(() => Math.max(0, props.gapMm * (1 - props.share / Math.max(1e-6, props.biteShare))))
const LEAN_MM = 0.5 // drawn so far aside when one pad stands nearer
const lean = (side: -1 | 1) =>
  (props.nearer === 'left' ? side : props.nearer === 'right' ? -side : 0) * Math.min(LEAN_MM, now.value)
const bites = computed(() => props.share >= props.biteShare)
const x = (side: -1 | 1) => W / 2 + side * (RIM / 2 + (now.value + lean(side)) * MM)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="drawn block h-auto w-full"
    role="img"
    :aria-label="`${kindWords}: ${now.toFixed(1)} mm at each pad${assumed ? ', assumed' : ''}, lever at ${Math.round(share * 100)} % of its stroke${bites ? ', biting' : ''}`"
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">
      pads and rim from above, gaps to scale
      <tspan class="wide-only">(rim shortened)</tspan>
    </text>
    <rect :x="W / 2 - RIM / 2" y="44" :width="RIM" height="110" fill="var(--bone)" />
    <text :x="W / 2" y="104" font-size="15" fill="var(--night)" text-anchor="middle" font-weight="600">rim</text>
    <g v-for="side in [-1, 1] as const" :key="side" class="pad" :style="{ transform: `translateX(${x(side)}px)` }">
      <rect
        :x="side < 0 ? -34 : 0"
        y="60"
        width="34"
        height="78"
        rx="4"
        :fill="assumed ? 'none' : bites ? 'var(--mat-clean)' : 'var(--mat-dim)'"
        :stroke="assumed ? (bites ? 'var(--mat-clean)' : 'var(--mat-dim)') : 'none'"
        stroke-width="3"
        :stroke-dasharray="assumed ? '6 5' : undefined"
      />
      <rect :x="side < 0 ? -76 : 34" y="84" width="42" height="30" fill="var(--mat-mid)" />
    </g>
    <text :x="W - 24" y="84" font-size="34" fill="var(--mat-ink)" text-anchor="end" class="figure" font-weight="600">
      {{ now.toFixed(1) }}
    </text>
    <text :x="W - 24" y="106" font-size="13" fill="var(--mat-soft)" text-anchor="end">
      {{ nearer && nearer !== 'even' ? `mm if even; ${nearer} nearer` : assumed ? 'mm, assumed' : 'mm at each pad' }}
    </text>
    <!-- the lever's stroke, from open to the bar -->
    <path :d="`M60 200H${W - 60}`" stroke="var(--mat-mid)" stroke-width="8" stroke-linecap="round" />
    <path :d="`M${W - 60} 182v36`" stroke="var(--mat-stop)" stroke-width="6" />
    <text :x="W - 52" y="236" font-size="13" fill="var(--mat-stop)" text-anchor="end">the bar</text>
    <path :d="`M${60 + Math.min(1, biteShare) * (W - 120)} 184v32`" stroke="var(--mat-clean)" stroke-width="5" />
    <text
      :x="60 + Math.min(1, biteShare) * (W - 120)"
      y="176"
      font-size="14"
      fill="var(--mat-clean)"
      text-anchor="middle"
      class="figure"
    >
      {{ biteShare >= 1 ? 'never bites' : `bites at ${Math.round(biteShare * 100)} %` }}
    </text>
    <template v-if="worn">
      <path :d="`M${60 + Math.min(1, worn.share) * (W - 120)} 188v24`" stroke="var(--mat-out)" stroke-width="5" />
      <text
        :x="60 + Math.min(1, worn.share) * (W - 120)"
        y="236"
        font-size="13"
        fill="var(--mat-out)"
        text-anchor="middle"
        class="figure"
      >
        {{ worn.share >= 1 ? `worn ${worn.mm} mm more: the bar first` : `worn ${worn.mm} mm more` }}
      </text>
    </template>
    <circle
      class="pad"
      cx="0"
      cy="200"
      r="11"
      fill="var(--mat-ink)"
      :style="{ transform: `translateX(${60 + share * (W - 120)}px)` }"
    />
    <text x="52" y="236" font-size="13" fill="var(--mat-soft)">lever open</text>
  </svg>
</template>

<style scoped>
.pad {
  transition: transform 120ms linear;
}
@media (prefers-reduced-motion: reduce) {
  .pad {
    transition: none;
  }
}
</style>
