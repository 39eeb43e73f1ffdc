<!-- A front shift and what was seen of it; a turn that nobody advised; what the written order would answer. -->
<script setup lang="ts">
import { counted, SCREW_WORDS, WAY_WORDS } from '#core/chapter/screws'
import type { ThrownTo } from '#core/front/contract'
import type { FrontSight } from '#core/front/events'
import {
  FRONT_SCREWS,
  FRONT_SEEN,
  FRONT_TURN_DOES,
  onRing,
  possibleSeen,
  type FrontScrew,
  seenWords,
  type FrontSeen,
} from '#core/front/moves'
import { FRONT_ELSEWHERE } from '#core/front/elsewhere'
import { STOP_TOO_FAR, WHICH_SCREW } from '#core/front/orders'
import { ringName, type FrontParts } from '#core/front/parts'
import { writtenMove, type FrontState } from '#core/front/state'
import { THROWN_CAUTION } from '#core/procedure/otherSays'
import { sayTurns, sayTurnsOf } from '#core/quantity/turns'

const props = defineProps<{
  state: FrontState
  parts: FrontParts
  /** The shift that is advised, if one is: it is the one that is answered. */
  advised: { from: number; to: number; sprocket: number } | null
  teeth: readonly number[]
  /** Where each ring's shift is looked at, by the sprocket's place. */
  judgedOn: (ring: number) => number
  /** Ends the chain was seen thrown over, whose stop was not seen since. */
  unguarded: readonly ThrownTo[]
  rubbing: number
  live: boolean
  pairs: number
}>()
const emit = defineEmits<{ put: [event: FrontSight, words?: string]; answer: [event: FrontSight]; picked: [] }>()
const shifts = computed(() =>
  props.parts.rings.slice(1).flatMap((_, i) => [
    { from: i, to: i + 1 },
    { from: i + 1, to: i },
  ]),
)
const shift = ref(0)
/** A shift chosen by hand stays chosen until something is answered: advice that arrives does not take it away. */
let byHand = false
function choose() {
  byHand = true
  emit('picked')
}
function follow() {
  byHand = false
}
watch(
  () => props.advised,
  a => {
    if (a && !byHand)
      shift.value = Math.max(
        0,
        shifts.value.findIndex(s => s.from === a.from && s.to === a.to),
      )
  },
  { immediate: true },
)
const here = computed(() => shifts.value[Math.min(shift.value, shifts.value.length - 1)]!)
const choices = computed(() =>
  shifts.value.map(({ from, to }, value) => ({
    value,
    words: `${ringName(props.parts, from)} → ${ringName(props.parts, to)} on ${props.teeth[props.judgedOn(to)]}`,
    test: `${from}-${to}`,
  })),
)
const possible = computed(() => possibleSeen(here.value.from, here.value.to))
function seen(what: FrontSeen) {
  if (!possible.value.includes(what)) return
  ;(document.activeElement as HTMLElement | null)?.blur()
  emit('answer', { kind: 'frontShift', ...here.value, sprocket: props.judgedOn(here.value.to), seen: what })
}
defineExpose({ seen, follow })
const written = computed(() => writtenMove(props.state))
const elsewhere = computed(() => {
  const { open } = props.state
  return open && open.seen !== 'clean' && !written.value ? FRONT_ELSEWHERE[open.seen] : null
})
/** The shift that is looked at, for the picture. */
const lookedAt = defineModel<{ from: number; to: number }>('looked')
watch(here, h => (lookedAt.value = h), { immediate: true })
const hand = ref<FrontScrew>('barrel')
const HANDS = FRONT_SCREWS.map(value => ({ value, words: value === 'barrel' ? 'Barrel' : value }))
const EIGHTHS = [1, 2, 4, 8]
const turned = (way: 'in' | 'out', eighths: number) =>
  emit(
    'put',
    { kind: 'frontTurn', screw: hand.value, sixteenths: counted(hand.value, way, 2 * eighths) },
    `Logged ${sayTurnsOf(eighths / 8)}`,
  )
</script>

<template>
  <p v-if="elsewhere" class="border-l-[6px] border-ink pl-2 font-semibold" data-test="front-elsewhere">
    {{ elsewhere }}
  </p>
  <p v-if="state.lookAgain" class="border-l-[6px] border-ink pl-2 font-semibold" data-test="look-again">
    H was turned: L wants looking at again, small ring and largest sprocket.
  </p>
  <p v-for="to in unguarded" :key="to" class="stopped" role="alert" data-test="front-unguarded">
    {{ THROWN_CAUTION[to] }}
  </p>
  <p v-if="rubbing" class="text-stop">{{ rubbing }} of {{ pairs }} pairs rub with trims used.</p>
  <ChoiceRow
    v-model="shift"
    class="border-t border-rule pt-2"
    label="Which shift"
    :choices="choices"
    :columns="2"
    test="shift"
    @update:model-value="choose"
  />
  <div class="grid grid-cols-2 gap-1">
    <button
      v-for="s in possible"
      :key="s"
      type="button"
      class="also min-h-13! px-2.5! leading-tight"
      :class="{ 'text-clean': s === 'clean' }"
      :aria-disabled="!live"
      :data-test="`seen-${s}`"
      @click="seen(s)"
    >
      {{ seenWords(s, onRing(here.to, parts.rings.length)) }}
      <kbd v-if="FRONT_SEEN.indexOf(s) < 9" class="key">{{ FRONT_SEEN.indexOf(s) + 1 }}</kbd>
    </button>
  </div>
  <details class="border-t border-rule pt-1">
    <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="other-turn">I turned something else</summary>
    <div class="grid gap-1">
      <ChoiceRow v-model="hand" label="Which screw" :choices="HANDS" test="hand-screw" />
      <div v-for="w in ['in', 'out'] as const" :key="w">
        <p class="font-bold" :class="w === 'out' ? 'text-out' : 'text-in'">{{ WAY_WORDS[w] }}</p>
        <div class="grid grid-cols-4 gap-1">
          <button
            v-for="a in EIGHTHS"
            :key="a"
            type="button"
            class="also figure min-h-11! justify-center px-0!"
            :data-test="`turn-${w}-${a}`"
            @click="turned(w, a)"
          >
            {{ sayTurns(a / 8) }}
          </button>
        </div>
      </div>
      <button
        type="button"
        class="also min-h-11! justify-center"
        data-test="stops-anew"
        @click="emit('put', { kind: 'frontSet', what: 'stops' })"
      >
        Both stops set anew
      </button>
    </div>
  </details>
  <p v-if="written" class="small" data-test="written-order">
    The written order would answer: {{ SCREW_WORDS[written.screw] }} {{ written.way }}
    {{ sayTurnsOf(written.eighths / 8) }}, {{ FRONT_TURN_DOES[written.screw][written.way] }}.
  </p>
  <p class="small">{{ WHICH_SCREW }} {{ STOP_TOO_FAR }}</p>
</template>
