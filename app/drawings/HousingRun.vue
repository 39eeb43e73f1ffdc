<!-- The rear run, its pieces of housing to scale along one line: lever at the left, derailleur at the right. -->
<script setup lang="ts">
import type { HousingPlace } from '#core/cable/places'

const props = defineProps<{
  pieces: readonly { place: HousingPlace; lengthMm: number }[]
  innerMm: number | null
  active: HousingPlace
}>()
const W = useTrueWidth(320, 640)
const H = 96
/** Where each piece lies between lever (0) and derailleur (1), in the order of the run. */
const ORDER: readonly HousingPlace[] = ['lever loop', 'along the frame', 'last loop', 'full length']
const sum = computed(() => props.pieces.reduce((s, p) => s + p.lengthMm, 0))
const whole = computed(() => Math.max(props.innerMm ?? 0, sum.value + 300, 1200))
const px = computed(() => (W.value - 60) / whole.value)
/**
 * The first pieces begin at the lever, the last loop ends at the derailleur, what lies along the frame in the middle.
 */
const laid = computed(() =>
  ORDER.flatMap(place => props.pieces.filter(p => p.place === place)).map(p => {
    const w = p.lengthMm * px.value
    const room = W.value - 60 - w
    return { ...p, w, x: 30 + (p.place === 'last loop' ? room : p.place === 'along the frame' ? room / 2 : 0) }
  }),
)
</script>

<template>
  <svg
    ref="drawn"
    :viewBox="`0 0 ${W} ${H}`"
    class="block w-full"
    :style="{ height: `${H}px` }"
    role="img"
    :aria-label="`Housing: ${pieces.map(p => `${p.place} ${p.lengthMm} mm`).join(', ') || 'no piece recorded'}; inner ${innerMm ?? 'not recorded'}`"
  >
    <text x="12" y="18" font-size="13" fill="var(--mat-soft)">
      {{ W < 480 ? 'lever left, pieces to scale' : 'the run, lever left, derailleur right, pieces to scale' }}
    </text>
    <text :x="W - 12" y="18" font-size="13" fill="var(--mat-soft)" text-anchor="end" class="figure">
      {{ innerMm ? `inner ${innerMm} mm` : '' }}
    </text>
    <path :d="`M30 52H${W - 30}`" stroke="var(--mat-soft)" stroke-width="2" />
    <circle cx="24" cy="52" r="6" fill="var(--mat-ink)" />
    <path :d="`M${W - 30} 44v16`" stroke="var(--mat-ink)" stroke-width="5" />
    <g v-for="p in laid" :key="p.place">
      <rect
        :x="p.x"
        y="44"
        :width="Math.max(6, p.w)"
        height="16"
        rx="3"
        :fill="p.place === active ? 'var(--mat-ink)' : 'var(--bone)'"
      />
      <text :x="p.x + p.w / 2" y="82" font-size="13" fill="var(--mat-ink)" text-anchor="middle" class="figure">
        {{ p.lengthMm }}
      </text>
    </g>
  </svg>
</template>
