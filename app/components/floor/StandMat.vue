<!-- A stand: that bike's own instrument in small and its next move. -->
<script setup lang="ts">
import { leadingCause, type Picture } from '#core/advice/picture'
import type { FloorJob } from '#core/http/floor'
import { JobView } from '#core/http/job'
import { EntriesAnswer } from '#core/ledger/events'
import { reduce, staysOf } from '#core/ledger/reduce'
import { sayEvent } from '#core/ledger/say'
import { sayChance } from '#core/quantity/chance'
import { headOfRear } from '#core/rear/heads'
import { headShort } from '#core/rear/headShort'
import { INDEXED } from '#core/rear/progress'
import { CAUSE_WORDS } from '#core/response/causes'
import { geometryOf } from '#core/response/setup'
import { standardsWith } from '#core/standards/inForce'
import { adviceQuestion } from '~/workers/question'
import { askAdvice } from '~/workers/useAdvice'

const props = defineProps<{ job: FloorJob; compact?: boolean }>()
type Shown =
  | { is: 'loading' | 'away' }
  | { is: 'seen'; picture: Picture; placeMm: number[]; first: string | null; by: string; stays: string }
  | { is: 'plain'; words: string; more: string; note: string; by: string; stays: string }
const FIRST = 'before any screw'
const session = useSession()
const seen = shallowRef<Shown>({ is: 'loading' })

onMounted(async () => {
  const [record, log] = await Promise.all([
    ask(JobView, `/api/jobs/${props.job.number}`),
    ask(EntriesAnswer, `/api/jobs/${props.job.number}/events`),
  ])
  if (record.is !== 'done' || log.is !== 'done') return void (seen.value = { is: 'away' })
  const { entries, newer } = log.value
  const state = reduce([...entries, ...(newer ? [null] : [])])
  const last = entries.at(-1)
  const by = last ? (record.value.people[last.by] ?? '') : ''
  // every bike has proofs to come until the end: only what was found is said here
  const stays = staysOf(state)
    .filter(s => s.is === 'found')
    .map(s => s.why)
    .join(', ')
  // what heads its bench comes before the advice here as there
  const head = headOfRear(state.rear, standardsWith(record.value.own))
  const first = head && headShort(head, state.rear)
  const question = adviceQuestion(state, record.value, session.now)
  if (!question) {
    const [words, more, note] = state.rear.setup
      ? ['Nothing to index', 'stops, gap and slack', 'A lever without clicks']
      : [last ? sayEvent(last.event, []) : '', '', 'No derailleur at the back']
    const said = first ? { words: first, more: FIRST } : { words, more }
    return void (seen.value = { is: 'plain', ...said, note, by, stays })
  }
  seen.value = await askAdvice(question).then(
    (picture): Shown => ({ is: 'seen', picture, placeMm: geometryOf(question.setup).placeMm, first, by, stays }),
    (): Shown => ({ is: 'away' }),
  )
})

const because = computed(() => {
  if (seen.value.is === 'plain') return seen.value.more
  if (seen.value.is !== 'seen') return ''
  if (seen.value.first) return FIRST
  const { right, causes } = seen.value.picture
  if (right >= INDEXED) return `right ${sayChance(right)}`
  const cause = leadingCause(seen.value.picture)
  return `${CAUSE_WORDS[cause].toLowerCase()} ${sayChance(causes[cause])}`
})
</script>

<template>
  <NuxtLink
    :to="job.derailleur ? `/jobs/${job.number}/rear` : `/jobs/${job.number}`"
    class="mat flex h-full flex-col overflow-hidden"
    :data-test="`stand-${job.tag}`"
  >
    <div class="flex items-baseline justify-between px-3.5 pt-3">
      <span class="figure text-2xl font-semibold">{{ job.tag }}</span>
      <span class="text-[var(--mat-soft)]">{{ seen.is === 'seen' || seen.is === 'plain' ? seen.by : '' }}</span>
    </div>
    <p class="truncate pr-16 pl-3.5">{{ job.bike }}, {{ job.customer }}</p>
    <div class="grid flex-1 place-items-center px-2" :class="compact ? 'py-0.5' : 'py-2'">
      <MisfitStrip
        v-if="seen.is === 'seen'"
        :width="280"
        :height="compact ? 60 : 96"
        :inset="20"
        :place-mm="seen.placeMm"
        :gears="seen.picture.gears"
        :stops="null"
        small
        class="max-w-full"
      />
      <p v-else class="text-[var(--mat-soft)]">
        {{ seen.is === 'plain' ? seen.note : seen.is === 'loading' ? 'Reading its log' : 'Its log cannot be read now' }}
      </p>
    </div>
    <div class="px-3.5 pb-3">
      <p class="font-bold" :class="compact ? 'truncate text-lg' : 'text-xl'">
        {{ seen.is === 'seen' ? (seen.first ?? seen.picture.title) : seen.is === 'plain' ? seen.words : ' ' }}
      </p>
      <p class="text-[var(--mat-soft)]">{{ because || ' ' }}</p>
    </div>
    <p
      v-if="(seen.is === 'seen' || seen.is === 'plain') && seen.stays"
      :data-test="`stays-${job.tag}`"
      class="border-l-[10px] border-stop bg-panel px-3 py-1.5 font-semibold text-stop"
    >
      stays: {{ seen.stays }}
    </p>
  </NuxtLink>
</template>
