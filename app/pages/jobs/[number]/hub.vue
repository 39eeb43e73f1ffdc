<script setup lang="ts">
import { diagnoseHub, hubCure } from '#core/hub/diagnose'
import { targetMm } from '#core/hub/kinds'
import { hubRatio, isAsked } from '#core/hub/ratio'
import { hubStays } from '#core/hub/state'
import { HUB_STEP_IDS, hubStepWords } from '#core/hub/stepWords'
import { hubToGo } from '#core/hub/toGo'
import { adjusterOf, hubTurnWords, READING_WORDS, sayCount, sayMm, sayTarget } from '#core/hub/words'
import { capital } from '#core/quantity/words'
import type { BenchKeys } from '~/composables/benchKeys'

const bench = useBench(
  () => 'Hub',
  ['hub', 'job'],
  () => keys(),
)
const { number, state, record, standards, put } = bench
const hub = computed(() => state.value.hub)
const parts = computed(() => hub.value.parts)
type Panel = 'find' | 'gears' | 'set' | 'parts'
const panel = ref<Panel>('parts')
const PANELS: readonly [Panel, string][] = [
  ['find', 'Find'],
  ['gears', 'Gears'],
  ['set', 'Set'],
  ['parts', 'Parts'],
]
watch(
  parts,
  (p, was) => {
    if (p && !was) panel.value = 'find'
  },
  { immediate: true },
)
const diagnosis = computed(() =>
  parts.value ? diagnoseHub(parts.value, hub.value, hub.value.cured, standards.value) : null,
)
const reading = computed(() => hub.value.readings.at(-1)?.mm ?? null)
const toGo = computed(() => (parts.value ? hubToGo(parts.value, hub.value, standards.value) : null))
const inside = computed(() => {
  if (!parts.value || reading.value === null) return false
  const { from, to } = targetMm(parts.value, standards.value)
  return reading.value >= from && reading.value <= to
})
const gear = ref(1)
/** The last count of each gear. */
const counts = computed(() =>
  parts.value
    ? parts.value.ratios.flatMap((_, i) => {
        const c = hub.value.counts.findLast(x => x.gear === i + 1)
        return c ? [c] : []
      })
    : [],
)
const ladder = computed(() =>
  counts.value.map(c => ({
    gear: c.gear,
    ratio:
      c.wheelTurns === null ? null : hubRatio({ crankTurns: c.crankTurns, wheelTurns: c.wheelTurns }, parts.value!),
    right: isAsked(parts.value!, c),
  })),
)
/** What is found wrong with it, or only still to come. */
const stays = computed(() => hubStays(hub.value))
const steps = computed(() => (parts.value ? HUB_STEP_IDS[parts.value.way] : []))
const nextStep = computed(() => steps.value.find(s => !hub.value.steps.includes(s)) ?? null)
/** A step of the two-cable procedure that has a picture of its own. */
const TWIN: Record<string, { step: 'heads' | 'cut' | 'grubs'; which: 'lower' | 'upper' | 'rear' | 'front' }> = {
  lower: { step: 'heads', which: 'lower' },
  upper: { step: 'heads', which: 'upper' },
  'cut-rear': { step: 'cut', which: 'rear' },
  'rear-coupled': { step: 'grubs', which: 'rear' },
  'cut-front': { step: 'cut', which: 'front' },
  'front-coupled': { step: 'grubs', which: 'front' },
}
const drawn = computed(() => (panel.value === 'set' && nextStep.value ? (TWIN[nextStep.value] ?? null) : null))
/** A look and a slip are one touch each: a tap that bounces answers nothing else. */
const { live, once } = useOneAnswer((answer: () => unknown) => answer())
const saw = (check: string, outcome: string) => once(() => put({ kind: 'hubSeen', check, outcome }))
const counted = (...told: Parameters<typeof count>) =>
  told[2] === null ? once(() => count(...told)) : void count(...told)
