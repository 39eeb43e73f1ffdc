<!-- A real bike tried on its belief: what would be to expect if. Nothing is written; back leads to the bench. -->
<script setup lang="ts">
import { z } from 'zod'
import { JobNumber, JobView } from '#core/http/job'
import { EntriesAnswer } from '#core/ledger/events'
import { reduce } from '#core/ledger/reduce'
import { WHAT_IF_WORDS, WHAT_IFS, type Expected, type WhatIf } from '#core/practice/whatIfs'
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
/** So many of the bikes it may be are played for each. */
const BIKES = 6
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
  const run = plain(state.cable.runs.find(r => r.run === 'rear') ?? null)
  for (const what of WHAT_IFS) {
    now.value = what
    const believed = { setup, log: events, options: { ...options, prior }, run }
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
/** Right at the end comes first, then the touches and parts it takes. */
const best = computed(
  () =>
    [...seen.value].sort((a, b) => b.is.right - a.is.right || a.is.touches - b.is.touches || a.is.parts - b.is.parts)[0]
      ?.what,
)
</script>

<template>
  <div>
    <PageHead title="What if"
      ><span class="text-soft">{{ bike }}</span></PageHead
    >
    <main class="mx-auto max-w-3xl px-4 py-5 sm:px-6">
      <p v-if="trouble" class="stopped" role="alert" data-test="trouble">{{ trouble }}</p>
      <template v-else>
        <p>
          Played on from where it stands, on {{ BIKES }} bikes it may be by all that was seen and heard. Nothing is
          written.
        </p>
        <table class="mt-3 w-full border-t-2 border-ink" data-test="what-ifs">
          <thead>
            <tr class="small text-left">
              <th class="font-normal">what</th>
              <th class="pl-4 text-right font-normal">touches</th>
              <th class="pl-4 text-right font-normal">right at the end</th>
              <th class="pl-4 text-right font-normal">parts</th>
              <th class="pl-4 text-right font-normal">chains thrown</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in seen" :key="s.what" class="border-t border-rule" :class="{ 'font-bold': s.what === best }">
              <td class="py-2">{{ WHAT_IF_WORDS[s.what] }}</td>
              <td class="figure pl-4 text-right">{{ s.is.touches.toFixed(0) }}</td>
              <td class="figure pl-4 text-right">{{ Math.round(s.is.right * s.is.of) }} of {{ s.is.of }}</td>
              <td class="figure pl-4 text-right">{{ s.is.parts.toFixed(1) }}</td>
              <td class="figure pl-4 text-right">{{ s.is.thrown.toFixed(1) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="now" class="small mt-2" role="status" data-test="trying">
          Trying {{ seen.length + 1 }} of {{ WHAT_IFS.length }}: {{ WHAT_IF_WORDS[now].toLowerCase() }} …
        </p>
        <p v-else-if="seen.length" class="small mt-2">From {{ BIKES }} bikes each: told roughly.</p>
      </template>
      <p v-if="number" class="mt-4">
        <NuxtLink :to="`/jobs/${number}/rear`" class="act inline-flex min-h-12! items-center" data-test="back"
          >Back to the bench</NuxtLink
        >
      </p>
    </main>
  </div>
</template>
