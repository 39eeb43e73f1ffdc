<!-- Stops: L then H seen by hand, what a turn of this screw does, the next turn in eighths; and what to do when it went
     past. -->
<script setup lang="ts">
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import type { JobState } from '#core/ledger/reduce'
import type { LedgerEvent } from '#core/ledger/events'
import type { Schools } from '#core/procedure/schools'
import type { Stage } from '#core/procedure/stages'
import { sayTurns, sayTurnsOf, toSixteenths } from '#core/quantity/turns'
import { stopsSeen } from '#core/rear/gates'
import { ringCountOf } from '#core/ledger/ringCount'
import { sayRing } from '#core/rear/rings'
import { L_FELT, L_FELT_WORDS, type LFelt } from '#core/rear/stopFelt'
import { stopNext } from '#core/rear/stopNext'

const props = defineProps<{ state: JobState; schools: Schools }>()
const emit = defineEmits<{ record: [event: LedgerEvent, words?: string]; go: [stage: Stage] }>()
const { standards } = storeToRefs(useLedger())
const seen = computed(() => stopsSeen(props.state.rear.trace))
const at = ref<'L' | 'H'>(seen.value.L && !seen.value.H ? 'H' : 'L')
const views = computed(() =>
  (['L', 'H'] as const).map(stop => stopNext(props.state.rear, stop, props.schools.placing.targetMm, standards.value)),
)
const here = computed(() => views.value.find(v => v.stop === at.value)!)
const way = computed(() => (here.value.turns > 0 ? 'in' : 'out'))
const sight = (mm: number) => emit('record', { kind: 'sight', at: at.value, offsetMm: mm }, `${at.value} seen`)
const ring = computed(() => sayRing(at.value, ringCountOf(props.state)))
/** By the bare-derailleur order there is no chain and no cable yet: what is said and pushed is without them. */
const bare = computed(() => props.schools.order.id === 'bare-derailleur' && props.state.rear.sinceClamp === null)
const felt = (what: LFelt) => emit('record', { kind: 'felt', what }, L_FELT_WORDS[what])
const turn = (turns: number) =>
  emit('record', { kind: 'turn', screw: at.value, sixteenths: toSixteenths(turns) }, `Logged ${sayTurns(turns)}`)
/** L in two turns at once, and it is to be seen again. `practice` */
const PAST_TURNS = 2
const past = ref(false)
function wentPast() {
  at.value = 'L'
  turn(PAST_TURNS)
  past.value = false
}
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
      <RadioGroup v-model="at" class="grid gap-2.5 xl:grid-cols-2" aria-label="Which stop">
        <RadioGroupOption v-for="v in views" :key="v.stop" v-slot="{ checked }" as="template" :value="v.stop">
          <button
            type="button"
            class="mat block p-1 text-left"
            :class="{ looked: checked }"
            :aria-label="`${v.stop} stop`"
            :data-test="`stop-${v.stop}`"
          >
            <StopPlace
              :stop="v.stop"
              :teeth="v.teeth"
              :neighbour-teeth="v.neighbourTeeth"
              :pitch-mm="v.pitchMm"
              :offset-mm="v.offsetMm"
              :target="v.targetMm"
              :safe="v.safeMm"
            />
          </button>
        </RadioGroupOption>
      </RadioGroup>
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
          {{ bare ? 'No chain and no cable yet' : `Cable slack or off, ${ring ? `${ring}, ` : ''}wheel still` }}.
          {{
            bare
              ? `A thumb feels it: push the derailleur ${at === 'L' ? 'towards the spokes until it stops' : 'out until it rests'}`
              : `Push the derailleur by hand ${at === 'L' ? 'towards the spokes' : 'and let it fall to the frame'}`
          }}; look from low behind. Behind a wide tyre take the tyre off, not the wheel. A cage that locks forward is
          locked for this.
        </p>
        <OffsetPad of="stop" @figure="sight" />
        <MeasureLink :what="at" />
        <details v-if="at === 'L' && seen.L && !bare" class="border-t border-rule pt-1">
          <summary class="min-h-11 cursor-pointer font-semibold">By thumb and ear, cranks turned by hand</summary>
          <p class="text-[0.9375rem] leading-snug">
            Chain in the gear before the largest; push with the thumb, fingers clear of chain and spokes.
          </p>
          <div class="mt-1 grid grid-cols-2 gap-1">
            <button
              v-for="f in L_FELT"
              :key="f"
              type="button"
              class="also min-h-12!"
              :data-test="`felt-${f}`"
              @click="felt(f)"
            >
              {{ L_FELT_WORDS[f] }}
            </button>
          </div>
        </details>
        <div v-if="here.turns !== 0" class="flex items-center gap-3 border-t border-rule pt-2" data-test="stop-turn">
          <ClockFace :turns="here.turns" :way="way" class="shrink-0" />
          <p :class="way === 'out' ? 'text-out' : 'text-in'">
            <span class="block font-bold">{{ at }} screw {{ way }}</span
            ><span class="block text-3xl font-bold">{{ sayTurnsOf(here.turns) }}</span>
          </p>
        </div>
        <button v-if="here.turns !== 0" type="button" class="act" data-test="stop-turned" @click="turn(here.turns)">
          Turned {{ sayTurns(here.turns) }} {{ way }}
        </button>
        <p v-else-if="here.felt && here.felt !== 'quiet'" class="font-semibold" data-test="stop-again">
          {{ L_FELT_WORDS[here.felt] }}, but last seen in line: look at it again before it goes towards the spokes.
        </p>
        <p v-else-if="here.offsetMm !== null" class="font-semibold text-clean" data-test="stop-good">
          {{ at }} stands where it should ({{ at === 'H' ? schools.placing.name.toLowerCase() : 'centred' }}).
        </p>
        <p class="small" data-test="learnt">
          A turn of {{ at }} moves it {{ here.learnt.mmPerTurn.toFixed(2) }} ± {{ here.learnt.sdMm.toFixed(2) }} mm{{
            here.sightings > 1 ? `, from ${here.sightings} sightings` : ', as usual until it was seen twice'
          }}.
        </p>
        <LikeHere run="rear" :figure="at" told />
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
        <button type="button" class="act" data-test="past-l" @click="wentPast">L is in two turns</button>
        <button type="button" class="quiet" @click="past = false">Back</button>
      </template>
      <div class="mt-auto grid gap-2"><slot /></div>
    </aside>
  </div>
</template>

<style scoped>
.looked {
  outline: 3px solid var(--ink);
  outline-offset: 2px;
}
</style>
