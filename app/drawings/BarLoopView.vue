<!-- The loop at the bars from above, to scale, as the bars turn; the tightest bend marked. No store, no physics. -->
<script setup lang="ts">
import type { LoopAt, LoopGeometry } from '#core/cable/loop'

const props = defineProps<{
  geometry: LoopGeometry
  loop: LoopAt | null
  turnDeg: number
  slackMm: number
  leastMm: number
}>()
const W = 520
const H = 330
const MM = 0.62
/** From above: forward is up, the left hand left; the steering axis in the middle. */
const px = (x: number, y: number): [number, number] => [W / 2 - y * MM, H * 0.6 - x * MM]
const rad = computed(() => (props.turnDeg * Math.PI) / 180)
/** A bar end turned about the axis, near enough from above. */
const turned = (x: number, y: number) =>
  px(x * Math.cos(rad.value) - y * Math.sin(rad.value), x * Math.sin(rad.value) + y * Math.cos(rad.value))
const bar = computed(() => `M${turned(40, -300).join(' ')}L${turned(40, 300).join(' ')}`)
const stem = computed(() => `M${px(0, 0).join(' ')}L${turned(40, 0).join(' ')}`)
const stop = computed(() => px(props.geometry.fixedAt[0], props.geometry.fixedAt[1]))
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="block h-auto w-full"
    role="img"
    :aria-label="
      loop
        ? `Loop from above, bars ${Math.round(turnDeg)}°: tightest bend ${Math.round(loop.minRadiusMm)} mm, ${Math.round(slackMm)} mm over the straight line`
        : 'The housing is too short to reach'
    "
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">from above, to scale, forward is up</text>
    <text :x="W - 14" y="20" font-size="13" fill="var(--mat-soft)" text-anchor="end" class="figure">
      bars {{ Math.round(Math.abs(turnDeg)) }}°{{ turnDeg > 1 ? ' left' : turnDeg < -1 ? ' right' : '' }}
    </text>
    <path
      :d="`M${px(0, 0).join(' ')}L${px(-330, 0).join(' ')}`"
      stroke="var(--mat-line)"
      stroke-width="20"
      stroke-linecap="round"
    />
    <path :d="bar" stroke="var(--mat-mid)" stroke-width="10" stroke-linecap="round" />
    <path :d="stem" stroke="var(--mat-mid)" stroke-width="13" stroke-linecap="round" />
    <circle :cx="px(0, 0)[0]" :cy="px(0, 0)[1]" r="9" fill="var(--bone)" />
    <LoopDrawn :loop="loop" :least-mm="leastMm" :at="p => px(p[0], p[1])" :width="W" :height="H" :figure-below="-12">
      <rect :x="stop[0] - 6" :y="stop[1] - 6" width="12" height="12" fill="var(--bone)" />
    </LoopDrawn>
  </svg>
</template>
