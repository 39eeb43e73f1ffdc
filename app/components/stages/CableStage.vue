<!-- Cable on: where the barrel starts, the clamp and its schools, the recipe when the barrel runs out, pieces, cut and
     cap. -->
<script setup lang="ts">
import { tailMm, usualTailMm } from '#core/cable/housing'
import { HOUSING_PLACES, type HousingPlace } from '#core/cable/places'
import { lossAlong } from '#core/cable/friction'
import { housingFigure } from '#core/records/runs'
import { schemaOf, type LedgerEvent } from '#core/ledger/events'
import type { JobState } from '#core/ledger/reduce'
import type { Schools } from '#core/procedure/schools'
import { CLAMP_STEPS, whyOf } from '#core/procedure/schoolWhys'
import type { Stage } from '#core/procedure/stages'
import { typedNumber } from '#core/quantity/typed'
import { fromSixteenths, sayTurns, toSixteenths } from '#core/quantity/turns'
import {
  CLAMP_WORDS,
  clampJudged,
  HOUSING_ENDS,
  HOUSING_KINDS,
  lastLoopMm,
  reclampRecipe,
  startTurnsOut,
  type HousingEnds,
  type HousingKind,
} from '#core/rear/clamp'
import { L_FIRST, mayReachLargest } from '#core/rear/gates'
import { BEDDING_SHIFTS } from '#core/rear/settle'
import { barrelLeft } from '#core/rear/ofState'
import { useElementSize } from '@vueuse/core'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const { standards } = storeToRefs(useLedger())
const setup = computed(() => props.state.rear.setup!)
/** The run as it was laid out on the cable bench, if it was. */
const laid = computed(() => props.state.cable.runs.find(r => r.run === 'rear') ?? null)
const left = computed(() => barrelLeft(props.state.rear)!)
const turnsOut = computed(() => left.value.inTurns)
const recipe = computed(() =>
  reclampRecipe(
    {
      turnsOut: turnsOut.value,
      wantedTurns: 0,
      rangeTurns: setup.value.barrelTurnsRange,
      threadMm: setup.value.barrelPitchMm,
    },
    props.schools.barrel.turnsOut,
  ),
)
const sinceClamp = computed(() =>
  props.state.rear.sinceClamp === null ? null : fromSixteenths(props.state.rear.sinceClamp),
)
const start = computed(() => props.schools.barrel.turnsOut)
const loop = computed(() => lastLoopMm(standards.value))
const tail = computed(() => tailMm(standards.value))
const perTurn = ref(4)
const clicks = (turns: number) => `${Math.round(turns * perTurn.value)} clicks`
const what = ref<'clamp' | 'count' | 'pieces' | 'end'>('clamp')
const WHAT = [
  ['clamp', 'Clamp'],
  ['count', 'Lost count'],
  ['pieces', 'Pieces'],
  ['end', 'Cut and cap'],
] as const
const asChoices = <V extends string | number>(list: readonly V[]) =>
  list.map(value => ({ value, words: String(value) }))

const place = ref<HousingPlace>('last loop')
const of = ref<HousingKind>('4 mm')
const ends = ref<HousingEnds>('metal')
const piece = useEntryForm({
  initial: { lengthMm: '' },
  schema: schemaOf('housing'),
  read: typed => ({
    kind: 'housing',
    place: place.value,
    lengthMm: typedNumber(typed.lengthMm),
    of: of.value,
    ends: ends.value,
  }),
  done: event => {
    emit('record', event)
    piece.form.reset()
  },
})
const inner = useEntryForm({
  initial: { lengthMm: '' },
  schema: schemaOf('inner'),
  read: typed => ({ kind: 'inner', lengthMm: typedNumber(typed.lengthMm) }),
  done: event => {
    emit('record', event)
    inner.form.reset()
  },
})
const cut = useEntryForm({
  initial: { tailMm: String(usualTailMm(standards.value)) },
  schema: schemaOf('cut'),
  read: typed => ({ kind: 'cut', tailMm: typedNumber(typed.tailMm) }),
  done: event => emit('record', event, 'Cut and capped'),
})
const recount = useEntryForm({
  initial: { turns: '' },
  schema: schemaOf('recount').refine(e => fromSixteenths(e.barrelSixteenthsOut) <= setup.value.barrelTurnsRange, {
    path: ['barrelSixteenthsOut'],
    error: () => `Its thread has ${setup.value.barrelTurnsRange} turns: count once more`,
  }),
  read: typed => ({ kind: 'recount', barrelSixteenthsOut: toSixteenths(typedNumber(typed.turns)) }),
  line: () => 'turns',
  done: event => {
    emit('record', event, 'Counted again')
    recount.form.reset()
  },
})
/** Where the barrel stands as it is clamped: by its school, unless it is typed. */
const startText = ref('')
const startAt = computed(() => startTurnsOut(setup.value.barrelTurnsRange, props.schools.barrel.turnsOut))
const typedStart = computed(() => {
  if (!startText.value.trim()) return { turns: startAt.value, wrong: '' }
  const turns = typedNumber(startText.value)
  const most = setup.value.barrelTurnsRange
  return turns >= 0 && turns <= most
    ? { turns: toSixteenths(turns) / 16, wrong: '' }
    : { turns: startAt.value, wrong: `From 0, fully in, to the ${sayTurns(most)} turns of its thread` }
})
const reclamp = () => {
  if (typedStart.value.wrong) return
  emit(
    'record',
    { kind: 'reclamp', barrelSixteenthsOut: toSixteenths(typedStart.value.turns), how: props.schools.clamp.id },
    'Clamped',
  )
  startText.value = ''
}
/** A new cable is clamped too: its barrel is counted anew from where it was set. */
const newCable = () => {
  if (typedStart.value.wrong) return
  emit('record', { kind: 'replace', part: 'cable' }, 'Cable and housing are new')
  reclamp()
}
const bedded = () => emit('record', { kind: 'bedded', shifts: BEDDING_SHIFTS }, 'Bedded')
const mayBed = computed(() => mayReachLargest(props.state.rear.trace))
const { width } = useElementSize(useTemplateRef<HTMLElement>('look'))
</script>

