<script setup lang="ts">
import { sayKnown, unusedGears } from '#core/rear/parts'
import { drivetrainOf } from '#core/ledger/drivetrain'
import { matchOfParts } from '#core/rear/typedParts'
import { FRAME_WORDS } from '#core/records/frames'
import { sayEvent } from '#core/ledger/say'
import type { SchoolChoice } from '#core/procedure/schools'

const session = useSession()
const bench = useBench(() => 'Job')
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
const entries = computed(() => [...stored.value, ...waiting.value].reverse())
</script>

<template>
  <div>
    <JobTop :here="null" />
    <JobNotHere v-if="bench.loaded.value !== 'ready' || !record" :bench="bench" />
    <main v-else class="mx-auto grid max-w-5xl gap-8 px-4 py-5 sm:px-6 md:grid-cols-[1fr_1.2fr]">
      <div class="md:col-span-2 empty:hidden"><BenchTroubles :bench="bench" /></div>
      <section>
        <p class="text-xl">“{{ record.complaint }}”</p>
        <dl class="mt-3 grid grid-cols-[6rem_1fr] gap-y-1">
          <dt class="text-soft">Customer</dt>
          <dd>{{ record.customer.name }} {{ record.customer.contact }}</dd>
          <dt class="text-soft">Promised</dt>
          <dd>{{ sayWhen(record.promisedAt, zone) }}</dd>
          <dt class="text-soft">Drivetrain</dt>
          <dd class="figure">{{ drivetrainOf(state) }}</dd>
          <dt class="text-soft">Bike</dt>
          <dd>
            <NuxtLink class="underline underline-offset-4" :to="`/bikes/${record.bike.id}`">{{
              record.bike.name
            }}</NuxtLink>{{ record.bike.frameKind ? `, ${FRAME_WORDS[record.bike.frameKind]}` : '' }}
          </dd>
        </dl>
        <section
          v-if="match && state.rear.setup && state.rear.parts"
          class="mt-4"
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
          <button
            v-if="correction"
            type="button"
            class="quiet -ml-2"
            data-test="undo-parts"
            @click="put({ kind: 'undo', undoes: correction.id }, 'Taken back')"
          >
            Take the measured drivetrain back
          </button>
        </section>
        <StagePath v-if="state.rear.setup" class="mt-4" :state="state" :number="number" :right="null" :here="null" />
        <NuxtLink v-if="!state.rear.setup" class="act mt-4" :to="`/jobs/${number}/hub`" data-test="to-hub"
          >To the hub gear</NuxtLink
        >
        <NuxtLink v-if="state.rear.setup" class="act mt-4" :to="`/jobs/${number}/rear`">To the rear bench</NuxtLink>
        <NuxtLink v-if="state.rear.setup" class="also mt-2" :to="`/jobs/${number}/front`" data-test="to-front"
          >To the front</NuxtLink
        >
        <NuxtLink class="also mt-2" :to="`/jobs/${number}/cables`" data-test="to-cables">To the cables</NuxtLink>
        <NuxtLink class="also mt-2" :to="`/jobs/${number}/brakes`" data-test="to-brakes">To the brakes</NuxtLink>
        <NuxtLink v-if="state.rear.setup" class="also mt-2" :to="`/jobs/${number}/hub`" data-test="to-hub"
          >To the hub gear</NuxtLink
        >
        <NuxtLink class="also mt-2" :to="`/jobs/${number}/sheet`">To the sheet</NuxtLink>
        <details class="mt-5 border-t border-rule pt-2">
          <summary class="min-h-11 cursor-pointer font-bold">Schools on this job</summary>
          <SchoolPick class="mt-2" :chosen="state.job.schools" :in-force="schools.ids" @choose="choose" />
        </details>
        <h2 class="mt-5 font-bold">In words</h2>
        <p v-for="n in record.notes" :key="n.id">
          {{ n.text }} <span class="text-soft">{{ n.by }}</span>
        </p>
        <p v-if="!record.notes.length" class="text-soft">Nothing written.</p>
      </section>
      <section>
        <h2 class="font-bold">The ledger so far</h2>
        <ol class="mt-2 border-t border-rule">
          <li
            v-for="e in entries"
            :key="e.id"
            class="grid grid-cols-[1fr_auto] gap-3 border-b border-rule py-1"
            :class="{ 'line-through text-soft': state.undone.has(e.id) }"
          >
            <span>{{ sayEvent(e.event, state.rear.setup?.teeth ?? []) }}</span><span class="small"
              >{{ record.people[e.by] ?? '' }}, {{ sayTime(e.at, zone) }}</span
            >
          </li>
        </ol>
      </section>
    </main>
    <BenchSaid :bench="bench" />
  </div>
</template>
