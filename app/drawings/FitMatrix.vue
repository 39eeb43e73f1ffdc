<!-- Every shifter with every cassette on one derailleur: filled works, ring needs care, dot will not index. No store,
     no physics. -->
<script setup lang="ts">
import { VERDICT_WORDS, type Verdict } from '#core/rear/fit'

export type MatrixCell = { verdict: Verdict; windowTurns: number; words: string }
const props = defineProps<{
  rows: readonly { id: string; label: string; sub: string }[]
  columns: readonly { id: string; label: string; sub: string }[]
  cells: readonly (readonly MatrixCell[])[]
  row: string
  column: string
}>()
const emit = defineEmits<{ pick: [row: string, column: string] }>()
const LEFT = 148
const TOP = 52
const CW = 44
const RH = 29
const width = computed(() => LEFT + props.columns.length * CW + 8)
const height = computed(() => TOP + props.rows.length * RH + 8)
const chosen = computed(() => ({
  r: props.rows.findIndex(r => r.id === props.row),
  c: props.columns.findIndex(c => c.id === props.column),
}))

/** One cell at a time holds the keyboard; arrows move it. */
function move(event: KeyboardEvent) {
  const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key]
  if (!step) return
  event.preventDefault()
  const r = Math.min(props.rows.length - 1, Math.max(0, chosen.value.r + step[0]))
  const c = Math.min(props.columns.length - 1, Math.max(0, chosen.value.c + step[1]))
  emit('pick', props.rows[r].id, props.columns[c].id)
}
</script>

<template>
  <svg
    :width="width"
    :height="height"
    :viewBox="`0 0 ${width} ${height}`"
    class="block"
    role="img"
    tabindex="0"
    :aria-label="`Shifters by cassettes: ${chosen.r >= 0 && chosen.c >= 0 ? `${rows[chosen.r].id} with ${columns[chosen.c].label}, ${cells[chosen.r][chosen.c].words}` : 'none chosen'}. Arrow keys move.`"
    data-test="matrix"
    @keydown="move"
  >
    <rect v-if="chosen.r >= 0" x="0" :width="width" :y="TOP + chosen.r * RH" :height="RH" fill="var(--mat-raised)" />
    <rect v-if="chosen.c >= 0" :x="LEFT + chosen.c * CW" :width="CW" y="0" :height="height" fill="var(--mat-raised)" />
    <g font-size="12.5" fill="var(--mat-ink)" class="figure">
      <g v-for="(c, i) in columns" :key="c.id">
        <text :x="LEFT + i * CW + CW / 2" y="22" text-anchor="middle" font-size="15" font-weight="600">
          {{ c.label }}
        </text>
        <text :x="LEFT + i * CW + CW / 2" y="40" text-anchor="middle" fill="var(--mat-soft)">{{ c.sub }}</text>
      </g>
      <g v-for="(r, k) in rows" :key="r.id">
        <text x="10" :y="TOP + k * RH + 20" font-size="14">{{ r.label }}</text>
        <text :x="LEFT - 10" :y="TOP + k * RH + 20" text-anchor="end" fill="var(--mat-soft)">{{ r.sub }}</text>
      </g>
    </g>
    <g v-for="(r, k) in cells" :key="rows[k].id">
      <g
        v-for="(cell, i) in r"
        :key="i"
        class="cursor-pointer"
        :data-test="`cell-${rows[k].id}-${columns[i].id}`"
        @click="emit('pick', rows[k].id, columns[i].id)"
      >
        <title>
          {{ rows[k].id }} with {{ columns[i].label }} at {{ columns[i].sub }}: {{ VERDICT_WORDS[cell.verdict] }}
        </title>
        <rect :x="LEFT + i * CW" :y="TOP + k * RH" :width="CW" :height="RH" fill="transparent" />
        <circle
          v-if="cell.verdict === 'works'"
          :cx="LEFT + i * CW + CW / 2"
          :cy="TOP + k * RH + RH / 2"
          r="9"
          fill="var(--mat-clean)"
        />
        <circle
          v-else-if="cell.verdict === 'care'"
          :cx="LEFT + i * CW + CW / 2"
          :cy="TOP + k * RH + RH / 2"
          r="7.5"
          fill="none"
          stroke="var(--mat-clean)"
          stroke-width="3"
        />
        <circle v-else :cx="LEFT + i * CW + CW / 2" :cy="TOP + k * RH + RH / 2" r="2" fill="var(--mat-mid)" />
      </g>
    </g>
    <rect
      v-if="chosen.r >= 0 && chosen.c >= 0"
      :x="LEFT + chosen.c * CW + 2"
      :y="TOP + chosen.r * RH + 1"
      :width="CW - 4"
      :height="RH - 2"
      rx="5"
      fill="none"
      stroke="var(--mat-ink)"
      stroke-width="2.5"
    />
  </svg>
</template>
