<script setup lang="ts">
import { format } from 'date-fns'
import { useEventListener, useIntervalFn, useNow } from '@vueuse/core'
import { FloorView, type FloorJob } from '#core/http/floor'
import { WAITS, WAITS_WORDS, type WaitsFor } from '#core/job/events'
import { atRisk, expectedMinutes } from '#core/job/minutes'
import { railOf, shownOn, type FloorFilter } from '#core/job/rails'
import type BikeSearch from '~/components/floor/BikeSearch.vue'
import { kept, type KeptFloor } from '~/stores/kept'
import { countOf } from '#core/quantity/words'

useHead({ title: 'Floor · Ocho' })
const session = useSession()
const outbox = useOutbox()
const { data: live, error, refresh } = await useRead(FloorView, '/api/floor')
/** Away from the server: the Floor as it was last seen here. */
const last = shallowRef<KeptFloor | null>(null)
const floor = computed(() => live.value ?? last.value?.view ?? null)
onMounted(() => {
  // what was tapped and not sent goes out from here too
  void outbox.flush()
  watch(
    live,
    async view => {
      if (view) await kept.keepFloor(view)
      else last.value = (await kept.floor()) ?? null
    },
    { immediate: true },
  )
})
useIntervalFn(() => error.value && refresh(), 5_000)
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const me = computed(() => session.now?.person?.id ?? null)
const now = useNow({ interval: 30_000 })

/** So many bikes hang from one rail; more from rails by their promise. */
const ONE_RAIL = 5
const rail = computed(() => floor.value?.jobs.filter(j => j.place === 'rack') ?? [])
const door = computed(() => floor.value?.jobs.filter(j => j.place === 'door') ?? [])
const stands = computed(() =>
  Array.from({ length: floor.value?.stands ?? 4 }, (_, i) => ({
    stand: i + 1,
    job: floor.value?.jobs.find(j => j.place === 'stand' && j.stand === i + 1) ?? null,
  })),
)

/** Promises that cannot be kept at this pace, the earliest first. */
const risky = computed(() => {
  const jobs = floor.value?.jobs.filter(j => j.closedAt === null && !j.waits) ?? []
  const took = floor.value?.took ?? []
  const at = atRisk(
    jobs.map(j => ({
      number: j.number,
      promisedAt: wallClock(j.promisedAt, zone.value),
      minutes: expectedMinutes(j.complaint, took).median,
    })),
    wallClock(now.value, zone.value),
    stands.value.length,
  )
  return jobs.filter(j => at.has(j.number) && new Date(j.promisedAt) > now.value)
})

const filter = ref<FloorFilter>('all')
const count = (f: FloorFilter) => rail.value.filter(j => shownOn(j, f, me.value)).length
const filters = computed(() =>
  [
    { value: 'all' as FloorFilter, words: 'All' },
    { value: 'mine' as FloorFilter, words: 'Mine' },
    ...WAITS.map(w => ({ value: w as FloorFilter, words: `Waits for ${WAITS_WORDS[w]}` })),
  ]
    .map(f => ({ ...f, aside: ` ${count(f.value)}` }))
    // what would show nothing is not offered, but for what is chosen
    .filter(f => f.value === 'all' || f.value === filter.value || count(f.value) > 0),
)
/** More than hang from one rail: the stands take less room then. */
const rows = computed(() => shown.value.length > ONE_RAIL)
const shown = computed(() => rail.value.filter(j => shownOn(j, filter.value, me.value)))

/** A bike is moved by two taps: it, then where. */
const moving = shallowRef<FloorJob | null>(null)
const trouble = ref('')
const searchTrouble = ref('')
async function note(job: FloorJob, event: Parameters<typeof outbox.put>[1]) {
  moving.value = null
  trouble.value = ''
  // where a bike stands, and what it waits for, do not follow from what was tapped before
  await outbox.put(job.number, event, 0)
  trouble.value = sayTrouble(outbox.trouble)
  outbox.clearTrouble()
  await refresh()
}
const place = (job: FloorJob, where: 'rack' | 'stand' | 'gone' | 'door', stand: number | null) =>
  note(job, { kind: 'placed', where, stand })
const waits = (job: FloorJob, to: WaitsFor | null) => note(job, { kind: 'waits', for: to })
/** The last one that was collected, until something else is done: it can be taken back. */
const went = shallowRef<FloorJob | null>(null)
async function collected(job: FloorJob) {
  await place(job, 'gone', null)
  if (!trouble.value) went.value = job
}
async function notCollected(job: FloorJob) {
  went.value = null
  await place(job, 'door', null)
}
const calls = computed(() => floor.value?.jobs.filter(j => j.call !== null) ?? [])
const empty = computed(() => floor.value !== null && floor.value.jobs.length === 0)

const search = useTemplateRef<InstanceType<typeof BikeSearch>>('search')
useEventListener('keydown', (e: KeyboardEvent) => {
  const typing = (e.target as HTMLElement).closest('input, textarea, select, [role=dialog]')
  if (e.key === 'Escape') {
    moving.value = null
    search.value?.clear()
  }
  if (typing || e.metaKey || e.ctrlKey || e.altKey) return
  if (e.key === '/') {
    e.preventDefault()
    search.value?.focus()
  }
  if (e.key.toLowerCase() === 'n') void navigateTo('/take-in')
})
</script>

