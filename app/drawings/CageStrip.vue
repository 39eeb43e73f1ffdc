<!-- Where the cage comes to rest on each ring's click, in mm from where it should stand; belief with its spread. No
     store, no physics. -->
<script setup lang="ts">
import { along } from './along'
import type { Spread } from '#core/front/contract'

const props = defineProps<{
  /** Smallest ring first; a way that does not lead to a ring is null. */
  rows: readonly { name: string; outward: Spread | null; inward: Spread | null; clean: { from: number; to: number } }[]
  /** Null until they are worked out. */
  stops: { L: Spread; H: Spread } | null
}>()
const W = 690
const ROW = 44
const TOP = 30
const H = computed(() => TOP + ROW * props.rows.length + 6)
const REACH = 4
const x = along([-REACH, REACH], [200, W - 24], true)
const middle = (i: number) => TOP + ROW * i + ROW / 2
/** The big ring lies uppermost, as it is outermost in the plan above. */
const rows = computed(() => [...props.rows].reverse())
const say = (s: Spread) => `${Math.abs(s.mean).toFixed(1)} mm ${s.mean > 0 ? 'outboard' : 'inboard'}`
const words = computed(() =>
  props.rows
    .map(
      r =>
        `${r.name}: ${[r.outward && `climbing ${say(r.outward)}`, r.inward && `dropping ${say(r.inward)}`].filter(Boolean).join(', ')}`,
    )
    .join('; '),
)
const waysOf = (r: (typeof props.rows)[number]) =>
  (['outward', 'inward'] as const).flatMap(way => {
    const s = r[way]
    return s ? [{ s, way }] : []
  })
const off = (s: Spread) => Math.abs(s.mean) > REACH
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="drawn block h-auto w-full"
    role="img"
    :aria-label="`Cage from where it should stand. ${words}`"
  >
    <text x="14" y="19" font-size="13" fill="var(--mat-soft)">
      cage, mm
      <tspan class="wide-only">from its place</tspan>
    </text>
    <text :x="x(-REACH)" y="19" font-size="13" fill="var(--mat-soft)" class="figure">−{{ REACH }} inboard</text>
    <text :x="x(REACH)" y="19" font-size="13" fill="var(--mat-soft)" text-anchor="end" class="figure">
      outboard +{{ REACH }}
    </text>
    <path
      v-for="i in 2 * REACH + 1"
      :key="i"
      :d="`M${x(i - 1 - REACH)} ${TOP - 4}V${H - 6}`"
      :stroke="i - 1 === REACH ? 'var(--mat-dim)' : 'var(--mat-line)'"
    />
    <g v-for="(r, i) in rows" :key="r.name">
      <rect
        v-if="r.clean.to > r.clean.from"
        :x="x(r.clean.from)"
        :width="x(r.clean.to) - x(r.clean.from)"
        :y="middle(i) - 15"
        height="30"
        fill="var(--mat-band)"
      />
      <text x="14" :y="middle(i) + 6" font-size="16" fill="var(--mat-ink)" font-weight="600">{{ r.name }}</text>
      <g v-for="{ s, way } in waysOf(r)" :key="way" class="mark" :style="{ transform: `translateX(${x(s.mean)}px)` }">
        <path
          :d="`M${x(0) - x(s.sd)} 0H${x(s.sd) - x(0)}`"
          stroke="var(--mat-ink)"
          stroke-width="2"
          opacity="0.6"
          :transform="`translate(0 ${middle(i) + (way === 'outward' ? -7 : 7)})`"
        />
        <path
          :d="way === 'outward' ? 'M-6 -6L7 0L-6 6z' : 'M6 -6L-7 0L6 6z'"
          :fill="way === 'outward' ? 'var(--mat-ink)' : 'var(--mat)'"
          stroke="var(--mat-ink)"
          stroke-width="2"
          :transform="`translate(0 ${middle(i) + (way === 'outward' ? -7 : 7)})`"
        />
        <text
          v-if="off(s)"
          :x="s.mean > 0 ? -14 : 14"
          :y="middle(i) + (way === 'outward' ? -3 : 12)"
          font-size="13"
          fill="var(--mat-ink)"
          :text-anchor="s.mean > 0 ? 'end' : 'start'"
          class="figure"
        >
          {{ s.mean.toFixed(1) }}
        </text>
      </g>
    </g>
    <g v-if="stops" class="mark" :style="{ transform: `translateX(${x(stops.H.mean)}px)` }">
      <rect x="0" :y="middle(0) - 18" width="5" height="36" fill="var(--mat-stop)" />
      <text x="9" :y="middle(0) - 8" font-size="13" fill="var(--mat-stop)" font-weight="700">H</text>
    </g>
    <g v-if="stops" class="mark" :style="{ transform: `translateX(${x(stops.L.mean)}px)` }">
      <rect x="-5" :y="middle(rows.length - 1) - 18" width="5" height="36" fill="var(--mat-stop)" />
      <text
        x="-9"
        :y="middle(rows.length - 1) - 8"
        font-size="13"
        fill="var(--mat-stop)"
        font-weight="700"
        text-anchor="end"
      >
        L
      </text>
    </g>
  </svg>
</template>

<style scoped>
.mark {
  transition: transform 200ms ease;
}
@media (prefers-reduced-motion: reduce) {
  .mark {
    transition: none;
  }
}
</style>
