<script setup lang="ts">
import { unnamedDerailleur } from '#core/rear/counted'
import { oddClock } from '#core/ledger/events'
import { drivetrainOf } from '#core/ledger/drivetrain'
import { takenBackAtAll } from '#core/ledger/reduce'
import { sayEvent } from '#core/ledger/say'
import { WAITS, WAITS_WORDS, type WaitsFor } from '#core/job/events'
import type { SchoolChoice } from '#core/procedure/schools'
import type { RearParts } from '#core/rear/parts'
import { sayKnown, unusedGears } from '#core/rear/partsInWords'
import { matchOfParts } from '#core/rear/typedParts'

const session = useSession()
const bench = useBench(() => 'Job', null)
const { number, ledger, state, record, closed, put } = bench
const { stored, waiting } = storeToRefs(ledger)
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const schools = useSchools()
// an entry holds the whole choice: what is left out goes back to the usual
const choose = (choice: SchoolChoice) => put({ kind: 'schools', choice }, 'Schools chosen')
const match = computed(() => state.value.rear.parts && matchOfParts(state.value.rear.parts))
const correction = computed(() =>
  closed.value ? null : (state.value.inForce.findLast(e => e.event.kind === 'parts') ?? null),
)
const choosing = ref(false)
async function take(parts: RearParts) {
  choosing.value = false
  await put({ kind: 'parts', parts }, 'Drivetrain put right')
}
const WAITING = [
  { value: 'nothing' as WaitsFor | 'nothing', words: 'nothing' },
  ...WAITS.map(value => ({ value: value as WaitsFor | 'nothing', words: WAITS_WORDS[value] })),
]
const waits = computed({
  get: () => state.value.job.waits ?? 'nothing',
  set: (to: WaitsFor | 'nothing' | null) =>
    void put({ kind: 'waits', for: to === 'nothing' ? null : to }, 'Noted what it waits for'),
})
const entries = computed(() => [...stored.value, ...waiting.value].reverse())
const inForce = computed(() => new Set(state.value.inForce.filter(takenBackAtAll).map(e => e.id)))
const who = (by: unknown) => record.value?.people[String(by)] ?? ''
const begin = computed(() => (state.value.rear.setup ? 'rear' : 'hub'))
</script>

