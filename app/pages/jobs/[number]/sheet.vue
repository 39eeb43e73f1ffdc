<script setup lang="ts">
import { Download, Printer } from '@lucide/vue'
import type { Sheet } from '#core/ledger/sheet'
import { staysBecause } from '#core/ledger/reduce'
import type { BenchKeys } from '~/composables/benchKeys'

const route = useRoute()
const number = Number(route.params.number)
const ledger = useLedger()
const session = useSession()
const { state, record, waiting, trouble, loaded } = storeToRefs(ledger)
useHead({ title: () => `Tag ${record.value?.tag ?? ''} · Setup sheet · Ocho` })
useLive(number)
void ledger.open(number)

const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const stays = computed(() => staysBecause(state.value))
const closed = computed(() => record.value?.closedAt !== null && record.value?.closedAt !== undefined)
const draft = shallowRef<Sheet | null>(null)
const draftTrouble = ref('')
const sheet = computed(() => (closed.value ? (record.value?.sheet ?? null) : draft.value))

/** The sheet as it would be frozen now: asked anew when the log has grown. */
watch(
  () => [loaded.value, ledger.lastSeq, closed.value] as const,
  async ([ready, , isClosed]) => {
    if (ready !== 'ready' || isClosed) return
    const asked = await ask<Sheet>(`/api/jobs/${number}/draft`)
    if (asked.is === 'done') draft.value = asked.value
    draftTrouble.value = asked.is === 'offline' ? OFFLINE_WORDS : asked.is === 'refused' ? asked.message : ''
  },
  { immediate: true },
)

const { signing, words, gate, signed } = useGate(ledger)
const prove = (brake: 'front' | 'rear', holds: boolean) =>
  gate({ kind: 'proof', brake, holds }, `${brake === 'front' ? 'Front' : 'Rear'} brake ${holds ? 'holds' : 'failed'}`)

const busy = ref(false)
const unridable = ref(false)
// one id for one hand-back: asking twice hands back once
let handBackId = newUuid()
async function handBack(how: 'proven' | 'unridable') {
  if (busy.value) return
  // what was just tapped is on its way: it goes first
  busy.value = true
  await ledger.refresh()
  busy.value = false
  if (waiting.value.length)
    return void (words.value = `${waiting.value.length} still waiting to be sent: hand back when all is saved`)
  busy.value = true
  words.value = ''
  const asked = await ask<Sheet>(`/api/jobs/${number}/hand-back`, {
    method: 'POST',
    body: { id: handBackId, basedOn: ledger.lastSeq, how },
  })
  busy.value = false
  if (asked.is === 'done') {
    handBackId = newUuid()
    unridable.value = false
    await ledger.refresh()
  } else words.value = asked.is === 'offline' ? OFFLINE_WORDS : asked.message
}
async function reopen() {
  const asked = await ask(`/api/jobs/${number}/reopen`, {
    method: 'POST',
    body: { id: newUuid(), basedOn: ledger.lastSeq },
  })
  words.value = asked.is === 'offline' ? OFFLINE_WORDS : asked.is === 'refused' ? asked.message : ''
  await ledger.refresh()
}
const print = () => window.print()
const BRAKES = ['front', 'rear'] as const
useBenchKeys((): BenchKeys =>
  closed.value
    ? {}
    : {
        f: () => {
          void prove('front', true)
        },
        r: () => {
          void prove('rear', true)
        },
        Enter: () => {
          if (!stays.value) void handBack('proven')
        },
        z: () => {
          void ledger.undo()
        },
      },
)
</script>

