<!-- The one best next move, always in the same place; its answer is one touch. -->
<script setup lang="ts">
import type { Move } from '#core/advice/contract'
import { sayWay } from '#core/advice/explain'
import type { Picture } from '#core/advice/picture'
import { sayChance } from '#core/quantity/chance'
import { sayTurns, sayTurnsOf } from '#core/quantity/turns'
import type { HangerFit } from '#core/rear/hanger'

const props = defineProps<{
  picture: Picture
  teeth: readonly number[]
  /** No touch counts until the new move has been drawn and seen. */
  dead: boolean
  stale: boolean
  barrelTurns: number
  barrelRange: number
  edgeChosen: number
  /** How the shop's school asks for this shift. */
  how: string | null
}>()
const emit = defineEmits<{
  accept: []
  sight: [mm: number]
  edge: [turns: number, found: boolean]
  offset: [mm: number]
  gauge: [fit: HangerFit]
}>()
const move = computed<Move>(() => props.picture.move)
const turn = computed(() =>
  move.value.do === 'turn' ? { way: sayWay(move.value), turns: move.value.turns, screw: move.value.screw } : null,
)
const head = computed<{ small: string; big: string }>(() => {
  const m = move.value
  const teeth = (k: number) => props.teeth[k]
  switch (m.do) {
    case 'turn':
      return {
        small: `${m.screw === 'barrel' ? 'Barrel' : `${m.screw} screw`} ${turn.value!.way}`,
        big: sayTurnsOf(m.turns),
      }
    case 'shift':
      return { small: 'Shift and listen', big: `To the ${teeth(m.to)}` }
    case 'sight':
      return { small: 'See by hand', big: `${m.at} stop` }
    case 'edge':
      return { small: `On the ${teeth(m.click)}, cranks turning`, big: `Wind ${m.way}` }
    case 'offset':
      return { small: 'Measure the pulley', big: `On the ${teeth(m.click)}` }
    case 'hanger':
      return { small: 'Stop turning the barrel', big: 'Gauge it' }
    case 'reclamp':
      return { small: `Barrel to ${sayTurns(m.barrelTurnsOut)} out`, big: 'Clamp again' }
    case 'replace':
      return { small: 'Stop turning the barrel', big: m.part === 'cable' ? 'New cable' : `New ${m.part}` }
    case 'done':
      return { small: props.picture.right >= 0.5 ? 'It is right' : 'Nothing gains more', big: 'Stop here' }
  }
  return { small: '', big: '' }
})
const caution = computed(() => {
  const m = move.value
  if (m.do === 'edge') return 'Fingers clear of chain and spokes while the cranks turn.'
  if (m.do === 'sight') return 'Wheel still. Push the derailleur by hand; no hand near a moving wheel.'
  if (m.do === 'reclamp' || (m.do === 'replace' && m.part === 'cable'))
    return 'Frayed ends stab and cut wire flies: goggles, and cap the end.'
  if (m.do === 'hanger') return 'Never bend titanium, carbon, a cast part or one with a crack: defer to the maker.'
  if (m.do === 'replace') return 'The maker’s instructions win. See L by hand again before the largest sprocket.'
  if (m.do === 'turn' && m.screw === 'L') return 'A spoke ticks: back in at once.'
  return null
})
/** What the head says already is not said again. */
const because = computed(() => {
  const words = props.picture.because.replace(/^Stop turning the barrel: /, '')
  return words.charAt(0).toUpperCase() + words.slice(1)
})
const acceptWords = computed(() => {
  const m = move.value
  if (m.do === 'turn') return `Turned ${sayTurns(m.turns)} ${turn.value!.way}`
  if (m.do === 'sight') return `${m.at} is in line`
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
      <ClockFace v-if="turn" :turns="turn.turns" :way="turn.way" class="shrink-0" />
      <p :class="turn ? (turn.way === 'out' ? 'text-out' : 'text-in') : 'text-ink'">
        <span class="block text-xl font-bold">{{ head.small }}</span>
        <span class="big block font-bold">{{ head.big }}</span>
      </p>
    </div>
    <p v-if="picture.effect" class="figure mt-1 text-[0.9375rem]" data-test="effect">{{ picture.effect }}</p>
    <p class="mt-1 text-[0.9375rem] leading-snug" data-test="why">{{ because }}</p>
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
        @figure="emit('sight', $event)"
      />
      <EdgeStrip
        v-if="move.do === 'edge'"
        :way="move.way"
        :limit-turns="move.way === 'out' ? barrelRange - barrelTurns : barrelTurns"
        :chosen="edgeChosen"
        @edge="(t, f) => emit('edge', t, f)"
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
        @figure="emit('offset', $event)"
      />
      <GaugePad v-if="move.do === 'hanger'" @gauge="emit('gauge', $event)" />
      <p v-if="move.do === 'shift'" class="font-semibold" data-test="how">
        {{ how }} Then touch what you heard, below.
      </p>
      <button
        v-if="acceptWords"
        type="button"
        class="act"
        :aria-disabled="dead || stale"
        data-test="accept"
        @click="emit('accept')"
      >
        {{ acceptWords }} <kbd class="key">Enter</kbd>
      </button>
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
