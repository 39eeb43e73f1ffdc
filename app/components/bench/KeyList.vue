<!-- Which keys do what at this bench: the same on all of them. -->
<script setup lang="ts">
import type { Bench } from '~/composables/bench'
import { KEY_MEANINGS } from './keyMeanings'

const props = defineProps<{ bench: Bench }>()
const keys = computed(() => {
  const used = props.bench.usedKeys()
  return KEY_MEANINGS.filter(k => k.keys.some(key => used.includes(key)))
})
</script>

<template>
  <section
    class="no-print fixed right-4 bottom-4 z-20 w-80 max-w-[calc(100vw-2rem)] rounded border border-rule bg-panel p-3 shadow-lg"
    aria-label="Keys"
    data-test="key-list"
  >
    <div class="flex items-center justify-between">
      <h2 class="text-lg font-bold">Keys</h2>
      <button type="button" class="quiet" @click="bench.closeKeys">Close</button>
    </div>
    <dl class="mt-2 grid grid-cols-[5.5rem_1fr] gap-y-1.5">
      <template v-for="k in keys" :key="k.shown"
        ><dt class="figure font-semibold">{{ k.shown }}</dt>
        <dd>{{ k.means }}</dd></template
      >
    </dl>
  </section>
</template>