<template>
  <div>
    <PageHead :title="`Tag ${record?.tag ?? ''}`"
      ><span class="hidden sm:inline">{{ record?.bike.name }}</span></PageHead
    >
    <main
      v-if="loaded === 'ready' && record"
      class="mx-auto grid max-w-[1240px] gap-8 px-4 py-5 sm:px-6 lg:grid-cols-[340px_1fr] print:block print:p-0"
    >
      <div class="no-print">
        <StagePath v-if="state.setup" :state="state" :number="number" :right="sheet?.right ?? null" here="handBack" />
        <template v-if="!closed">
          <h2 class="mt-4 border-t border-rule pt-3 text-lg font-bold">Both brakes, before it leaves</h2>
          <p class="small mt-1">
            Squeeze each lever hard: no slip, lever clear of the bar. Roll, then ride. In doubt a qualified mechanic
            decides; nobody rides until both pass.
          </p>
          <div v-for="b in BRAKES" :key="b" class="mt-3">
            <p class="flex items-baseline justify-between">
              <b>{{ b === 'front' ? 'Front brake' : 'Rear brake' }}</b>
              <span
                :class="state.proofs[b] ? (state.proofs[b]!.holds ? 'text-clean' : 'text-stop') : 'text-soft'"
                class="font-semibold"
                :data-test="`proof-${b}`"
                >{{
                  state.proofs[b]
                    ? `${state.proofs[b]!.holds ? 'holds' : 'failed'}, ${record.people[state.proofs[b]!.by] ?? ''}`
                    : 'not proven'
                }}</span
              >
            </p>
            <div class="mt-1 grid grid-cols-[1fr_auto] gap-2">
              <button
                type="button"
                class="also min-h-14! border-clean! text-clean!"
                :data-test="`${b}-holds`"
                @click="prove(b, true)"
              >
                {{ b === 'front' ? 'Front brake holds' : 'Rear brake holds' }}
                <kbd class="key">{{ b === 'front' ? 'F' : 'R' }}</kbd>
              </button>
              <button
                type="button"
                class="also min-h-14! border-stop! text-stop!"
                :data-test="`${b}-fails`"
                @click="prove(b, false)"
              >
                Fails
              </button>
            </div>
          </div>
          <p v-if="trouble?.is === 'refused'" class="stopped mt-3" role="alert">{{ trouble.message }}</p>
          <p v-if="trouble?.is === 'offline'" class="stopped mt-3" role="alert">
            {{ OFFLINE_WORDS }}. A bike is handed back with the server in reach.
          </p>
          <p v-if="stays" class="stopped mt-4" data-test="stays">The bike stays: {{ stays }}.</p>
          <p v-if="words" class="stopped mt-3" role="alert" data-test="words">{{ words }}</p>
          <button
            type="button"
            class="act mt-4 w-full"
            :disabled="Boolean(stays) || busy"
            data-test="hand-back"
            @click="handBack('proven')"
          >
            {{ busy ? 'Freezing the sheet' : 'Hand it back' }} <kbd class="key">Enter</kbd>
          </button>
          <div class="mt-4 border-t border-rule pt-2">
            <button
              v-if="!unridable"
              type="button"
              class="quiet text-stop"
              data-test="unridable"
              @click="unridable = true"
            >
              It leaves unridable
            </button>
            <div v-else class="grid gap-2">
              <p class="font-semibold">The sheet will say on top that it must not be ridden.</p>
              <button
                type="button"
                class="also border-stop! text-stop!"
                :disabled="busy"
                data-test="unridable-sure"
                @click="handBack('unridable')"
              >
                Leaves unridable, told the customer</button
              ><button type="button" class="quiet" @click="unridable = false">Keep it here</button>
            </div>
          </div>
        </template>
        <template v-else>
          <p class="mt-4 border-t border-rule pt-3 text-lg font-bold" data-test="handed-back">
            {{ sheet?.how === 'unridable' ? 'Left unridable' : 'Handed back' }}
          </p>
          <div class="mt-3 grid gap-2">
            <a class="act" :href="`/api/jobs/${number}/sheet.pdf`" download data-test="pdf"
              >Download as PDF <Download :size="20" aria-hidden="true"
            /></a>
            <button type="button" class="also" @click="print">Print <Printer :size="20" aria-hidden="true" /></button>
            <NuxtLink to="/" class="also" data-test="to-floor">To the Floor</NuxtLink>
            <button type="button" class="quiet" data-test="reopen" @click="reopen">Reopen this job</button>
          </div>
          <p v-if="words" class="stopped mt-3" role="alert">{{ words }}</p>
        </template>
      </div>
      <div>
        <SheetPaper
          v-if="sheet"
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
    <SignGate v-if="signing" :what="signing.words" @sign="signed" @close="signing = null" />
    <main v-if="loaded !== 'ready'" class="p-6">
      <p v-if="loaded === 'loading'">Reading the log</p>
      <p v-else class="stopped" role="alert">
        {{ loaded === 'missing' ? `There is no job ${number} here.` : OFFLINE_WORDS }}
      </p>
    </main>
  </div>
</template>
