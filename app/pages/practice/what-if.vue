<!-- A real bike tried on its belief: what would be to expect if. Nothing is written; back leads to the bench. -->
<script setup lang="ts">
import { until } from '@vueuse/core'
import { z } from 'zod'
import { JobNumber, JobView } from '#core/http/job'
import { EntriesAnswer } from '#core/ledger/events'
import { reduce } from '#core/ledger/reduce'
import { newRun, type BikeAsked, type PracticeRun } from '#core/practice/asked'
import type { Believed } from '#core/practice/whatIf'
import {
  BY_HAND,
  BY_HAND_WORDS,
  WHAT_IF_WORDS,
  WHAT_IFS,
  type ByHand,
  type Expected,
  type WhatIf,
} from '#core/practice/whatIfs'
import { plain } from '~/workers/latest'
import { adviceQuestion } from '~/workers/question'
import { practiceWorker } from '~/workers/usePractice'

useHead({ title: 'What if · Ocho' })
const asked = z.object({ job: JobNumber }).safeParse(useRoute().query)
const number = asked.data?.job ?? null
const session = useSession()
const trouble = ref(asked.success ? '' : 'Which job: open one and touch “What if”')
const bike = ref('')
const seen = ref<{ what: WhatIf; is: Expected }[]>([])
const now = ref<WhatIf | null>(null)
/** One of the bikes it may be, worked on by hand: which number of it, what was done first, and the run. */
const hand = shallowRef<{ nth: number; what: ByHand } | null>(null)
const run = ref<PracticeRun | null>(null)
const drawing = ref(false)
/** So many of the bikes it may be are played for each. */
const BIKES = 6
const mayBe = shallowRef<Believed | null>(null)
let gone = false
onScopeDispose(() => {
  gone = true
})

onMounted(async () => {
  if (number === null) return
  const [record, log] = await Promise.all([
    ask(JobView, `/api/jobs/${number}`),
    ask(EntriesAnswer, `/api/jobs/${number}/events`),
  ])
  if (record.is !== 'done') return void (trouble.value = record.is === 'offline' ? OFFLINE_WORDS : record.message)
  if (log.is !== 'done') return void (trouble.value = log.is === 'offline' ? OFFLINE_WORDS : log.message)
  bike.value = record.value.bike.name
  const { entries, newer } = log.value
  const state = reduce([...entries, ...(newer ? [null] : [])])
  const question = adviceQuestion(state, record.value, session.now)
  if (!question) return void (trouble.value = 'Its drivetrain is not named yet: name it at the bench first')
  const { setup, log: events, prior, options } = plain(question)
  const laid = plain(state.cable.runs.find(r => r.run === 'rear') ?? null)
  const believed: Believed = { setup, log: events, options: { ...options, prior }, run: laid }
  mayBe.value = believed
  for (const what of WHAT_IFS) {
    // who works on one by hand does not wait for the rest of the table
    await until(run).toBe(null)
    if (gone) return
    now.value = what
    const is = await practiceWorker()
      .whatIf(believed, what, BIKES)
      .catch(() => null)
    if (gone) return
    if (!is) {
      now.value = null
      return void (trouble.value = 'This could not be tried: go back to the bench, reload, and try again')
    }
    seen.value = [...seen.value, { what, is }]
  }
  now.value = null
})
/** Takes one of the bikes it may be to the stand; nothing of it is kept, and another is drawn each time. */
async function work(what: ByHand): Promise<void> {
  if (drawing.value) return
  drawing.value = true
  const nth = (hand.value?.nth ?? 0) + 1
  const name = `${number} ${what} ${nth}`
  const drawn = await practiceWorker()
    .draw(name, mayBe.value!, what, nth)
    .then(
      () => true,
      () => false,
    )
  drawing.value = false
  if (!drawn) return void (trouble.value = 'This could not be tried: go back to the bench, reload, and try again')
  const bike: BikeAsked = { bench: 'rear', level: 'one', bike: nth, drawn: name }
  run.value = newRun(bike)
  hand.value = { nth, what }
}
const FIGURES: readonly { what: string; of: (is: Expected) => string }[] = [
  { what: 'touches', of: is => is.touches.toFixed(0) },
  { what: 'right at end', of: is => `${Math.round(is.right * is.of)} of ${is.of}` },
  { what: 'parts', of: is => is.parts.toFixed(1) },
  { what: 'chains off', of: is => is.thrown.toFixed(1) },
]
const byHand = (what: WhatIf): ByHand | null => BY_HAND.find(b => b === what) ?? null
/** Right at the end comes first, then the touches and parts it takes. */
const best = computed(
  () =>
    [...seen.value].sort((a, b) => b.is.right - a.is.right || a.is.touches - b.is.touches || a.is.parts - b.is.parts)[0]
      ?.what,
)
</script>

