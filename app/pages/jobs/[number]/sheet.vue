<script setup lang="ts">
import Download from '@lucide/vue/dist/esm/icons/download.mjs'
import Printer from '@lucide/vue/dist/esm/icons/printer.mjs'
import { BRAKE_WORDS } from '#core/brake/chapter'
import { curesOf } from '#core/brake/faults'
import { BRAKES, type Brake } from '#core/brake/kinds'
import { DECLINABLE, type Declinable } from '#core/job/declined'
import { GET_HOME } from '#core/job/getHome'
import { LEFT_WORDS, type Leaves } from '#core/job/events'
import { declinableOn, mayHandBack, mayLeave } from '#core/ledger/gates'
import { PAPER_WORDS, PAPERS, type PaperKind } from '#core/paper/paper'
import { Sheet } from '#core/ledger/sheet'
import type { BenchKeys } from '~/composables/benchKeys'

const bench = useBench(
  () => 'Setup sheet',
  ['brake', 'job'],
  () => keys(),
)
const { number, state, record, ledger, closed, put } = bench
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const people = computed(() => record.value?.people ?? {})

/** The sheet as it would be frozen now: asked anew when the log has grown. */
const draft = shallowRef<Sheet | null>(null)
const draftTrouble = ref('')
watch(
  () => [bench.loaded.value, ledger.lastSeq, closed.value] as const,
  async ([ready, , isClosed], _was, onCleanup) => {
    if (ready !== 'ready' || isClosed) return
    let overtaken = false
    onCleanup(() => {
      overtaken = true
    })
    const asked = await ask(Sheet, `/api/jobs/${number}/draft`)
    if (overtaken) return
    if (asked.is === 'done') draft.value = asked.value
    draftTrouble.value = sayTrouble(asked)
  },
  { immediate: true },
)
const sheet = computed(() => (closed.value ? (record.value?.sheet ?? null) : draft.value))

const prove = (brake: Brake, holds: boolean) => put({ kind: 'proof', brake, holds }, holds ? 'Holds' : 'Failed')
/** Each brake that is there, and neither has failed: both may be said in one go, once both were tried. */
const mayProveBoth = computed(() =>
  BRAKES.every(b => !state.value.brake[b].parts?.none && !state.value.brake[b].failed),
)
async function proveBoth() {
  for (const brake of BRAKES) {
    await prove(brake, true)
    // a trainee's waits for a signature: the other is said after it
    if (bench.signing.value) return
  }
}
/** What was put right, as chosen and not noted yet: arrow keys go through a list one by one. */
const cured = ref<Partial<Record<Brake, string>>>({})
async function noteCured(brake: Brake) {
  await put({ kind: 'brakeCured', brake, fault: cured.value[brake]! })
  cured.value = { ...cured.value, [brake]: undefined }
}
const proofs = computed(() =>
  BRAKES.map(brake => {
    const { parts, failed } = state.value.brake[brake]
    return {
      brake,
      none: parts?.none !== undefined,
      cures: failed ? curesOf(parts?.kind) : [],
      key: BRAKES.indexOf(brake) + 1,
    }
  }),
)

// --- how it leaves
const words = ref('')
const busy = ref(false)
/** Which other way of leaving is being said: each asks once more. */
const other = ref<'declined' | 'unridable' | null>(null)
const fault = ref<Declinable | null>(null)
const stays = computed(() => mayLeave(state.value, 'proven'))
const faults = computed(() => declinableOn(state.value).map(value => ({ value, words: DECLINABLE[value].words })))
/** Why it may not leave so, by this person; null when it may. */
function shut(how: Leaves, named: Declinable | null = null): string | null {
  const { role } = session.now?.person ?? {}
  if (!role) return 'Say who works: choose your name first'
  return (mayLeave(state.value, how, named) ?? mayHandBack(role, how))?.message ?? null
}
const leave = useHandBack()
async function handBack(how: Leaves) {
  if (busy.value) return
  busy.value = true
  const asked = await leave(how, how === 'declined' ? fault.value : null)
  busy.value = false
  words.value = sayTrouble(asked)
  if (asked.is !== 'done') return
  other.value = null
  await ledger.refresh()
}
const print = () => window.print()
const paper = ref<PaperKind>('setup')
const papers = PAPERS.map(value => ({ value, words: PAPER_WORDS[value] }))
const left = computed(() => LEFT_WORDS[sheet.value?.how ?? 'proven'])
const keys = (): BenchKeys =>
  closed.value
    ? {}
    : {
        ...answerKeys([
          ...BRAKES.map(brake => () => void prove(brake, true)),
          () => {
            if (mayProveBoth.value) void proveBoth()
          },
        ]),
        Enter: () => {
          if (!stays.value) void handBack('proven')
        },
      }
