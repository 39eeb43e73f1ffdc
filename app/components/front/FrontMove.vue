<!-- The one best next move at the front, its answer one touch where it can be. -->
<script setup lang="ts">
import { FRONT_CAUSES, FRONT_CAUSE_WORDS } from '#core/front/causes'
import type { FrontAdvice } from '#core/front/contract'
import type { FrontSight } from '#core/front/events'
import type { FrontParts } from '#core/front/parts'
import { atAGlance, ownAnswer } from '#core/front/glance'
import { explainFront, sayFrontMove, sayTimes, screwTurn } from '#core/front/words'
import type { END_GAPS, HEIGHTS } from '#core/procedure/schools'
import { sayChance } from '#core/quantity/chance'
import { sayTurnsOf } from '#core/quantity/turns'

const props = defineProps<{
  advice: FrontAdvice
  parts: FrontParts
  teeth: readonly number[]
  /** Where each ring's shift is looked at, by the sprocket's place. */
  judgedOn: (ring: number) => number
  /** The school of the cage's height. */
  height: (typeof HEIGHTS)[number]
  /** The school of the gaps at the stops. */
  endGap: (typeof END_GAPS)[number]
  /** Neither stop was seen by itself yet: both may be told in one touch. */
  neitherStop: boolean
  /** Nothing is answered yet that was only just asked. */
  live: boolean
  stale: boolean
}>()
const emit = defineEmits<{
  put: [events: FrontSight[]]
  look: [panel: 'position' | 'gaps']
  leave: []
}>()
const move = computed(() => props.advice.move)
const turn = computed(() =>
  move.value.do === 'turn' ? { ...move.value, ...screwTurn(move.value, props.parts) } : null,
)
const head = computed(() => sayFrontMove(move.value, props.parts, props.teeth))
const CAUTION: Partial<Record<FrontAdvice['move']['do'], string>> = {
  shift: 'Fingers clear of chain and rings.',
  gap: 'Cranks by hand, no finger near a moving chain.',
  undone: 'A frayed end stabs: mind it.',
  set: 'Frayed ends stab and cut wire flies: goggles, and cap the end. The maker’s instructions win.',
}
const SET_DONE = {
  position: 'Cage is set, cable clamped',
  clamp: 'Clamped again',
  cable: 'Cable and housing are new',
  lever: 'The lever is another',
  stops: 'Both stops are set anew',
} as const
/** What one touch answers, and how that is said. Anything else is told below, or has its own figures. */
const own = computed(() => ownAnswer(move.value, props.judgedOn))
const ownWords = computed(() => {
  if (turn.value) return `Turned ${sayTurnsOf(turn.value.sixteenths / 16)} ${turn.value.way}`
  if (move.value.do === 'set') return SET_DONE[move.value.what]
  return `Clean there and back${sayTimes(move.value.do === 'shift' ? move.value.times : 1)}`
})
const glance = computed(() => atAGlance(move.value, props, props.neitherStop))
const causes = computed(() =>
  FRONT_CAUSES.map(c => ({ name: FRONT_CAUSE_WORDS[c], id: c, chance: props.advice.causes[c] })).filter(
    c => c.id !== 'pull' || c.chance >= 0.05,
  ),
)
</script>

<template>
  <section aria-label="Next move" :class="{ 'opacity-70': stale }" :aria-busy="stale" class="grid gap-2">
    <div class="flex items-center gap-3" aria-live="polite" data-test="front-move">
      <ClockFace v-if="turn" :turns="turn.sixteenths / 16" :way="turn.way" class="shrink-0" />
      <p v-if="turn" :class="turn.way === 'out' ? 'text-out' : 'text-in'">
        <span class="block text-lg font-bold">{{ turn.name }} {{ turn.way }}</span
        ><span class="block text-4xl leading-none font-bold">{{ sayTurnsOf(turn.sixteenths / 16) }}</span>
      </p>
      <p v-else class="text-2xl leading-tight font-bold">{{ head }}</p>
    </div>
    <p class="text-[0.9375rem] leading-snug" data-test="front-why">{{ explainFront(advice, parts, height.name) }}</p>
    <p v-if="CAUTION[move.do]" class="border-l-[6px] border-stop pl-2 text-sm font-semibold">{{ CAUTION[move.do] }}</p>
    <button
      v-if="own"
      type="button"
      class="act"
      :disabled="stale"
      :aria-disabled="!live"
      :data-test="move.do === 'shift' ? 'front-both-clean' : 'front-done'"
      @click="emit('put', own)"
    >
      {{ ownWords }} <kbd class="key">Enter</kbd>
    </button>
    <button
      v-else-if="move.do === 'position' || move.do === 'gap'"
      type="button"
      class="act"
      data-test="front-done"
      @click="emit('look', move.do === 'gap' ? 'gaps' : 'position')"
    >
      {{ move.do === 'gap' ? 'Note the gap' : 'Note what it is' }} <kbd class="key">Enter</kbd>
    </button>
    <div v-else-if="move.do === 'undone'" class="grid gap-1">
      <button
        v-for="d in [true, false]"
        :key="String(d)"
        type="button"
        class="also"
        :disabled="stale"
        :aria-disabled="!live"
        :data-test="`undone-${d}`"
        @click="emit('put', [{ kind: 'frontUndone', drops: d }])"
      >
        {{ d ? 'Drops by itself' : 'Does not drop' }}, clamped again
      </button>
    </div>
    <button v-else-if="move.do === 'done'" type="button" class="act" data-test="front-done" @click="emit('leave')">
      Back to the job <kbd class="key">Enter</kbd>
    </button>
    <button
      v-if="glance"
      type="button"
      class="also"
      :disabled="stale"
      :aria-disabled="!live"
      data-test="front-good"
      @click="emit('put', glance.entries)"
    >
      {{ glance.words }}
    </button>
    <dl class="grid grid-cols-2 gap-3 border-t border-rule pt-1">
      <div>
        <dt class="small">Right, as it stands</dt>
        <dd class="figure text-2xl leading-tight font-semibold" data-test="front-right">
          {{ sayChance(advice.right) }}
        </dd>
      </div>
      <div :class="advice.after === null ? 'invisible' : ''">
        <dt class="small">Another round after this</dt>
        <dd class="figure text-2xl leading-tight font-semibold" data-test="front-second">
          {{ sayChance(1 - (advice.after ?? 1)) }}
        </dd>
      </div>
    </dl>
    <ul class="grid grid-cols-2 gap-x-4" aria-label="What it is">
      <li
        v-for="c in causes"
        :key="c.id"
        class="grid grid-cols-[4.2rem_1fr_2.9rem] items-center gap-1 leading-6"
        :class="{ 'col-span-2 grid-cols-[9.5rem_1fr_2.9rem]!': c.id === 'pull' }"
      >
        <span class="text-[0.9375rem]">{{ c.name }}</span
        ><span class="h-2 rounded-sm bg-ground"
          ><span class="block h-2 rounded-sm bg-ink" :style="{ width: `${Math.round(c.chance * 100)}%` }" /></span
        ><span class="figure text-right text-[0.9375rem] whitespace-nowrap" :data-test="`front-cause-${c.id}`">{{
          sayChance(c.chance)
        }}</span>
      </li>
    </ul>
    <p v-if="advice.nextCheck && (move.do === 'turn' || move.do === 'set')" class="small" data-test="next-check">
      <b>Check after</b> {{ sayFrontMove(advice.nextCheck.move, parts) }}.
    </p>
  </section>
</template>