<template>
  <div>
    <PageHead title="What if"><span class="text-soft">{{ bike }}</span></PageHead>
    <main :class="run ? 'max-w-6xl' : 'max-w-3xl'" class="mx-auto px-4 py-5 sm:px-6">
      <p v-if="trouble" class="stopped" role="alert" data-test="trouble">{{ trouble }}</p>
      <template v-else-if="!run">
        <p>
          Played on from where it stands, on {{ BIKES }} bikes it may be by all that was seen and heard. Nothing is
          written.
        </p>
        <table class="mt-3 w-full border-t-2 border-ink" data-test="what-ifs">
          <thead class="max-sm:hidden">
            <tr class="small text-left">
              <th class="font-normal">what</th>
              <th v-for="f in FIGURES" :key="f.what" class="pl-4 text-right font-normal">{{ f.what }}</th>
              <th><span class="sr-only">by hand</span></th>
            </tr>
          </thead>
          <tbody>
            <!-- on a phone in two lines: what and by hand, then its figures with their names -->
            <tr
              v-for="s in seen"
              :key="s.what"
              class="border-t border-rule max-sm:grid max-sm:grid-cols-4 max-sm:gap-x-2 max-sm:pb-2 sm:h-12"
              :class="{ 'font-bold': s.what === best }"
            >
              <td class="max-sm:col-span-3 max-sm:self-center max-sm:py-2">{{ WHAT_IF_WORDS[s.what] }}</td>
              <td v-for="f in FIGURES" :key="f.what" class="figure max-sm:order-1 sm:pl-4 sm:text-right">
                <span class="small block font-sans font-normal sm:hidden">{{ f.what }}</span>{{ f.of(s.is) }}
              </td>
              <td class="text-right font-normal sm:pl-3">
                <button
                  v-if="byHand(s.what)"
                  type="button"
                  class="quiet whitespace-nowrap underline"
                  :disabled="drawing"
                  :aria-label="`Work on one by hand: ${BY_HAND_WORDS[byHand(s.what)!].toLowerCase()}`"
                  :data-test="`hand-${s.what}`"
                  @click="work(byHand(s.what)!)"
                >
                  by hand
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="now" class="small mt-2" role="status" data-test="trying">
          Trying {{ seen.length + 1 }} of {{ WHAT_IFS.length }}: {{ WHAT_IF_WORDS[now].toLowerCase() }} …
        </p>
        <p v-else-if="seen.length" class="small mt-2">From {{ BIKES }} bikes each: told roughly.</p>
      </template>
      <template v-else>
        <p class="mb-3" data-test="by-hand">
          <b>{{ BY_HAND_WORDS[hand!.what] }}:</b> one of the bikes it may be, by all that was seen and heard. Nothing is
          written.
          <button type="button" class="quiet underline" data-test="to-table" @click="run = null">
            Back to the table
          </button>
        </p>
        <LazyRunOnStand :key="`${hand!.what} ${hand!.nth}`" v-model="run" drawn @another="work(hand!.what)" />
      </template>
      <p v-if="number" class="mt-4">
        <NuxtLink :to="`/jobs/${number}/rear`" class="act inline-flex min-h-12! items-center" data-test="back"
          >Back to the bench</NuxtLink
        >
      </p>
    </main>
  </div>
</template>
