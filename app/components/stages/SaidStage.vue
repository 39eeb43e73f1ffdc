<!-- What the customer says: one touch, the causes in their order, the test that splits them, where to begin. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import { causesLeft, leadsTo, REAR_COMPLAINTS } from '#core/procedure/complaints'
import { HAPPENED, HAPPENED_WORDS, type Happened } from '#core/procedure/happened'
import { HAPPENED_ASKS, proposedBy } from '#core/procedure/sentence'
import type { Schools } from '#core/procedure/schools'
import { STAGE_WORDS, type Stage } from '#core/procedure/stages'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const { record: job } = storeToRefs(useLedger())
/** The one whose test is asked: the last that was touched, else the first that was said. */
const at = ref<string | null>(null)
const all = computed(() => props.state.rear.said)
const said = computed(() => all.value.find(s => s.complaint === at.value) ?? all.value.at(-1) ?? null)
const complaint = computed(() => REAR_COMPLAINTS.find(c => c.id === said.value?.complaint) ?? null)
const left = computed(() => (complaint.value ? causesLeft(complaint.value, said.value?.answer ?? null) : []))
const lead = computed(() => (complaint.value ? leadsTo(complaint.value, said.value?.answer ?? null) : null))
/** What the customer's own sentence points to stands first, marked; nothing is taken before it is touched. */
const proposed = computed(() => proposedBy(job.value?.complaint ?? ''))
const COMPLAINTS = computed(() => {
  const first = (id: string) => (proposed.value.complaints.includes(id) ? 0 : 1)
  return [...REAR_COMPLAINTS].sort((a, b) => first(a.id) - first(b.id))
})
const isSaid = (id: string) => all.value.some(s => s.complaint === id)
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
  const c = complaint.value!
  const first = said.value!.answer === null
  at.value = c.id
  emit('record', { kind: 'said', complaint: c.id, answer: id })
  if (first && c.test.turnsBarrel) emit('record', { kind: 'turn', screw: 'barrel', sixteenths: c.test.turnsBarrel })
}
const happened = computed(() => props.state.rear.happened)
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
      <div class="grid grid-cols-2 gap-1.5 xl:grid-cols-3" role="group" aria-label="What do they say?">
        <button
          v-for="c in COMPLAINTS"
          :key="c.id"
          type="button"
          class="say"
          :class="{ proposed: proposed.complaints.includes(c.id), looked: said?.complaint === c.id }"
          :aria-pressed="isSaid(c.id)"
          :data-test="`says-${c.id}`"
          @click="touch(c.id)"
        >
          {{ c.says }}<span v-if="proposed.complaints.includes(c.id) && !isSaid(c.id)" class="small">as written?</span>
        </button>
      </div>
      <div role="group" aria-label="Before it came" class="grid gap-1">
        <h2 class="font-bold">Before it came</h2>
        <div class="flex flex-wrap gap-1.5">
          <button
            v-for="h in HAPPENED"
            :key="h"
            type="button"
            class="say"
            :class="{ proposed: proposed.happened.includes(h) }"
            :aria-pressed="happened.includes(h)"
            :data-test="`happened-${h}`"
            @click="happen(h)"
          >
            {{ HAPPENED_WORDS[h]
            }}<span v-if="proposed.happened.includes(h) && !happened.includes(h)" class="small">as written?</span>
          </button>
        </div>
        <p v-for="h in happened" :key="h" class="text-[0.9375rem] font-semibold">
          {{ HAPPENED_WORDS[h] }}: {{ HAPPENED_ASKS[h] }}
        </p>
      </div>
      <div v-if="complaint" class="mat p-4" data-test="causes">
        <p class="text-sm text-mat-soft">commonest first; what the test leaves out is crossed</p>
        <ol class="mt-2 grid gap-1.5">
          <li
            v-for="(c, i) in complaint.causes"
            :key="c.words"
            class="grid grid-cols-[1.5rem_1fr_auto] items-baseline gap-2"
            :class="{ 'line-through opacity-60': !left.includes(c) }"
          >
            <span class="figure text-mat-soft">{{ i + 1 }}</span><span
              :class="left[0] === c ? 'text-xl font-bold' : 'text-lg'"
              >{{ c.words }}</span
            ><span class="text-mat-soft">{{ STAGE_WORDS[c.leads] }}</span>
          </li>
        </ol>
      </div>
    </section>
    <aside class="panel" aria-label="The test that splits them">
      <template v-if="complaint">
        <p class="small">The test that splits them</p>
        <p class="text-2xl leading-tight font-bold" data-test="test">{{ complaint.test.ask }}</p>
        <ChoiceRow
          :model-value="said?.answer ?? null"
          :label="complaint.test.ask"
          :choices="complaint.test.answers.map(a => ({ value: a.id, words: a.words }))"
          :columns="1"
          size="roomy"
          :centred="false"
          test="answer"
          @update:model-value="id => id && answer(id)"
        />
        <p v-if="complaint.id === 'into-spokes'" class="stopped">
          No pedalling: lift the chain back by hand with the wheel still. Check spokes and cage before anything is set.
        </p>
        <button v-if="lead" type="button" class="act" data-test="lead" @click="emit('go', lead)">
          Begin at {{ STAGE_WORDS[lead].toLowerCase() }}
        </button>
        <p class="small">The advice takes this into account: it changes the odds of the causes, never settles them.</p>
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

<style scoped>
.say {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  min-height: 52px;
  padding: 6px 12px;
  border: 2px solid var(--rule);
  border-radius: 6px;
  background: var(--panel);
  text-align: left;
  font-weight: 600;
  align-items: center;
}
.say.proposed {
  border-color: var(--ink);
  border-style: dashed;
}
.say[aria-pressed='true'] {
  border-color: var(--ink);
  border-style: solid;
  background: var(--ink);
  color: var(--panel);
}
.say.looked[aria-pressed='true'] {
  outline: 3px solid var(--ink);
  outline-offset: 2px;
}
</style>
