<!-- What the customer says: one touch, the causes in their order, the test that splits them, where to begin. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import { causesLeft, leadsTo, REAR_COMPLAINTS } from '#core/procedure/complaints'
import { OTHER_BENCH_WORDS, OTHER_COMPLAINTS, otherCausesLeft, type OtherBench } from '#core/procedure/otherComplaints'
import { otherSays } from '#core/procedure/otherSays'
import { HAPPENED, HAPPENED_WORDS, type Happened } from '#core/procedure/happened'
import { HAPPENED_ASKS, proposedBy } from '#core/procedure/sentence'
import type { Schools } from '#core/procedure/schools'
import { STAGE_WORDS, type Stage } from '#core/procedure/stages'
import type { SayKey } from './SayKeys.vue'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{
  record: [event: LedgerEvent, words?: string]
  go: [stage: Stage]
  bench: [bench: OtherBench]
}>()
const { record: job } = storeToRefs(useLedger())
/** The one whose test is asked: the last that was touched, else the first that was said. */
const at = ref<string | null>(null)
const all = computed(() => props.state.rear.said)
const said = computed(() => all.value.find(s => s.complaint === at.value) ?? all.value.at(-1) ?? null)
const complaint = computed(() => REAR_COMPLAINTS.find(c => c.id === said.value?.complaint) ?? null)
const other = computed(() => OTHER_COMPLAINTS.find(c => c.id === said.value?.complaint) ?? null)
/** Its causes, and where each is looked for; those that the test has left. */
const causes = computed(() =>
  complaint.value
    ? complaint.value.causes.map(c => ({ words: c.words, where: STAGE_WORDS[c.leads] }))
    : (other.value?.causes ?? []).map(words => ({ words, where: '' })),
)
const left = computed((): readonly string[] => {
  const told = said.value?.answer ?? null
  if (complaint.value) return causesLeft(complaint.value, told).map(c => c.words)
  return other.value ? otherCausesLeft(other.value, told) : []
})
const asked = computed(() => complaint.value?.test ?? other.value?.test ?? null)
const caution = computed(() => complaint.value?.caution ?? other.value?.caution ?? null)
const lead = computed(() => (complaint.value ? leadsTo(complaint.value, said.value?.answer ?? null) : null))
/** What the customer's own sentence points to stands first, marked; nothing is taken before it is touched. */
const proposed = computed(() => proposedBy(job.value?.complaint ?? ''))
const isSaid = (id: string) => all.value.some(s => s.complaint === id)
/** What is proposed stands first. */
const keysOf = (list: readonly { id: string; words: string }[]): SayKey[] =>
  list
    .map(c => ({
      ...c,
      said: isSaid(c.id),
      proposed: proposed.value.complaints.includes(c.id),
      looked: said.value?.complaint === c.id,
    }))
    .sort((a, b) => Number(b.proposed) - Number(a.proposed))
const COMPLAINTS = computed(() => keysOf(REAR_COMPLAINTS.map(c => ({ id: c.id, words: c.says }))))
const OTHERS = computed(() => {
  // a hub's are asked where there is a hub, or nobody knows
  const hub = props.state.hub.parts !== null || props.state.rear.setup === null
  return keysOf(
    OTHER_COMPLAINTS.filter(c => hub || c.bench !== 'hub').map(c => ({ id: c.id, words: otherSays(c.id)! })),
  )
})
/** Open where something of the rest of the bike was said, or is in the customer’s sentence; else out of the way. */
const othersOpen = computed(() => OTHERS.value.some(c => c.said || c.proposed))
function touch(id: string) {
  const again = isSaid(id)
  // touched again it is looked at; only the one looked at is taken back
  if (again && said.value?.complaint !== id) return void (at.value = id)
  at.value = again ? null : id
  emit(
    'record',
    { kind: 'said', complaint: id, answer: null, ...(again ? { withdrawn: true as const } : {}) },
    again ? 'Taken back' : 'Noted',
  )
}
/** The turn that the test itself makes is in the count. */
function answer(id: string) {
  const c = said.value!
  const first = c.answer === null
  at.value = c.complaint
  emit('record', { kind: 'said', complaint: c.complaint, answer: id })
  const turns = complaint.value?.test.turnsBarrel
  if (first && turns) emit('record', { kind: 'turn', screw: 'barrel', sixteenths: turns })
}
const happened = computed(() => props.state.rear.happened)
const BEFORE = computed(() =>
  HAPPENED.map((id): SayKey => ({
    id,
    words: HAPPENED_WORDS[id],
    said: happened.value.includes(id),
    proposed: proposed.value.happened.includes(id),
    looked: false,
  })),
)
function happen(what: Happened) {
  const now = happened.value.includes(what) ? happened.value.filter(h => h !== what) : [...happened.value, what]
  emit('record', { kind: 'happened', what: now }, 'Noted')
}
</script>

