<!-- A job that ends without its work: its customer fetched the bike, or there was no job. Asked once more, with the
     reason. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'

defineProps<{ number: number; state: JobState }>()
const emit = defineEmits<{ done: [] }>()
const WAYS = [
  [
    'unrepaired',
    'Its customer fetched it unrepaired',
    'The sheet will say on top that the work was not done, and prove nothing.',
  ],
  ['cancelled', 'Cancel: there was no job', 'The tag is free again, nothing of it goes into the records.'],
] as const
const way = ref<(typeof WAYS)[number] | null>(null)
function ended() {
  way.value = null
  emit('done')
}
</script>

<template>
  <section class="border-t border-rule pt-2" aria-label="It ends otherwise">
    <div v-if="way === null" class="flex flex-wrap gap-x-3">
      <button v-for="w in WAYS" :key="w[0]" type="button" class="quiet -ml-2" :data-test="w[0]" @click="way = w">
        {{ w[1] }}
      </button>
    </div>
    <LazyEndForm
      v-else
      :number="number"
      :state="state"
      :how="way[0]"
      :words="way[1]"
      :means="way[2]"
      @done="ended"
      @close="way = null"
    />
  </section>
</template>
