<!-- What has been turned since the bike came in. -->
<script setup lang="ts">
import { type ScrewName, sayNet } from '#core/chapter/screws'
import RotateCcw from '@lucide/vue/dist/esm/icons/rotate-ccw.mjs'
import RotateCw from '@lucide/vue/dist/esm/icons/rotate-cw.mjs'
import type { JobState } from '#core/ledger/reduce'

const props = defineProps<{ state: JobState }>()
const NAMES: Record<ScrewName, string> = { barrel: 'Barrel', H: 'H', L: 'L', B: 'B' }
const rows = computed(() =>
  (['barrel', 'H', 'L', 'B'] as const).map(screw => {
    const net = props.state.rear.net[screw]
    return {
      screw,
      name: NAMES[screw],
      words: sayNet(screw, net),
      way: net === 0 ? null : (screw === 'barrel') === net > 0 ? 'out' : 'in',
    }
  }),
)
</script>

<template>
  <div>
    <h2 class="small border-t border-rule pt-2">Turned since it came in</h2>
    <dl class="turns">
      <div
        v-for="r in rows"
        :key="r.screw"
        class="flex min-h-8 items-center justify-between gap-1"
        :class="{ untouched: r.way === null }"
      >
        <dt>{{ r.name }}</dt>
        <dd
          class="figure flex items-center gap-1 text-[0.9375rem] font-semibold whitespace-nowrap"
          :class="{ 'text-out': r.way === 'out', 'text-in': r.way === 'in' }"
          :data-test="`net-${r.screw}`"
        >
          {{ r.words }}
          <RotateCcw v-if="r.way === 'out'" :size="16" aria-hidden="true" /><RotateCw
            v-if="r.way === 'in'"
            :size="16"
            aria-hidden="true"
          />
        </dd>
      </div>
    </dl>
  </div>
</template>

<style scoped>
/* on a low screen only what was turned, and the barrel, take room: Take back stays in sight */
@media (max-height: 880px) and (min-width: 1001px) {
  .turns > div {
    min-height: 26px;
  }
  .turns > .untouched:not(:first-child) {
    display: none;
  }
}
@media (max-height: 700px) and (min-width: 1001px) {
  .turns {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    column-gap: 12px;
    font-size: 0.875rem;
  }
  .turns > div {
    min-height: 26px;
  }
}
</style>