<template>
  <div>
    <section ref="look" class="look" aria-label="Cable on" tabindex="0">
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
          :pieces="state.rear.housing"
          :inner-mm="state.rear.inner?.lengthMm ?? null"
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
              Every barrel on the run fully in{{
                start.to === 0
                  ? ', and left there: all the travel is for taking up.'
                  : `, then the one used ${start.from === start.to ? '' : `${sayTurns(start.from)} to `}${sayTurns(start.to)} turns out.`
              }}
            </li>
            <li>
              Photograph the clamp before it is undone: groove, and which side of the bolt. The wrong side changes the
              ratio by 10 to 15 %.
            </li>
            <li>Tug the inner hard along its run: seats ferrules and head.</li>
            <li v-for="s in CLAMP_STEPS[schools.clamp.id].steps" :key="s">{{ s }}</li>
          </ol>
        </div>
        <div>
          <h2 class="font-bold">{{ schools.clamp.name }}</h2>
          <p class="text-[0.9375rem] leading-snug">{{ whyOf('clamp', schools.clamp.id) }}</p>
          <p class="text-[0.9375rem] leading-snug" data-test="first-click">
            Leaves {{ schools.clamp.takeUpMm.from.toFixed(1) }} to {{ schools.clamp.takeUpMm.to.toFixed(1) }} mm of
            cable against snug: {{ CLAMP_STEPS[schools.clamp.id].firstClick }}.
          </p>
        </div>
      </div>
    </section>
    <aside class="panel" aria-label="Clamp, count, pieces">
      <PanelTabs v-model="what" :tabs="WHAT" label="Clamp, count, pieces" test="cable" :columns="2">
        <template #clamp>
          <p class="text-2xl leading-tight font-bold" data-test="barrel-start">
            Barrel {{ typedStart.turns === 0 ? 'fully in' : `${sayTurns(typedStart.turns)} out` }}, then clamp
          </p>
          <label class="small flex items-center justify-between gap-2"
            >It stands otherwise, turns out
            <input
              v-model="startText"
              class="field figure max-w-24"
              inputmode="decimal"
              autocomplete="off"
              data-test="start-typed"
          /></label>
          <p v-if="typedStart.wrong" class="wrong" role="alert">{{ typedStart.wrong }}</p>
          <LikeHere run="rear" figure="barrel-out" @take="startText = String($event)" />
          <p v-if="Math.abs(recipe.drawMm) >= 0.1" class="figure" data-test="draw">
            To keep the setting, {{ recipe.drawMm > 0 ? 'draw' : 'let out' }}
            {{ Math.abs(recipe.drawMm).toFixed(1) }} mm at the clamp
          </p>
          <p class="text-[0.9375rem] leading-snug">
            Unload the bolt: push the derailleur towards the {{ setup.spring === 'low' ? 'frame' : 'spokes' }}, loosen,
            let it back onto {{ setup.spring === 'low' ? 'L' : 'H' }}, set the barrel, draw, clamp; see that the
            {{ setup.spring === 'low' ? 'largest' : 'smallest' }} still engages.
          </p>
          <p v-if="state.rear.cut" class="stopped">
            The inner is cut and capped: look that enough is left before it is drawn.
          </p>
          <button type="button" class="act" data-test="reclamp" @click="reclamp">
            Clamped, barrel {{ typedStart.turns === 0 ? 'fully in' : `${sayTurns(typedStart.turns)} out` }}
          </button>
          <button type="button" class="also" data-test="new-cable" @click="newCable">
            New cable and housing, clamped
          </button>
          <p v-if="sinceClamp !== null" class="font-semibold" data-test="clamp-judged">
            Barrel {{ sayTurns(sinceClamp) }} {{ sinceClamp >= 0 ? 'out' : 'in' }} since the clamp:
            {{ CLAMP_WORDS[clampJudged(sinceClamp)] }}
          </p>
          <div class="grid grid-cols-2 gap-2 border-t border-rule pt-2">
            <p>
              <span class="small block">Left to slacken</span><b class="figure">{{ sayTurns(left.inTurns) }}</b>
              <span class="small ml-2">{{ clicks(left.inTurns) }}</span>
            </p>
            <p>
              <span class="small block">Left to tighten</span><b class="figure">{{ sayTurns(left.outTurns) }}</b>
              <span class="small ml-2">{{ clicks(left.outTurns) }}</span>
            </p>
          </div>
          <div class="flex items-center justify-between gap-2">
            <span class="small whitespace-nowrap">Clicks a turn</span
            ><ChoiceRow
              v-model="perTurn"
              class="w-40"
              label="Clicks a turn"
              :choices="asChoices([2, 3, 4])"
              test="clicks"
            />
          </div>
          <p class="small">
            Frayed ends stab and cut wire flies: goggles, and cap the end. An adjuster or pinch bolt that came loose by
            itself gets a releasable thread-lock.
          </p>
        </template>
        <template #count>
          <form class="grid gap-2" novalidate @submit.prevent="recount.form.handleSubmit()">
            <p class="text-2xl leading-tight font-bold">Wind it fully in, counting</p>
            <p class="text-[0.9375rem]">Then back out by the same turns. What you counted is where it stands.</p>
            <FormLine :of="recount" name="turns" label="Turns out" mono inputmode="decimal" test="count" />
            <button class="act" data-test="count-note">It stands there</button>
          </form>
        </template>
        <template #pieces>
          <p v-if="laid" class="border-l-[6px] border-ink pl-3" data-test="pieces-laid">
            This run is laid out on the cable bench: its pieces are measured there, so that they stand in one place.
          </p>
          <form v-else class="grid gap-2" novalidate @submit.prevent="piece.form.handleSubmit()">
            <ChoiceRow
              v-model="place"
              label="Where it goes"
              :choices="asChoices(HOUSING_PLACES)"
              :columns="2"
              test="place"
            />
            <ChoiceRow v-model="of" label="Housing" :choices="asChoices(HOUSING_KINDS)" test="housing-of" />
            <ChoiceRow v-model="ends" label="Ends" :choices="asChoices(HOUSING_ENDS)" test="ends" />
            <FormLine :of="piece" name="lengthMm" label="Housing, mm" mono inputmode="numeric" test="housing" />
            <LikeHere
              run="rear"
              :figure="housingFigure('rear', place)"
              @take="piece.form.setFieldValue('lengthMm', String($event))"
            />
            <p v-if="place === 'last loop'" class="small">
              Usual {{ loop.usual.from }} to {{ loop.usual.to }}, {{ loop.straight.from }} to
              {{ loop.straight.to }} with a straight entry, from memory. Match the old piece if it was right.
            </p>
            <p class="small">Shift housing never carries a brake: it can burst in an emergency stop.</p>
            <button class="also" data-test="housing-note">Note this piece</button>
          </form>
          <form class="grid gap-2 border-t border-rule pt-2" novalidate @submit.prevent="inner.form.handleSubmit()">
            <FormLine :of="inner" name="lengthMm" label="Inner, mm" mono inputmode="numeric" test="inner" />
            <LikeHere run="rear" figure="inner" @take="inner.form.setFieldValue('lengthMm', String($event))" />
            <button class="also" data-test="inner-note">Note the inner</button>
          </form>
        </template>
        <template #end>
          <form class="grid gap-2" novalidate @submit.prevent="cut.form.handleSubmit()">
            <p class="text-2xl leading-tight font-bold">Cut and cap</p>
            <p class="text-[0.9375rem]">
              {{ tail.from }} to {{ tail.to }} mm past the pinch bolt, after it is proven. Goggles: cut wire flies.
            </p>
            <FormLine :of="cut" name="tailMm" label="Left past the bolt, mm" mono inputmode="numeric" test="tail" />
            <button class="act" data-test="cut-note">Cut and capped</button>
          </form>
          <div class="border-t border-rule pt-2">
            <button type="button" class="also w-full" :disabled="!mayBed" data-test="bedded" @click="bedded">
              {{ BEDDING_SHIFTS }} firm full-range shifts done
            </button>
            <p class="small mt-1">
              {{ mayBed ? 'Takes some of the bedding out before the bike leaves.' : `${L_FIRST}.` }}
            </p>
          </div>
        </template>
      </PanelTabs>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>