<template>
  <div>
    <section class="look" aria-label="What the customer says">
      <h2 class="text-lg font-bold">What do they say?</h2>
      <p v-if="job?.complaint" class="text-[0.9375rem]" data-test="sentence">“{{ job.complaint }}”</p>
      <SayKeys label="What do they say?" test="says" :keys="COMPLAINTS" @touch="touch" />
      <details :open="othersOpen">
        <summary class="min-h-11 cursor-pointer py-2 font-bold" data-test="others">Front, brakes or hub</summary>
        <SayKeys label="Of the rest of the bike" test="says" :keys="OTHERS" @touch="touch" />
      </details>
      <div class="grid gap-1">
        <h2 class="font-bold">Before it came</h2>
        <SayKeys label="Before it came" test="happened" in-a-row :keys="BEFORE" @touch="happen($event as Happened)" />
        <p v-for="h in happened" :key="h" class="text-[0.9375rem] font-semibold">
          {{ HAPPENED_WORDS[h] }}: {{ HAPPENED_ASKS[h] }}
        </p>
      </div>
      <div v-if="causes.length" class="mat p-4" data-test="causes">
        <p class="text-sm text-mat-soft">commonest first; what the test leaves out is crossed</p>
        <ol class="mt-2 grid gap-1.5">
          <li
            v-for="(c, i) in causes"
            :key="c.words"
            class="grid grid-cols-[1.5rem_1fr_auto] items-baseline gap-2"
            :class="{ 'line-through opacity-60': !left.includes(c.words) }"
          >
            <span class="figure text-mat-soft">{{ i + 1 }}</span
            ><span :class="left[0] === c.words ? 'text-xl font-bold' : 'text-lg'">{{ c.words }}</span
            ><span class="text-mat-soft">{{ c.where }}</span>
          </li>
        </ol>
      </div>
    </section>
    <aside class="panel" aria-label="The test that splits them">
      <template v-if="asked">
        <p class="small">The test that splits them</p>
        <p class="text-2xl leading-tight font-bold" data-test="test">{{ asked.ask }}</p>
        <ChoiceRow
          :model-value="said?.answer ?? null"
          :label="asked.ask"
          :choices="asked.answers.map(a => ({ value: a.id, words: a.words }))"
          :columns="1"
          size="roomy"
          :centred="false"
          test="answer"
          @update:model-value="id => id && answer(id)"
        />
        <p v-if="caution" class="stopped">{{ caution }}</p>
        <button v-if="lead" type="button" class="act" data-test="lead" @click="emit('go', lead)">
          Begin at {{ STAGE_WORDS[lead].toLowerCase() }}
        </button>
        <button v-if="other" type="button" class="act" data-test="lead" @click="emit('bench', other.bench)">
          Go to the {{ OTHER_BENCH_WORDS[other.bench].toLowerCase() }} bench
        </button>
        <p v-if="complaint" class="small">
          The advice takes this into account: it changes the odds of the causes, never settles them.
        </p>
      </template>
      <template v-else>
        <p class="text-2xl leading-tight font-bold">Ask first</p>
        <p>
          Nothing on a click, two gears for one, or jumping only under hard pedalling? In all gears or some? Did it
          fall, get knocked, ride in a car, or just have a new cable?
        </p>
      </template>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>
