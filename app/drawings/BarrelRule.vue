<!-- What to do: the barrel's whole travel as a steel rule in eighths. No store, no physics. -->
<script setup lang="ts">
import { along } from './along'
import { sayTurns } from '#core/quantity/turns'

const props = defineProps<{
  width: number
  height: number
  turnsOut: number
  rangeTurns: number
  cleanTurns: { from: number; to: number } | null
  /** Chance to be right at each eighth. */
  eighths: readonly { turns: number; right: number }[]
  windowState: 'known' | 'unknown' | 'none'
  /** The advised turn, + out; null when none. */
  turn: number | null
}>()

const PAD = 26
const x = computed(() => along([0, props.rangeTurns], [PAD, props.width - PAD]))
const tight = computed(() => props.height < 150)
const ruleTop = computed(() => (tight.value ? 46 : Math.round(props.height * 0.4)))
const ruleHeight = computed(() => (tight.value ? 44 : 58))
const ticks = computed(() => Array.from({ length: Math.round(props.rangeTurns * 8) + 1 }, (_, i) => i))
/** The word stands on the side away from the window and the turn, where there is room. */
const wordLeft = computed(() => {
  const px = x.value(props.turnsOut)
  const busyRight =
    (props.turn ?? 0) > 0 ||
    (props.cleanTurns ? (props.cleanTurns.from + props.cleanTurns.to) / 2 > props.turnsOut : false)
  if (px < PAD + 90) return false
  return px > props.width - PAD - 90 || busyRight
})
const step = computed(() => x.value(1 / 8) - x.value(0))
const below = computed(() => ruleTop.value + ruleHeight.value + 22)
</script>

<template>
  <svg
    :width="width"
    :height="height"
    :viewBox="`0 0 ${width} ${height}`"
    role="img"
    class="block"
    :aria-label="`Barrel ${sayTurns(turnsOut)} turns out of ${rangeTurns}${cleanTurns ? `, clean from ${sayTurns(cleanTurns.from)} to ${sayTurns(cleanTurns.to)}` : ', no clean setting known'}`"
  >
    <text x="16" y="20" font-size="13" fill="var(--mat-soft)">Barrel, turns out</text>
    <g v-if="cleanTurns">
      <rect
        class="clean"
        :x="x(cleanTurns.from)"
        :width="Math.max(4, x(cleanTurns.to) - x(cleanTurns.from))"
        :y="ruleTop - 20"
        height="20"
        fill="var(--mat-clean)"
      />
      <text :x="width - 16" y="20" text-anchor="end" font-size="13" fill="var(--mat-clean)">
        every gear clean {{ sayTurns(cleanTurns.from) }} to {{ sayTurns(cleanTurns.to) }}
      </text>
    </g>
    <text
      v-else
      :x="width - 16"
      y="20"
      text-anchor="end"
      font-size="13"
      :fill="windowState === 'none' ? 'var(--mat-stop)' : 'var(--mat-soft)'"
    >
      {{ windowState === 'none' ? 'no clean setting' : 'clean setting not known yet' }}
    </text>
    <g fill="var(--mat-soft)">
      <rect
        v-for="e in eighths"
        :key="e.turns"
        :x="x(e.turns) - step * 0.3"
        :width="step * 0.6"
        :y="ruleTop - 20 * e.right"
        :height="20 * e.right"
        opacity="0.55"
      />
    </g>
    <rect :x="PAD - 14" :width="width - 2 * PAD + 28" :y="ruleTop" :height="ruleHeight" rx="2" fill="var(--bone)" />
    <path
      v-for="i in ticks"
      :key="i"
      :d="`M${x(i / 8)} ${ruleTop}v${i % 8 === 0 ? (tight ? 14 : 24) : i % 4 === 0 ? (tight ? 10 : 16) : tight ? 6 : 9}`"
      stroke="var(--night)"
      :stroke-width="i % 8 === 0 ? 2 : 1"
    />
    <g class="figure" font-size="17" font-weight="600" fill="var(--night)" text-anchor="middle">
      <text v-for="i in ticks.filter(t => t % 8 === 0)" :key="i" :x="x(i / 8)" :y="ruleTop + ruleHeight - 7">
        {{ i / 8 }}
      </text>
    </g>
    <g class="here" :transform="`translate(${x(turnsOut)} ${ruleTop})`">
      <path d="M0 0l-9 -17h18z" fill="var(--mat-ink)" stroke="var(--mat)" stroke-width="1.5" />
      <text
        :x="wordLeft ? -14 : 14"
        y="-4"
        :text-anchor="wordLeft ? 'end' : 'start'"
        font-size="15"
        fill="var(--mat-ink)"
        class="figure"
        stroke="var(--mat)"
        stroke-width="4"
        paint-order="stroke"
      >
        now {{ sayTurns(turnsOut) }}
      </text>
    </g>
    <g
      v-if="turn"
      :fill="turn > 0 ? 'var(--mat-out)' : 'var(--mat-in)'"
      :stroke="turn > 0 ? 'var(--mat-out)' : 'var(--mat-in)'"
    >
      <path :d="`M${x(turnsOut)} ${below - 6}H${x(turnsOut + turn) + (turn > 0 ? -8 : 8)}`" stroke-width="5" />
      <path :d="`M${x(turnsOut + turn)} ${below - 6}l${turn > 0 ? -12 : 12} -9v18z`" stroke="none" />
      <text
        :x="x(turnsOut + turn) + (turn > 0 ? 8 : -8)"
        :y="below"
        :text-anchor="turn > 0 ? 'start' : 'end'"
        font-size="17"
        font-weight="700"
        stroke="none"
      >
        {{ sayTurns(turn) }} {{ turn > 0 ? 'out' : 'in' }}
      </text>
    </g>
    <g font-size="13" fill="var(--mat-soft)">
      <text :x="PAD - 10" :y="height - 8">{{ sayTurns(turnsOut) }} left to slacken</text>
      <text :x="width - PAD + 10" :y="height - 8" text-anchor="end">
        {{ sayTurns(rangeTurns - turnsOut) }} left to tighten
      </text>
    </g>
  </svg>
</template>

<style scoped>
.here {
  transition: transform 200ms ease-out;
}
.clean {
  transition:
    x 200ms ease-out,
    width 200ms ease-out;
}
@media (prefers-reduced-motion: reduce) {
  .here,
  .clean {
    transition: none;
  }
}
</style>
