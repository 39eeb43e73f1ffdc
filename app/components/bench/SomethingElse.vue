<!-- Anything that was done other than advised: a turn in two touches, the rest in three; or one line of words. -->
<script setup lang="ts">
import { PARTS } from '#core/advice/contract'
import type { LedgerEvent } from '#core/ledger/events'
import { asItCameIn, type JobState, type ScrewName } from '#core/ledger/reduce'
import { sayNet } from '#core/ledger/net'
import { sayTurns } from '#core/quantity/turns'
import type { HangerFit } from '#core/rear/hanger'

const props = defineProps<{ state: JobState; teeth: readonly number[]; noting: boolean; noteTrouble: string }>()
const emit = defineEmits<{ record: [event: LedgerEvent]; note: [text: string]; close: [] }>()
const screw = defineModel<ScrewName>('screw', { required: true })
const what = ref<'turn' | 'sight' | 'edge' | 'offset' | 'gauge' | 'renew' | 'line'>('turn')
const WHAT = [
  ['turn', 'Turned'],
  ['sight', 'Saw a stop'],
  ['edge', 'Wound to a rub'],
  ['offset', 'Measured'],
  ['gauge', 'Gauged'],
  ['renew', 'Renewed'],
  ['line', 'One line'],
] as const
const AMOUNTS = [1, 2, 3, 4, 6, 8, 12, 16].map(e => e / 8)
const left = computed(() => ({
  out: (props.state.setup?.barrelTurnsRange ?? 0) - props.state.barrelSixteenths / 16,
  in: props.state.barrelSixteenths / 16,
}))
const barred = (turns: number, way: 'out' | 'in') => screw.value === 'barrel' && turns > left.value[way] + 1e-6
const turn = (turns: number, way: 'out' | 'in') =>
  emit('record', {
    kind: 'turn',
    screw: screw.value,
    sixteenths: Math.round(16 * turns) * ((screw.value === 'barrel') === (way === 'out') ? 1 : -1),
  })
const stop = ref<'L' | 'H'>('L')
const click = ref(Math.max(1, Math.min(props.teeth.length - 2, props.state.trace?.lever ?? 1)))
const way = ref<'out' | 'in'>('out')
const text = ref('')
const back = computed(() => Object.entries(asItCameIn(props.state)) as [ScrewName, number][])
const gauge = (fit: HangerFit) =>
  emit('record', { kind: 'gauge', camberDeg: fit.camberDeg, toeDeg: fit.toeDeg, acrossMm: fit.acrossMm })
function line() {
  if (text.value.trim()) emit('note', text.value.trim())
}
watch(
  () => props.noting,
  (now, was) => {
    if (was && !now && !props.noteTrouble) text.value = ''
  },
)
</script>

<template>
  <section aria-label="Something else" class="grid gap-3">
    <div class="flex items-center justify-between">
      <h2 class="text-lg font-bold">I did something else</h2>
      <button type="button" class="quiet" @click="emit('close')">Close <kbd class="key">Esc</kbd></button>
    </div>
    <div class="flex flex-wrap gap-1">
      <button
        v-for="[key, word] in WHAT"
        :key="key"
        type="button"
        class="also min-h-11! px-2.5! text-sm"
        :class="{ 'bg-act! text-act-ink!': what === key }"
        :aria-pressed="what === key"
        :data-test="`else-${key}`"
        @click="what = key"
      >
        {{ word }}
      </button>
    </div>

    <template v-if="what === 'turn'">
      <div class="grid grid-cols-4 gap-1">
        <button
          v-for="s in ['barrel', 'H', 'L', 'B'] as const"
          :key="s"
          type="button"
          class="also min-h-11! justify-center px-1!"
          :class="{ 'bg-act! text-act-ink!': screw === s }"
          :aria-pressed="screw === s"
          :data-test="`screw-${s}`"
          @click="screw = s"
        >
          {{ s === 'barrel' ? 'Barrel' : s }}
        </button>
      </div>
      <div class="grid grid-cols-2 gap-x-3">
        <div v-for="w in ['in', 'out'] as const" :key="w">
          <p class="mb-1 font-bold" :class="w === 'out' ? 'text-out' : 'text-in'">
            {{ w === 'out' ? 'Out, anticlockwise' : 'In, clockwise' }}
          </p>
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
            {{ s === 'barrel' ? 'Barrel' : s }} {{ sayNet(s, sixteenths) }}
          </button>
        </div>
      </div>
    </template>

    <template v-else-if="what === 'sight'">
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="s in ['L', 'H'] as const"
          :key="s"
          type="button"
          class="also justify-center"
          :class="{ 'bg-act! text-act-ink!': stop === s }"
          :aria-pressed="stop === s"
          @click="stop = s"
        >
          {{ s }} stop
        </button>
      </div>
      <FigurePad
        label="Offset"
        unit="mm"
        :usual="[1.5, 1, 0.5, 0, -0.5, -1, -1.5]"
        :least="-15"
        :most="15"
        zero-word="line"
        in-word="inboard"
        out-word="outboard"
        @figure="emit('record', { kind: 'sight', at: stop, offsetMm: $event })"
      />
    </template>

    <template v-else-if="what === 'edge' || what === 'offset'">
      <label class="label"
        >In which gear<select v-model.number="click" class="field">
          <template v-for="(t, k) in teeth" :key="k"
            ><option v-if="what === 'offset' || (k > 0 && k < teeth.length - 1)" :value="k">{{ t }}</option></template
          >
        </select></label
      >
      <template v-if="what === 'edge'">
        <div class="grid grid-cols-2 gap-1">
          <button
            v-for="w in ['in', 'out'] as const"
            :key="w"
            type="button"
            class="also justify-center"
            :class="{ 'bg-act! text-act-ink!': way === w }"
            :aria-pressed="way === w"
            @click="way = w"
          >
            Winding {{ w }}
          </button>
        </div>
        <EdgeStrip
          :way="way"
          :limit-turns="way === 'out' ? left.out : left.in"
          :chosen="-1"
          @edge="
            (t, found) =>
              emit('record', {
                kind: 'edge',
                click,
                way,
                sixteenths: Math.round(16 * t) * (way === 'out' ? 1 : -1),
                found,
              })
          "
        />
      </template>
      <FigurePad
        v-else
        label="Offset"
        unit="mm"
        :usual="[0.9, 0.6, 0.3, 0, -0.3, -0.6, -0.9]"
        :least="-15"
        :most="15"
        in-word="inboard"
        out-word="outboard"
        @figure="emit('record', { kind: 'offset', click, offsetMm: $event })"
      />
    </template>

    <GaugePad v-else-if="what === 'gauge'" @gauge="gauge" />

    <div v-else-if="what === 'renew'" class="grid gap-1">
      <button type="button" class="also" @click="emit('record', { kind: 'reclamp', barrelSixteenthsOut: 32 })">
        Clamped again, barrel 2 out
      </button>
      <button
        v-for="p in PARTS"
        :key="p"
        type="button"
        class="also"
        @click="emit('record', { kind: 'replace', part: p })"
      >
        New {{ p === 'cable' ? 'cable and housing' : p }}
      </button>
    </div>

    <form v-else class="grid gap-2" @submit.prevent="line">
      <label class="label" for="line">What was done, in one line</label>
      <input id="line" v-model="text" class="field" maxlength="400" autocomplete="off" data-test="line" />
      <p v-if="noteTrouble" class="stopped" role="alert">{{ noteTrouble }}</p>
      <button class="act" :disabled="noting || !text.trim()">{{ noting ? 'Writing' : 'Write it' }}</button>
    </form>
  </section>
</template>