<template>
  <div>
    <PageHead :title="session.now?.shop.name ?? 'Floor'" wide>
      <span v-if="floor" class="text-soft hidden truncate sm:inline lg:min-w-16 lg:shrink-2">{{
        format(new Date(`${floor.today}T12:00:00`), 'EEEE d MMMM')
      }}</span>
      <BikeSearch ref="search" :zone="zone" @trouble="searchTrouble = $event" />
      <NuxtLink to="/standards" class="quiet shrink-0 max-sm:order-3" data-test="standards">Standards</NuxtLink>
      <NuxtLink to="/shop" class="quiet shrink-0 max-sm:order-3" data-test="shop">Shop</NuxtLink>
      <NuxtLink to="/take-in" class="act min-h-12! shrink-0 max-sm:order-2 max-sm:grow" data-test="take-in"
        >Take a bike in <span class="key" aria-hidden="true">N</span></NuxtLink
      >
    </PageHead>

    <main class="mx-auto flex max-w-[1400px] flex-col px-4 pt-4 pb-10 sm:px-6">
      <p v-if="error" class="stopped mb-4" role="alert" data-test="floor-offline">
        <template v-if="last"
          >Offline: the Floor as it was seen {{ sayWhen(last.at, zone)
          }}{{ outbox.waiting.length ? `, ${countOf(outbox.waiting.length, 'tap')} kept` : '' }}. Bikes opened on this
          tablet can be worked on.</template
        ><template v-else>{{ OFFLINE_WORDS }}</template>
        <button type="button" class="quiet underline" @click="refresh()">Try again</button>
      </p>
      <NuxtLink
        v-for="w in floor?.warnings"
        :key="w"
        to="/shop"
        class="stopped mb-4 block"
        role="alert"
        data-test="floor-warning"
        >{{ w }}</NuxtLink
      >
      <p v-if="trouble || searchTrouble" class="stopped mb-4" role="alert" data-test="floor-trouble">
        {{ trouble || searchTrouble }}
      </p>
      <section v-if="calls.length" class="mb-4 grid gap-2" aria-label="Call these customers">
        <NuxtLink
          v-for="j in calls"
          :key="j.number"
          :to="`/jobs/${j.number}/sheet`"
          class="stopped flex flex-wrap items-baseline gap-x-4 text-lg"
          :data-test="`call-${j.tag}`"
          ><b>Call the customer</b><span class="figure">{{ j.tag }}</span><span>{{ j.bike }}, {{ j.customer }}</span
          ><span class="font-normal">{{ j.call }}</span></NuxtLink
        >
      </section>
      <p v-if="went" class="mb-3 flex items-center gap-3 border-l-[10px] border-clean bg-panel px-4" role="status">
        <span><b>{{ went.tag }}</b>, {{ went.bike }}, was collected.</span
        ><button type="button" class="quiet underline" data-test="not-collected" @click="notCollected(went)">
          It is still here
        </button>
      </p>
      <div
        v-if="moving"
        class="mb-3 flex flex-wrap items-center gap-2 rounded-md border-2 border-ink bg-panel px-4 py-2"
        role="status"
        data-test="moving"
      >
        <span class="mr-2"
          >Where does <b>{{ moving.tag }}</b>, {{ moving.bike }}, go?
          {{
            stands.some(s => !s.job) ? 'Tap a stand.' : 'Every stand is taken: move one back to the rail first.'
          }}</span
        >
        <button v-if="moving.place !== 'rack'" type="button" class="also" @click="place(moving, 'rack', null)">
          Back to the rail
        </button>
        <template v-for="w in WAITS" :key="w"
          ><button
            v-if="moving.waits !== w"
            type="button"
            class="also"
            :data-test="`now-waits-${w}`"
            @click="waits(moving, w)"
          >
            Waits for {{ WAITS_WORDS[w] }}
          </button></template
        >
        <button v-if="moving.waits" type="button" class="also" data-test="waits-no-more" @click="waits(moving, null)">
          Waits no more
        </button>
        <button type="button" class="quiet" @click="moving = null">Leave it</button>
      </div>
      <section
        v-if="empty"
        class="mb-4 rounded-md border-2 border-dashed border-rule p-6 text-center"
        data-test="empty-shop"
      >
        <p class="text-xl font-bold">An empty shop</p>
        <p class="mt-1 text-soft">
          <NuxtLink to="/take-in" class="underline">Take the first bike in</NuxtLink>, or
          <NuxtLink to="/shop" class="underline">name who works here</NuxtLink>.
        </p>
      </section>

      <p v-if="risky.length" class="mb-3 border-l-[6px] border-stop bg-panel px-3 py-2" data-test="at-risk">
        At this pace {{ risky.length === 1 ? 'a promise is' : `${risky.length} promises are` }} at risk:
        <NuxtLink
          v-for="j in risky.slice(0, 4)"
          :key="j.number"
          :to="`/jobs/${j.number}`"
          class="mr-3 inline-flex min-h-11 items-center underline underline-offset-4"
          ><b class="figure mr-1">{{ j.tag }}</b> {{ sayWhen(j.promisedAt, zone, now) }}</NuxtLink
        >
      </p>
      <section aria-labelledby="rail-title" class="max-sm:order-3">
        <div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <h2 id="rail-title" class="font-bold">On the rail<span v-if="rail.length">, {{ rail.length }}</span></h2>
          <ChoiceRow
            v-if="filters.length > 1"
            v-model="filter"
            class="w-auto"
            label="Show"
            :choices="filters"
            :columns="filters.length"
            test="show"
          />
        </div>
        <RailRows v-if="rows" :jobs="shown" :zone="zone" :now="now" @move="moving = $event" />
        <template v-else>
          <div class="h-2 bg-ink" />
          <ul class="grid grid-cols-1 gap-4 px-2 sm:grid-cols-2 sm:px-8 lg:grid-cols-4 xl:grid-cols-5">
            <li v-for="j in shown" :key="j.number" class="relative pt-4">
              <svg class="absolute top-[-6px] left-6" width="24" height="34" aria-hidden="true">
                <path d="M4 0v24q0 8 8 8h8" fill="none" stroke="var(--ink)" stroke-width="3.5" />
              </svg>
              <div class="flex h-full min-h-36 flex-col rounded border border-rule bg-panel px-3.5 py-2.5">
                <NuxtLink
                  :to="j.derailleur ? `/jobs/${j.number}/rear` : `/jobs/${j.number}`"
                  class="flex-1"
                  :data-test="`tag-${j.tag}`"
                >
                  <span class="flex items-baseline justify-between"
                    ><span class="figure text-2xl font-semibold">{{ j.tag }}</span
                    ><span :class="railOf(j.promisedAt, now, zone) === 'late' ? 'font-bold text-stop' : 'text-soft'">{{
                      sayWhen(j.promisedAt, zone, now)
                    }}</span></span
                  >
                  <span class="block leading-tight"><b>{{ j.bike }}</b>, {{ j.customer }}</span>
                  <b v-if="j.waits" class="block">waits: {{ WAITS_WORDS[j.waits] }}</b>
                  <span v-else class="text-soft line-clamp-2">“{{ j.complaint }}”</span>
                </NuxtLink>
                <button type="button" class="quiet -mb-1 -ml-2 self-start text-sm" @click="moving = j">
                  Put on a stand
                </button>
              </div>
            </li>
            <li
              v-if="!shown.length && floor"
              class="mt-4 rounded border-2 border-dashed border-rule p-6 text-center text-soft sm:col-span-2"
            >
              {{ rail.length ? 'None of these.' : 'No bike waits.' }}
              <NuxtLink to="/take-in" class="underline">Take one in</NuxtLink>
            </li>
          </ul>
        </template>
      </section>

      <section class="mt-5 max-sm:order-2 max-sm:mt-0 max-sm:mb-5" aria-labelledby="stands-title">
        <h2 id="stands-title" class="mb-2 font-bold">Stands</h2>
        <ul class="grid grid-cols-1 gap-3.5 sm:grid-cols-2 lg:grid-cols-4">
          <li
            v-for="s in stands"
            :key="s.stand"
            class="relative"
            :class="[
              rows ? 'min-h-44' : 'min-h-52',
              { 'max-sm:min-h-14': !s.job },
              { 'max-sm:order-first': me && s.job?.by === me },
            ]"
          >
            <StandMat v-if="s.job" :key="s.job.number" :job="s.job" :compact="rows" />
            <button
              v-if="s.job"
              type="button"
              class="quiet absolute top-9 right-1 text-sm text-white"
              @click="moving = s.job"
            >
              Move
            </button>
            <button
              v-else-if="moving"
              type="button"
              class="also h-full w-full justify-center max-sm:h-14"
              :data-test="`to-stand-${s.stand}`"
              @click="place(moving, 'stand', s.stand)"
            >
              Put {{ moving.tag }} on stand {{ s.stand }}
            </button>
            <div
              v-else
              class="grid h-full place-items-center rounded-md border-2 max-sm:h-14 border-dashed border-rule text-soft"
            >
              Stand {{ s.stand }} is free
            </div>
          </li>
        </ul>
      </section>

      <div class="mt-6 grid gap-8 max-sm:order-4 lg:grid-cols-[1.7fr_1fr]">
        <DoorList :jobs="door" @collected="collected" />
        <section v-if="floor" aria-labelledby="recalls-title">
          <h2 id="recalls-title" class="mb-2 font-bold">
            <NuxtLink
              to="/recalls"
              class="inline-flex min-h-11 items-center underline underline-offset-4"
              data-test="to-recalls"
              >Recalls, this fortnight</NuxtLink
            >
          </h2>
          <FortnightStrip :today="floor.today" :recalls="floor.recalls" />
        </section>
      </div>
    </main>
  </div>
</template>
