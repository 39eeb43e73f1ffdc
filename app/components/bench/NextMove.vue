<!-- The one best next move, always in the same place; its answer is one touch. -->
<script setup lang="ts">
import type { Move } from '#core/advice/contract'
import { cautionOf, headOf, sayWay, seenFrom, whyTurns } from '#core/advice/moveWords'
import { sayChance } from '#core/quantity/chance'
import { sayTurns } from '#core/quantity/turns'
import { barrelLeft, edgeLimitTurns } from '#core/rear/ofState'
import type { RearState } from '#core/rear/state'
import { capital } from '#core/quantity/words'
import { HEARD_KEYS } from './heard'
import type { RearBench } from '~/composables/rearBench'

const props = defineProps<{
  rear: RearBench
  state: RearState
  /** How the shop's school asks for this shift. */
  how: string | null
  /** On which ring the chain is for it; null where there is one only. */
  ring: string | null
}>()
const { stale, dead, edgeChosen, arrivals, stoppedAt, heardFirst, until, sight, edge, offset, gauge, accept } =
  props.rear
const { number } = storeToRefs(useLedger())
/** As far as a barrel is wound while pedalling, eighths: no further than it goes. */
const WOUND = [1, 2, 3, 4, 6, 8]
const wound = computed(() => {
  const left = barrelLeft(props.state)
  const most = left && turn.value ? (turn.value.way === 'out' ? left.outTurns : left.inTurns) : 0
  return WOUND.filter(e => e / 8 <= most + 1e-6)
})
// shown only while there is one
const picture = computed(() => props.rear.picture.value!)
const teeth = computed(() => props.state.setup!.teeth)
const move = computed<Move>(() => picture.value.move)
const turn = computed(() =>
  move.value.do === 'turn' ? { way: sayWay(move.value), turns: move.value.turns, screw: move.value.screw } : null,
)
const head = computed(() => headOf(move.value, teeth.value, picture.value))
watchEffect(() => {
  nextMoveWords.value = stale.value ? null : `${head.value.small} ${head.value.big}`
})
onUnmounted(() => {
  nextMoveWords.value = null
})
const caution = computed(() => cautionOf(move.value))
const acceptWords = computed(() => {
  const m = move.value
  if (m.do === 'turn') return `Turned ${sayTurns(m.turns)} ${turn.value!.way}`
  if (m.do === 'sight') return `${m.at} is in line`
  if (m.do === 'pass') return stoppedAt.value === null && heardFirst.value === null ? 'Clean all the way' : null
  if (m.do === 'reclamp') return 'Clamped again'
  if (m.do === 'replace') return m.part === 'cable' ? 'Cable and housing are new' : `The ${m.part} is new`
  if (m.do === 'done') return 'To the brakes'
  return null
})
</script>

