<!-- A turn as a clock face: out is anticlockwise, in is clockwise, whatever screw it is. -->
<script setup lang="ts">
import { arc } from 'd3-shape'

const props = defineProps<{ turns: number; way: 'out' | 'in' }>()
const R = 36
const sweep = computed(() => Math.min(0.94, Math.abs(props.turns)) * 2 * Math.PI * (props.way === 'out' ? -1 : 1))
const ring = computed(() => arc()({ innerRadius: R - 9, outerRadius: R, startAngle: 0, endAngle: sweep.value }) ?? '')
const tip = computed(() => ({
  x: (R - 4.5) * Math.sin(sweep.value),
  y: -(R - 4.5) * Math.cos(sweep.value),
  deg: (sweep.value * 180) / Math.PI + (props.way === 'out' ? 180 : 0),
}))
const colour = computed(() => (props.way === 'out' ? 'var(--out)' : 'var(--in)'))
</script>

<template>
  <svg
    viewBox="-50 -50 100 100"
    width="96"
    height="96"
    role="img"
    :aria-label="`${way}, ${way === 'out' ? 'anticlockwise' : 'clockwise'}`"
  >
    <circle r="45" fill="none" stroke="var(--rule)" stroke-width="3" />
    <path v-for="i in 8" :key="i" d="M0 -45v7" stroke="var(--soft)" stroke-width="2" :transform="`rotate(${i * 45})`" />
    <path :d="ring" :fill="colour" />
    <path d="M-11 -11L11 0L-11 11z" :fill="colour" :transform="`translate(${tip.x} ${tip.y}) rotate(${tip.deg})`" />
    <circle r="6" fill="var(--ink)" />
  </svg>
</template>
