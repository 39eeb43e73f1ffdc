<!-- One practice bike, by its address: the same on every tablet. -->
<script setup lang="ts">
import { LEVEL_WORDS, BENCH_WORDS } from '#core/practice/levels'
import { lessonOf } from '#core/practice/lessons'
import type { RearAct } from '#core/practice/rearStand'
import type { RearShown } from '#core/practice/rearShown'
import { PracticeAsked } from '#core/practice/asked'
import type { Stand } from '#core/practice/stand'
import { plain } from '~/workers/latest'
import { practiceWorker } from '~/workers/usePractice'
import type { Ended } from '~/components/practice/PracticeEnd.vue'

const parsed = PracticeAsked.safeParse(useRoute().query)
const asked = parsed.data ?? null
const wrong = parsed.error?.issues[0]?.message ?? ''
useHead({ title: asked ? `${BENCH_WORDS[asked.bench]}, bike ${asked.bike} · Ocho` : 'Practice · Ocho' })
const lesson = lessonOf(asked?.lesson)
const mounted = ref(false)
const practice = useMyPractice()
const { run, again } = usePracticeRun(asked ?? { bench: 'rear', level: 'one', bike: 1 })
const end = shallowRef<Ended | null>(null)
const replayed = shallowRef<RearShown | null>(null)
const key = ref(0)
onMounted(() => {
  mounted.value = true
})

async function over(now: RearShown | Stand): Promise<void> {
  const told: Ended =
    'end' in now
      ? { ...now.end!, touches: now.touches }
      : { won: now.won, because: now.because, truth: now.truth, touches: now.touches, said: [] }
  end.value = told
  if (!asked || run.value.kept) return
  run.value = { ...run.value, kept: true }
  await practice.keep({
    id: newUuid(),
    at: new Date().toISOString(),
    bench: asked.bench,
    level: asked.level,
    bike: asked.bike,
    lesson: asked.lesson ?? null,
    test: asked.test ?? null,
    faults: await practiceWorker().faults({ ...asked }),
    won: told.won,
    touches: told.touches,
    helps: run.value.helps.length,
    said: [...told.said].map(({ said, was }) => ({ said, was })),
  })
}
function onceMore(): void {
  again()
  end.value = null
  replayed.value = null
  key.value++
}
async function replay(at: number): Promise<void> {
  const acts = plain(run.value.acts).slice(0, at) as RearAct[]
  replayed.value = await practiceWorker().rear({ ...asked! }, acts)
}
</script>

<template>
  <div>
    <PageHead :title="asked ? `${BENCH_WORDS[asked.bench]}, bike ${asked.bike}` : 'Practice'"
      ><span v-if="asked" class="text-soft">{{ lesson ? lesson.title : LEVEL_WORDS[asked.level].name }}</span></PageHead
    >
    <main class="mx-auto max-w-6xl px-4 py-4 sm:px-6">
      <template v-if="!asked">
        <p class="stopped" role="alert" data-test="wrong-address">{{ wrong }}</p>
        <p class="mt-2"><NuxtLink to="/practice" class="underline">Choose a practice bike</NuxtLink></p>
      </template>
      <template v-else>
        <ol v-if="lesson && !end" class="mb-3 grid gap-1" data-test="lesson">
          <li v-for="s in lesson.says" :key="s" class="border-l-[6px] border-ink pl-3">{{ s }}</li>
        </ol>
        <p v-if="!end" class="small mb-3">
          A practice bike: nothing of it enters the ledger. On a real one the usual cautions hold, and a mechanic signs.
        </p>
        <ClientOnly>
          <template v-if="mounted">
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
            <LazyPracticeEnd v-if="end" :run="run" :end="end" @again="onceMore" @replay="replay" />
            <LazyRearPractice v-else-if="asked.bench === 'rear'" :key="key" v-model="run" @over="over" />
            <LazyLooksPractice v-else :key="`o${key}`" v-model="run" @over="over" />
          </template>
        </ClientOnly>
      </template>
    </main>
  </div>
</template>
