<script setup lang="ts">
import { DayView } from '#core/http/day'
import { WRONG_REPORTS } from '#core/response/parameters'
import { countOf } from '#core/quantity/words'

useHead({ title: 'My day · Ocho' })
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const senses = computed(() => session.now?.senses ?? null)
const { data: day, error } = await useRead(DayView, '/api/session/day')
</script>

<template>
  <div>
    <PageHead :title="session.now?.person ? `${session.now.person.name}’s day` : 'Whose day?'"
      ><span v-if="day" class="text-soft">{{ sayDay(day.date) }}</span></PageHead
    >
    <main class="mx-auto max-w-2xl px-4 py-5 sm:px-6">
      <p v-if="error" class="stopped" role="alert">{{ error.data?.data?.message ?? OFFLINE_WORDS }}</p>
      <ol v-else-if="day?.jobs.length" class="border-t-2 border-ink" data-test="day">
        <li v-for="j in day.jobs" :key="j.number" class="border-b border-rule">
          <NuxtLink
            :to="`/jobs/${j.number}`"
            class="grid min-h-14 grid-cols-[4rem_minmax(0,1fr)_auto] items-center gap-3 py-1"
          >
            <b class="figure text-xl">{{ j.tag }}</b
            ><span
              ><b>{{ j.bike }}</b
              ><span class="small block"
                >{{ countOf(j.taps, 'entry', 'entries') }}{{ j.closedAt ? ', handed back' : '' }}</span
              ></span
            ><span class="figure text-soft">{{ sayClock(j.last, zone) }}</span>
          </NuxtLink>
        </li>
      </ol>
      <p v-else class="text-soft">
        Nothing of yours yet today. <NuxtLink to="/" class="underline">To the Floor</NuxtLink>
      </p>
      <section v-if="senses" class="mt-6 border-t-2 border-ink pt-2" data-test="senses" aria-labelledby="senses-title">
        <h2 id="senses-title" class="font-bold">As the gears turned out</h2>
        <p v-if="senses.reports" class="mt-1">
          About <b class="figure">{{ Math.round(100 * senses.wrongReports) }}</b> in 100 of what you heard was something
          else, out of {{ senses.reports }}; usually it is {{ Math.round(100 * WRONG_REPORTS) }}.
        </p>
        <p v-if="senses.looks" class="mt-1">
          What you measured by eye lay <b class="figure">{{ senses.eye.toFixed(1) }}</b> times as far off as usual, in
          {{ senses.looks }} looks.
        </p>
        <p class="small mt-1">The advice weighs what you report by it. Nobody else is shown it.</p>
      </section>
      <p class="small mt-4">Only you see this: each sees their own day.</p>
    </main>
  </div>
</template>
