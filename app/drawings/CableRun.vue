<!-- A run from lever to clamp, lengths to scale along one line; each bend with its loss, and below it what is left of
     the pull. No store, no physics. -->
<script setup lang="ts">
import { along } from './along'
import type { Run } from '#core/cable/run'
import type { BendLoss } from '#core/cable/friction'

const props = defineProps<{ run: Run; losses: readonly BendLoss[]; chosen: string | null }>()
const emit = defineEmits<{ choose: [piece: string] }>()
const W = useTrueWidth(340, 690)
const H = 250
const LINE = 92
const laid = computed(() => {
  let at = 0
  const lengths = props.run.pieces.map(p =>
    p.kind === 'guide' ? Math.max(40, ((p.bend.deg * Math.PI) / 180) * p.bend.radiusMm) : p.lengthMm,
  )
  const whole = lengths.reduce((s, l) => s + l, 0)
  const x = along([0, whole], [44, W.value - 44])
  return {
    whole,
    pieces: props.run.pieces.map((p, i) => {
      const from = x(at)
      at += lengths[i]
      const bends = p.kind === 'housing' ? p.bends : p.kind === 'guide' ? [p.bend] : []
      const to = x(at)
      return {
        p,
        from,
        to,
        middle: (from + to) / 2,
        bends: bends.map((b, k) => ({ ...b, x: from + ((to - from) * (k + 1)) / (bends.length + 1) })),
      }
    }),
  }
})
/** Figures of bends stand so far apart at least, px; those of the others are seen where their piece is opened. */
const APART = 42
/** A letter of a piece's name is about so wide, px: a name with no room is left to the list below. */
const LETTER = 6
/** Bends in the order of the run, each with its loss, and whether its figures have room. */
const bends = computed(() => {
  let last = -Infinity
  return laid.value.pieces
    .flatMap(l => l.bends)
    .map((b, i) => {
      const roomy = b.x - last >= APART
      if (roomy) last = b.x
      return { ...b, roomy, loss: props.losses[i] }
    })
})
const y = along([1, 0], [150, 232])
const steps = computed(() => {
  let path = `M44 ${y(1)}`
  for (const b of bends.value) path += `H${b.x}V${y(b.loss?.after ?? 1)}`
  return `${path}H${W.value - 44}`
})
const left = computed(() => props.losses.at(-1)?.after ?? 1)
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="`Run of ${Math.round(laid.whole)} mm: ${run.pieces.map(p => p.name).join(', ')}; ${Math.round(left * 100)} % of the pull is left at the clamp`"
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">lever left, clamp right, lengths to scale</text>
    <text :x="W - 14" y="20" font-size="13" fill="var(--mat-soft)" text-anchor="end" class="figure">
      wire {{ Math.round(laid.whole) }} mm
    </text>
    <path :d="`M44 ${LINE}H${W - 44}`" stroke="var(--mat-soft)" stroke-width="2" />
    <circle cx="36" :cy="LINE" r="7" fill="var(--mat-ink)" />
    <path :d="`M${W - 40} ${LINE - 10}v20`" stroke="var(--mat-ink)" stroke-width="6" />
    <g v-for="l in laid.pieces" :key="l.p.name" class="cursor-pointer" @click="emit('choose', l.p.name)">
      <rect :x="l.from" :y="LINE - 24" :width="l.to - l.from" height="48" fill="transparent" />
      <rect
        v-if="l.p.kind === 'housing'"
        :x="l.from"
        :y="LINE - 8"
        :width="Math.max(4, l.to - l.from)"
        height="16"
        rx="3"
        :fill="l.p.name === chosen ? 'var(--mat-ink)' : 'var(--mat-faint)'"
      />
      <path
        v-else-if="l.p.kind === 'guide'"
        :d="`M${l.from} ${LINE}Q${l.middle} ${LINE + 22} ${l.to} ${LINE}`"
        fill="none"
        :stroke="l.p.name === chosen ? 'var(--mat-ink)' : 'var(--mat-faint)'"
        stroke-width="6"
      />
      <path
        v-else
        :d="`M${l.from} ${LINE}H${l.to}`"
        :stroke="l.p.name === chosen ? 'var(--mat-ink)' : 'var(--mat-faint)'"
        stroke-width="3"
      />
      <text
        :x="l.middle"
        :y="LINE + 34"
        text-anchor="middle"
        font-size="12.5"
        :fill="l.p.name === chosen ? 'var(--mat-ink)' : 'var(--mat-soft)'"
      >
        {{ l.to - l.from > LETTER * l.p.name.length ? l.p.name : '' }}
      </text>
      <text
        v-if="l.p.kind !== 'guide' && l.to - l.from > 44"
        :x="l.middle"
        :y="LINE - 18"
        text-anchor="middle"
        font-size="13"
        fill="var(--mat-ink)"
        class="figure"
      >
        {{ l.p.lengthMm }}
      </text>
    </g>
    <g v-for="(b, i) in bends" :key="i">
      <path
        :d="`M${b.x - 8} 44q8 16 16 0`"
        fill="none"
        :stroke="b.loss?.tight ? 'var(--mat-stop)' : 'var(--mat-ink)'"
        stroke-width="3"
      />
      <text
        v-if="b.roomy || b.loss?.tight"
        :x="b.x"
        y="38"
        text-anchor="middle"
        font-size="12.5"
        :fill="b.loss?.tight ? 'var(--mat-stop)' : 'var(--mat-ink)'"
        class="figure"
      >
        {{ b.deg }}°{{ b.loss?.tight ? ' tight' : '' }}
      </text>
      <text
        v-if="b.roomy"
        :x="b.x - 6"
        :y="Math.max(y(((b.loss?.before ?? 1) + (b.loss?.after ?? 1)) / 2) + 5, y(b.loss?.before ?? 1) + 16)"
        font-size="12.5"
        fill="var(--mat-ink)"
        text-anchor="end"
        class="figure"
      >
        −{{ Math.round(100 * (1 - (b.loss?.after ?? 1) / (b.loss?.before ?? 1))) }} %
      </text>
    </g>
    <path :d="steps" fill="none" stroke="var(--mat-clean)" stroke-width="3" />
    <g class="figure" font-size="12" fill="var(--mat-soft)">
      <text x="38" :y="y(1) + 4" text-anchor="end">100</text>
      <text x="38" :y="y(0) + 2" text-anchor="end">0</text>
    </g>
    <text x="50" :y="y(0)" font-size="12.5" fill="var(--mat-soft)">share of the lever’s pull, %</text>
    <!-- under its end: above it the step down of a short last loop would strike it through -->
    <text
      :x="W - 14"
      :y="Math.min(y(left) + 20, H - 6)"
      text-anchor="end"
      font-size="18"
      font-weight="700"
      fill="var(--mat-clean)"
      class="figure"
    >
      {{ Math.round(left * 100) }} %
    </text>
  </svg>
</template>
