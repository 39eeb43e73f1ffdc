<!-- A rule along which every part of the catalogue has its place, and the reading laid on it. No store, no physics. -->
<script setup lang="ts">
import { scaleLinear } from 'd3-scale'

const props = defineProps<{
  title: string
  unit: string
  parts: readonly { id: string; at: number; chance: number }[]
  reading: { mean: number; sd: number } | null
  digits: number
}>()
const W = useTrueWidth(320, 620)
const H = 112
const BASE = 64
const x = computed(() => {
  const all = [...props.parts.map(p => p.at), ...(props.reading ? [props.reading.mean] : [])]
  const low = Math.min(...all)
  const high = Math.max(...all)
  const pad = (high - low) * 0.05 || 1
  return scaleLinear([low - pad, high + pad], [24, W.value - 24])
})
const ticks = computed(() => x.value.ticks(W.value < 480 ? 6 : 10))
/**
 * Parts of one place share a mark; the likeliest ones are named, from left to right without running into each other.
 */
const named = computed(() => {
  const likely = props.parts.filter(p => p.chance >= 0.04).sort((a, b) => b.chance - a.chance)
  const places: { id: string; x: number; chance: number }[] = []
  for (const p of likely) {
    const at = x.value(p.at)
    if (places.length < 6 && places.every(q => Math.abs(q.x - at) > 66))
      places.push({ id: p.id, x: at, chance: p.chance })
  }
  return places
})
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="`${title}: ${reading ? `read ${reading.mean.toFixed(digits)} ${unit}` : 'not measured'}; ${named.map(n => n.id).join(', ') || 'nothing near it'}`"
  >
    <text x="14" y="18" font-size="13" fill="var(--mat-soft)">{{ title }}{{ unit ? `, ${unit}` : '' }}</text>
    <template v-if="reading">
      <rect
        :x="x(reading.mean - 2 * reading.sd)"
        :width="Math.max(3, x(reading.mean + 2 * reading.sd) - x(reading.mean - 2 * reading.sd))"
        y="28"
        :height="BASE - 28 + 22"
        fill="var(--mat-band)"
      />
      <path :d="`M${x(reading.mean)} 28V${BASE + 22}`" stroke="var(--mat-ink)" stroke-width="2" />
      <text :x="W - 14" y="18" text-anchor="end" font-size="15" font-weight="700" fill="var(--mat-ink)" class="figure">
        {{ reading.mean.toFixed(digits) }} ± {{ reading.sd.toFixed(digits > 2 ? 3 : 2) }}
      </text>
    </template>
    <rect x="16" :y="BASE" :width="W - 32" height="22" fill="var(--bone)" />
    <g class="figure" font-size="12" fill="var(--night)">
      <g v-for="t in ticks" :key="t">
        <path :d="`M${x(t)} ${BASE}v6`" stroke="var(--night)" />
        <text :x="x(t)" :y="BASE + 18" text-anchor="middle">{{ t }}</text>
      </g>
    </g>
    <path
      v-for="p in parts"
      :key="p.id"
      :d="`M${x(p.at)} ${BASE}v${-(6 + 22 * p.chance)}`"
      :stroke="p.chance >= 0.04 ? 'var(--mat-clean)' : 'var(--mat-dim)'"
      :stroke-width="p.chance >= 0.04 ? 4 : 2"
    />
    <text
      v-for="n in named"
      :key="n.id"
      :x="Math.min(W - 34, Math.max(34, n.x))"
      :y="H - 8"
      text-anchor="middle"
      font-size="13"
      fill="var(--mat-clean)"
      class="figure"
    >
      {{ n.id }}
    </text>
  </svg>
</template>
