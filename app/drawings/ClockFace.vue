<!-- A turn as a clock face: out is anticlockwise, in is clockwise, whatever screw it is. -->
<script setup lang="ts">
const props = defineProps<{ turns: number; way: 'out' | 'in' }>()
const R = 31.5 // the middle of the ring
const WIDE = 9
const sweep = computed(() => Math.min(0.94, Math.abs(props.turns)) * 2 * Math.PI * (props.way === 'out' ? -1 : 1))
const tip = computed(() => ({
  x: R * Math.sin(sweep.value),
  y: -R * Math.cos(sweep.value),
  deg: (sweep.value * 180) / Math.PI + (props.way === 'out' ? 180 : 0),
}))
const ring = computed(() => {
  const large = Math.abs(sweep.value) > Math.PI ? 1 : 0
  return `M0 ${-R}A${R} ${R} 0 ${large} ${props.way === 'out' ? 0 : 1} ${tip.value.x} ${tip.value.y}`
})
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
    <path :d="ring" fill="none" :stroke="colour" :stroke-width="WIDE" />
    <path d="M-11 -11L11 0L-11 11z" :fill="colour" :transform="`translate(${tip.x} ${tip.y}) rotate(${tip.deg})`" />
    <circle r="6" fill="var(--ink)" />
  </svg>
</template>
