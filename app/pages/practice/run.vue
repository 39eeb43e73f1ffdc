<!-- One practice bike, by its address: the same on every tablet. -->
<script setup lang="ts">
import { LEVEL_WORDS, BENCH_WORDS } from '#core/practice/levels'
import { lessonOf } from '#core/practice/lessons'
import { PracticeAsked } from '#core/practice/asked'
import { practiceWorker } from '~/workers/usePractice'
import type { Ended } from '~/components/practice/PracticeEnd.vue'

const parsed = PracticeAsked.safeParse(useRoute().query)
const asked = parsed.data ?? null
const wrong = parsed.error?.issues[0]?.message ?? ''
useHead({ title: asked ? `${BENCH_WORDS[asked.bench]}, bike ${asked.bike} · Ocho` : 'Practice · Ocho' })
const lesson = lessonOf(asked?.lesson)
const mounted = ref(false)
const practice = useMyPractice()
const { run } = usePracticeRun(asked ?? { bench: 'rear', level: 'one', bike: 1 })
const ended = ref(false)
onMounted(() => {
  mounted.value = true
})

async function over(told: Ended): Promise<void> {
  ended.value = true
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
        <ol v-if="lesson && !ended" class="mb-3 grid gap-1" data-test="lesson">
          <li v-for="s in lesson.says" :key="s" class="border-l-[6px] border-ink pl-3">{{ s }}</li>
        </ol>
        <p v-if="!ended" class="small mb-3">
          A practice bike: nothing of it enters the ledger. On a real one the usual cautions hold, and a mechanic signs.
        </p>
        <ClientOnly>
          <LazyRunOnStand v-if="mounted" v-model="run" @over="over" @again="ended = false" />
        </ClientOnly>
      </template>
    </main>
  </div>
</template>
