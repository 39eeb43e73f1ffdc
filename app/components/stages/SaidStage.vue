<!-- What the customer says: one touch, the causes in their order, the test that splits them, where to begin. -->
<script setup lang="ts">
import { useMediaQuery } from '@vueuse/core'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import { causesLeft, leadsTo, REAR_COMPLAINTS } from '#core/procedure/complaints'
import type { Schools } from '#core/procedure/schools'
import { STAGE_WORDS, type Stage } from '#core/procedure/stages'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const said = computed(() => props.state.rear.said)
const complaint = computed(() => REAR_COMPLAINTS.find(c => c.id === said.value?.complaint) ?? null)
const left = computed(() => (complaint.value ? causesLeft(complaint.value, said.value?.answer ?? null) : []))
const lead = computed(() => (complaint.value ? leadsTo(complaint.value, said.value?.answer ?? null) : null))
const COMPLAINTS = REAR_COMPLAINTS.map(c => ({ value: c.id, words: c.says }))
const wide = useMediaQuery('(min-width: 1280px)')
const note = (id: string, answer: string | null) => emit('record', { kind: 'said', complaint: id, answer })
</script>

<template>
  <div>
    <section class="look" aria-label="What the customer says">
      <h2 class="text-lg font-bold">What do they say?</h2>
      <ChoiceRow
        :model-value="said?.complaint ?? null"
        label="What do they say?"
        :choices="COMPLAINTS"
        :columns="wide ? 3 : 2"
        size="roomy"
        :centred="false"
        test="says"
        @update:model-value="id => id && note(id, null)"
      />
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
          @update:model-value="id => id && note(complaint!.id, id)"
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
