<!-- Cable on: where the barrel starts, the clamp and its schools, the recipe when the barrel runs out, pieces, cut and cap. -->
<script setup lang="ts">
import { typedNumber } from '#core/quantity/typed'
import { lossAlong } from '#core/cable/run'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { fromSixteenths, sayTurns, toSixteenths } from '#core/quantity/turns'
import {
  BARREL_START_TURNS,
  clampJudged,
  HOUSING_KINDS,
  HOUSING_PLACES,
  LAST_LOOP_MM,
  reclampRecipe,
  TAIL_MM,
  type HousingKind,
  type HousingPlace,
} from '#core/rear/clamp'
import { BEDDING_SHIFTS } from '#core/rear/settle'
import { useElementSize } from '@vueuse/core'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const setup = computed(() => props.state.setup!)
/** The run as it was laid out on the cable bench, if it was. */
const laid = computed(() => props.state.noted.runs.find(r => r.run === 'rear') ?? null)
const turnsOut = computed(() => fromSixteenths(props.state.barrelSixteenths))
const recipe = computed(() =>
  reclampRecipe({
    turnsOut: turnsOut.value,
    wantedTurns: 0,
    rangeTurns: setup.value.barrelTurnsRange,
    threadMm: setup.value.barrelPitchMm,
  }),
)
const sinceClamp = computed(() =>
  props.state.noted.sinceClamp === null ? null : fromSixteenths(props.state.noted.sinceClamp),
)
const perTurn = ref(4)
const clicks = (turns: number) => `${Math.round(turns * perTurn.value)} clicks`
const what = ref<'clamp' | 'count' | 'pieces' | 'end'>('clamp')
const WHAT = [
  ['clamp', 'Clamp'],
  ['count', 'Lost count'],
  ['pieces', 'Pieces'],
  ['end', 'Cut and cap'],
] as const

const place = ref<HousingPlace>('last loop')
const kind = ref<HousingKind>('4 mm')
const ends = ref<'metal' | 'plastic' | 'sealed' | 'bare'>('metal')
const lengthText = ref('')
const innerText = ref('')
const tailText = ref('40')
const countText = ref('')
const wrong = ref('')
function length(text: string, least: number, most: number, name: string): number | null {
  const mm = typedNumber(text)
  wrong.value = Number.isInteger(mm) && mm >= least && mm <= most ? '' : `${name}: whole mm from ${least} to ${most}`
  return wrong.value ? null : mm
}
function piece() {
  const lengthMm = length(lengthText.value, 20, 3500, 'Housing')
  if (lengthMm !== null) {
    emit('record', { kind: 'housing', place: place.value, lengthMm, of: kind.value, ends: ends.value })
    lengthText.value = ''
  }
}
function inner() {
  const lengthMm = length(innerText.value, 300, 4000, 'Inner')
  if (lengthMm !== null) {
    emit('record', { kind: 'inner', lengthMm })
    innerText.value = ''
  }
}
function cut() {
  const tailMm = length(tailText.value, 0, 500, 'Tail')
  if (tailMm !== null) emit('record', { kind: 'cut', tailMm }, 'Cut and capped')
}
function recount() {
  const turns = typedNumber(countText.value)
  wrong.value =
    turns >= 0 && turns <= setup.value.barrelTurnsRange ? '' : `Turns: from 0 to ${setup.value.barrelTurnsRange}`
  if (!wrong.value) {
    emit('record', { kind: 'recount', barrelSixteenthsOut: toSixteenths(turns) }, 'Counted again')
    countText.value = ''
  }
}
const startAt = computed(() => Math.min(BARREL_START_TURNS.to, setup.value.barrelTurnsRange / 2))
const reclamp = (turns: number) =>
  emit('record', { kind: 'reclamp', barrelSixteenthsOut: toSixteenths(turns) }, 'Clamped')
const newCable = () => emit('record', { kind: 'replace', part: 'cable' }, 'Cable and housing are new')
const bedded = () => emit('record', { kind: 'bedded', shifts: BEDDING_SHIFTS }, 'Bedded')
const look = useTemplateRef<HTMLElement>('look')
const { width } = useElementSize(look)
</script>

