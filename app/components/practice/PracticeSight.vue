<!-- What an eye finds at a practice stand, moving as the last act goes on; to be looked at again. -->
<script setup lang="ts">
import { usePreferredReducedMotion, useRafFn } from '@vueuse/core'
import { brakePose, padLooks } from '#core/practice/brakeSight'
import { frontPose } from '#core/practice/frontSight'
import { hubPose } from '#core/practice/hubSight'
import { lastsS, tellsAtS, type Sight } from '#core/practice/sight'

const props = defineProps<{ sight: Sight; said: string }>()
/** Seconds into what is seen. */
const s = ref(0)
const lasts = computed(() => lastsS(props.sight))
const motion = usePreferredReducedMotion()
let began = 0
const { pause, resume } = useRafFn(
  ({ timestamp }) => {
    began ||= timestamp
    s.value = Math.min(lasts.value, (timestamp - began) / 1000)
    if (s.value >= lasts.value) pause()
  },
  { immediate: false },
)
/** Who asked for less motion sees a still. */
function begin(): void {
  if (motion.value === 'reduce') return void (s.value = tellsAtS(props.sight))
  began = 0
  s.value = 0
  if (lasts.value) resume()
}
watch(() => props.sight, begin, { immediate: true })
</script>

<template>
  <figure class="mat relative p-2" data-test="sight">
    <LazyBrakeFromFront
      v-if="sight.of === 'brake'"
      :pose="brakePose(sight, s)"
      :pads="padLooks(sight)"
      :disc="sight.disc"
      :label="`The brake from the front. ${said}`"
    />
    <LazyFrontFromBehind
      v-else-if="sight.of === 'front'"
      :rings="sight.rings"
      :chain-width-mm="sight.chainWidthMm"
      :cage-width-mm="sight.cageWidthMm"
      :height-mm="sight.heightMm"
      :angle-deg="sight.angleDeg"
      v-bind="frontPose(sight, s)"
      :label="`The front derailleur from behind. ${said}`"
    />
    <LazyTurningWheel
      v-else-if="sight.count"
      v-bind="hubPose(sight.count, s)"
      :label="`Gear ${sight.count.gear}: the crank is turned ${sight.count.crankTurns} times. ${said}`"
    />
    <LazyHubWindow v-else :way="sight.way" :mm="sight.readMm" :wanted="sight.wanted" :words="sight.adjuster" unjudged />
    <figcaption v-if="lasts" class="mt-1 flex justify-end sm:absolute sm:right-3 sm:bottom-3">
      <button type="button" class="also min-h-11!" data-test="look-again" @click="begin">Look again</button>
    </figcaption>
  </figure>
</template>
