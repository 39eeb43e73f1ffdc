<!-- What is looked at in the setting gear, to scale: the rod in the nut's window, two marks, or the grip's play. No
     store, no physics. -->
<script setup lang="ts">
const props = defineProps<{
  way: 'rod' | 'marks' | 'twin'
  mm: number | null
  wanted: { from: number; to: number }
  words: string
  /** It is read by who looks: no figure, nothing said to be right. */ unjudged?: boolean
}>()
const W = 690
const H = 200
const PX = 22 // px a mm: half a millimetre is seen
const MIDDLE = 96
const AXLE = 300 // where the axle ends, or the marks meet
const at = computed(() => AXLE + Math.max(-8, Math.min(14, props.mm ?? (props.wanted.from + props.wanted.to) / 2)) * PX)
const right = computed(
  () => props.mm !== null && props.mm >= props.wanted.from - 1e-9 && props.mm <= props.wanted.to + 1e-9,
)
const colour = computed(() =>
  props.mm === null
    ? 'var(--mat-dim)'
    : props.unjudged
      ? 'var(--mat-ink)'
      : right.value
        ? 'var(--mat-clean)'
        : 'var(--mat-stop)',
)
const band = computed(() => ({ x: AXLE + props.wanted.from * PX, w: (props.wanted.to - props.wanted.from) * PX }))
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="drawn block h-auto w-full"
    role="img"
    :aria-label="`${words}, ${mm === null ? 'not read yet' : unjudged ? 'to be read' : `${mm.toFixed(1)} mm`}, wanted ${wanted.from.toFixed(1)} to ${wanted.to.toFixed(1)}`"
  >
    <text x="14" y="22" font-size="13" fill="var(--mat-soft)">
      {{
        way === 'rod'
          ? 'through the nut’s window, rod to scale'
          : way === 'marks'
            ? 'the two marks, square on, to scale'
            : 'the grip’s free play, to scale'
      }}
    </text>
    <template v-if="way === 'rod'">
      <rect x="40" :y="MIDDLE - 34" :width="AXLE - 40" height="68" rx="4" fill="var(--mat-mid)" />
      <text :x="56" :y="MIDDLE + 6" font-size="15" fill="var(--night)" font-weight="600">axle</text>
      <path
        :d="`M${AXLE - 70} ${MIDDLE - 50}H${AXLE + 250}V${MIDDLE + 50}H${AXLE - 70}`"
        fill="none"
        stroke="var(--bone)"
        stroke-width="10"
      />
      <rect
        :x="band.x"
        :y="MIDDLE - 44"
        :width="Math.max(4, band.w)"
        height="88"
        fill="var(--mat-clean)"
        opacity="0.35"
      />
      <rect
        class="moves"
        :x="AXLE - 180"
        :y="MIDDLE - 9"
        :width="180 + Math.min(0, at - AXLE)"
        height="18"
        fill="var(--bone)"
      />
      <rect
        v-if="at < AXLE"
        :x="at"
        :y="MIDDLE - 9"
        :width="AXLE - at"
        height="18"
        fill="none"
        :stroke="colour"
        stroke-width="3"
        stroke-dasharray="5 4"
      />
      <rect :x="AXLE" :y="MIDDLE - 9" :width="Math.max(0, at - AXLE)" height="18" :fill="colour" class="moves" />
      <path
        :d="`M${Math.max(AXLE, at)} ${MIDDLE}H${AXLE + 330}`"
        stroke="var(--bone)"
        stroke-width="5"
        stroke-dasharray="9 7"
      />
      <path :d="`M${AXLE} ${MIDDLE - 48}V${MIDDLE + 62}`" stroke="var(--mat-ink)" stroke-width="2" />
      <text :x="AXLE" :y="MIDDLE + 78" font-size="13" fill="var(--mat-soft)" text-anchor="middle">axle end</text>
    </template>
    <template v-else-if="way === 'marks'">
      <rect x="60" :y="MIDDLE - 56" width="480" height="44" rx="4" fill="var(--mat-mid)" />
      <rect x="60" :y="MIDDLE + 2" width="480" height="44" rx="4" fill="var(--mat-dim)" />
      <rect :x="band.x - 4" :y="MIDDLE - 62" :width="band.w + 8" height="114" fill="var(--mat-clean)" opacity="0.3" />
      <path :d="`M${AXLE} ${MIDDLE - 56}v44`" stroke="var(--mat-ink)" stroke-width="8" />
      <path class="moves" :d="`M${at} ${MIDDLE + 2}v44`" :stroke="colour" stroke-width="8" />
      <text x="60" :y="MIDDLE + 68" font-size="13" fill="var(--mat-soft)">too slack</text>
      <text x="540" :y="MIDDLE + 68" font-size="13" fill="var(--mat-soft)" text-anchor="end">too tight</text>
    </template>
    <template v-else>
      <rect x="60" :y="MIDDLE - 34" width="420" height="68" rx="34" fill="var(--mat-mid)" />
      <rect
        :x="band.x - AXLE + 120"
        :y="MIDDLE - 48"
        :width="band.w"
        height="96"
        fill="var(--mat-clean)"
        opacity="0.35"
      />
      <path :d="`M120 ${MIDDLE - 40}v80`" stroke="var(--mat-ink)" stroke-width="5" />
      <path class="moves" :d="`M${at - AXLE + 120} ${MIDDLE - 40}v80`" :stroke="colour" stroke-width="5" />
      <path :d="`M120 ${MIDDLE}H${at - AXLE + 120}`" :stroke="colour" stroke-width="8" />
    </template>
    <text
      v-if="!unjudged"
      :x="W - 18"
      y="70"
      font-size="34"
      fill="var(--mat-ink)"
      text-anchor="end"
      class="figure"
      font-weight="600"
    >
      {{ mm === null ? '?' : mm.toFixed(1).replace('-', '−') }}
    </text>
    <text v-if="!unjudged" :x="W - 18" y="92" font-size="13" fill="var(--mat-soft)" text-anchor="end">mm</text>
    <text :x="W - 18" y="184" font-size="13" fill="var(--mat-clean)" text-anchor="end">
      wanted {{ wanted.from.toFixed(1) }} to {{ wanted.to.toFixed(1) }}
    </text>
  </svg>
</template>

<style scoped>
.moves {
  transition: all 160ms ease-out;
}
@media (prefers-reduced-motion: reduce) {
  .moves {
    transition: none;
  }
}
</style>
