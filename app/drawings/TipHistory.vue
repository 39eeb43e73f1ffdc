<!-- Difference across the wheel after each gauging, with what is allowed for the speeds. -->
<script setup lang="ts">
const props = defineProps<{ acrossMm: readonly number[]; limitMm: number }>()
const W = 300
const ROW = 40
const most = computed(() => Math.max(2 * props.limitMm, 2, ...props.acrossMm) * 1.1)
const x = (mm: number) => 12 + (mm / most.value) * (W - 70)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${50 + ROW * Math.max(1, acrossMm.length)}`"
    class="block h-auto w-full"
    role="img"
    :aria-label="`Across the wheel, each gauging in mm: ${acrossMm.map(a => a.toFixed(1)).join(', ') || 'none yet'}; allowed ${limitMm}`"
  >
    <text x="12" y="18" font-size="13" fill="var(--mat-soft)">across the wheel, mm, each gauging</text>
    <text :x="x(limitMm) + 6" y="40" font-size="13" fill="var(--mat-clean)">allowed {{ limitMm }}</text>
    <rect
      x="12"
      y="28"
      :width="x(limitMm) - 12"
      :height="ROW * Math.max(1, acrossMm.length) + 16"
      fill="var(--mat-band)"
    />
    <path
      :d="`M${x(limitMm)} 28V${44 + ROW * Math.max(1, acrossMm.length)}`"
      stroke="var(--mat-clean)"
      stroke-width="3"
    />
    <g v-for="(a, i) in acrossMm" :key="i" :transform="`translate(0 ${48 + ROW * i})`">
      <text :x="W - 12" y="11" font-size="13" fill="var(--mat-ink)" text-anchor="end">
        {{ i === 0 ? 'as it came' : `after bend ${i}` }}
      </text>
      <rect x="12" y="16" :width="x(a) - 12" height="14" :fill="a > limitMm ? 'var(--mat-stop)' : 'var(--mat-ink)'" />
      <text :x="x(a) + 8" y="28" font-size="15" fill="var(--mat-ink)" class="figure">{{ a.toFixed(1) }}</text>
    </g>
  </svg>
</template>
