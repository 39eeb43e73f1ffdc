<!-- Where one practises: bench, level and bike; lessons; what was met and found; tests a mechanic sets. -->
<script setup lang="ts">
import { ShownPractice } from '#core/http/practice'
import {
  BENCH_WORDS,
  LEVEL_WORDS,
  LEVELS,
  MOST_NUMBER,
  PRACTICE_BENCHES,
  type Level,
  type PracticeBench,
} from '#core/practice/levels'
import { LESSONS } from '#core/practice/lessons'
import { bikesOfTest, type PracticeAsked } from '#core/practice/asked'
import { earOf, faultsMet } from '#core/practice/results'
import { practiceFaultWords } from '#core/practice/faultWords'
import { plain } from '~/workers/latest'
import { practiceWorker } from '~/workers/usePractice'
import { HEARD_KEYS } from '~/components/bench/heard'

useHead({ title: 'Practice · Ocho' })
const session = useSession()
const practice = useMyPractice()
const stopped = useStoppedRun()
const mounted = ref(false)
onMounted(() => {
  mounted.value = true
  void practice.load()
})
const bench = ref<PracticeBench>('rear')
const level = ref<Level>('one')
const bike = ref('')
const benches = PRACTICE_BENCHES.map(value => ({ value, words: BENCH_WORDS[value] }))
const levels = LEVELS.map(value => ({ value, words: LEVEL_WORDS[value].name }))
const wrong = ref('')
const go = (asked: PracticeAsked) => navigateTo({ path: '/practice/run', query: { ...asked } })
const anyBike = () => 1 + Math.floor(Math.random() * MOST_NUMBER)
function start(): void {
  const n = bike.value.trim() === '' ? anyBike() : Number(bike.value)
  wrong.value =
    Number.isInteger(n) && n >= 1 && n <= MOST_NUMBER ? '' : `Practice bikes are numbered from 1 to ${MOST_NUMBER}`
  if (!wrong.value) void go({ bench: bench.value, level: level.value, bike: n })
}
const surprise = () =>
  go({
    bench: PRACTICE_BENCHES[Math.floor(Math.random() * PRACTICE_BENCHES.length)]!,
    level: LEVELS[Math.floor(Math.random() * LEVELS.length)]!,
    bike: anyBike(),
  })
const seeking = ref(false)
async function next(): Promise<void> {
  seeking.value = true
  await go(await practiceWorker().next(plain(practice.results.value), bench.value, Date.now()))
}
const met = computed(() => faultsMet(practice.results.value))
const ear = computed(() => earOf(practice.results.value))
const sayHeard = (h: string) => {
  const k = HEARD_KEYS.find(x => x.heard === h)!
  return `${k.word} ${k.more}`
}
const stoppedRun = computed(() => {
  const s = mounted.value ? stopped.value : null
  return s && !s.kept && s.acts.length + s.others.length > 0 ? s : null
})

// --- a mechanic's test
const test = ref('')
const testNumber = computed(() => {
  const n = Number(test.value)
  return Number.isInteger(n) && n >= 1 && n <= 9_999 ? n : null
})
const mechanic = computed(() => session.now?.person && session.now.person.role !== 'trainee')
const sheet = shallowRef<ShownPractice | null>(null)
const sheetTrouble = ref('')
async function readSheet(): Promise<void> {
  const answer = await ask(ShownPractice, `/api/practice/shown${testNumber.value ? `?test=${testNumber.value}` : ''}`)
  sheetTrouble.value = answer.is === 'done' ? '' : answer.is === 'offline' ? OFFLINE_WORDS : answer.message
  if (answer.is === 'done') sheet.value = answer.value
}
</script>

