<script setup lang="ts">
import { format } from 'date-fns'
import { FloorView, FoundBike, type FloorJob } from '#core/http/job'
import { refDebounced, useEventListener } from '@vueuse/core'
import { useLatest } from '~/workers/latest'

useHead({ title: 'Floor · Ocho' })
const session = useSession()
const outbox = useOutbox()
const { data: floor, error, refresh } = await useRead(FloorView, '/api/floor')
const zone = computed(() => session.now?.shop.zone ?? 'UTC')

const rail = computed(() => floor.value?.jobs.filter(j => j.place === 'rack') ?? [])
const door = computed(() => floor.value?.jobs.filter(j => j.place === 'door') ?? [])
const stands = computed(() =>
  Array.from({ length: floor.value?.stands ?? 4 }, (_, i) => ({
    stand: i + 1,
    job: floor.value?.jobs.find(j => j.place === 'stand' && j.stand === i + 1) ?? null,
  })),
)

/** A bike is moved by two taps: it, then where. */
const moving = shallowRef<FloorJob | null>(null)
const trouble = ref('')
async function place(job: FloorJob, where: 'rack' | 'stand' | 'gone', stand: number | null) {
  moving.value = null
  trouble.value = ''
  // where a bike stands does not follow from what was tapped before
  await outbox.put(job.number, { kind: 'placed', where, stand }, 0)
  trouble.value = sayTrouble(outbox.trouble)
  outbox.clearTrouble()
  await refresh()
}
const calls = computed(() => floor.value?.jobs.filter(j => j.call !== null) ?? [])

const words = ref('')
const asked = refDebounced(
  computed(() => words.value.trim() || null),
  180,
)
const Found = FoundBike.array()
const { answer } = useLatest(asked, async q => ask(Found, `/api/bikes?q=${encodeURIComponent(q)}`))
const found = computed(() =>
  words.value.trim() && answer.value.value?.is === 'done' ? answer.value.value.value : null,
)
const searchTrouble = computed(() => sayTrouble(answer.value.value))
const field = useTemplateRef<HTMLInputElement>('field')
useEventListener('keydown', (e: KeyboardEvent) => {
  const typing = (e.target as HTMLElement).closest('input, textarea, select, [role=dialog]')
  if (e.key === 'Escape') {
    moving.value = null
    words.value = ''
  }
  if (typing || e.metaKey || e.ctrlKey || e.altKey) return
  if (e.key === '/') {
    e.preventDefault()
    field.value?.focus()
  }
  if (e.key.toLowerCase() === 'n') void navigateTo('/take-in')
})
</script>

