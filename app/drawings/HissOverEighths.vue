<!-- How loud the chain hisses with the barrel so many eighths out, a bar for each way that it was wound there: both
     rubs and the quiet middle. No store, no physics. -->
<script setup lang="ts">
const props = defineProps<{
  heard: readonly { eighths: number; way: 'out' | 'in'; rubDb: number }[]
  now: number
  from: number | null
  to: number | null
  label: string
}>()
const W = useTrueWidth(340, 680)
const H = 300
const LEAST_DB = -40
const MOST_DB = 4
const reach = computed(() => {
  const all = [...props.heard.map(h => h.eighths), props.now, -4, 4]
  return { least: Math.min(...all) - 0.5, most: Math.max(...all) + 0.5 }
})
const x = (e: number) => 40 + ((e - reach.value.least) / (reach.value.most - reach.value.least)) * (W.value - 80)
const y = (db: number) => 40 + ((MOST_DB - Math.max(LEAST_DB, db)) / (MOST_DB - LEAST_DB)) * (H - 96)
const ticks = computed(() => {
  const out: number[] = []
  for (let e = Math.ceil(reach.value.least); e <= reach.value.most; e++) out.push(e)
  return out
})
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="label"
  >
    <rect
      v-if="from !== null && to !== null"
      :x="x(from)"
      y="30"
      :width="Math.max(2, x(to) - x(from))"
      :height="H - 76"
      fill="var(--mat-clean)"
      fill-opacity="0.22"
    />
    <path :d="`M30 ${H - 46}H${W - 30}`" stroke="var(--mat-line)" stroke-width="2" />
    <g v-for="e in ticks" :key="e">
      <path :d="`M${x(e)} ${H - 46}v8`" stroke="var(--mat-soft)" stroke-width="2" />
      <text
        v-if="e % 2 === 0"
        :x="x(e)"
        :y="H - 20"
        text-anchor="middle"
        font-size="16"
        class="figure"
        fill="var(--mat-ink)"
      >
        {{ e > 0 ? `+${e}` : e < 0 ? `−${-e}` : '0' }}
      </text>
    </g>
    <g v-for="(h, i) in heard" :key="i">
      <path
        :d="`M${x(h.eighths) + (h.way === 'out' ? 4 : -4)} ${H - 46}V${y(h.rubDb)}`"
        :stroke="h.way === 'out' ? 'var(--bone)' : 'var(--mat-soft)'"
        :stroke-width="h.way === 'out' ? 7 : 3"
        stroke-linecap="round"
      />
    </g>
    <path :d="`M${x(now)} 26V${H - 46}`" stroke="var(--mat-out)" stroke-width="3" stroke-dasharray="6 5" />
    <text x="34" y="20" font-size="15" fill="var(--mat-soft)">hiss, winding out</text>
    <path d="M160 15h18" stroke="var(--bone)" stroke-width="7" stroke-linecap="round" />
    <text x="204" y="20" font-size="15" fill="var(--mat-soft)">in</text>
    <path d="M226 15h18" stroke="var(--mat-soft)" stroke-width="3" stroke-linecap="round" />
    <text :x="W - 34" y="20" font-size="15" fill="var(--mat-soft)" text-anchor="end">
      {{ W < 420 ? '1/8, + out' : 'eighths, + out' }}
    </text>
  </svg>
</template>
