<!-- The wheel seen from the drive side with the gauge's readings round the clock and the plane fitted to them. -->
<script setup lang="ts">
import type { HangerReading } from '#core/rear/hanger'

const props = defineProps<{
  size: number
  readings: readonly HangerReading[]
  active: number | null
  fit: { camberDeg: number; toeDeg: number } | null
  radiusMm: number
  lever: number | null
  bad: number | null
}>()
const emit = defineEmits<{ choose: [hour: number] }>()
/** mm of gap are drawn this many times larger than the wheel. */
const EXAGGERATED = 14
const HOURS = [12, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11]
const R = 128
const at = (hour: number, r: number) => ({
  x: r * Math.sin((hour * Math.PI) / 6),
  y: -r * Math.cos((hour * Math.PI) / 6),
})
const mean = computed(() =>
  props.readings.length ? props.readings.reduce((s, r) => s + r.gapMm, 0) / props.readings.length : 0,
)
const gapAt = (hour: number) => {
  if (!props.fit) return 0
  const b = props.radiusMm * Math.tan((props.fit.camberDeg * Math.PI) / 180)
  const c = props.radiusMm * Math.tan((props.fit.toeDeg * Math.PI) / 180)
  return b * Math.cos((hour * Math.PI) / 6) + c * Math.sin((hour * Math.PI) / 6)
}
const off = (mm: number) => R + Math.max(-44, Math.min(44, (mm * EXAGGERATED) / 4))
const fitted = computed(
  () =>
    props.fit &&
    Array.from({ length: 73 }, (_, i) => {
      const p = at(i / 6, off(gapAt(i / 6)))
      return `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`
    }).join(''),
)
</script>

<template>
  <div class="relative mx-auto" :style="{ width: `${size}px`, height: `${size}px` }">
    <svg
      viewBox="-210 -210 420 420"
      :width="size"
      :height="size"
      class="block"
      role="img"
      :aria-label="`Hanger gauge: ${readings.map(r => `${r.hour} o'clock ${r.gapMm} mm`).join(', ') || 'no readings yet'}`"
    >
      <circle :r="R" fill="none" stroke="var(--mat-dim)" stroke-width="2" />
      <circle r="9" fill="var(--mat-dim)" />
      <path
        v-for="h in HOURS"
        :key="h"
        :d="`M${at(h, 14).x} ${at(h, 14).y}L${at(h, R).x} ${at(h, R).y}`"
        stroke="var(--mat-line)"
      />
      <path v-if="fitted" :d="fitted" fill="none" stroke="var(--mat-ink)" stroke-width="3" class="plane" />
      <g v-for="r in readings" :key="r.hour">
        <path
          :d="`M${at(r.hour, R).x} ${at(r.hour, R).y}L${at(r.hour, off(r.gapMm - mean)).x} ${at(r.hour, off(r.gapMm - mean)).y}`"
          stroke="var(--mat-ink)"
          stroke-width="2"
        />
        <circle
          :cx="at(r.hour, off(r.gapMm - mean)).x"
          :cy="at(r.hour, off(r.gapMm - mean)).y"
          r="6"
          :fill="bad === r.hour ? 'var(--mat-stop)' : 'var(--mat-ink)'"
        />
      </g>
      <g
        v-if="lever !== null"
        :transform="`rotate(${lever * 30})`"
        stroke="var(--mat-ink)"
        fill="none"
        stroke-width="4"
      >
        <path :d="`M0 ${-R + 62}V${-R + 16}`" />
        <path :d="`M-9 ${-R + 28}L0 ${-R + 14}L9 ${-R + 28}`" />
      </g>
      <text y="44" font-size="13" fill="var(--mat-soft)" text-anchor="middle">seen from the drive side</text>
    </svg>
    <button
      v-for="h in HOURS"
      :key="h"
      type="button"
      class="place figure"
      :class="{ active: active === h, read: readings.some(r => r.hour === h), bad: bad === h }"
      :aria-pressed="active === h"
      :aria-label="`${h} o'clock${readings.some(r => r.hour === h) ? ', read' : ''}`"
      :data-test="`hour-${h}`"
      :style="{ left: `${size * (0.5 + at(h, 186).x / 420)}px`, top: `${size * (0.5 + at(h, 186).y / 420)}px` }"
      @click="emit('choose', h)"
    >
      {{ h }}
    </button>
  </div>
</template>

<style scoped>
.place {
  position: absolute;
  width: 44px;
  height: 44px;
  margin: -22px 0 0 -22px;
  border-radius: 22px;
  border: 2px solid var(--mat-line);
  color: var(--mat-soft);
  font-size: 1rem;
}
.place.read {
  border-color: var(--mat-ink);
  color: var(--mat-ink);
  font-weight: 600;
}
.place.active {
  background: var(--mat-ink);
  color: var(--night);
  border-color: var(--mat-ink);
  font-weight: 600;
}
.place.bad {
  border-color: var(--mat-stop);
  color: var(--mat-stop);
}
.place.active.bad {
  color: var(--paper-stop);
}
</style>
