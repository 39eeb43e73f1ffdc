<!-- Where the next shift goes, and what was heard of it. -->
<script setup lang="ts">
import type { RearBench } from '~/composables/rearBench'

const props = defineProps<{ rear: RearBench }>()
const { setup, aim, arrivals, lever, last, friction, mayLargest, exceptions } = props.rear
/** The larger sprocket stands at the left, as on the bike seen from behind. */
const ends = computed(() => {
  const { to, inward } = aim.value
  const teeth = setup.value!.teeth
  return { left: teeth[inward ? to : lever.value], right: teeth[inward ? lever.value : to] }
})
</script>

<template>
  <footer class="bottom">
    <div class="shiftline">
      <p class="small leading-tight">Shift towards the {{ aim.inward ? 'spokes' : 'frame' }}</p>
      <p class="figure flex items-center gap-2 text-2xl font-semibold" data-test="shift">
        <span :class="aim.inward ? '' : 'text-soft'">{{ ends.left }}</span>
        <svg
          width="26"
          height="14"
          :class="aim.inward ? '' : 'rotate-180'"
          role="img"
          :aria-label="aim.inward ? 'from the right' : 'to the right'"
        >
          <path d="M25 7H4M9 1.5L3 7l6 5.5" fill="none" stroke="currentColor" stroke-width="2.5" />
        </svg>
        <span :class="aim.inward ? 'text-soft' : ''">{{ ends.right }}</span>
      </p>
    </div>
    <HeardKeys
      v-if="!friction"
      :pass-barred="!mayLargest && !arrivals.length"
      :exceptions="exceptions.size"
      :two-clicks="!arrivals.length && Math.abs(aim.to - lever) === 2"
      :at-end="aim.to === 0 || aim.to === last"
      @heard="rear.heard"
      @pass="rear.pass"
    />
  </footer>
</template>

<style scoped>
.bottom {
  grid-area: bottom;
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr);
  align-items: center;
  gap: 16px;
  padding: 10px 16px;
  border-top: 1px solid var(--rule);
  background: var(--ground);
}
@media (max-height: 700px) {
  .bottom {
    padding: 6px 16px;
  }
}
@media (max-width: 1000px) {
  .bottom {
    position: fixed;
    inset: auto 0 0 0;
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
    padding: 6px 8px;
    z-index: 20;
  }
  .shiftline {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 10px;
  }
}
</style>