<template>
  <section aria-label="Next move" :class="{ 'opacity-70': stale }" :aria-busy="stale">
    <p class="small">Next move</p>
    <div class="head mt-1 flex items-center gap-4" aria-live="polite" data-test="move">
      <LazyClockFace v-if="turn" :turns="turn.turns" :way="turn.way" class="shrink-0" />
      <p :class="turn ? (turn.way === 'out' ? 'text-out' : 'text-in') : 'text-ink'">
        <span class="block text-xl font-bold">{{ head.small }}</span>
        <span class="big block font-bold">{{ head.big }}</span>
        <span v-if="seenFrom(move)" class="small block">{{ seenFrom(move) }}</span>
        <span v-if="ring && move.do !== 'turn'" class="small block" data-test="ring">{{ ring }}</span>
      </p>
    </div>
    <p v-if="picture.effect" class="figure mt-1 text-[0.9375rem]" data-test="effect">{{ picture.effect }}</p>
    <p v-if="turn" class="small flex items-center gap-2 leading-snug" data-test="turns-do">
      <LazySleeveView v-if="turn.screw === 'barrel'" :out="turn.way === 'out'" />{{ whyTurns(move) }}
    </p>
    <p class="mt-1 text-[0.9375rem] leading-snug" data-test="why">{{ picture.because }}</p>
    <p v-if="caution" class="mt-1.5 border-l-[6px] border-stop pl-2 text-sm font-semibold">{{ caution }}</p>
    <div class="mt-2.5 grid gap-2">
      <FigurePad
        v-if="move.do === 'sight'"
        label="Offset"
        unit="mm"
        :usual="[1.5, 1, 0.5, 0, -0.5, -1, -1.5]"
        :least="-15"
        :most="15"
        zero-word="line"
        in-word="inboard"
        out-word="outboard"
        @figure="sight"
      />
      <LazyEdgeStrip
        v-if="move.do === 'edge'"
        :way="move.way"
        :limit-turns="edgeLimitTurns(state, move.way)"
        :chosen="edgeChosen"
        @edge="edge"
      />
      <FigurePad
        v-if="move.do === 'offset'"
        label="Offset"
        unit="mm"
        :usual="[0.9, 0.6, 0.3, 0, -0.3, -0.6, -0.9]"
        :least="-15"
        :most="15"
        in-word="inboard"
        out-word="outboard"
        @figure="offset"
      />
      <MeasureLink
        v-if="move.do === 'sight' || move.do === 'offset'"
        :what="move.do === 'sight' ? move.at : 'offset'"
      />
      <LazyGaugePad v-if="move.do === 'hanger'" @gauge="gauge" />
      <template v-if="move.do === 'pass'">
        <LazyPassStrip :arrivals="arrivals" :teeth="teeth" :stopped-at="stoppedAt" @stop="rear.stopAt" />
        <p class="font-semibold" data-test="how">
          {{
            heardFirst
              ? `${capital(HEARD_KEYS.find(k => k.heard === heardFirst)!.word)}: now touch the gear where it was.`
              : stoppedAt === null
                ? 'Stop at the first that is not clean and touch it here.'
                : 'Now touch what you heard there, below.'
          }}
        </p>
      </template>
      <p v-if="move.do === 'shift'" class="font-semibold" data-test="how">
        {{ how }} Then touch what you heard, below.
      </p>
      <NuxtLink
        v-if="move.do === 'shift' || move.do === 'edge'"
        :to="`/jobs/${number}/listen`"
        class="quiet justify-start text-[0.9375rem] underline"
        data-test="listen-link"
        >Let the microphone listen too</NuxtLink
      >
      <button
        v-if="acceptWords"
        type="button"
        class="act"
        :aria-disabled="dead || stale"
        data-test="accept"
        @click="accept()"
      >
        {{ acceptWords }} <kbd class="key">Enter</kbd>
      </button>
      <button
        v-if="rear.bothUnseen.value"
        type="button"
        class="also"
        :aria-disabled="dead || stale"
        data-test="both-in-line"
        @click="rear.bothInLine"
      >
        L and H both looked at, both in line
      </button>
      <div v-if="until && turn" role="group" :aria-label="`${until.word} after so many turns, wound while pedalling`">
        <p class="small">Wound while pedalling, fingers clear: {{ until.word.toLowerCase() }} after</p>
        <div class="mt-1 grid auto-cols-fr grid-flow-col gap-1">
          <button
            v-for="e in wound"
            :key="e"
            type="button"
            class="also figure min-h-11! justify-center px-0!"
            :aria-disabled="dead || stale"
            :data-test="`wound-${e}`"
            @click="rear.wound(e)"
          >
            {{ sayTurns(e / 8) }}
          </button>
        </div>
      </div>
    </div>
    <dl class="mt-2.5 grid grid-cols-2 gap-4 border-t border-rule pt-1.5">
      <div>
        <dt class="small">Bike right, as it stands</dt>
        <dd class="figure text-3xl leading-tight font-semibold" data-test="right">{{ sayChance(picture.right) }}</dd>
      </div>
      <div :class="picture.after === null ? 'invisible' : ''">
        <dt class="small">After this turn</dt>
        <dd class="figure text-3xl leading-tight font-semibold text-clean">{{ sayChance(picture.after ?? 0) }}</dd>
      </div>
    </dl>
  </section>
</template>

<style scoped>
.head {
  min-height: 92px;
}
.big {
  font-size: 2.5rem;
  line-height: 1.05;
  letter-spacing: -0.01em;
}
@media (max-height: 700px) {
  .head {
    min-height: 60px;
  }
  .head svg {
    width: 64px;
    height: 64px;
  }
  .big {
    font-size: 2rem;
  }
}
[aria-disabled='true'] {
  opacity: 0.55;
}
</style>
