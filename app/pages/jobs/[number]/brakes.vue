<script setup lang="ts">
import { BRAKE_WORDS } from '#core/brake/chapter'
import { checkOf, HYDRAULIC_CHECKS, looksRight, outcomeWords, stopsRiding } from '#core/brake/checks'
import { faultWords } from '#core/brake/faultWords'
import { BRAKE_KIND_WORDS, BRAKES, isDiagnosed, isHydraulic, LEVER_WORDS, type Brake } from '#core/brake/kinds'
import type { ProofTest } from '#core/brake/proof'
import { diagnosisOf } from '#core/brake/diagnose'
import { nextStep } from '#core/brake/state'
import { discFigures, mismatchOf } from '#core/brake/sums'
import type { BenchKeys } from '~/composables/benchKeys'

const bench = useBench(
  () => 'Brakes',
  ['brake', 'job'],
  () => keys(),
)
const { number, state, record, standards, put } = bench
const route = useRoute()
/** The address says which: the row of parts leads to either. */
const brake = computed<Brake>({
  get: () => (route.query.brake === 'rear' ? 'rear' : 'front'),
  set: to => void navigateTo({ query: { brake: to } }, { replace: true }),
})
const here = computed(() => state.value.brake[brake.value])
const parts = computed(() => here.value.parts)
/** What kind it is, where that is diagnosed here. */
const kind = computed(() => (parts.value && isDiagnosed(parts.value.kind) ? parts.value.kind : null))
const people = computed(() => record.value?.people ?? {})
const ENDS = BRAKES.map(value => ({ value, words: BRAKE_WORDS[value] }))

const PANELS = [
  ['find', 'Find it'],
  ['fit', 'Fit'],
  ['sums', 'Sums'],
  ['parts', 'Brake'],
] as const
const panel = ref<(typeof PANELS)[number][0]>('parts')
// what it is comes first, and stays until it is said
watch(
  [brake, bench.loaded],
  () => {
    panel.value = parts.value ? 'find' : 'parts'
  },
  { immediate: true },
)

const diagnosis = computed(() => diagnosisOf(here.value))
const { live, once: saw } = useOneAnswer((check: string, outcome: string) =>
  put({ kind: 'brakeSeen', brake: brake.value, check, outcome }),
)
const cured = (fault: string) => put({ kind: 'brakeCured', brake: brake.value, fault }, 'Put right: prove it anew')
const prove = (holds: boolean, test?: ProofTest) =>
  put({ kind: 'proof', brake: brake.value, holds, ...(test ? { test } : {}) }, holds ? 'Passed' : 'Failed')
const seenWords = computed(() =>
  here.value.seen.flatMap(s => {
    const c = checkOf(s.check)
    return c
      ? [
          {
            ask: c.ask,
            words: outcomeWords(s.check, s.outcome),
            colour: looksRight(s.check, s.outcome) ? 'text-clean' : stopsRiding(s.check, s.outcome) ? 'text-stop' : '',
          },
        ]
      : []
  }),
)
const sums = useBrakeSums(parts, standards)
const { rim, gap, disc, discBite, straddled, share } = sums
const scrap = computed(() => {
  const { rotorScrapMm, padScrapMm } = discFigures(standards.value)
  return { rotorMm: rotorScrapMm, padMm: padScrapMm }
})
const wrong = computed(() => (parts.value?.lever && kind.value ? mismatchOf(parts.value.lever, kind.value) : null))
/** Which pad stood nearer when last looked at, until a screw is turned. */
const nearer = computed(() => {
  const last = here.value.centring.at(-1)
  return panel.value === 'fit' && last?.kind === 'seen' ? last.nearer : null
})
const schools = useSchools()
const notHere = computed(() =>
  parts.value ? `${BRAKE_KIND_WORDS[parts.value.kind]}: nothing of that here.` : 'Say first, under Brake, what it is.',
)

