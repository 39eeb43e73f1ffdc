<!-- What the eye counts at the door, each drawn from what it stands for. -->
<script setup lang="ts">
import type { EndKind } from '#core/brake/kinds'
import type { LeverKind } from '#core/job/seen'
import type { FrameKind } from '#core/standards/frames'
import { pitchDiameterMm } from '#core/standards/sprockets'
import { USUAL_TEETH } from '#core/standards/drivetrains'

export type Pictured =
  | { of: 'sprockets' | 'rings'; is: number }
  | { of: 'lever'; is: LeverKind }
  | { of: 'brake'; is: EndKind }
  | { of: 'frame'; is: FrameKind }
const props = defineProps<{ what: Pictured }>()

const WIDE = 64
const HIGH = 30
/** Sprockets from the side, the largest first, as high as their pitch circles. */
const bars = computed(() => {
  if (props.what.of !== 'sprockets') return []
  const many = props.what.is
  const teeth = many === 1 ? [16] : [...(USUAL_TEETH[many] ?? Array.from({ length: many }, (_, i) => 14 + 3 * i))]
  const tall = pitchDiameterMm(Math.max(...teeth, 28))
  const step = Math.min(6, 46 / many)
  return teeth.reverse().map((t, i) => ({
    x: WIDE / 2 - (many * step) / 2 + i * step,
    h: (HIGH * pitchDiameterMm(t)) / tall,
    w: Math.max(1.6, step * 0.55),
  }))
})
const radii = computed(() => (props.what.of === 'rings' ? [13, 9, 5].slice(0, props.what.is) : []))

const LEVER: Record<LeverKind, string> = {
  drop: 'M14 5h24q12 0 12 9t-10 9h-6M38 5q5 8 2 15',
  trigger: 'M6 10h52M36 10l-8 9h8',
  grip: 'M6 15h30M36 9h14v12H36zM50 15h8',
  other: 'M6 12h52M30 12v12',
}
const BRAKE: Record<EndKind, string> = {
  'linear-pull': 'M22 28L26 4M42 28L38 4M26 4h16M26 20h4M38 20h-4',
  'dual-pivot': 'M18 26q-2 -20 14 -20t14 20M27 28V16h10v12',
  cantilever: 'M16 8l10 8v12M48 8l-10 8v12M16 8q16 -6 32 0M32 5V1',
  'cable-disc': 'M44 15a12 12 0 1 1-24 0a12 12 0 1 1 24 0M40 8h8v12h-8M48 10l8 -6',
  drum: 'M44 15a12 12 0 1 1-24 0a12 12 0 1 1 24 0M39 15a7 7 0 1 1-14 0a7 7 0 1 1 14 0M44 20l10 6',
  roller:
    'M44 15a12 12 0 1 1-24 0a12 12 0 1 1 24 0M35 8a3 3 0 1 1-6 0a3 3 0 1 1 6 0M41 18a3 3 0 1 1-6 0a3 3 0 1 1 6 0M29 18a3 3 0 1 1-6 0a3 3 0 1 1 6 0M44 20l10 6',
  coaster:
    'M43 15a11 11 0 1 1-22 0a11 11 0 1 1 22 0M32 15m-3 0a3 3 0 1 0 6 0a3 3 0 1 0-6 0M16 8a18 18 0 0 0 0 14l4 -2M16 22l-4 -2',
  'hydraulic-rim': 'M20 26q-2 -20 12 -20t12 20M28 28V18h8v10M32 6q6 -8 20 -2',
  'hydraulic-disc': 'M42 17a11 11 0 1 1-22 0a11 11 0 1 1 22 0M38 9h8v11h-8M42 9q0 -8 8 -6t8 -1',
  none: 'M20 15h24',
}
const FRAME: Record<FrameKind, string> = {
  open: 'M6 14h6M52 14h6M12 10v8M52 10v8M12 14h40',
  internal: 'M4 8h56M4 22h56M8 4q6 12 16 11h16q10 0 16 9',
  'full-length': 'M6 22q26 -22 52 0',
  'step-through': 'M8 4v6q0 14 14 14h34M12 4v6q0 10 12 10h32',
  suspension: 'M6 8h14l4 -5 6 10 6 -10 6 10 4 -5h12M8 24q24 -8 48 0',
  long: 'M2 18h60M2 12v12M62 12v12M22 18v-6M42 18v-6',
  folding: 'M4 20h24M36 20h24M28 14v12M36 14v12M32 12v16',
  headset: 'M32 2v14q0 10 14 10h14M24 10h16',
}
const path = computed(() =>
  props.what.of === 'lever'
    ? LEVER[props.what.is]
    : props.what.of === 'brake'
      ? BRAKE[props.what.is]
      : props.what.of === 'frame'
        ? FRAME[props.what.is]
        : '',
)
</script>

<template>
  <svg :viewBox="`0 0 ${WIDE} ${HIGH}`" class="h-[26px] w-[56px] shrink-0" aria-hidden="true">
    <rect v-for="b in bars" :key="b.x" :x="b.x" :y="HIGH - b.h" :width="b.w" :height="b.h" fill="currentColor" />
    <circle v-for="r in radii" :key="r" cx="32" cy="15" :r="r" fill="none" stroke="currentColor" stroke-width="2.4" />
    <path v-if="path" :d="path" fill="none" stroke="currentColor" stroke-width="2.6" stroke-linejoin="round" />
  </svg>
</template>
