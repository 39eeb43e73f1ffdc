<!-- Stops: L then H seen by hand, what a turn of this screw does, the next turn in eighths; and what to do when it went past. -->
<script setup lang="ts">
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { fromSixteenths, sayTurns, sayTurnsOf } from '#core/quantity/turns'
import { geometryOf } from '#core/response/setup'
import { safeStopMm } from '#core/response/safe'
import { L_TARGET_MM, learntMmPerTurn, stopTurn } from '#core/rear/stops'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const g = computed(() => geometryOf(props.state.setup!))
const seen = computed(() => ({ L: Boolean(props.state.trace?.seenL), H: Boolean(props.state.trace?.seenH) }))
const at = ref<'L' | 'H'>(seen.value.L && !seen.value.H ? 'H' : 'L')
const views = computed(() =>
  (['L', 'H'] as const).map(stop => {
    const sprocket = stop === 'L' ? g.value.n - 1 : 0
    const plane = g.value.placeMm[sprocket]
    const safe = safeStopMm(g.value, stop)
    const teeth = props.state.setup!.teeth
    const sights = props.state.noted.sights
      .filter(s => s.event.at === stop)
      .map(s => ({ turnsIn: fromSixteenths(s.sixteenths), offsetMm: s.event.offsetMm }))
    const learnt = learntMmPerTurn(stop, sights)
    const last = sights.at(-1) ?? null
    const turnsSince = last ? fromSixteenths(props.state.netSixteenths[stop]) - last.turnsIn : 0
    const now = last ? last.offsetMm + turnsSince * learnt.mmPerTurn * (stop === 'H' ? 1 : -1) : null
    const target = stop === 'L' ? L_TARGET_MM : props.schools.placing.targetMm
    return {
      stop,
      teeth: teeth[sprocket],
      neighbour: teeth[stop === 'L' ? sprocket - 1 : 1],
      pitchMm: g.value.pitchMm[sprocket],
      safe: { from: safe.from - plane, to: safe.to - plane },
      target,
      learnt,
      now,
      turned: turnsSince !== 0,
      sightings: sights.length,
      turn: now === null ? 0 : stopTurn(stop, now, target, learnt.mmPerTurn),
    }
  }),
)
const here = computed(() => views.value.find(v => v.stop === at.value)!)
const way = computed(() => (here.value.turn > 0 ? 'in' : 'out'))
const sight = (mm: number) => emit('record', { kind: 'sight', at: at.value, offsetMm: mm }, `${at.value} seen`)
const turn = (turns: number) =>
  emit('record', { kind: 'turn', screw: at.value, sixteenths: Math.round(turns * 16) }, `Logged ${sayTurns(turns)}`)
/** L in two turns at once, and it is to be seen again. */
const past = ref(false)
const TROUBLES = [
  [
    'Which screw is which',
    'Not always marked: the one that moves the pulley when it is on the largest is L, on the smallest H.',
  ],
  [
    'It does not touch',
    'A stop only counts if it is really touched: wind it in until it just moves the pulley, then back to line. Untouched H works, but is less secure.',
  ],
  [
    'H seems dead',
    'Undo the cable. If the derailleur then jumps a couple of mm towards the frame, the cable was too tight, and was the first fault.',
  ],
  [
    'Dull at one end',
    'L too far in shows as a dull end already in the shift before. Clicking when pushed onto the largest: 1/4 out.',
  ],
  [
    'Only an end missing',
    'Is the lever at its last click? Push by hand: goes there, it is tension; cannot, that stop out a fraction.',
  ],
] as const
</script>

