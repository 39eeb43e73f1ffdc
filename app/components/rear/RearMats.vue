<!-- The rear bench's instruments, to true scale across: sprockets and pulley, the misfit gear by gear, the barrel's
     thread. -->
<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { restPlaceOf, windowState } from '#core/advice/picture'
import { fromSixteenths } from '#core/quantity/turns'
import type { RearState } from '#core/rear/state'
import type { RearBench } from '~/composables/rearBench'

const props = defineProps<{ state: RearState; rear: RearBench }>()
const { setup, geometry, picture, stale, aim, exceptions, mayLargest } = props.rear
const { width, height } = useElementSize(useTemplateRef<HTMLElement>('mats'))
const narrow = computed(() => width.value > 0 && width.value < 600)
const inset = computed(() => (narrow.value ? 44 : 76))
const NUMBERS = 44
const GAP = 10
const sizes = computed(() => {
  const w = Math.max(280, Math.floor(width.value))
  const h = narrow.value ? 480 : Math.max(360, Math.floor(height.value))
  const rule = Math.max(118, Math.round(h * 0.28))
  const rest = h - rule - NUMBERS - GAP
  const lanes = Math.round(rest * 0.42)
  return { w, lanes, strip: rest - lanes, rule }
})
const cells = computed(() => {
  if (!geometry.value) return []
  const { placeMm, n } = geometry.value
  const from = inset.value
  const to = sizes.value.w - inset.value
  const step = (to - from) / (n - 1)
  return placeMm.map((p, k) => {
    const x = to - (p / placeMm[n - 1]!) * (to - from) - step / 2
    return { k, gear: n - k, teeth: setup.value!.teeth[k]!, place: { left: `${x}px`, width: `${step}px` } }
  })
})
const barredFrom = computed(() => (mayLargest.value || !geometry.value ? null : geometry.value.n - 1))
const barred = (k: number) => barredFrom.value !== null && k >= barredFrom.value
const pulley = computed(() =>
  picture.value && geometry.value && props.state.trace
    ? restPlaceOf(picture.value, geometry.value, props.state.trace.chain, props.state.trace.lastInward)
    : null,
)
const window = computed(() => (picture.value ? windowState(picture.value) : 'unknown'))
const turn = computed(() => {
  const m = picture.value?.move
  return m?.do === 'turn' && m.screw === 'barrel' && !stale.value ? m.turns : null
})
</script>

<template>
  <div v-if="setup && geometry" ref="mats" class="mats">
    <div class="mat relative" data-test="lanes">
      <SprocketLanes
        :width="sizes.w"
        :height="sizes.lanes"
        :teeth="setup.teeth"
        :place-mm="geometry.placeMm"
        :pulley-mm="pulley"
        :selected="aim.to"
        :barred-from="barredFrom"
        :inset="inset"
      />
      <MisfitStrip
        :width="sizes.w"
        :height="sizes.strip"
        :place-mm="geometry.placeMm"
        :gears="picture?.gears ?? []"
        :stops="picture?.stops ?? null"
        :inset="inset"
      />
      <div class="relative" :style="{ height: `${NUMBERS}px` }">
        <button
          v-for="c in cells"
          :key="c.k"
          type="button"
          class="figure exception"
          :style="c.place"
          :class="{ aimed: c.k === aim.to, marked: exceptions.has(c.k) }"
          :aria-pressed="exceptions.has(c.k)"
          :aria-label="`Gear ${c.gear}, the ${c.teeth}: not clean in the pass`"
          :data-test="`mark-${c.k}`"
          @click="rear.toggle(c.k)"
        >
          <span>{{ exceptions.has(c.k) ? '×' : c.gear }}</span>
        </button>
      </div>
      <button
        v-for="c in cells"
        :key="`lane${c.k}`"
        type="button"
        class="lane"
        :style="{ ...c.place, height: `${sizes.lanes + sizes.strip}px` }"
        :disabled="barred(c.k)"
        :aria-label="`Shift to the ${c.teeth}${barred(c.k) ? ': see L by hand first' : ''}`"
        :aria-current="c.k === aim.to ? 'true' : undefined"
        :data-test="`lane-${c.k}`"
        @click="rear.aimAt(c.k)"
      />
    </div>
    <div class="mat mt-2.5" data-test="rule">
      <BarrelRule
        :width="sizes.w"
        :height="sizes.rule"
        :turns-out="fromSixteenths(state.barrelSixteenths)"
        :range-turns="setup.barrelTurnsRange"
        :clean-turns="window === 'known' ? (picture?.windowTurns ?? null) : null"
        :window-state="window"
        :eighths="picture?.eighths ?? []"
        :turn="turn"
      />
    </div>
  </div>
</template>

<style scoped>
.mats {
  flex: 1;
  min-height: 0;
}
.lane {
  position: absolute;
  top: 0;
  background: transparent;
  border-radius: 4px;
}
.lane[aria-current='true'] {
  background: var(--mat-veil);
}
.exception {
  position: absolute;
  top: 0;
  height: 44px;
  display: grid;
  place-items: center;
  color: var(--mat-soft);
  font-size: 1rem;
}
.exception span {
  min-width: 32px;
  padding: 3px 0;
  text-align: center;
  border: 2px solid transparent;
  border-radius: 5px;
}
.exception.aimed span {
  border-color: var(--mat-ink);
  color: var(--mat-ink);
  font-weight: 600;
}
.exception.marked span {
  background: var(--mat-stop);
  color: var(--night);
  font-weight: 600;
  border-color: var(--mat-stop);
}
</style>
