<!-- The loop across a rear pivot from the side, to scale, as the arm travels; the tightest bend marked. No store, no
     physics. -->
<script setup lang="ts">
import type { LoopAt, LoopGeometry } from '#core/cable/loop'

const props = defineProps<{
  geometry: LoopGeometry
  loop: LoopAt | null
  turnDeg: number
  axleMm: number
  slackMm: number
  leastMm: number
}>()
const W = 520
const H = 330
const MM = 0.55
/** From the drive side: forward is right, up is up; the pivot right of the middle. */
const px = (x: number, z: number): [number, number] => [W * 0.58 + x * MM, H * 0.62 - z * MM]
const rad = computed(() => (props.turnDeg * Math.PI) / 180)
const turned = (x: number, z: number) =>
  px(x * Math.cos(rad.value) + z * Math.sin(rad.value), -x * Math.sin(rad.value) + z * Math.cos(rad.value))
const arm = computed(() => `M${px(0, 0).join(' ')}L${turned(-props.axleMm, 0).join(' ')}`)
/** Where the housing begins: on a link of its own it has turned further than the arm. */
const armStop = computed(() => {
  const first = props.loop?.points[0]
  return first ? px(first[0], first[2]) : turned(props.geometry.movingAt[0], props.geometry.movingAt[2])
})
const frameStop = computed(() => px(props.geometry.fixedAt[0], props.geometry.fixedAt[2]))
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="block h-auto w-full"
    role="img"
    :aria-label="
      loop
        ? `Loop at the pivot from the side, arm ${Math.round(turnDeg)}° up: tightest bend ${Math.round(loop.minRadiusMm)} mm, ${Math.round(slackMm)} mm over the straight line`
        : 'The housing is too short to reach'
    "
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">from the drive side, to scale</text>
    <text :x="W - 14" y="20" font-size="13" fill="var(--mat-soft)" text-anchor="end" class="figure">
      arm {{ turnDeg.toFixed(1) }}° up
    </text>
    <path
      :d="`M${px(0, 0).join(' ')}L${px(190, 210).join(' ')}`"
      stroke="var(--mat-line)"
      stroke-width="20"
      stroke-linecap="round"
    />
    <path :d="arm" stroke="var(--mat-mid)" stroke-width="14" stroke-linecap="round" />
    <circle
      :cx="turned(-axleMm, 0)[0]"
      :cy="turned(-axleMm, 0)[1]"
      r="10"
      fill="none"
      stroke="var(--bone)"
      stroke-width="4"
    />
    <circle :cx="px(0, 0)[0]" :cy="px(0, 0)[1]" r="9" fill="var(--bone)" />
    <LoopDrawn :loop="loop" :least-mm="leastMm" :at="p => px(p[0], p[2])" :width="W" :height="H" :figure-below="30">
      <rect
        v-for="(s, i) in [armStop, frameStop]"
        :key="i"
        :x="s[0] - 6"
        :y="s[1] - 6"
        width="12"
        height="12"
        fill="var(--bone)"
      />
    </LoopDrawn>
  </svg>
</template>