<template>
  <div>
    <section class="look" aria-label="Stops">
      <div class="grid gap-2.5 xl:grid-cols-2">
        <button
          v-for="v in views"
          :key="v.stop"
          type="button"
          class="mat block p-1 text-left"
          :class="{ chosen: at === v.stop }"
          :aria-pressed="at === v.stop"
          :aria-label="`${v.stop} stop`"
          :data-test="`stop-${v.stop}`"
          @click="at = v.stop"
        >
          <StopPlace
            :stop="v.stop"
            :teeth="v.teeth"
            :neighbour-teeth="v.neighbour"
            :pitch-mm="v.pitchMm"
            :offset-mm="v.now"
            :target="v.target"
            :safe="v.safe"
          />
        </button>
      </div>
      <dl class="grid gap-x-4 gap-y-1 xl:grid-cols-2">
        <div v-for="[head, words] in TROUBLES" :key="head">
          <dt class="font-bold">{{ head }}</dt>
          <dd class="text-[0.9375rem] leading-snug">{{ words }}</dd>
        </div>
      </dl>
    </section>
    <aside class="panel" aria-label="Next move at the stops">
      <template v-if="!past">
        <p class="small">
          {{ seen[at] ? (here.turned ? 'Turned since it was seen: look again' : 'Seen') : 'See by hand' }}
        </p>
        <p class="text-3xl leading-none font-bold">{{ at }} stop</p>
        <p class="text-[0.9375rem] leading-snug">
          Cable slack or off, wheel still. Push the derailleur by hand
          {{ at === 'L' ? 'towards the spokes' : 'and let it fall to the frame' }}; look from low behind. Behind a wide
          tyre take the tyre off, not the wheel.
        </p>
        <FigurePad
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
        <div v-if="here.turn !== 0" class="flex items-center gap-3 border-t border-rule pt-2" data-test="stop-turn">
          <ClockFace :turns="here.turn" :way="way" class="shrink-0" />
          <p :class="way === 'out' ? 'text-out' : 'text-in'">
            <span class="block font-bold">{{ at }} screw {{ way }}</span
            ><span class="block text-3xl font-bold">{{ sayTurnsOf(here.turn) }}</span>
          </p>
        </div>
        <button v-if="here.turn !== 0" type="button" class="act" data-test="stop-turned" @click="turn(here.turn)">
          Turned {{ sayTurns(here.turn) }} {{ way }}
        </button>
        <p v-else-if="here.now !== null" class="font-semibold text-clean" data-test="stop-good">
          {{ at }} stands where it should ({{ at === 'H' ? schools.placing.name.toLowerCase() : 'centred' }}).
        </p>
        <p class="small" data-test="learnt">
          A turn of {{ at }} moves it {{ here.learnt.mmPerTurn.toFixed(2) }} ± {{ here.learnt.sdMm.toFixed(2) }} mm{{
            here.sightings > 1 ? `, from ${here.sightings} sightings` : ', as usual until it was seen twice'
          }}.
        </p>
        <button v-if="at === 'L' && seen.L && !seen.H" type="button" class="also" @click="at = 'H'">Now H</button>
        <p class="small">
          L is never further in than the largest. A spoke ticks: back in at once. Not into the largest sprocket before L
          has been checked by hand.
        </p>
        <button type="button" class="quiet mt-1 text-stop" data-test="past" @click="past = true">
          It went past the largest
        </button>
      </template>
      <template v-else>
        <p class="stopped text-xl" role="alert">Stop at once</p>
        <ol class="grid list-decimal gap-1 pl-5 text-[1.0625rem]">
          <li>No pedalling. Hands off a moving wheel; let it stand still.</li>
          <li>L in two turns.</li>
          <li>Lift the chain back by hand, never by pedalling it off the spokes.</li>
          <li>Come back out from there, and see L again.</li>
          <li>Look at spokes and cage: damaged, the bike does not leave.</li>
        </ol>
        <button
          type="button"
          class="act"
          data-test="past-l"
          @click="
            at = 'L'
            turn(2)
            past = false
          "
        >
          L is in two turns
        </button>
        <button type="button" class="quiet" @click="past = false">Back</button>
      </template>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>

<style scoped>
.chosen {
  outline: 3px solid var(--ink);
  outline-offset: 2px;
}
</style>