/** The check that is asked just now. */
const asked = computed(() =>
  panel.value === 'find' && diagnosis.value && !diagnosis.value.found ? (diagnosis.value.next?.check ?? null) : null,
)
const keys = (): BenchKeys => ({
  Enter: () => {
    const step = panel.value === 'fit' ? nextStep(here.value) : null
    if (step) return void put({ kind: 'brakeStep', brake: brake.value, step: step.id })
    const found = diagnosis.value?.found
    if (panel.value === 'find' && found && found.id !== 'none') void cured(found.id)
  },
  ...answerKeys(asked.value?.outcomes.map(o => () => void saw(asked.value!.id, o[0])) ?? []),
})
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :bench="bench"
    :here="`${brake}-brake`"
    left-label="Brakes"
    look-label="The brake"
    :panels="PANELS"
    act-first
  >
    <template #left>
      <SideChoice v-model="brake" class="max-lg:hidden" label="Which brake" :choices="ENDS" test="brake">
        <template #default="{ choice }">
          <span class="block">{{ choice.words }}</span
          ><BrakeStands
            class="block text-sm"
            :state="state.brake[choice.value]"
            :people="people"
            :data-test="`proof-of-${choice.value}`"
          />
        </template>
      </SideChoice>
      <button
        v-if="parts"
        type="button"
        class="quiet mt-2 w-full border-t border-rule text-left"
        data-test="wheel-out"
        @click="put({ kind: 'wheelOut', wheel: brake }, 'Wheel was out: prove it anew')"
      >
        Its wheel was out
      </button>
      <NuxtLink class="quiet w-full" :to="`/jobs/${number}/cables?run=${brake}-brake`">Its cable</NuxtLink>
    </template>
    <template #look>
      <p v-if="wrong && parts?.lever" class="stopped" role="alert" data-test="lever-mismatch">
        {{ LEVER_WORDS[parts.lever] }} lever on {{ BRAKE_KIND_WORDS[parts.kind].toLowerCase() }}: {{ wrong.feel }}. A
        {{ wrong.instead }}-pull lever matches.
      </p>
      <div v-if="rim && gap?.value" class="mat p-1">
        <BrakeGap
          :gap-mm="gap.value.gapMm"
          :share="share"
          :bite-share="gap.value.bite"
          :kind-words="BRAKE_KIND_WORDS[rim.kind]"
          :nearer="nearer"
          :assumed="here.close === null && panel !== 'sums'"
          :worn="panel === 'sums' && gap.value.wornMm > 0 ? { mm: gap.value.wornMm, share: gap.value.wornBite } : null"
        />
      </div>
      <div v-else-if="disc?.value" class="mat p-1">
        <LazyDiscGap
          :rotor-mm="disc.value.rotorMm"
          :pad-mm="disc.value.padMm"
          :gap-mm="disc.value.gapMm"
          :share="share"
          :bite-share="discBite"
          :scrap="scrap"
        />
      </div>
      <div v-else class="mat p-6 text-mat-soft">
        {{
          !parts
            ? 'Say first what brake it is.'
            : kind === null || kind === 'coaster' || parts.lever
              ? `${BRAKE_KIND_WORDS[parts.kind]}: no pads on a rim to draw.`
              : 'Say which lever it has: pads and rim show here.'
        }}
      </div>
      <div v-if="panel === 'sums' && straddled?.value" class="mat p-1">
        <LazyStraddle
          :yoke-mm="straddled.value.yokeMm"
          :apart-mm="straddled.value.apartMm"
          :deg="straddled.value.deg"
          :over-tyre-mm="straddled.value.overTyreMm"
          :right="straddled.value.right"
        />
      </div>
      <section v-if="seenWords.length" aria-label="Seen so far">
        <h2 class="small">Seen since it was last put right</h2>
        <ul>
          <li v-for="s in seenWords" :key="s.ask" class="flex justify-between gap-4 border-b border-rule py-1.5">
            <span class="text-soft">{{ s.ask }}</span
            ><span class="text-right font-semibold" :class="s.colour">{{ s.words }}</span>
          </li>
        </ul>
      </section>
      <section v-if="here.cured.length" aria-label="Put right">
        <h2 class="small">Put right</h2>
        <ul>
          <li v-for="(id, i) in here.cured" :key="i" class="font-semibold">
            {{ faultWords(parts?.kind, id) ?? id }}
          </li>
        </ul>
      </section>
      <LazyBrakeProof
        v-if="parts"
        :state="here"
        :brake-words="BRAKE_WORDS[brake]"
        :people="people"
        @prove="prove"
        @cured="cured"
      />
      <p class="small">
        Every brake job ends with a hard squeeze on both levers, a roll, then a ride. Nobody rides until both pass; the
        maker’s instructions and local law win over Ocho.
      </p>
    </template>
    <template #parts>
      <BrakeKindPick
        :key="brake"
        :brake="brake"
        :parts="parts"
        :last="record?.known?.brakes.find(b => b.parts.brake === brake) ?? null"
        @keep="put({ kind: 'brakeParts', parts: $event })"
      />
    </template>
    <template #find>
      <LazyBrakeDiagnosis
        v-if="diagnosis"
        :key="brake"
        :diagnosis="diagnosis"
        :seen="here.seen"
        :live="live"
        @saw="saw"
        @cured="cured"
      />
      <LazyBrakeLooks
        v-else-if="parts && isHydraulic(parts.kind)"
        :checks="HYDRAULIC_CHECKS"
        :seen="here.seen"
        @saw="saw"
      />
      <p v-else class="text-soft">{{ notHere }}</p>
    </template>
    <template #fit>
      <LazyBrakeFit
        v-if="kind"
        :key="brake"
        :brake="brake"
        :kind="kind"
        :state="here"
        :pads="schools.pads"
        :pad-gap="schools.padGap"
        @put="put"
        @school="put({ kind: 'schools', choice: { ...state.job.schools, ...$event } })"
      />
      <p v-else class="text-soft">{{ notHere }}</p>
    </template>
    <template #sums>
      <LazyBrakeSums v-if="kind" :key="brake" :sums="sums" />
      <p v-else class="text-soft">{{ notHere }}</p>
    </template>
  </JobBench>
</template>
