<!-- Misfit of parts that are to go together, gear by gear, after the best offset. No store, no physics. -->
<script setup lang="ts">
import { scaleLinear } from 'd3-scale'

const props = defineProps<{ teeth: readonly number[]; errorMm: readonly number[]; pitchMm: readonly number[]; carePitch: number }>()
const W = 560
const H = 190
const x = (k: number) => W - 40 - (k * (W - 80)) / Math.max(1, props.teeth.length - 1)
const reach = computed(() => Math.max(0.6, ...props.errorMm.map(Math.abs)) * 1.15)
const y = computed(() => scaleLinear([reach.value, -reach.value], [34, H - 40]))
const care = computed(() => props.carePitch * Math.min(...props.pitchMm))
const say = (mm: number) => `${mm > 0.004 ? '+' : mm < -0.004 ? '−' : ''}${Math.abs(mm).toFixed(2)}`
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" class="block h-auto w-full" role="img" :aria-label="`Misfit by gear in mm, smallest sprocket first: ${errorMm.map(e => e.toFixed(2)).join(', ')}`">
    <text x="14" y="20" font-size="13" fill="#c4d6d1">pulley past the sprocket, mm, after the best offset</text>
    <rect x="16" :width="W - 32" :y="y(Math.min(reach, care))" :height="y(-Math.min(reach, care)) - y(Math.min(reach, care))" fill="#22574b" />
    <path :d="`M16 ${y(0)}H${W - 16}`" stroke="#8fb3aa" />
    <g v-for="(e, k) in errorMm" :key="k">
      <path :d="`M${x(k)} ${y(0)}V${y(e)}`" :stroke="Math.abs(e) > care ? '#ff8270' : '#ffffff'" stroke-width="5" />
      <path v-if="Math.abs(e) > care" :d="`M${x(k) - 9} ${y(e)}h18`" stroke="#ff8270" stroke-width="4" />
      <text :x="x(k)" :y="e >= 0 ? y(e) - 6 : y(e) + 16" text-anchor="middle" font-size="12" fill="#fff" class="figure">{{ say(e) }}</text>
      <text :x="x(k)" :y="H - 8" text-anchor="middle" font-size="14" fill="#fff" class="figure">{{ teeth[k] }}</text>
    </g>
  </svg>
</template>
