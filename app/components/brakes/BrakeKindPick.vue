<!-- What is at this end of the bike: kind of brake, class of lever, side of the lever; or that there is none, and why.
  -->
<script setup lang="ts">
import type { BrakeLeft } from '#core/ledger/sheet'
import {
  BRAKE_KIND_WORDS,
  END_KINDS,
  FrontLeverSide,
  isHydraulic,
  LEVER_WORDS,
  LEVERS,
  NO_BRAKE,
  type Brake,
  type BrakeParts,
  type EndKind,
  type NoBrake,
} from '#core/brake/kinds'
import { fromSixteenths, sayTurns } from '#core/quantity/turns'
import { capital } from '#core/quantity/words'

const props = defineProps<{ brake: Brake; parts: BrakeParts | null; last: BrakeLeft | null }>()
const emit = defineEmits<{ keep: [parts: BrakeParts] }>()
const keep = (change: Partial<BrakeParts>) =>
  emit('keep', { brake: props.brake, kind: 'linear-pull', lever: null, leverSide: null, ...props.parts, ...change })
/** None needs its reason first. */
const choosingNone = ref(props.parts?.kind === 'none')
const shown = computed<EndKind | null>(() => (choosingNone.value ? 'none' : (props.parts?.kind ?? null)))
const KINDS = END_KINDS.map(value => ({ value, words: BRAKE_KIND_WORDS[value] }))
const NONE = (Object.keys(NO_BRAKE) as NoBrake[]).map(value => ({ value, words: capital(NO_BRAKE[value]) }))
const CLASSES = LEVERS.map(value => ({ value, words: LEVER_WORDS[value] }))
const SIDES = FrontLeverSide.options.map(value => ({ value, words: value }))
function kind(k: EndKind | null) {
  if (!k) return
  choosingNone.value = k === 'none'
  if (k === 'none') return
  const noLever = k === 'coaster'
  const noClass = noLever || isHydraulic(k)
  keep({ kind: k, none: undefined, ...(noClass ? { lever: null } : {}), ...(noLever ? { leverSide: null } : {}) })
}
const none = (why: NoBrake | null) => why && keep({ kind: 'none', none: why, lever: null, leverSide: null })
</script>

<template>
  <div class="grid gap-2">
    <p class="text-2xl leading-tight font-bold">What brake is it?</p>
    <button
      v-if="last && !parts"
      type="button"
      class="also leading-tight"
      data-test="brake-last"
      @click="emit('keep', last.parts)"
    >
      As it left last time: {{ BRAKE_KIND_WORDS[last.parts.kind].toLowerCase()
      }}{{
        last.barrelSixteenthsOut === null ? '' : `, barrel ${sayTurns(fromSixteenths(last.barrelSixteenthsOut))} out`
      }}
    </button>
    <ChoiceRow
      :model-value="shown"
      label="What brake is it?"
      :choices="KINDS"
      :columns="1"
      :centred="false"
      test="kind"
      @update:model-value="kind"
    />
    <template v-if="shown === 'none'">
      <p class="label mb-0!">Why is there none?</p>
      <ChoiceRow
        :model-value="parts?.none ?? null"
        label="Why is there none?"
        :choices="NONE"
        :columns="1"
        :centred="false"
        test="none"
        @update:model-value="none"
      />
      <p class="small">A named mechanic signs it. A bike with no brake at either end stays; local law wins.</p>
    </template>
    <template v-else-if="parts && parts.kind !== 'coaster' && parts.kind !== 'none'">
      <template v-if="!isHydraulic(parts.kind)">
        <p class="label mb-0!">Lever</p>
        <ChoiceRow
          :model-value="parts.lever"
          label="Lever"
          :choices="CLASSES"
          test="lever"
          @update:model-value="keep({ lever: $event })"
        />
      </template>
      <p class="label mb-0!">Its lever is on the</p>
      <ChoiceRow
        :model-value="parts.leverSide"
        label="Its lever is on the"
        :choices="SIDES"
        test="side"
        @update:model-value="keep({ leverSide: $event })"
      />
      <p class="small">
        Which lever works the front brake follows the country’s custom and the rider: noted, never changed unasked.
      </p>
    </template>
  </div>
</template>
