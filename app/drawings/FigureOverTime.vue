<!-- One figure of a bike over its visits: a dot each, joined, with its value; where it is forecast, the line goes on
     dotted. -->
<script setup lang="ts">
const props = defineProps<{
  points: readonly { at: number; value: number; words: string }[]
  from: number
  to: number
  label: string
}>()
const WIDE = 600
const HIGH = 94
const x = (at: number) => 14 + ((at - props.from) / Math.max(1, props.to - props.from)) * (WIDE - 144)
const reach = computed(() => {
  const values = props.points.map(p => p.value)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  return { least, span: most - least || 1, flat: most === least }
})
const y = (v: number) =>
  reach.value.flat ? HIGH / 2 : HIGH - 26 - ((v - reach.value.least) / reach.value.span) * (HIGH - 52)
/**
 * Words nearer to each other than this would lie over one another: the last always stands, the others where there is
 * room.
 */
const APART = 110
const drawn = computed(() => {
  const at = props.points.map(p => ({ ...p, x: x(p.at), y: y(p.value) }))
  let free = -Infinity
  return at.map((p, i) => {
    const last = i === at.length - 1
    const shown = last || (p.x >= free && at.at(-1)!.x - p.x > APART)
    if (shown) free = p.x + APART
    // where the line goes on upwards it would run through what stands above its dot
    const under = !last && at[i + 1]!.y < p.y
    return { ...p, shown, wordsX: last ? p.x + 10 : p.x - 4, wordsY: last ? p.y + 5 : under ? p.y + 20 : p.y - 10 }
  })
})
const path = computed(() => drawn.value.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join(''))
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" role="img" :aria-label="`${label}: ${points.map(p => p.words).join(', ')}`">
    <path :d="path" fill="none" stroke="var(--mat-soft)" stroke-width="2" />
    <g v-for="(p, i) in drawn" :key="i">
      <circle :cx="p.x" :cy="p.y" r="5.5" fill="var(--mat-ink)" />
      <text v-if="p.shown" :x="p.wordsX" :y="p.wordsY" text-anchor="start" font-size="14" fill="var(--mat-ink)">
        {{ p.words }}
      </text>
    </g>
  </svg>
</template>