const read = (mm: number) => put({ kind: 'hubRead', mm })
const sounded = (tickOdds: number) => once(() => put({ kind: 'hubSounded', tickOdds }, 'Noted what it heard'))
function count(g: number, crankTurns: number, wheelTurns: number | null, neutral = false) {
  void put({ kind: 'hubCount', gear: g, crankTurns, wheelTurns, ...(neutral ? { neutral } : {}) })
  const n = parts.value!.ratios.length
  if (panel.value === 'gears') gear.value = g < n ? g + 1 : g
}
const turned = (sixteenths: number) => put({ kind: 'hubTurn', sixteenths }, `Logged ${hubTurnWords(sixteenths)}`)
const cured = (fault: string) => put({ kind: 'hubCured', fault }, 'Put right')
function choose(g: number) {
  gear.value = g
  panel.value = 'gears'
}
const FIRST = 'Say first, under Parts, which hub it is.'
const gears = computed(() => (parts.value?.ratios ?? []).map((_, i) => ({ value: i + 1, words: String(i + 1) })))
function keepParts(now: NonNullable<typeof parts.value>) {
  void put({ kind: 'hubParts', parts: now })
  panel.value = 'find'
}
const proof = (holds: boolean) => put({ kind: 'hubProof', holds }, holds ? 'Holds' : 'Failed')
const proofWords = computed(() => {
  const p = hub.value.proof
  return p ? `${p.holds ? 'holds' : 'failed'}, ${record.value?.people[p.by] ?? ''}` : 'not proven'
})
/** The check that is asked just now. */
const asked = computed(() => {
  const next = panel.value === 'find' && !diagnosis.value?.found ? diagnosis.value?.next : null
  return next?.do === 'look' ? next.check : null
})
const keys = (): BenchKeys => ({
  Enter: () => {
    const cure = panel.value === 'find' && diagnosis.value ? hubCure(diagnosis.value) : null
    if (cure?.do === 'turn') void turned(cure.sixteenths)
    else if (cure) void cured(cure.fault)
  },
  ...answerKeys(asked.value?.outcomes.map(o => () => void saw(asked.value!.id, o[0])) ?? []),
})
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :bench="bench"
    here="hub"
    left-label="Steps and turns"
    look-label="The hub"
    :panels="PANELS"
    act-first
  >
    <template #left>
      <ol class="hidden sm:block">
        <li
          v-for="s in steps"
          :key="s"
          class="flex min-h-9 items-center gap-2 leading-tight"
          :class="s === nextStep ? 'font-bold' : 'text-soft'"
        >
          <span
            class="inline-block size-3.5 shrink-0 rounded-sm border-2"
            :class="hub.steps.includes(s) ? 'border-ink bg-ink' : 'border-rule'"
            aria-hidden="true"
          />{{ hubStepWords(s) }}<span class="sr-only">{{ hub.steps.includes(s) ? ', done' : '' }}</span>
        </li>
      </ol>
      <dl v-if="parts" class="mt-2 border-t border-rule pt-2">
        <div v-if="parts.way !== 'twin'" class="flex justify-between">
          <dt class="capitalize">{{ adjusterOf(parts) }}</dt>
          <dd class="figure" data-test="hub-net">{{ hub.net === 0 ? '0' : hubTurnWords(hub.net) }}</dd>
        </div>
        <div v-if="parts.way === 'rod'" class="flex justify-between">
          <dt>Lock nut</dt>
          <dd
            class="font-semibold"
            :class="hub.locked ? 'text-clean' : hub.locked === false ? 'text-stop' : 'text-soft'"
            data-test="hub-locked"
          >
            {{ hub.locked ? 'tight' : hub.locked === false ? 'loose' : 'not seen' }}
          </dd>
        </div>
        <div class="flex justify-between">
          <dt>Proof</dt>
          <dd
            class="font-semibold"
            :class="hub.proof?.holds ? 'text-clean' : hub.proof ? 'text-stop' : 'text-soft'"
            data-test="hub-proof"
          >
            {{ proofWords }}
          </dd>
        </div>
      </dl>
      <NuxtLink class="quiet mt-2 w-full border-t border-rule" :to="`/jobs/${number}/cables?run=hub`"
        >Its cable</NuxtLink
      >
      <NuxtLink v-if="parts?.derailleur" class="quiet w-full" :to="`/jobs/${number}/rear`"
        >The derailleur beside it</NuxtLink
      >
    </template>
    <template #above>
      <p v-if="stays.length" class="stopped m-3 mb-0" role="alert" data-test="hub-stays">
        {{ stays.some(s => s.is === 'found') ? 'Nobody rides it' : 'Before it leaves' }}:
        {{ stays.map(s => s.why).join(', ') }}.
      </p>
    </template>
    <template #look>
      <template v-if="parts">
        <div v-if="drawn" class="mat p-1"><LazyTwinStep v-bind="drawn" /></div>
        <div v-else class="mat p-1">
          <LazyHubWindow
            :way="parts.way"
            :mm="reading"
            :wanted="targetMm(parts, standards)"
            :words="READING_WORDS[parts.way]"
          />
        </div>
        <p class="text-lg">
          {{ capital(sayTarget(parts, standards))
          }}<template v-if="reading !== null"
            >: <b :class="inside ? 'text-clean' : 'text-stop'">{{ inside ? 'as it should be' : sayMm(reading) }}</b
            ><template v-if="toGo"
              >, {{ adjusterOf(parts) }} {{ hubTurnWords(toGo.sixteenths)
              }}{{ toGo.tried ? ', then read again: that tells how many more' : '' }}</template
            ></template
          >.
        </p>
        <div class="mat p-1">
          <LazyRatioLadder
            :ratios="parts.ratios"
            :counts="ladder"
            :chosen="
              panel === 'gears' ? gear : diagnosis?.next?.do === 'count' ? diagnosis.next.gear : parts.referenceGear
            "
            @choose="choose"
          />
        </div>
        <ul v-if="counts.length">
          <li v-for="c in counts" :key="c.gear" class="grid grid-cols-[5rem_1fr] border-b border-rule py-1">
            <span class="figure font-semibold">Gear {{ c.gear }}</span
            ><span :data-test="`counted-${c.gear}`">{{ sayCount(parts, c) }}</span>
          </li>
        </ul>
        <div class="grid grid-cols-[1fr_auto] gap-2 sm:max-w-md">
          <p class="col-span-2 font-semibold">Every gear cycled, then ridden</p>
          <button
            type="button"
            class="also min-h-12! border-clean! text-clean!"
            data-test="hub-holds"
            @click="proof(true)"
          >
            Holds in every gear</button
          ><button
            type="button"
            class="also min-h-12! border-stop! text-stop!"
            data-test="hub-fails"
            @click="proof(false)"
          >
            Fails
          </button>
        </div>
        <p class="small">
          Neutral or slip between gears throws the rider and can damage the hub: it is not ridden until it is set. Axle
          moved for chain slack? Look at the cable again. The maker’s instructions win over Ocho.
        </p>
      </template>
      <div v-else class="mat p-8 text-mat-soft">Say first what hub it is. Its window and its gears show here.</div>
    </template>
    <template #parts>
      <LazyHubParts :key="JSON.stringify(parts)" :parts="parts" :last="record?.known?.hub ?? null" @keep="keepParts" />
    </template>
    <template #find>
      <LazyHubNext
        v-if="diagnosis && parts"
        :diagnosis="diagnosis"
        :parts="parts"
        :standards="standards"
        :live="live"
        :hub="hub"
        @saw="saw"
        @read="read"
        @count="counted"
        @turned="turned"
        @cured="cured"
        @sounded="sounded"
      />
      <p v-else class="text-soft">{{ FIRST }}</p>
    </template>
    <template #gears>
      <template v-if="parts">
        <p class="text-2xl leading-tight font-bold">Gear {{ gear }}</p>
        <ChoiceRow
          v-model="gear"
          label="Which gear"
          :choices="gears"
          :columns="Math.min(7, parts.ratios.length)"
          test="gear"
        />
        <LazyHubCountPad :key="gear" :parts="parts" :gear="gear" :live="live" @count="counted" />
        <p class="small">
          Chalk the tyre at the floor. Cranks slowly, whole turns, shifted in from the slacker side; the wheel to a
          tenth.
        </p>
      </template>
      <p v-else class="text-soft">{{ FIRST }}</p>
    </template>
    <template #set>
      <template v-if="parts">
        <LazyHubSet
          :parts="parts"
          :hub="hub"
          :next="nextStep"
          :to-go="toGo"
          @read="read"
          @turned="turned"
          @step="step => put({ kind: 'hubStep', step })"
        />
        <button
          type="button"
          class="also"
          data-test="hub-wheel-out"
          @click="put({ kind: 'wheelOut', wheel: 'rear' }, 'Wheel was out: prove it anew')"
        >
          Its wheel was out
        </button>
      </template>
      <p v-else class="text-soft">{{ FIRST }}</p>
    </template>
  </JobBench>
</template>
