<!-- A drivetrain by its numbers: from the table with one choice, each part changed or typed on its own. -->
<script setup lang="ts">
import { ANCHORS, type Anchor } from '#core/standards/anchor'
import { DRIVETRAIN_STANDARDS, sayStandard, standardFigures } from '#core/standards/drivetrains'
import { sayFigure } from '#core/standards/entry'
import { M5_PITCH_MM } from '#core/standards/tables/threads'
import { inForceFigure, nameOf, type EntryInForce } from '#core/standards/shopValues'
import { BARREL_TURN } from '#core/rear/records'
import { setupOf } from '#core/rear/parts'
import { sayKnown, unusedGears } from '#core/rear/partsInWords'
import {
  matchOfParts,
  ofThisBike,
  sleeveOf,
  THREAD_TURNS,
  typedFromCatalogue,
  typedFromEntry,
  wholeStandard,
  type ReadParts,
  type TypedParts,
} from '#core/rear/typedParts'

/** Which way the other place changes what the derailleur does. */
const ANCHOR_CHOICE: Record<Anchor, string> = {
  nearer: 'nearer the pivot: more travel',
  farther: 'farther from it: less travel',
}
type Part = 'shifter' | 'derailleur' | 'cassette'
const typed = defineModel<TypedParts>({ required: true })
const props = defineProps<{
  read: ReadParts
  showErrors: boolean
  countedWords: string
  catalogue: readonly EntryInForce[]
}>()
const wrong = (field: keyof TypedParts) =>
  props.showErrors && props.read.is === 'wrong' ? (props.read.fields[field] ?? null) : null
const parts = computed(() => (props.read.is === 'parts' ? props.read.parts : null))
const match = computed(() => parts.value && matchOfParts(parts.value))
const setup = computed(() => parts.value && setupOf(parts.value))
const set = (change: Partial<TypedParts>) => {
  typed.value = { ...typed.value, ...change }
}
const of = (kind: Part) => props.catalogue.filter(e => e.kind === kind)
const figure = (e: EntryInForce, key: string) => {
  const f = inForceFigure(e, key)
  return f ? sayFigure(e.kind, f) : ''
}

const choose = (id: string) => id && set({ ...typedFromCatalogue(id, props.catalogue), ...ofThisBike(typed.value) })
/** What a part of the catalogue fills in, the shop's own measurement before the table's. */
function filled(which: Part, id: string): Partial<TypedParts> {
  const entry = of(which).find(e => e.id === id)
  return entry ? typedFromEntry(entry) : {}
}
const part = (which: Part, id: string) =>
  set(id ? filled(which, id) : { [`${which}Standard`]: '', [`${which}Known`]: '' })
const whole = computed(() => wholeStandard(typed.value))
const threadWords = computed(() => {
  const { threadMm, known } = parts.value?.barrel ?? {}
  if (!typed.value.sleeveMm) return `empty: ${M5_PITCH_MM} mm a turn, as most (M5)`
  return threadMm ? `${threadMm} mm a turn${known === 'shop' ? ', as measured here' : ''}` : ''
})
const ids = { whole: useId(), shifter: useId(), derailleur: useId(), cassette: useId() }
</script>

