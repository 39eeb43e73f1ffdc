<!-- Largest sprocket and guide pulley to scale, tips to tips, with the gap that is wanted. -->
<script setup lang="ts">
import { tipDiameterMm } from '#core/standards/sprockets'
import { toothOutline } from '#core/standards/toothShape'

const props = defineProps<{
  sprocketTeeth: number
  pulleyTeeth: number
  gapMm: number | null
  target: { from: number; to: number }
}>()
const W = 560
const H = 380
const PX = 3.2 // px a mm: the meeting of the two is what matters, the sprocket runs out of the picture
const sprocketR = computed(() => (tipDiameterMm(props.sprocketTeeth) / 2) * PX)
const pulleyR = computed(() => (tipDiameterMm(props.pulleyTeeth) / 2) * PX)
const meet = 170 // where the sprocket's tips stand, px from the top
const gap = computed(() => Math.max(-6, Math.min(30, props.gapMm ?? (props.target.from + props.target.to) / 2)))
/** @param tooth the angle by which a tooth, not a gap, points at the other, radians */
const teeth = (n: number, tooth: number) => {
  const [cos, sin] = [Math.cos(tooth), Math.sin(tooth)]
  return (
    toothOutline(n)
      .map(({ x, y }, i) => {
        const at = { x: x * cos + y * sin, y: y * cos - x * sin }
        return `${i ? 'L' : 'M'}${(at.x * PX).toFixed(1)} ${(-at.y * PX).toFixed(1)}`
      })
      .join('') + 'Z'
  )
}
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="drawn block h-auto max-h-full w-full"
    role="img"
    :aria-label="`B gap ${gapMm === null ? 'not measured' : `${gapMm.toFixed(1)} mm`}, wanted ${target.from} to ${target.to} mm`"
  >
    <g :transform="`translate(${W / 2} ${meet - sprocketR})`">
      <path :d="teeth(sprocketTeeth, sprocketTeeth % 2 ? 0 : Math.PI / sprocketTeeth)" fill="var(--bone)" />
      <text
        :y="sprocketR - 60"
        font-size="16"
        text-anchor="middle"
        fill="var(--night)"
        class="figure"
        font-weight="600"
      >
        {{ sprocketTeeth }}
      </text>
    </g>
    <rect
      x="40"
      :width="W - 150"
      :y="meet + target.from * PX"
      :height="(target.to - target.from) * PX"
      fill="var(--mat-clean)"
      opacity="0.5"
    />
    <g class="pulley" :style="{ transform: `translate(${W / 2}px, ${meet + gap * PX + pulleyR}px)` }">
      <path
        :d="teeth(pulleyTeeth, Math.PI / pulleyTeeth)"
        :fill="gapMm === null ? 'none' : 'var(--mat-ink)'"
        stroke="var(--mat-ink)"
        stroke-width="2"
        :stroke-dasharray="gapMm === null ? '5 5' : undefined"
      />
      <circle r="7" fill="var(--mat)" />
    </g>
    <g v-if="gapMm !== null" stroke="var(--mat-ink)" stroke-width="3">
      <path :d="`M${W - 150} ${meet}h60M${W - 150} ${meet + gap * PX}h60M${W - 120} ${meet}V${meet + gap * PX}`" />
    </g>
    <text
      v-if="gapMm !== null"
      :x="W - 84"
      :y="meet + (gap * PX) / 2 + 7"
      font-size="20"
      fill="var(--mat-ink)"
      class="figure"
      stroke="var(--mat)"
      stroke-width="5"
      paint-order="stroke"
    >
      {{ gapMm.toFixed(1) }}
    </text>
    <text x="12" :y="H - 12" font-size="13" fill="var(--mat-soft)">
      <tspan class="wide-only">largest sprocket and guide pulley to scale,</tspan>
      tips to tips
    </text>
    <text x="44" :y="meet + target.to * PX + 18" font-size="13" fill="var(--mat-clean)">
      wanted {{ target.from }} to {{ target.to }} mm
    </text>
  </svg>
</template>

<style scoped>
.pulley {
  transition: transform 200ms ease;
}
@media (prefers-reduced-motion: reduce) {
  .pulley {
    transition: none;
  }
}
</style>
