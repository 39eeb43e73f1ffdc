<!-- A cantilever's straddle wire from the front, to scale: anchors, yoke, tyre, and the angle between the wires. No
     store, no physics. -->
<script setup lang="ts">
const props = defineProps<{ yokeMm: number; apartMm: number; deg: number; overTyreMm: number | null; right: boolean }>()
const W = 690
const H = 240
const PX = computed(() => Math.min(2.2, 420 / props.apartMm, 150 / Math.max(20, props.yokeMm)))
const base = 200
const yoke = computed(() => base - props.yokeMm * PX.value)
const left = computed(() => W / 2 - (props.apartMm / 2) * PX.value)
const right = computed(() => W / 2 + (props.apartMm / 2) * PX.value)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="block h-auto w-full"
    role="img"
    :aria-label="`Straddle: yoke ${yokeMm} mm over its anchors, ${apartMm} mm apart, ${Math.round(deg)}° between the wires`"
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">straddle from the front, to scale</text>
    <path
      v-if="overTyreMm !== null"
      :d="`M${W / 2 - 60} ${Math.min(H, yoke + overTyreMm * PX) + 30}a60 60 0 0 1 120 0`"
      fill="var(--mat-edge)"
      stroke="var(--mat-mid)"
      stroke-width="4"
    />
    <path :d="`M${W / 2} 10V${yoke}`" stroke="var(--bone)" stroke-width="4" />
    <path
      :d="`M${left} ${base}L${W / 2} ${yoke}L${right} ${base}`"
      fill="none"
      :stroke="props.right ? 'var(--mat-clean)' : 'var(--mat-stop)'"
      stroke-width="4"
    />
    <circle v-for="x in [left, right]" :key="x" :cx="x" :cy="base" r="8" fill="var(--mat-dim)" />
    <path :d="`M${W / 2 - 12} ${yoke - 8}h24l-6 16h-12z`" fill="var(--bone)" />
    <text :x="W - 18" y="84" font-size="34" fill="var(--mat-ink)" text-anchor="end" class="figure" font-weight="600">
      {{ Math.round(deg) }}°
    </text>
    <text :x="W - 18" y="106" font-size="13" fill="var(--mat-soft)" text-anchor="end">
      between the wires, start at 90
    </text>
  </svg>
</template>