<template>
  <div>
    <PageHead :title="session.now?.shop.name ?? 'Floor'" wide>
      <span v-if="floor" class="text-soft hidden sm:inline">{{
        format(new Date(`${floor.today}T12:00:00`), 'EEEE d MMMM')
      }}</span>
      <div class="relative order-last w-full sm:order-none sm:ml-auto sm:w-80">
        <label class="sr-only" for="search">Find a bike by tag, name or frame number</label>
        <input
          id="search"
          ref="field"
          v-model="words"
          class="field"
          placeholder="Tag, name or frame number"
          autocomplete="off"
          data-test="search"
        />
        <span class="key absolute top-3.5 right-3 text-soft" aria-hidden="true">/</span>
        <ul
          v-if="found"
          class="absolute top-full right-0 left-0 z-40 mt-1 max-h-96 overflow-auto rounded-md border-2 border-ink bg-panel"
          data-test="found"
        >
          <li v-if="!found.length" class="p-3">
            Nothing of that name, tag or number. <NuxtLink class="underline" to="/take-in">Take it in as new</NuxtLink>
          </li>
          <li v-for="f in found" :key="f.bike.id" class="border-b border-rule last:border-0">
            <NuxtLink
              class="block min-h-14 px-3 py-2"
              :to="
                f.open
                  ? `/jobs/${f.open.number}/rear`
                  : `/take-in?bike=${encodeURIComponent(f.bike.id)}&q=${encodeURIComponent(words)}`
              "
            >
              <span class="font-semibold">{{ f.bike.name }}</span> <span class="text-soft">{{ f.customer.name }}</span>
              <span class="small block"
                >{{
                  f.open
                    ? `here now, tag ${f.open.tag}`
                    : f.last
                      ? `last here ${sayWhen(f.last.closedAt, zone)}: take in again`
                      : 'take in'
                }}{{ f.bike.frameNumber ? `, frame ${f.bike.frameNumber}` : '' }}</span
              >
            </NuxtLink>
          </li>
        </ul>
      </div>
      <NuxtLink to="/standards" class="quiet" data-test="standards">Standards</NuxtLink>
      <NuxtLink to="/take-in" class="act min-h-12!" data-test="take-in"
        >Take a bike in <span class="key" aria-hidden="true">N</span></NuxtLink
      >
    </PageHead>

    <main class="mx-auto max-w-[1400px] px-4 pt-5 pb-10 sm:px-6">
      <p v-if="error" class="stopped mb-4" role="alert">
        {{ OFFLINE_WORDS }} <button type="button" class="quiet underline" @click="refresh()">Try again</button>
      </p>
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
          ><b>Call the customer</b><span class="figure">{{ j.tag }}</span
          ><span>{{ j.bike }}, {{ j.customer }}</span
          ><span class="font-normal">{{ j.call }}</span></NuxtLink
        >
      </section>
      <p
        v-if="moving"
        class="mb-3 flex flex-wrap items-center gap-3 rounded-md border-2 border-ink bg-panel px-4 py-2"
        role="status"
      >
        <span
          >Where does <b>{{ moving.tag }}</b>, {{ moving.bike }}, go?
          {{
            stands.some(s => !s.job) ? 'Tap a stand.' : 'Every stand is taken: move one back to the rail first.'
          }}</span
        >
        <button v-if="moving.place !== 'rack'" type="button" class="also" @click="place(moving, 'rack', null)">
          Back to the rail
        </button>
        <button type="button" class="quiet" @click="moving = null">Leave it</button>
      </p>

      <section aria-labelledby="rail-title">
        <h2 id="rail-title" class="sr-only">On the rail, waiting</h2>
        <div class="h-2 bg-ink" />
        <ul class="grid grid-cols-1 gap-4 px-2 sm:grid-cols-2 sm:px-8 lg:grid-cols-4 xl:grid-cols-5">
          <li v-for="j in rail" :key="j.number" class="relative pt-4">
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
                  ><span class="text-soft">{{ sayWhen(j.promisedAt, zone) }}</span></span
                >
                <span class="block font-semibold">{{ j.bike }}</span>
                <span class="text-soft line-clamp-2">“{{ j.complaint }}”</span>
              </NuxtLink>
              <button type="button" class="quiet -mb-1 -ml-2 self-start text-sm" @click="moving = j">
                Put on a stand
              </button>
            </div>
          </li>
          <li
            v-if="!rail.length && floor"
            class="mt-4 rounded border-2 border-dashed border-rule p-6 text-center text-soft sm:col-span-2"
          >
            No bike waits. <NuxtLink to="/take-in" class="underline">Take one in</NuxtLink>
          </li>
        </ul>
      </section>

      <section class="mt-6" aria-labelledby="stands-title">
        <h2 id="stands-title" class="sr-only">Stands</h2>
        <ul class="grid gap-3.5 sm:grid-cols-2 lg:grid-cols-4">
          <li v-for="s in stands" :key="s.stand" class="relative min-h-52">
            <StandMat v-if="s.job" :key="s.job.number" :job="s.job" />
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
              class="also h-full w-full justify-center"
              :data-test="`to-stand-${s.stand}`"
              @click="place(moving, 'stand', s.stand)"
            >
              Put {{ moving.tag }} on stand {{ s.stand }}
            </button>
            <div v-else class="grid h-full place-items-center rounded-md border-2 border-dashed border-rule text-soft">
              Stand {{ s.stand }} is free
            </div>
          </li>
        </ul>
      </section>

      <div class="mt-6 grid gap-8 lg:grid-cols-[1.7fr_1fr]">
        <section aria-labelledby="door-title">
          <h2 id="door-title" class="mb-2 font-bold">By the door</h2>
          <ul class="border-t border-rule">
            <li
              v-for="j in door"
              :key="j.number"
              class="grid grid-cols-[3rem_1fr_auto] items-center gap-x-3 border-b border-rule py-1 md:grid-cols-[3rem_1fr_1.3fr_auto_auto]"
            >
              <span class="figure text-lg font-semibold">{{ j.tag }}</span>
              <NuxtLink :to="`/jobs/${j.number}/sheet`" class="flex min-h-11 items-center font-semibold">{{
                j.bike
              }}</NuxtLink>
              <span class="text-soft col-start-2 row-start-2 md:col-start-auto md:row-start-auto">{{ j.summary }}</span>
              <span class="text-soft hidden md:block"
                >{{
                  j.unridable ? '' : j.recallOn ? `recall ${format(new Date(`${j.recallOn}T12:00:00`), 'd MMMM')}` : ''
                }}<b v-if="j.unridable" class="text-stop">unridable</b
                ><b v-if="j.declined" class="block text-stop" data-test="door-declined">{{ j.declined }}</b></span
              >
              <button type="button" class="quiet text-sm" @click="place(j, 'gone', null)">Collected</button>
            </li>
            <li v-if="!door.length" class="py-3 text-soft">Nothing is ready to go yet.</li>
          </ul>
        </section>
        <section v-if="floor" aria-labelledby="recalls-title">
          <h2 id="recalls-title" class="mb-2 font-bold">Recalls, this fortnight</h2>
          <FortnightStrip :today="floor.today" :recalls="floor.recalls" />
        </section>
      </div>
    </main>
  </div>
</template>
