<!-- How far a chain has stretched, on a rule, with the limit of its kind. No store, no physics. -->
<script setup lang="ts">
import { along } from './along'

defineProps<{ percent: number | null; limit: number; speeds: number }>()
const W = useTrueWidth(320, 520)
const H = 74
const MARKS = [0, 0.25, 0.5, 0.75, 1, 1.25, 1.5] as const
const x = computed(() => along([0, 1.5], [20, W.value - 20], true))
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="`Chain wear ${percent ?? 'not measured'}, limit ${limit} per cent for ${speeds} speeds`"
  >
    <text x="12" y="16" font-size="13" fill="var(--mat-soft)">chain elongation, %, limit for {{ speeds }} speeds</text>
    <rect x="20" y="30" :width="W - 40" height="16" fill="var(--mat-band)" />
    <rect
      :x="x(limit)"
      y="30"
      :width="Math.max(0, W - 20 - x(limit))"
      height="16"
      fill="var(--mat-stop)"
      opacity="0.35"
    />
    <path :d="`M${x(limit)} 24v28`" stroke="var(--mat-stop)" stroke-width="5" />
    <g v-for="mark in MARKS" :key="mark">
      <path :d="`M${x(mark)} 46v6`" stroke="var(--mat-soft)" />
      <text :x="x(mark)" y="66" font-size="12" fill="var(--mat-ink)" text-anchor="middle" class="figure">
        {{ mark }}
      </text>
    </g>
    <path
      v-if="percent !== null"
      class="slides"
      :style="{ transform: `translateX(${x(percent)}px)` }"
      d="M0 46l-8 -18h16z"
      fill="var(--mat-ink)"
    />
  </svg>
</template>
