<!-- Anything that was done other than advised: a turn in two touches, the rest in three; or one line of words. -->
<script setup lang="ts">
import { counted, sayNet, SCREW_WORDS, SCREWS, WAY_WORDS, type ScrewName } from '#core/chapter/screws'
import { Note } from '#core/http/job'
import type { LedgerEvent } from '#core/ledger/events'
import type { JobState } from '#core/ledger/reduce'
import { sayTurns, toSixteenths } from '#core/quantity/turns'
import { PARTS } from '#core/rear/benchEvents'
import { startTurnsOut } from '#core/rear/clamp'
import type { HangerFit } from '#core/rear/hanger'
import { RENEWED_WORDS } from '#core/rear/renewedWords'
import { asItCameIn, barrelLeft, edgeLimitTurns } from '#core/rear/ofState'

const props = defineProps<{
  number: number
  state: JobState
  teeth: readonly number[]
  noting: boolean
  noteTrouble: string
}>()
const emit = defineEmits<{ record: [event: LedgerEvent]; note: [text: string]; close: [] }>()
const screw = defineModel<ScrewName>('screw', { required: true })
const WHAT = [
  ['turn', 'Turned'],
  ['sight', 'Saw a stop'],
  ['edge', 'Wound to a rub'],
  ['offset', 'Measured'],
  ['gauge', 'Gauged'],
  ['renew', 'Renewed'],
  ['line', 'One line'],
] as const
const what = ref<(typeof WHAT)[number][0]>('turn')
const AMOUNTS = [1, 2, 3, 4, 6, 8, 12, 16].map(e => e / 8)
const SCREW_CHOICES = SCREWS.map(value => ({ value, words: value === 'barrel' ? 'Barrel' : value }))
const STOPS = (['L', 'H'] as const).map(value => ({ value, words: `${value} stop` }))
const WAYS = (['in', 'out'] as const).map(value => ({ value, words: `Winding ${value}` }))
const left = computed(() => barrelLeft(props.state.rear) ?? { inTurns: 0, outTurns: 0 })
const barred = (turns: number, way: 'out' | 'in') =>
  screw.value === 'barrel' && turns > (way === 'out' ? left.value.outTurns : left.value.inTurns) + 1e-6
const turn = (turns: number, way: 'out' | 'in') =>
  emit('record', {
    kind: 'turn',
    screw: screw.value,
    sixteenths: counted(screw.value, way, toSixteenths(turns)),
  })
const schools = useSchools()
const startTurns = computed(() =>
  startTurnsOut(props.state.rear.setup?.barrelTurnsRange ?? 0, schools.value.barrel.turnsOut),
)
const stop = ref<'L' | 'H'>('L')
const click = ref(Math.max(1, Math.min(props.teeth.length - 2, props.state.rear.trace?.lever ?? 1)))
const way = ref<'out' | 'in'>('out')
const back = computed(() => Object.entries(asItCameIn(props.state.rear)) as [ScrewName, number][])
const edge = (turns: number, found: boolean) =>
  emit('record', {
    kind: 'edge',
    click: click.value,
    way: way.value,
    sixteenths: counted('barrel', way.value, toSixteenths(turns)),
    found,
  })
const gauge = (fit: HangerFit) =>
  emit('record', { kind: 'gauge', camberDeg: fit.camberDeg, toeDeg: fit.toeDeg, acrossMm: fit.acrossMm })
const note = useEntryForm({ initial: { text: '' }, schema: Note, done: ({ text }) => emit('note', text) })
watch(
  () => props.noting,
  (now, was) => {
    if (was && !now && !props.noteTrouble) note.form.reset()
  },
)
</script>

<template>
  <section aria-label="Something else" class="grid gap-3">
    <div class="flex items-center justify-between">
      <h2 class="text-lg font-bold">I did something else</h2>
      <button type="button" class="quiet" @click="emit('close')">Close <kbd class="key">Esc</kbd></button>
    </div>
    <PanelTabs v-model="what" :tabs="WHAT" label="What was done" test="else" :columns="4">
      <template #turn>
        <ChoiceRow v-model="screw" label="Which screw" :choices="SCREW_CHOICES" test="screw" />
        <div class="grid grid-cols-2 gap-x-3">
          <div v-for="w in ['in', 'out'] as const" :key="w">
            <p class="mb-1 font-bold" :class="w === 'out' ? 'text-out' : 'text-in'">{{ WAY_WORDS[w] }}</p>
            <div class="grid grid-cols-2 gap-1">
              <button
                v-for="a in AMOUNTS"
                :key="a"
                type="button"
                class="also figure min-h-12! justify-center px-0!"
                :disabled="barred(a, w)"
                :data-test="`turn-${w}-${a}`"
                @click="turn(a, w)"
              >
                {{ sayTurns(a) }}
              </button>
            </div>
          </div>
        </div>
        <div v-if="back.length" class="border-t border-rule pt-2">
          <p class="small mb-1">Put back as it came in:</p>
          <div class="flex flex-wrap gap-1">
            <button
              v-for="[s, sixteenths] in back"
              :key="s"
              type="button"
              class="also min-h-11!"
              :data-test="`back-${s}`"
              @click="emit('record', { kind: 'turn', screw: s, sixteenths })"
            >
              {{ SCREW_WORDS[s] }} {{ sayNet(s, sixteenths) }}
            </button>
          </div>
        </div>
      </template>
      <template #sight>
        <ChoiceRow v-model="stop" label="Which stop" :choices="STOPS" test="else-stop" />
        <OffsetPad of="stop" @figure="emit('record', { kind: 'sight', at: stop, offsetMm: $event })" />
      </template>
      <template #edge>
        <GearPick v-model="click" :teeth="teeth" between />
        <ChoiceRow v-model="way" label="Which way" :choices="WAYS" test="else-way" />
        <EdgeStrip :way="way" :limit-turns="edgeLimitTurns(state.rear, way)" :chosen="null" @edge="edge" />
      </template>
      <template #offset>
        <GearPick v-model="click" :teeth="teeth" />
        <OffsetPad of="click" @figure="emit('record', { kind: 'offset', click, offsetMm: $event })" />
      </template>
      <template #gauge><GaugePad @gauge="gauge" /></template>
      <template #renew>
        <div class="grid gap-1">
          <button
            type="button"
            class="also"
            @click="
              emit('record', { kind: 'reclamp', barrelSixteenthsOut: toSixteenths(startTurns), how: schools.clamp.id })
            "
          >
            Clamped again, barrel {{ sayTurns(startTurns) }} out
          </button>
          <button
            v-for="p in PARTS"
            :key="p"
            type="button"
            class="also"
            @click="emit('record', { kind: 'replace', part: p })"
          >
            {{ RENEWED_WORDS[p] }}
          </button>
        </div>
      </template>
      <template #line>
        <form class="grid gap-2" novalidate @submit.prevent="note.form.handleSubmit()">
          <FormLine :of="note" name="text" label="What was done, in one line" test="line" />
          <p v-if="noteTrouble" class="stopped" role="alert">{{ noteTrouble }}</p>
          <button class="act" :disabled="noting">{{ noting ? 'Writing' : 'Write it' }}</button>
        </form>
      </template>
    </PanelTabs>
    <NuxtLink
      :to="{ path: '/practice/what-if', query: { job: number } }"
      class="quiet inline-flex min-h-11 items-center underline"
      data-test="what-if"
      >What if? Try it without touching the bike</NuxtLink
    >
  </section>
</template>
