<!-- A practice run: worked on at the stand, and once it is over what it was, looked at step by step or begun again. -->
<script setup lang="ts">
import { newRun, type PracticeRun } from '#core/practice/asked'
import type { RearAct } from '#core/practice/rearStand'
import type { RearShown } from '#core/practice/rearShown'
import type { Stand } from '#core/practice/stand'
import { plain } from '~/workers/latest'
import { practiceWorker } from '~/workers/usePractice'
import type { Ended } from './PracticeEnd.vue'

const run = defineModel<PracticeRun>({ required: true })
/** Drawn from what is believed of a real bike: others of those come after it, none by number. */
const { drawn = false } = defineProps<{ drawn?: boolean }>()
const emit = defineEmits<{ over: [told: Ended]; again: []; another: [] }>()
const end = shallowRef<Ended | null>(null)
const replayed = shallowRef<RearShown | null>(null)
const key = ref(0)

function over(now: RearShown | Stand): void {
  const told: Ended =
    'end' in now
      ? { ...now.end!, touches: now.touches }
      : { won: now.won, because: now.because, truth: now.truth, touches: now.touches, said: [] }
  end.value = told
  emit('over', told)
}
function onceMore(): void {
  run.value = newRun(run.value.asked)
  end.value = null
  replayed.value = null
  key.value++
  emit('again')
}
async function replay(at: number): Promise<void> {
  const acts = plain(run.value.acts).slice(0, at) as RearAct[]
  replayed.value = await practiceWorker().rear(plain(run.value.asked), acts)
}
</script>

<template>
  <div>
    <div v-if="end && replayed" class="mat mb-4 p-2">
      <LazyStandFromBehind
        :teeth="replayed.teeth"
        :place-mm="replayed.placeMm"
        :pulley-mm="replayed.pulleyMm"
        :chain="replayed.chain"
        :lean-mm="replayed.leanMm"
        :barred-from="null"
        label="The stand as it was at that step"
      />
    </div>
    <LazyPracticeEnd
      v-if="end"
      :run="run"
      :end="end"
      :drawn="drawn"
      @again="onceMore"
      @another="emit('another')"
      @replay="replay"
    />
    <LazyRearPractice v-else-if="run.asked.bench === 'rear'" :key="key" v-model="run" @over="over" />
    <LazyLooksPractice v-else :key="`o${key}`" v-model="run" @over="over" />
  </div>
</template>