</script>

<template>
  <div>
    <JobTop here="sheet" />
    <JobNotHere v-if="bench.loaded.value !== 'ready' || !record" :bench="bench" />
    <main
      v-else
      class="mx-auto grid max-w-[1240px] grid-cols-1 gap-8 px-4 py-5 sm:px-6 lg:grid-cols-[340px_1fr] print:block print:p-0"
    >
      <div class="no-print grid grid-cols-1 content-start gap-3">
        <StagePath
          v-if="state.rear.setup"
          :state="state"
          :number="number"
          :right="sheet?.right ?? null"
          here="handBack"
        />
        <BenchTroubles v-if="!closed" :bench="bench" />
        <p v-if="record.call" class="stopped text-lg" role="alert" data-test="call">
          Call the customer: {{ record.call }}.
        </p>
        <template v-if="!closed">
          <h2 class="border-t border-rule pt-3 text-lg font-bold">Both brakes, before it leaves</h2>
          <p class="small -mt-2">
            Squeeze each lever hard: no slip, lever clear of the bar. Roll, then ride. In doubt a qualified mechanic
            decides; nobody rides until both pass.
          </p>
          <div v-for="p in proofs" :key="p.brake" class="grid gap-1">
            <p class="flex items-baseline justify-between gap-2">
              <b>{{ BRAKE_WORDS[p.brake] }}</b>
              <BrakeStands
                class="text-right"
                :state="state.brake[p.brake]"
                :people="people"
                :data-test="`proof-${p.brake}`"
              />
            </p>
            <div
              v-if="p.cures.length"
              class="grid gap-1 border-l-[10px] border-stop pl-2"
              :data-test="`cures-${p.brake}`"
            >
              <label class="label mb-0!"
                >What was put right?<select v-model="cured[p.brake]" class="field" :data-test="`cured-${p.brake}`">
                  <option :value="undefined" disabled>choose</option>
                  <option v-for="c in p.cures" :key="c.id" :value="c.id">{{ c.words }}</option>
                </select></label
              >
              <button
                type="button"
                class="also justify-center"
                :disabled="!cured[p.brake]"
                :data-test="`note-cured-${p.brake}`"
                @click="noteCured(p.brake)"
              >
                Note it
              </button>
            </div>
            <div v-if="!p.none" class="grid grid-cols-[1fr_auto] gap-2">
              <button
                type="button"
                class="also min-h-14! border-clean! text-clean!"
                :data-test="`${p.brake}-holds`"
                @click="prove(p.brake, true)"
              >
                {{ BRAKE_WORDS[p.brake] }} holds <kbd class="key">{{ p.key }}</kbd>
              </button>
              <button
                type="button"
                class="also min-h-14! border-stop! text-stop!"
                :data-test="`${p.brake}-fails`"
                @click="prove(p.brake, false)"
              >
                Fails
              </button>
            </div>
            <NuxtLink class="quiet -ml-2 text-sm underline" :to="`/jobs/${number}/brakes?brake=${p.brake}`"
              >{{ BRAKE_WORDS[p.brake] }}, test by test</NuxtLink
            >
          </div>
          <button
            v-if="mayProveBoth"
            type="button"
            class="also min-h-14! border-clean! text-clean!"
            data-test="both-hold"
            @click="proveBoth"
          >
            Both tried, both hold <kbd class="key">{{ BRAKES.length + 1 }}</kbd>
          </button>
          <p v-if="stays" class="stopped" data-test="stays">{{ stays.message }}.</p>
          <p v-if="words" class="stopped" role="alert" data-test="words">{{ words }}</p>
          <button
            type="button"
            class="act w-full"
            :disabled="Boolean(stays) || busy"
            data-test="hand-back"
            @click="handBack('proven')"
          >
            {{ busy ? 'Freezing the sheet' : 'Hand it back' }} <kbd class="key">Enter</kbd>
          </button>
          <section class="grid gap-2 border-t border-rule pt-2" aria-label="It leaves otherwise">
            <div v-if="other === null" class="flex flex-wrap gap-x-3">
              <button v-if="faults.length" type="button" class="quiet" data-test="declined" @click="other = 'declined'">
                The customer declined a repair</button
              ><button type="button" class="quiet text-stop" data-test="unridable" @click="other = 'unridable'">
                It leaves unridable
              </button>
            </div>
            <template v-else-if="other === 'declined'">
              <p class="font-semibold">Rideable, with this fault left as it is. Brakes must be proven.</p>
              <ChoiceRow
                v-model="fault"
                label="Which fault"
                :choices="faults"
                :columns="1"
                :centred="false"
                test="fault"
              />
              <p v-if="fault" class="small" data-test="get-home">{{ GET_HOME[fault] }}</p>
              <p v-if="shut('declined', fault)" class="wrong" role="status" data-test="declined-shut">
                {{ shut('declined', fault) }}.
              </p>
              <button
                type="button"
                class="also"
                :disabled="busy || shut('declined', fault) !== null"
                data-test="declined-sure"
                @click="handBack('declined')"
              >
                The customer knows, and takes it so
              </button>
              <button type="button" class="quiet" @click="other = null">Keep it here</button>
            </template>
            <template v-else>
              <p class="font-semibold">The sheet will say on top that it must not be ridden.</p>
              <p v-if="shut('unridable')" class="wrong" role="status">{{ shut('unridable') }}.</p>
              <button
                type="button"
                class="also border-stop! text-stop!"
                :disabled="busy || shut('unridable') !== null"
                data-test="unridable-sure"
                @click="handBack('unridable')"
              >
                Leaves unridable, told the customer</button
              ><button type="button" class="quiet" @click="other = null">Keep it here</button>
            </template>
          </section>
        </template>
        <template v-else>
          <p class="border-t border-rule pt-3 text-lg font-bold" data-test="handed-back">{{ left }}</p>
          <a class="act" :href="`/api/jobs/${number}/sheet.pdf?paper=${paper}`" download data-test="pdf"
            >Download as PDF <Download :size="20" aria-hidden="true"
          /></a>
          <button type="button" class="also" @click="print">Print <Printer :size="20" aria-hidden="true" /></button>
          <NuxtLink to="/" class="also" data-test="to-floor">To the Floor</NuxtLink>
          <button type="button" class="quiet" data-test="reopen" @click="bench.reopen">Reopen this job</button>
          <p v-if="words || bench.hint.value" class="stopped" role="alert">{{ words || bench.hint.value }}</p>
        </template>
      </div>
      <div>
        <ChoiceRow
          v-if="sheet"
          v-model="paper"
          class="no-print mb-3 max-w-[800px]"
          label="Which paper"
          :choices="papers"
          test="paper"
        />
        <SheetPaper
          v-if="sheet"
          :kind="paper"
          :job="record"
          :sheet="sheet"
          :shop="session.now?.shop.name ?? ''"
          :zone="zone"
          :draft="!closed"
        />
        <p v-else-if="draftTrouble" class="stopped" role="alert">{{ draftTrouble }}</p>
        <p v-else>Working out the sheet</p>
      </div>
    </main>
    <BenchSaid :bench="bench" />
  </div>
</template>
