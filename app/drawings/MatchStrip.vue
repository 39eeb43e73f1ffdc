<!-- Misfit of parts that are to go together, gear by gear, after the best offset, over the band where each gear is
     clean. No store, no physics. -->
<script setup lang="ts">
import { along } from './along'

const props = defineProps<{
  labels: readonly (string | number)[]
  errorMm: readonly number[]
  cleanMm: readonly { from: number; to: number }[]
}>()
const W = 560
const H = 204
const TOP = 48
const step = computed(() => (W - 80) / Math.max(1, props.labels.length - 1))
const x = (k: number) => W - 40 - k * step.value
const reach = computed(() => Math.max(0.6, ...props.errorMm.map(Math.abs)) * 1.15)
const y = computed(() => along([reach.value, -reach.value], [TOP, H - 40], true))
const half = computed(() => Math.min(19, step.value / 2))
const outside = (k: number) =>
  props.errorMm[k] < props.cleanMm[k].from - 1e-9 || props.errorMm[k] > props.cleanMm[k].to + 1e-9
const say = (mm: number) => `${mm > 0.004 ? '+' : mm < -0.004 ? '−' : ''}${Math.abs(mm).toFixed(2)}`
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="block h-auto w-full"
    role="img"
    :aria-label="`Misfit by gear in mm, smallest sprocket first: ${errorMm.map((e, k) => `${e.toFixed(2)}${outside(k) ? ', not clean' : ''}`).join('; ')}`"
  >
    <text x="14" y="21" font-size="16" fill="var(--mat-soft)">
      pulley past the sprocket, mm · lighter: clean both ways
    </text>
    <rect
      v-for="(c, k) in cleanMm"
      :key="`band${k}`"
      :x="x(k) - half"
      :width="2 * half"
      :y="y(Math.min(reach, c.to))"
      :height="Math.max(0, y(Math.max(-reach, c.from)) - y(Math.min(reach, c.to)))"
      fill="var(--mat-band)"
    />
    <path :d="`M16 ${y(0)}H${W - 16}`" stroke="var(--mat-dim)" />
    <g v-for="(e, k) in errorMm" :key="k">
      <path
        :d="`M${x(k)} ${y(0)}V${y(e)}`"
        :stroke="outside(k) ? 'var(--mat-stop)' : 'var(--mat-ink)'"
        stroke-width="5"
      />
      <path v-if="outside(k)" :d="`M${x(k) - 9} ${y(e)}h18`" stroke="var(--mat-stop)" stroke-width="4" />
      <text
        :x="x(k)"
        :y="e >= 0 ? y(e) - 6 : y(e) + 16"
        text-anchor="middle"
        font-size="13.5"
        fill="var(--mat-ink)"
        class="figure"
      >
        {{ say(e) }}
      </text>
      <text :x="x(k)" :y="H - 8" text-anchor="middle" font-size="16" fill="var(--mat-ink)" class="figure">
        {{ labels[k] }}
      </text>
    </g>
  </svg>
</template>
