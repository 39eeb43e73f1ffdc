<!-- One stage of the rear derailleur: its picture, its sums, what it writes into the ledger. -->
<script setup lang="ts">
import { Undo2 } from '@lucide/vue'
import { STAGE_WORDS, STAGES, type Stage } from '#core/procedure/stages'
import { stagesOf } from '#core/procedure/schools'
import type { LedgerEvent } from '#core/ledger/events'
import CableStage from '~/components/stages/CableStage.vue'
import GapStage from '~/components/stages/GapStage.vue'
import HangerStage from '~/components/stages/HangerStage.vue'
import ProveStage from '~/components/stages/ProveStage.vue'
import SaidStage from '~/components/stages/SaidStage.vue'
import SenseStage from '~/components/stages/SenseStage.vue'
import StopsStage from '~/components/stages/StopsStage.vue'

const VIEWS: Partial<Record<Stage, unknown>> = {
  said: SaidStage,
  sense: SenseStage,
  hanger: HangerStage,
  stops: StopsStage,
  cable: CableStage,
  gap: GapStage,
  prove: ProveStage,
}

const route = useRoute()
const stage = computed(() => STAGES.find(s => s === route.params.stage) ?? null)
const session = useSession()
const { number, ledger, state, record, loaded } = useJobPage(() => (stage.value ? STAGE_WORDS[stage.value] : 'Stage'))
const schools = useSchools(state)
useAwake()

const said = ref('')
const signing = shallowRef<LedgerEvent | null>(null)
const outlier = useOutlier(state, record)
/** A figure far from all others of such bikes waits for a word before it is kept. */
const doubtful = shallowRef<{ event: LedgerEvent; words: string; question: string } | null>(null)
async function put(event: LedgerEvent, words = 'Noted', sure = false) {
  // what was waiting for L stays shut to a trainee until a mechanic signs
  if (event.kind === 'sight' && event.at === 'L' && session.now?.person?.role === 'trainee')
    return void (signing.value = event)
  const question = sure ? null : outlier(event)
  if (question) return void (doubtful.value = { event, words, question })
  doubtful.value = null
  said.value = words
  requestAnimationFrame(() => setTimeout(tick))
  await ledger.append(event)
}
async function signed(sign: { person: string; pin: string }) {
  const event = signing.value
  signing.value = null
  if (event) await ledger.append(event, sign)
}
function undo() {
  said.value = ledger.canUndo ? 'Taken back' : 'Nothing to take back'
  void ledger.undo()
}
const keepDoubtful = () => {
  const d = doubtful.value
  if (d) void put(d.event, d.words, true)
}
const linkTo = (to: Stage) =>
  to === 'index' ? `/jobs/${number}/rear` : to === 'handBack' ? `/jobs/${number}/sheet` : `/jobs/${number}/stage/${to}`
const go = (to: Stage) => navigateTo(linkTo(to))
const next = computed(() => {
  const order = stagesOf(schools.value)
  return order[order.indexOf(stage.value ?? 'said') + 1] ?? 'handBack'
})
useBenchKeys(() => ({
  ...(doubtful.value
    ? {
        Enter: keepDoubtful,
        Escape: () => {
          doubtful.value = null
        },
      }
    : {}),
  z: undo,
  n: () => {
    void go(next.value)
  },
}))
</script>

<template>
  <div class="bench-frame">
    <BenchTop />
    <div v-if="loaded !== 'ready' || !stage || !VIEWS[stage]" class="p-6">
      <p v-if="loaded === 'loading'">Reading the log</p>
      <template v-else>
        <p class="stopped" role="alert">
          {{
            !stage || !VIEWS[stage]
              ? 'There is no such stage here.'
              : loaded === 'missing'
                ? `There is no job ${number} here.`
                : `${OFFLINE_WORDS}. This job has not been opened on this device before.`
          }}
        </p>
        <NuxtLink to="/" class="act mt-4 max-w-sm">To the Floor</NuxtLink>
      </template>
    </div>
    <template v-else>
      <aside class="bench-left" aria-label="Stages and turns">
        <StagePath :state="state" :number="number" :right="null" :here="stage" />
        <div class="mt-auto pt-2">
          <NetTurns :state="state" />
          <button
            type="button"
            class="quiet w-full justify-between border-t border-rule px-0!"
            :disabled="!ledger.canUndo"
            data-test="undo"
            @click="undo"
          >
            <span class="flex items-center gap-2"><Undo2 :size="18" aria-hidden="true" />Take back</span>
            <kbd class="key">Z</kbd>
          </button>
        </div>
      </aside>
      <main class="bench-middle">
        <BenchTroubles />
        <DoubtfulFigure v-if="doubtful" :question="doubtful.question" @keep="keepDoubtful" @leave="doubtful = null" />
        <NoDerailleur v-if="!state.setup" :number="number" />
        <component
          :is="VIEWS[stage]"
          v-else
          :key="stage"
          class="bench-stage"
          :state="state"
          :schools="schools"
          @record="put"
          @go="go"
        >
          <NuxtLink v-if="stage === 'cable'" :to="`/jobs/${number}/cables`" class="also" data-test="to-cables"
            >Runs, lengths and cut list</NuxtLink
          >
          <NuxtLink :to="linkTo(next)" class="also" data-test="next-stage"
            >On to {{ STAGE_WORDS[next].toLowerCase() }} <kbd class="key">N</kbd></NuxtLink
          >
        </component>
        <p class="sr-only" aria-live="polite">{{ said }}</p>
      </main>
    </template>
    <SignGate
      v-if="signing"
      what="A trainee saw L: a mechanic looks too and signs"
      @sign="signed"
      @close="signing = null"
    />
  </div>
</template>
