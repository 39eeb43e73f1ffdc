<!-- A stand: that bike's own instrument in small and its next move. -->
<script setup lang="ts">
import { geometryOf } from '#core/response/setup'
import { CAUSES } from '#core/advice/contract'
import { CAUSE_WORDS } from '#core/advice/explain'
import type { FloorJob, JobView } from '#core/http/job'
import type { Stored } from '#core/ledger/events'
import { hubStays } from '#core/hub/state'
import { reduce, staysBecause } from '#core/ledger/reduce'
import { sayEvent } from '#core/ledger/say'
import { priorFor } from '#core/ledger/belief'
import type { Picture } from '#core/advice/picture'
import { sayChance } from '#core/quantity/chance'
import { askAdvice } from '~/workers/useAdvice'

const props = defineProps<{ job: FloorJob }>()
type Seen =
  | { is: 'loading' }
  | { is: 'seen'; picture: Picture; placeMm: number[]; by: string; stays: string | null }
  | { is: 'away' }
  | { is: 'plain'; words: string; by: string; stays: string | null }
const seen = shallowRef<Seen>({ is: 'loading' })

onMounted(async () => {
  const [record, log] = await Promise.all([
    ask<JobView>(`/api/jobs/${props.job.number}`),
    ask<{ entries: Stored[] }>(`/api/jobs/${props.job.number}/events`),
  ])
  if (record.is !== 'done' || log.is !== 'done') return void (seen.value = { is: 'away' })
  const state = reduce(log.value.entries)
  const last = log.value.entries.at(-1)
  // a brake is proven last of all: only what was found wrong is said here; a hub's danger is
  const stays = hubStays(state.noted.hub) ?? (state.proofs.front || state.proofs.rear ? staysBecause(state) : null)
  if (!state.setup)
    return void (seen.value = {
      is: 'plain',
      words: last ? sayEvent(last.event, []) : '',
      by: last ? (record.value.people[last.by] ?? '') : '',
      stays,
    })
  const prior = priorFor(state, record.value.known)
  seen.value = await askAdvice({ job: props.job.number, setup: state.setup, log: state.bench, prior }).then(
    picture =>
      ({
        is: 'seen',
        picture,
        placeMm: geometryOf(state.setup!).placeMm,
        by: last ? (record.value.people[last.by] ?? '') : '',
        stays,
      }) as const,
    () => ({ is: 'away' }) as const,
  )
})

const because = computed(() => {
  if (seen.value.is !== 'seen') return ''
  const { causes, right, move } = seen.value.picture
  // the cause the move is about, else the likeliest
  const worst =
    move.do === 'replace'
      ? move.cause
      : move.do === 'hanger'
        ? 'hanger'
        : [...CAUSES].sort((a, b) => causes[b] - causes[a])[0]
  return right >= 0.8 ? `right ${sayChance(right)}` : `${CAUSE_WORDS[worst].toLowerCase()} ${sayChance(causes[worst])}`
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
      <span class="text-[#c4d6d1]">{{ seen.is === 'seen' || seen.is === 'plain' ? seen.by : '' }}</span>
    </div>
    <p class="px-3.5">{{ job.bike }}</p>
    <div class="grid flex-1 place-items-center px-2 py-2">
      <MisfitStrip
        v-if="seen.is === 'seen'"
        :width="280"
        :height="96"
        :inset="20"
        :place-mm="seen.placeMm"
        :gears="seen.picture.gears"
        :stops="null"
        small
        class="max-w-full"
      />
      <p v-else class="text-[#c4d6d1]">
        {{
          seen.is === 'plain'
            ? 'No derailleur at the back'
            : seen.is === 'loading'
              ? 'Reading its log'
              : 'Its log cannot be read now'
        }}
      </p>
    </div>
    <div class="px-3.5 pb-3">
      <p class="text-xl font-bold">
        {{ seen.is === 'seen' ? seen.picture.title : seen.is === 'plain' ? seen.words : ' ' }}
      </p>
      <p class="text-[#c4d6d1]">{{ because || ' ' }}</p>
    </div>
    <p
      v-if="(seen.is === 'seen' || seen.is === 'plain') && seen.stays"
      class="border-l-[10px] border-stop bg-panel px-3 py-1.5 font-semibold text-stop"
    >
      stays: {{ seen.stays }}
    </p>
  </NuxtLink>
</template>
