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
const path = computed(() =>
  props.loop
    ? props.loop.points
        .map(
          (p, i) =>
            `${i ? 'L' : 'M'}${px(p[0], p[1])
              .map(v => v.toFixed(1))
              .join(' ')}`,
        )
        .join('')
    : '',
)
const rad = computed(() => (props.turnDeg * Math.PI) / 180)
/** A bar end turned about the axis, near enough from above. */
const turned = (x: number, y: number) =>
  px(x * Math.cos(rad.value) - y * Math.sin(rad.value), x * Math.sin(rad.value) + y * Math.cos(rad.value))
const bar = computed(() => `M${turned(40, -300).join(' ')}L${turned(40, 300).join(' ')}`)
const stem = computed(() => `M${px(0, 0).join(' ')}L${turned(40, 0).join(' ')}`)
const stop = computed(() => px(props.geometry.fixedAt[0], props.geometry.fixedAt[1]))
const tight = computed(() => {
  const l = props.loop
  if (!l) return null
  const p = l.points[Math.round(l.tightestAt * (l.points.length - 1))]
  return { at: px(p[0], p[1]), bad: l.minRadiusMm < props.leastMm, mm: l.minRadiusMm }
})
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
    <path v-if="loop" :d="path" fill="none" stroke="var(--mat-ink)" stroke-width="5" stroke-linecap="round" />
    <rect :x="stop[0] - 6" :y="stop[1] - 6" width="12" height="12" fill="var(--bone)" />
    <g v-if="tight">
      <circle
        :cx="tight.at[0]"
        :cy="tight.at[1]"
        r="11"
        fill="none"
        :stroke="tight.bad ? 'var(--mat-stop)' : 'var(--mat-clean)'"
        stroke-width="3"
      />
      <text
        :x="Math.min(W - 90, tight.at[0] + 18)"
        :y="tight.at[1] - 12"
        font-size="15"
        font-weight="700"
        :fill="tight.bad ? 'var(--mat-stop)' : 'var(--mat-clean)'"
        class="figure"
      >
        {{ Math.round(tight.mm) }} mm
      </text>
    </g>
    <text
      v-if="!loop"
      :x="W / 2"
      :y="H - 16"
      text-anchor="middle"
      font-size="16"
      font-weight="700"
      fill="var(--mat-stop)"
    >
      too short: it pulls straight here
    </text>
  </svg>
</template>