<template>
  <div>
    <section ref="look" class="look" aria-label="Cable on">
      <div class="mat">
        <BarrelRule
          :width="Math.max(280, Math.floor(width))"
          :height="170"
          :turns-out="turnsOut"
          :range-turns="setup.barrelTurnsRange"
          :clean-turns="null"
          window-state="unknown"
          :eighths="[]"
          :turn="null"
        />
      </div>
      <div class="mat p-2">
        <CableRun v-if="laid" :run="laid" :losses="lossAlong(laid)" :chosen="null" /><HousingRun
          v-else
          :pieces="state.noted.housing"
          :inner-mm="state.noted.inner?.lengthMm ?? null"
          :active="place"
        />
      </div>
      <div class="grid gap-3 xl:grid-cols-2">
        <div>
          <h2 class="font-bold">In order</h2>
          <ol class="list-decimal pl-5 text-[0.9375rem] leading-snug">
            <li>
              Lever at its slackest click, chain on the {{ setup.spring === 'low' ? 'largest' : 'smallest' }} sprocket.
            </li>
            <li>
              Every barrel on the run fully in, then the one used {{ sayTurns(BARREL_START_TURNS.from) }} to
              {{ sayTurns(BARREL_START_TURNS.to) }} turns out, so that it can go either way.
            </li>
            <li>
              Photograph the clamp before it is undone: groove, and which side of the bolt. The wrong side changes the
              ratio by 10 to 15 %.
            </li>
            <li>Tug the inner hard along its run: seats ferrules and head.</li>
            <li>Draw it and clamp: the pulley must not move.</li>
          </ol>
        </div>
        <div>
          <h2 class="font-bold">{{ schools.clamp.name }}</h2>
          <p class="text-[0.9375rem] leading-snug">{{ schools.clamp.why }}</p>
          <p class="text-[0.9375rem] leading-snug" data-test="first-click">
            Leaves {{ schools.clamp.takeUpMm.from.toFixed(1) }} to {{ schools.clamp.takeUpMm.to.toFixed(1) }} mm of
            cable against snug: {{ schools.clamp.firstClick }}.
          </p>
        </div>
      </div>
    </section>
    <aside class="panel" aria-label="Clamp, count, pieces">
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="[key, word] in WHAT"
          :key="key"
          type="button"
          class="also min-h-11! px-2.5! text-sm"
          :class="{ 'bg-act! text-act-ink!': what === key }"
          :aria-pressed="what === key"
          :data-test="`cable-${key}`"
          @click="
            what = key
            wrong = ''
          "
        >
          {{ word }}
        </button>
      </div>
      <template v-if="what === 'clamp'">
        <p class="text-2xl leading-tight font-bold">Barrel {{ sayTurns(startAt) }} out, then clamp</p>
        <p v-if="Math.abs(recipe.drawMm) >= 0.1" class="figure" data-test="draw">
          To keep the setting, {{ recipe.drawMm > 0 ? 'draw' : 'let out' }} {{ Math.abs(recipe.drawMm).toFixed(1) }} mm
          at the clamp
        </p>
        <p class="text-[0.9375rem] leading-snug">
          Unload the bolt: push the derailleur towards the {{ setup.spring === 'low' ? 'frame' : 'spokes' }}, loosen,
          let it back onto {{ setup.spring === 'low' ? 'L' : 'H' }}, set the barrel, draw, clamp; see that the
          {{ setup.spring === 'low' ? 'largest' : 'smallest' }} still engages.
        </p>
        <p v-if="state.noted.cut" class="stopped">
          The inner is cut and capped: look that enough is left before it is drawn.
        </p>
        <button type="button" class="act" data-test="reclamp" @click="reclamp(startAt)">
          Clamped, barrel {{ sayTurns(startAt) }} out
        </button>
        <button type="button" class="also" data-test="new-cable" @click="newCable">
          New cable and housing, clamped
        </button>
        <p v-if="sinceClamp !== null" class="font-semibold" data-test="clamp-judged">
          Barrel {{ sayTurns(sinceClamp) }} {{ sinceClamp >= 0 ? 'out' : 'in' }} since the clamp:
          {{
            { good: 'a good clamp', fair: 'fair', poor: 'a poor clamp: draw it again when there is time' }[
              clampJudged(sinceClamp)
            ]
          }}
        </p>
        <div class="grid grid-cols-2 gap-2 border-t border-rule pt-2">
          <p>
            <span class="small block">Left to slacken</span><b class="figure">{{ sayTurns(turnsOut) }}</b>
            <span class="small">{{ clicks(turnsOut) }}</span>
          </p>
          <p>
            <span class="small block">Left to tighten</span
            ><b class="figure">{{ sayTurns(setup.barrelTurnsRange - turnsOut) }}</b>
            <span class="small">{{ clicks(setup.barrelTurnsRange - turnsOut) }}</span>
          </p>
        </div>
        <div class="flex items-center justify-between gap-2">
          <span class="small">Clicks a turn</span
          ><span class="flex gap-1"
            ><button
              v-for="n in [2, 3, 4]"
              :key="n"
              type="button"
              class="also min-h-11! min-w-11 justify-center px-2!"
              :class="{ 'bg-act! text-act-ink!': perTurn === n }"
              :aria-pressed="perTurn === n"
              @click="perTurn = n"
            >
              {{ n }}
            </button></span
          >
        </div>
        <p class="small">Frayed ends stab and cut wire flies: goggles, and cap the end.</p>
      </template>
      <form v-else-if="what === 'count'" class="grid gap-2" @submit.prevent="recount">
        <p class="text-2xl leading-tight font-bold">Wind it fully in, counting</p>
        <p class="text-[0.9375rem]">Then back out by the same turns. What you counted is where it stands.</p>
        <label class="label"
          >Turns out<input
            v-model="countText"
            class="field figure text-2xl"
            inputmode="decimal"
            autocomplete="off"
            data-test="count"
        /></label>
        <button class="act" :disabled="!countText.trim()" data-test="count-note">It stands there</button>
      </form>
      <template v-else-if="what === 'pieces'">
        <p v-if="laid" class="border-l-[6px] border-ink pl-3" data-test="pieces-laid">
          This run is laid out on the cable bench: its pieces are measured there, so that they stand in one place.
        </p>
        <form v-else class="grid gap-2" @submit.prevent="piece">
          <div class="grid grid-cols-2 gap-1">
            <button
              v-for="p in HOUSING_PLACES"
              :key="p"
              type="button"
              class="also min-h-11! px-2! text-sm"
              :class="{ 'bg-act! text-act-ink!': place === p }"
              :aria-pressed="place === p"
              :data-test="`place-${p.replaceAll(' ', '-')}`"
              @click="place = p"
            >
              {{ p }}
            </button>
          </div>
          <div class="grid grid-cols-3 gap-1">
            <button
              v-for="h in HOUSING_KINDS"
              :key="h"
              type="button"
              class="also min-h-11! justify-center px-1! text-sm"
              :class="{ 'bg-act! text-act-ink!': kind === h }"
              :aria-pressed="kind === h"
              @click="kind = h"
            >
              {{ h }}
            </button>
          </div>
          <div class="grid grid-cols-4 gap-1">
            <button
              v-for="e in ['metal', 'plastic', 'sealed', 'bare'] as const"
              :key="e"
              type="button"
              class="also min-h-11! justify-center px-1! text-sm"
              :class="{ 'bg-act! text-act-ink!': ends === e }"
              :aria-pressed="ends === e"
              @click="ends = e"
            >
              {{ e }}
            </button>
          </div>
          <label class="label"
            >Housing, mm<input
              v-model="lengthText"
              class="field figure"
              inputmode="numeric"
              autocomplete="off"
              data-test="housing"
          /></label>
          <p v-if="place === 'last loop'" class="small">
            Usual {{ LAST_LOOP_MM.usual.from }} to {{ LAST_LOOP_MM.usual.to }}, {{ LAST_LOOP_MM.straight.from }} to
            {{ LAST_LOOP_MM.straight.to }} with a straight entry, from memory. Match the old piece if it was right.
          </p>
          <p class="small">Shift housing never carries a brake: it can burst in an emergency stop.</p>
          <button class="also" :disabled="!lengthText.trim()" data-test="housing-note">Note this piece</button>
        </form>
        <form class="grid gap-2 border-t border-rule pt-2" @submit.prevent="inner">
          <label class="label"
            >Inner, mm<input
              v-model="innerText"
              class="field figure"
              inputmode="numeric"
              autocomplete="off"
              data-test="inner"
          /></label>
          <button class="also" :disabled="!innerText.trim()" data-test="inner-note">Note the inner</button>
        </form>
      </template>
      <form v-else class="grid gap-2" @submit.prevent="cut">
        <p class="text-2xl leading-tight font-bold">Cut and cap</p>
        <p class="text-[0.9375rem]">
          {{ TAIL_MM.from }} to {{ TAIL_MM.to }} mm past the pinch bolt, after it is proven. Goggles: cut wire flies.
        </p>
        <label class="label"
          >Left past the bolt, mm<input
            v-model="tailText"
            class="field figure"
            inputmode="numeric"
            autocomplete="off"
            data-test="tail"
        /></label>
        <button class="act" data-test="cut-note">Cut and capped</button>
        <div class="border-t border-rule pt-2">
          <button type="button" class="also w-full" :disabled="!state.trace?.seenL" data-test="bedded" @click="bedded">
            {{ BEDDING_SHIFTS }} firm full-range shifts done
          </button>
          <p class="small mt-1">
            {{
              state.trace?.seenL
                ? 'Takes some of the bedding out before the bike leaves.'
                : 'Runs to the largest sprocket: see L by hand first.'
            }}
          </p>
        </div>
      </form>
      <p v-if="wrong" class="text-sm font-semibold text-stop" role="alert" data-test="cable-wrong">{{ wrong }}</p>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>
