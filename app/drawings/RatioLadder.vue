<!-- The hub's gears on a scale of their ratios, and what was counted on it: where a line leans, another gear answered.
     No store. -->
<script setup lang="ts">
import { along } from './along'

const props = defineProps<{
  ratios: readonly number[]
  counts: readonly { gear: number; ratio: number | null; right: boolean }[]
  chosen: number
}>()
const emit = defineEmits<{ choose: [gear: number] }>()
const W = 690
const H = 190
const ASKED = 138
const TABLE = 60
const x = computed(() => along([Math.log(props.ratios[0]! * 0.9), Math.log(props.ratios.at(-1)! * 1.1)], [34, W - 34]))
const place = (r: number) => Math.max(12, Math.min(W - 12, x.value(Math.log(r))))
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="block h-auto w-full"
    role="group"
    aria-label="Gears by ratio and what was counted"
  >
    <text x="14" y="20" font-size="13" fill="var(--mat-soft)">counted</text>
    <text :x="W - 14" y="20" font-size="13" fill="var(--mat-soft)" text-anchor="end">
      gears by their ratio, where a line leans another answered
    </text>
    <path :d="`M20 ${TABLE}H${W - 20}`" stroke="var(--mat-mid)" stroke-width="2" />
    <g
      v-for="(r, i) in ratios"
      :key="i"
      class="rung"
      role="button"
      tabindex="0"
      :aria-label="`Gear ${i + 1}, ratio ${r}`"
      :aria-pressed="chosen === i + 1"
      @click="emit('choose', i + 1)"
      @keydown.enter.stop="emit('choose', i + 1)"
    >
      <rect :x="place(r) - 15" :y="ASKED - 20" width="30" height="52" fill="transparent" />
      <path
        :d="`M${place(r)} ${TABLE}V${ASKED - 24}`"
        stroke="var(--mat-mid)"
        stroke-width="1.5"
        stroke-dasharray="3 5"
      />
      <circle :cx="place(r)" :cy="ASKED" r="15" :fill="chosen === i + 1 ? 'var(--mat-ink)' : 'var(--mat-edge)'" />
      <text
        :x="place(r)"
        :y="ASKED + 6"
        font-size="17"
        font-weight="600"
        text-anchor="middle"
        class="figure"
        :fill="chosen === i + 1 ? 'var(--night)' : 'var(--mat-ink)'"
      >
        {{ i + 1 }}
      </text>
      <text
        v-if="ratios.length <= 9"
        :x="place(r)"
        :y="ASKED + 33"
        font-size="13"
        text-anchor="middle"
        class="figure"
        fill="var(--mat-soft)"
      >
        {{ r }}
      </text>
    </g>
    <g v-for="(c, i) in counts" :key="`c${i}`">
      <template v-if="c.ratio !== null">
        <path
          :d="`M${place(ratios[c.gear - 1]!)} ${ASKED - 16}L${place(c.ratio)} ${TABLE + 9}`"
          :stroke="c.right ? 'var(--mat-clean)' : 'var(--mat-stop)'"
          stroke-width="3"
        />
        <circle :cx="place(c.ratio)" :cy="TABLE" r="8" :fill="c.right ? 'var(--mat-clean)' : 'var(--mat-stop)'" />
        <text
          :x="place(c.ratio)"
          :y="TABLE - 16"
          font-size="14"
          text-anchor="middle"
          class="figure"
          fill="var(--mat-ink)"
        >
          {{ c.ratio.toFixed(2) }}
        </text>
      </template>
      <text
        v-else
        :x="place(ratios[c.gear - 1]!)"
        :y="ASKED - 26"
        font-size="14"
        text-anchor="middle"
        font-weight="600"
        fill="var(--mat-stop)"
        stroke="var(--mat-deep)"
        stroke-width="6"
        paint-order="stroke"
      >
        slips
      </text>
    </g>
  </svg>
</template>

<style scoped>
.rung {
  cursor: pointer;
}
.rung:focus-visible circle {
  stroke: var(--mat-clean);
  stroke-width: 3;
}
</style>