<template>
  <div class="grid gap-4">
    <div>
      <label class="label" :for="ids.whole">A stock drivetrain, by its numbers</label>
      <select
        :id="ids.whole"
        class="field"
        :value="whole"
        data-test="standard"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option value="">mixed or typed in</option>
        <option v-for="s in DRIVETRAIN_STANDARDS" :key="s.id" :value="s.id">
          {{ sayStandard(s) }}: {{ standardFigures(s) }}
        </option>
      </select>
    </div>
    <div class="grid gap-x-4 gap-y-3 sm:grid-cols-3">
      <fieldset class="grid content-start gap-2">
        <legend class="font-bold">Shifter</legend>
        <label class="sr-only" :for="ids.shifter">Shifter from the table</label>
        <select
          :id="ids.shifter"
          class="field"
          :value="typed.shifterStandard"
          data-test="shifter"
          @change="part('shifter', ($event.target as HTMLSelectElement).value)"
        >
          <option value="">typed in</option>
          <option v-for="e in of('shifter')" :key="e.id" :value="e.id">
            {{ nameOf(e) }}: {{ figure(e, 'pullMm') }}
          </option>
        </select>
        <TextField
          :model-value="typed.speeds"
          label="Speeds"
          mono
          inputmode="numeric"
          :error="wrong('speeds')"
          @update:model-value="set({ speeds: $event, shifterStandard: '', shifterKnown: '' })"
        />
        <TextField
          :model-value="typed.pullMm"
          label="Pull per click, mm"
          mono
          inputmode="decimal"
          :error="wrong('pullMm')"
          @update:model-value="set({ pullMm: $event, shifterStandard: '', shifterKnown: '' })"
        />
        <PartSeen
          v-if="typed.shifterStandard"
          :standard="typed.shifterStandard"
          figure="pull"
          @take="set({ pullMm: String($event), shifterKnown: 'shop' })"
        />
        <label class="label mb-0!"
          >Lever<select
            class="field"
            :value="typed.lever"
            data-test="lever"
            @change="set({ lever: ($event.target as HTMLSelectElement).value as 'clicks' | 'friction' })"
          >
            <option value="clicks">clicks</option>
            <option value="friction">friction, no clicks</option>
          </select></label
        >
      </fieldset>
      <fieldset class="grid content-start gap-2">
        <legend class="font-bold">Derailleur</legend>
        <label class="sr-only" :for="ids.derailleur">Derailleur from the table</label>
        <select
          :id="ids.derailleur"
          class="field"
          :value="typed.derailleurStandard"
          data-test="derailleur"
          @change="part('derailleur', ($event.target as HTMLSelectElement).value)"
        >
          <option value="">typed in</option>
          <option v-for="e in of('derailleur')" :key="e.id" :value="e.id">
            {{ nameOf(e) }}: × {{ figure(e, 'listedRatio') || figure(e, 'ratio') }}
          </option>
        </select>
        <TextField
          :model-value="typed.pullRatio"
          label="Pull ratio"
          mono
          inputmode="decimal"
          :error="wrong('pullRatio')"
          @update:model-value="set({ pullRatio: $event, derailleurStandard: '', derailleurKnown: '', ratio: '' })"
        />
        <PartSeen
          v-if="typed.derailleurStandard"
          :standard="typed.derailleurStandard"
          figure="ratio"
          @take="set({ ratio: String($event), derailleurKnown: 'shop' })"
        />
        <label class="label mb-0!"
          >Spring pulls to<select
            class="field"
            :value="typed.spring"
            data-test="spring"
            @change="set({ spring: ($event.target as HTMLSelectElement).value as 'high' | 'low' })"
          >
            <option value="high">the smallest</option>
            <option value="low">the largest</option>
          </select></label
        >
        <label class="label mb-0!"
          >Cable at its bolt<select
            class="field"
            :value="typed.anchor"
            data-test="anchor"
            @change="set({ anchor: ($event.target as HTMLSelectElement).value as Anchor | '' })"
          >
            <option value="">in its usual place</option>
            <option v-for="a in ANCHORS" :key="a" :value="a">{{ ANCHOR_CHOICE[a] }}</option>
          </select></label
        >
      </fieldset>
      <fieldset class="grid content-start gap-2">
        <legend class="font-bold">Cassette</legend>
        <label class="sr-only" :for="ids.cassette">Cassette from the table</label>
        <select
          :id="ids.cassette"
          class="field"
          :value="typed.cassetteStandard"
          data-test="cassette"
          @change="part('cassette', ($event.target as HTMLSelectElement).value)"
        >
          <option value="">typed in</option>
          <option v-for="e in of('cassette')" :key="e.id" :value="e.id">
            {{ nameOf(e) }}: pitch {{ figure(e, 'pitchMm') }}
          </option>
        </select>
        <TextField
          :model-value="typed.pitchMm"
          label="Pitch, mm"
          mono
          inputmode="decimal"
          :error="wrong('pitchMm')"
          @update:model-value="set({ pitchMm: $event, cassetteStandard: '', cassetteKnown: '' })"
        />
        <PartSeen
          v-if="typed.cassetteStandard"
          :standard="typed.cassetteStandard"
          figure="pitch"
          @take="set({ pitchMm: String($event), cassetteKnown: 'shop' })"
        />
      </fieldset>
    </div>
    <div class="grid gap-x-4 gap-y-3 sm:grid-cols-[2fr_1fr_1fr]">
      <TextField
        :model-value="typed.teeth"
        label="Teeth, each or as 11-34 9s"
        mono
        :error="wrong('teeth')"
        @update:model-value="set({ teeth: $event })"
      />
      <TextField
        :model-value="typed.turnsOut"
        label="Barrel out now, turns"
        mono
        inputmode="decimal"
        :hint="typed.turnsOut ? countedWords : 'empty: the middle is assumed'"
        :error="wrong('turnsOut')"
        @update:model-value="set({ turnsOut: $event })"
      />
      <div data-test="thread">
        <TextField
          :model-value="typed.sleeveMm"
          :label="`Sleeve out by ${THREAD_TURNS} turns, mm`"
          mono
          inputmode="decimal"
          :hint="threadWords"
          :error="wrong('sleeveMm')"
          @update:model-value="set({ sleeveMm: $event, sleeveKnown: $event ? 'measured' : '' })"
        />
        <PartSeen
          v-if="typed.derailleurStandard"
          :standard="typed.derailleurStandard"
          :figure="BARREL_TURN"
          @take="set(sleeveOf($event, 'shop'))"
        />
      </div>
    </div>
    <div v-if="match && setup" data-test="match">
      <p
        class="mb-2 text-lg font-semibold"
        :class="{ 'text-stop': match.verdict === 'will-not-index', 'text-clean': match.verdict === 'works' }"
      >
        {{ match.words }}
      </p>
      <p v-if="parts && unusedGears(parts)" class="mb-2 font-semibold text-stop">{{ unusedGears(parts) }}.</p>
      <div class="mat p-1">
        <MatchStrip :labels="setup.teeth" :error-mm="match.errorMm" :clean-mm="match.cleanMm" />
      </div>
      <p v-if="parts" class="mt-1 text-[0.9375rem]" data-test="known">{{ sayKnown(parts) }}.</p>
      <p class="small mt-1">
        Table figures are from memory; a shop's own measurement beats them. A listed ratio is rounded: parts of the
        table count with the ratio that makes their own trio meet.
      </p>
    </div>
    <p v-else class="small">Fill the lines above and the misfit shows here, gear by gear.</p>
  </div>
</template>
