<!-- Misfit of parts that are to go together, gear by gear, after the best offset, over the band where each gear is
     clean. No store, no physics. -->
<script setup lang="ts">
import { along } from './along'

const props = defineProps<{
  labels: readonly (string | number)[]
  errorMm: readonly number[]
  cleanMm: readonly { from: number; to: number }[]
}>()
const W = useTrueWidth(320, 560)
const H = 204
const TOP = 54
const END = computed(() => (W.value < 480 ? 22 : 40))
const step = computed(() => (W.value - 2 * END.value) / Math.max(1, props.labels.length - 1))
const x = (k: number) => W.value - END.value - k * step.value
/** Too narrow for its figures side by side: they stand upright. */
const upright = computed(() => step.value < 46)
/** What is nought in writing stands above the line, like its neighbours. */
const above = (mm: number) => mm > -0.005
const figureY = (mm: number) => y.value(mm) + (above(mm) ? (upright.value ? -8 : -6) : upright.value ? 10 : 16)
const reach = computed(() => Math.max(0.6, ...props.errorMm.map(Math.abs)) * 1.15)
const y = computed(() => along([reach.value, -reach.value], [TOP, H - 40], true))
const half = computed(() => Math.min(19, step.value / 2 - 2))
const outside = (k: number) =>
  props.errorMm[k] < props.cleanMm[k].from - 1e-9 || props.errorMm[k] > props.cleanMm[k].to + 1e-9
const say = (mm: number) => `${mm > 0.004 ? '+' : mm < -0.004 ? '−' : ''}${Math.abs(mm).toFixed(2)}`
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="`Misfit by gear in mm, smallest sprocket first: ${errorMm.map((e, k) => `${e.toFixed(2)}${outside(k) ? ', not clean' : ''}`).join('; ')}`"
  >
    <text x="12" y="19" font-size="13" fill="var(--mat-soft)">
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
    <path :d="`M12 ${y(0)}H${W - 12}`" stroke="var(--mat-dim)" />
    <g v-for="(e, k) in errorMm" :key="k">
      <path
        :d="`M${x(k)} ${y(0)}V${y(e)}`"
        :stroke="outside(k) ? 'var(--mat-stop)' : 'var(--mat-ink)'"
        stroke-width="5"
      />
      <path v-if="outside(k)" :d="`M${x(k) - 9} ${y(e)}h18`" stroke="var(--mat-stop)" stroke-width="4" />
      <text
        :transform="`translate(${x(k) + (upright ? 5 : 0)} ${figureY(e)})${upright ? ' rotate(-90)' : ''}`"
        :text-anchor="upright ? (above(e) ? 'start' : 'end') : 'middle'"
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