<template>
  <div>
    <PageHead title="Practice"
      ><span class="text-soft max-sm:hidden">nobody’s bike, nothing in the ledger</span></PageHead
    >
    <main class="mx-auto grid max-w-6xl gap-x-10 gap-y-8 px-4 py-5 sm:px-6 lg:grid-cols-2">
      <section>
        <p v-if="stoppedRun" class="mb-4 border-l-[6px] border-ink pl-3" data-test="stopped">
          A run was stopped: {{ BENCH_WORDS[stoppedRun.asked.bench].toLowerCase() }}, bike {{ stoppedRun.asked.bike }}.
          <button
            type="button"
            class="min-h-11 font-bold underline"
            data-test="take-up"
            @click="go({ ...stoppedRun.asked })"
          >
            Take it up again
          </button>
        </p>
        <h2 class="text-lg font-bold">A bike on the stand</h2>
        <ChoiceRow v-model="bench" class="mt-1" label="Bench" :choices="benches" :columns="2" test="bench" />
        <ChoiceRow v-model="level" class="mt-3" label="Level" :choices="levels" :columns="2" test="level" />
        <p class="small mt-1">{{ LEVEL_WORDS[level].says }}</p>
        <form class="mt-3 grid gap-2 sm:grid-cols-[1fr_auto]" @submit.prevent="start">
          <label class="flex items-center gap-2"
            ><span class="text-soft whitespace-nowrap">Bike number</span
            ><input
              v-model="bike"
              inputmode="numeric"
              maxlength="5"
              placeholder="any"
              class="figure min-h-12 w-full border-2 border-ink bg-panel px-3"
              data-test="bike"
          /></label>
          <button type="submit" class="act min-h-12!" data-test="start">Put it on the stand</button>
        </form>
        <p v-if="wrong" class="stopped mt-2" role="alert" data-test="wrong">{{ wrong }}</p>
        <div class="mt-2 flex flex-wrap gap-2">
          <button type="button" class="also min-h-12!" data-test="surprise" @click="surprise">Surprise me</button>
          <button type="button" class="also min-h-12!" :disabled="seeking" data-test="next" @click="next">
            {{ seeking ? 'Looking …' : 'Where most is to be learnt' }}
          </button>
        </div>
        <h2 class="mt-7 text-lg font-bold">Lessons</h2>
        <ul class="mt-1 border-t-2 border-ink" data-test="lessons">
          <li v-for="l in LESSONS" :key="l.id" class="border-b border-rule">
            <NuxtLink
              :to="{ path: '/practice/run', query: { bench: l.bench, level: l.level, bike: l.bike, lesson: l.id } }"
              class="flex min-h-12 items-center justify-between gap-3 py-1"
              ><b>{{ l.title }}</b><span class="small whitespace-nowrap">{{ BENCH_WORDS[l.bench] }}</span></NuxtLink
            >
          </li>
        </ul>
      </section>
      <section>
        <h2 class="text-lg font-bold">What you met, and found</h2>
        <p v-if="practice.away.value" class="small">
          Away from the server: runs wait here and are kept when it is back.
        </p>
        <p
          v-if="mounted && !practice.results.value.length"
          class="mt-1 border-2 border-dashed border-rule p-4 text-soft"
        >
          Nothing yet. The first lesson takes five minutes.
        </p>
        <ul v-else-if="met.length" class="mt-1 border-t-2 border-ink" data-test="met">
          <li
            v-for="m in met.slice(0, 8)"
            :key="`${m.bench} ${m.fault}`"
            class="grid grid-cols-[1fr_6rem_auto] items-center gap-3 border-b border-rule py-1.5"
          >
            <span>{{ practiceFaultWords(m.bench, m.fault) }}</span>
            <span class="h-3 bg-rule"
              ><span class="block h-3 bg-ink" :style="{ width: `${(100 * m.found) / m.met}%` }"
            /></span>
            <span class="figure">{{ m.found }} of {{ m.met }}</span>
          </li>
        </ul>
        <template v-if="ear.length">
          <h3 class="mt-5 font-bold">Your ear</h3>
          <ul class="mt-1 border-t-2 border-ink" data-test="ear">
            <li v-for="e in ear" :key="e.was" class="flex justify-between gap-3 border-b border-rule py-1.5">
              <span>{{ sayHeard(e.was) }}</span>
              <span class="text-right"
                ><b class="figure">{{ e.named }} of {{ e.there }}</b
                ><span v-if="e.takenFor" class="small block"
                  >taken for: {{ sayHeard(e.takenFor).toLowerCase() }}</span
                ></span
              >
            </li>
          </ul>
        </template>
        <label v-if="practice.mine.value" class="mt-3 flex min-h-12 items-center gap-3"
          ><input
            type="checkbox"
            class="size-5"
            :checked="practice.mine.value.shows"
            data-test="shows"
            @change="practice.show(($event.target as HTMLInputElement).checked)"
          />
          A mechanic may see my runs</label
        >
        <p class="small">Otherwise only you do.</p>
        <h2 class="mt-7 text-lg font-bold">A test of ten bikes</h2>
        <p class="small">A mechanic says a number; everybody who types it gets the same ten.</p>
        <label class="mt-1 flex items-center gap-2"
          ><span class="text-soft whitespace-nowrap">Test number</span
          ><input
            v-model="test"
            inputmode="numeric"
            maxlength="4"
            class="figure min-h-12 w-28 border-2 border-ink bg-panel px-3"
            data-test="test-number"
        /></label>
        <ol v-if="testNumber" class="mt-2 grid grid-cols-2 gap-1.5" data-test="test-bikes">
          <li v-for="(b, i) in bikesOfTest(testNumber)" :key="b.bike">
            <NuxtLink :to="{ path: '/practice/run', query: { ...b } }" class="also flex min-h-11! items-center px-2!"
              ><span class="figure mr-2">{{ i + 1 }}</span>{{ BENCH_WORDS[b.bench] }}</NuxtLink
            >
          </li>
        </ol>
        <template v-if="mechanic">
          <button type="button" class="quiet mt-2 min-h-11 underline" data-test="sheet" @click="readSheet">
            {{ testNumber ? `The sheet of test ${testNumber}` : 'Everybody who shows theirs' }}
          </button>
          <p v-if="sheetTrouble" class="stopped" role="alert">{{ sheetTrouble }}</p>
          <ul v-if="sheet" class="mt-1 border-t-2 border-ink" data-test="shown">
            <li v-for="p in sheet.people" :key="p.name" class="flex justify-between gap-3 border-b border-rule py-1.5">
              <span>{{ p.name }}</span
              ><span class="figure">{{ p.results.filter(r => r.won).length }} of {{ p.results.length }} won</span>
            </li>
            <li v-if="!sheet.people.length" class="py-2 text-soft">Nobody shows theirs.</li>
          </ul>
        </template>
      </section>
    </main>
  </div>
</template>