<template>
  <div>
    <JobTop :here="null" />
    <JobNotHere v-if="bench.loaded.value !== 'ready' || !record" :bench="bench" />
    <main
      v-else
      class="mx-auto grid max-w-[1240px] gap-x-10 gap-y-6 px-4 py-5 wrap-anywhere sm:px-6 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]"
    >
      <div class="empty:hidden lg:col-span-2"><BenchTroubles :bench="bench" /></div>
      <div class="grid content-start gap-5">
        <JobDetails :job="record" :zone="zone" :based-on="ledger.lastSeq" :closed="closed" @done="ledger.refresh" />
        <template v-if="!closed">
          <NuxtLink class="act" :to="`/jobs/${number}/${begin}`" :data-test="`to-${begin}`"
            >To the {{ begin === 'rear' ? 'rear bench' : 'hub gear' }}</NuxtLink
          >
          <StagePathAsked v-if="state.rear.setup" :state="state" :number="number" :here="null" />
          <section aria-labelledby="waits-title">
            <h2 id="waits-title" class="mb-1 font-bold">It waits for</h2>
            <ChoiceRow v-model="waits" label="It waits for" :choices="WAITING" :columns="2" test="waits" />
          </section>
        </template>
        <JobNotes :job="record" :zone="zone" :closed="closed" @done="ledger.refresh" />
        <section aria-labelledby="photos-title">
          <h2 id="photos-title" class="mb-1 font-bold">As it came</h2>
          <FoundPhotos :job="number" of="bike" :closed="closed" />
        </section>
        <details class="border-t border-rule">
          <summary class="flex min-h-11 cursor-pointer items-center font-bold">Schools on this job</summary>
          <SchoolPick class="mt-2" :chosen="state.job.schools" :in-force="schools.ids" @choose="choose" />
        </details>
        <JobEnds v-if="!closed" :number="number" :state="state" @done="ledger.refresh" />
      </div>
      <div class="grid content-start gap-5">
        <section aria-label="Drivetrain">
          <p class="figure">{{ drivetrainOf(state) }}</p>
          <div
            v-if="match && state.rear.setup && state.rear.parts"
            aria-label="Do the parts go together"
            data-test="match"
          >
            <p
              class="text-lg leading-tight font-semibold"
              :class="{ 'text-stop': match.verdict === 'will-not-index', 'text-clean': match.verdict === 'works' }"
            >
              {{ match.words }}
            </p>
            <p v-if="unusedGears(state.rear.parts)" class="font-semibold text-stop">
              {{ unusedGears(state.rear.parts) }}.
            </p>
            <div class="mat mt-2 p-1">
              <MatchStrip :labels="state.rear.setup.teeth" :error-mm="match.errorMm" :clean-mm="match.cleanMm" />
            </div>
            <p class="mt-1 text-[0.9375rem]">
              {{ sayKnown(state.rear.parts) }}.
              <NuxtLink
                class="underline underline-offset-4"
                :to="`/standards/measure?job=${number}`"
                data-test="to-measure"
                >Measure the parts</NuxtLink
              >
            </p>
            <NuxtLink
              v-if="match.verdict !== 'works'"
              class="underline underline-offset-4"
              :to="`/standards/match?s=${state.rear.parts.shifter.standard ?? ''}&d=${state.rear.parts.derailleur.standard ?? ''}&c=${state.rear.parts.cassette.standard ?? ''}`"
              >What would fix it</NuxtLink
            >
          </div>
          <p v-else-if="unnamedDerailleur(state)" class="text-soft">A derailleur, not named yet.</p>
          <p v-else class="text-soft">No derailleur at the back.</p>
          <div v-if="!closed && !choosing" class="flex flex-wrap gap-x-3">
            <button type="button" class="quiet -ml-2" data-test="choose-parts" @click="choosing = true">
              {{ state.rear.setup ? 'Choose it again' : unnamedDerailleur(state) ? 'Name it' : 'It has one after all' }}
            </button>
            <button
              v-if="correction"
              type="button"
              class="quiet"
              data-test="undo-parts"
              @click="put({ kind: 'undo', undoes: correction.id }, 'Taken back')"
            >
              Take the corrected drivetrain back
            </button>
          </div>
          <Suspense v-if="choosing"
            ><LazyJobDrivetrain :state="state" @take="take" @close="choosing = false" /><template #fallback
              ><p class="text-soft">Reading the catalogue</p></template
            ></Suspense
          >
        </section>
        <section>
          <h2 class="font-bold">The ledger so far, {{ entries.length }}</h2>
          <ol class="mt-1 border-t border-rule" data-test="ledger">
            <li
              v-for="e in entries"
              :key="e.id"
              class="grid grid-cols-[1fr_auto_5.5rem] items-center gap-x-3 border-b border-rule py-1"
              :class="{ 'line-through text-soft': state.undone.has(e.id) }"
            >
              <span>{{ sayEvent(e.event, state.rear.setup?.teeth ?? []) }}</span
              ><span class="small text-right"
                >{{ who(e.by)
                }}<template v-if="'signedBy' in e && e.signedBy">, signed {{ who(e.signedBy) }}</template>,
                {{ oddClock(e.at) ? 'by a clock that was wrong' : sayTime(e.at, zone) }}</span
              ><button
                v-if="!closed && inForce.has(e.id)"
                type="button"
                class="quiet -my-1 text-sm"
                :aria-label="`Take back: ${sayEvent(e.event, state.rear.setup?.teeth ?? [])}`"
                data-test="take-back-entry"
                @click="bench.takeBack(e)"
              >
                Take back
              </button>
            </li>
          </ol>
        </section>
      </div>
    </main>
    <BenchSaid :bench="bench" />
  </div>
</template>
