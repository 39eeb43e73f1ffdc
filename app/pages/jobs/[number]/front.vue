<script setup lang="ts">
import { CROSSED_DEG, ringLines, sprocketLines } from '#core/front/chainLine'
import {
  FRONT_ELSEWHERE,
  FRONT_SCREWS,
  FRONT_SEEN,
  FRONT_SEEN_WORDS,
  FRONT_TURN_DOES,
  type FrontScrew,
  type FrontSeen,
} from '#core/front/moves'
import { FRONT_ORDERS, FRONT_STEPS, STOP_TOO_FAR, WHICH_SCREW, type FrontOrder } from '#core/front/orders'
import { RING_WORDS } from '#core/front/parts'
import { cageClicks, frontTroubles, rubMap, type Pair } from '#core/front/rub'
import { frontGeometry, usualSpans } from '#core/front/response'
import { writtenMove } from '#core/front/state'
import { HEIGHTS } from '#core/procedure/schools'
import { sayNet } from '#core/ledger/net'
import { sayTurnsOf } from '#core/quantity/turns'
import { frontSetupOf } from '#core/front/setup'
import { useFront } from '~/workers/useFront'

const { number, ledger, state } = useJobPage(() => 'Front')
useAwake()

const front = computed(() => state.value.noted.front)
const parts = computed(() => front.value.parts)
const { said, put, undo } = useTouches(ledger)
const schools = useSchools(state)

const cassette = computed(() => state.value.parts?.cassette ?? null)
const setup = computed(() => (parts.value && cassette.value ? frontSetupOf(parts.value, cassette.value) : null))
const map = computed(() =>
  setup.value ? rubMap(setup.value.parts, setup.value.pitchMm, setup.value.chainWidthMm, front.value.gaps) : null,
)
const chosenAt = ref<{ ring: number; sprocket: number } | null>(null)
const pair = computed<Pair | null>(() =>
  map.value
    ? (chosenAt.value && map.value[chosenAt.value.ring]?.[chosenAt.value.sprocket]) || map.value[0].at(-1)!
    : null,
)
const cage = computed(() => {
  if (!parts.value || !setup.value || !pair.value) return null
  const click = cageClicks(parts.value, setup.value.pitchMm, setup.value.chainWidthMm, front.value.gaps).find(
    c => c.ring === pair.value!.ring && c.name === pair.value!.click,
  )!
  return {
    from: click.placeMm - parts.value.cageWidthMm / 2,
    to: click.placeMm + parts.value.cageWidthMm / 2,
    behindMm: parts.value.cageBehindMm,
  }
})
const rubbing = computed(() => map.value?.flat().filter(p => p.rubs).length ?? 0)

const question = computed(() => (setup.value ? { setup: setup.value, log: front.value.log } : null))
const answer = useFront(question)
const advice = computed(() => answer.value.value)
const rows = computed(() => {
  if (!setup.value || !advice.value || advice.value.clicks.length !== setup.value.parts.rings.length) return null
  const spans = usualSpans(frontGeometry(setup.value))
  const last = advice.value.clicks.length - 1
  return advice.value.clicks.map(c => ({
    name: ringName(c.ring),
    outward: c.ring > 0 ? c.outward : null,
    inward: c.ring < last ? c.inward : null,
    clean: spans[c.ring]!,
  }))
})

type Panel = 'shift' | 'position' | 'gaps' | 'order' | 'numbers'
const panel = ref<Panel>('numbers')
const PANELS: readonly [Panel, string][] = [
  ['shift', 'Shift'],
  ['position', 'Place'],
  ['gaps', 'Gaps'],
  ['order', 'Order'],
  ['numbers', 'Parts'],
]
watch(
  parts,
  (p, was) => {
    if (p && !was) panel.value = 'shift'
  },
  { immediate: true },
)
const order = ref<FrontOrder>('conventional')
watch(
  () => parts.value?.cage,
  c => {
    if (c) order.value = c
  },
  { immediate: true },
)
const steps = computed(() => FRONT_STEPS[order.value])
const stepsDone = computed(() => front.value.steps[order.value] ?? [])
const nextStep = computed(() => steps.value.find(s => !stepsDone.value.includes(s.id)) ?? null)

const ringName = (i: number) => RING_WORDS[parts.value?.rings.length ?? 2]![i]!
const shifts = computed(() => {
  const n = parts.value?.rings.length ?? 2
  return Array.from(
    { length: n - 1 },
    (_, i) =>
      [
        [i, i + 1],
        [i + 1, i],
      ] as const,
  ).flat()
})
const shift = ref(0)
// the shift that is advised is the one that is answered
watch(
  () => advice.value?.move,
  m => {
    if (m?.do === 'shift')
      shift.value = Math.max(
        0,
        shifts.value.findIndex(([from, to]) => from === m.from && to === m.to),
      )
  },
)
const seen = (what: FrontSeen) => {
  ;(document.activeElement as HTMLElement | null)?.blur()
  const [from, to] = shifts.value[Math.min(shift.value, shifts.value.length - 1)]!
  put({ kind: 'frontShift', from, to, seen: what })
}
/** What can be seen of a shift in that direction. */
const possible = computed(() => {
  const [from, to] = shifts.value[Math.min(shift.value, shifts.value.length - 1)]!
  return FRONT_SEEN.filter(s =>
    to > from ? s !== 'no-drop' && s !== 'falls-inboard' : s !== 'no-climb' && s !== 'falls-outboard',
  )
})
const written = computed(() => writtenMove(front.value))
const elsewhere = computed(() =>
  front.value.open && !written.value ? FRONT_ELSEWHERE[front.value.open.seen as Exclude<FrontSeen, 'clean'>] : null,
)
const signed = (screw: FrontScrew, way: 'in' | 'out', eighths: number) =>
  2 * eighths * ((screw === 'barrel') === (way === 'out') ? 1 : -1)
const turned = (screw: FrontScrew, way: 'in' | 'out', eighths: number) =>
  put({ kind: 'frontTurn', screw, sixteenths: signed(screw, way, eighths) }, `Logged ${sayTurnsOf(eighths / 8)}`)
const hand = ref<FrontScrew>('barrel')
const AMOUNTS = [1, 2, 4, 8]
/** One figure at a time waits, so that a caliper's goes to that one alone. */
const plate = ref<'inner' | 'outer'>('inner')
const place = ref<'height' | 'angle'>('height')
const gap = (plate: 'inner' | 'outer', gapMm: number) => {
  put({ kind: 'frontGap', plate, gapMm })
  back()
}
function placed(figure: number) {
  const height = place.value === 'height'
  put({ kind: 'frontPosition', heightMm: height ? figure : null, angleDeg: height ? null : figure })
  if (height) place.value = 'angle'
  else back()
}
/** Noted because the next move asked for it: back to the next move. */
let asked = false
function back() {
  if (asked) panel.value = 'shift'
  asked = false
}
function look(at: 'position' | 'gaps') {
  const move = advice.value?.move
  if (move?.do === 'gap') plate.value = move.plate
  place.value = 'height'
  asked = true
  panel.value = at
}
const screwName = (s: FrontScrew) => (s === 'barrel' ? 'Barrel' : `${s} screw`)
/** The advice's own answer when it is one touch. */
function accept() {
  const move = advice.value?.move
  if (!move || answer.value.is !== 'ready' || panel.value !== 'shift') return
  if (move.do === 'turn')
    put(
      { kind: 'frontTurn', screw: move.screw, sixteenths: move.sixteenths },
      `Logged ${sayTurnsOf(move.sixteenths / 16)}`,
    )
  else if (move.do === 'set') put({ kind: 'frontSet', what: move.what })
  else if (move.do === 'position' || move.do === 'gap') look(move.do === 'gap' ? 'gaps' : 'position')
  else if (move.do === 'done') void navigateTo(`/jobs/${number}`)
}
useBenchKeys(() => ({
  z: undo,
  Enter: accept,
  ...Object.fromEntries(
    FRONT_SEEN.map((s, i) => [
      String(i),
      () => {
        if (possible.value.includes(s)) seen(s)
      },
    ]),
  ),
}))
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :number="number"
    left-label="Order and turns"
    look-label="Chain lines"
    :panels="PANELS"
    :said="said"
    act-first
    @undo="undo"
  >
    <template #left>
      <ol>
        <li
          v-for="s in steps"
          :key="s.id"
          class="flex min-h-10 items-center gap-2"
          :class="s.id === nextStep?.id ? 'font-bold' : 'text-soft'"
        >
          <span
            class="inline-block size-3.5 rounded-sm border-2"
            :class="stepsDone.includes(s.id) ? 'border-ink bg-ink' : 'border-rule'"
            aria-hidden="true"
          />{{ s.what }}<span class="sr-only">{{ stepsDone.includes(s.id) ? ', done' : '' }}</span>
        </li>
      </ol>
      <dl class="mt-4 border-t border-rule pt-2">
        <template v-for="s in FRONT_SCREWS" :key="s"
          ><div class="flex justify-between">
            <dt>{{ screwName(s) }}</dt>
            <dd class="figure">{{ sayNet(s, front.net[s]) }}</dd>
          </div></template
        >
      </dl>
      <NuxtLink class="quiet mt-2 w-full border-t border-rule" :to="`/jobs/${number}/rear`">Rear bench</NuxtLink>
    </template>
    <template #look>
      <template v-if="parts && map && pair && cassette">
        <div v-if="panel === 'position'" class="mat p-1">
          <CagePlace
            :teeth="parts.rings.at(-1)!"
            :height-mm="front.position.heightMm"
            :angle-deg="front.position.angleDeg"
            :wanted="schools.height.targetMm"
            :marks="parts.cage === 'rotating'"
          />
        </div>
        <div v-else class="mat p-1">
          <ChainLines
            :ring-mm="ringLines(parts)"
            :rings="parts.rings"
            :sprocket-mm="sprocketLines(parts.rearLineMm, cassette.pitchMm)"
            :teeth="cassette.teeth"
            :cage="cage"
            :chainstay-mm="parts.chainstayMm"
            :pair="pair"
          />
        </div>
        <div v-if="rows && advice" class="mat p-1" data-test="cage-strip">
          <CageStrip :rows="rows" :stops="advice.stops" />
        </div>
        <p class="text-lg" data-test="pair-words">
          <b class="figure">{{ parts.rings[pair.ring] }} × {{ cassette.teeth[pair.sprocket] }}</b
          >:
          {{
            pair.rubs
              ? `rubs the ${pair.rubs} plate by ${Math.abs(pair.clearMm).toFixed(1)} mm`
              : `inner plate ${pair.innerMm.toFixed(1)}, outer ${pair.outerMm.toFixed(1)} mm clear`
          }}
          on “{{ pair.click }}”, chain at {{ Math.abs(pair.angleDeg).toFixed(1) }}°{{
            Math.abs(pair.angleDeg) > CROSSED_DEG ? ', crossed' : ''
          }}.
        </p>
        <RubMap :map="map" :rings="parts.rings" :teeth="cassette.teeth" :chosen="pair" @choose="chosenAt = $event" />
        <p v-for="w in frontTroubles(parts)" :key="w" class="stopped" data-test="front-trouble">{{ w }}.</p>
      </template>
      <div v-else class="mat p-8 text-mat-soft">
        Say at the right what is in front: rings, chain line, cage. Chain lines and the map of rub show here.
      </div>
    </template>
    <template v-if="panel === 'shift' && parts">
      <FrontMove
        v-if="advice"
        :advice="advice"
        :parts="parts"
        :stale="answer.is !== 'ready'"
        @put="put"
        @look="look"
        @leave="navigateTo(`/jobs/${number}`)"
      />
      <p v-else-if="answer.is === 'failed'" class="stopped" role="alert">
        No advice: {{ answer.message }}. The order and the map of rub still hold.
      </p>
      <p v-else class="small" aria-busy="true">Working out what is likely</p>
      <p v-if="elsewhere" class="border-l-[6px] border-ink pl-2 font-semibold" data-test="front-elsewhere">
        {{ elsewhere }}
      </p>
      <p v-if="front.lookAgain" class="border-l-[6px] border-ink pl-2 font-semibold" data-test="look-again">
        H was turned: L wants looking at again, small ring and largest sprocket.
      </p>
      <p v-if="rubbing" class="text-stop">{{ rubbing }} of {{ map!.flat().length }} pairs rub with trims used.</p>
      <div class="grid grid-cols-2 gap-1 border-t border-rule pt-2">
        <button
          v-for="([from, to], i) in shifts"
          :key="i"
          type="button"
          class="also min-h-11! justify-center px-1! text-sm"
          :class="{ 'bg-act! text-act-ink!': shift === i }"
          :aria-pressed="shift === i"
          :data-test="`shift-${from}-${to}`"
          @click="shift = i"
        >
          {{ ringName(from) }} → {{ ringName(to) }}
        </button>
      </div>
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="s in possible"
          :key="s"
          type="button"
          class="also min-h-13! px-2.5! leading-tight"
          :class="{ 'text-clean': s === 'clean' }"
          :data-test="`seen-${s}`"
          @click="seen(s)"
        >
          {{ FRONT_SEEN_WORDS[s] }} <kbd class="key">{{ FRONT_SEEN.indexOf(s) }}</kbd>
        </button>
      </div>
      <details class="border-t border-rule pt-1">
        <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="other-turn">
          I turned something else
        </summary>
        <div class="grid gap-1">
          <div class="grid grid-cols-3 gap-1">
            <button
              v-for="s in FRONT_SCREWS"
              :key="s"
              type="button"
              class="also min-h-11! justify-center px-1!"
              :class="{ 'bg-act! text-act-ink!': hand === s }"
              :aria-pressed="hand === s"
              @click="hand = s"
            >
              {{ s === 'barrel' ? 'Barrel' : s }}
            </button>
          </div>
          <div v-for="w in ['in', 'out'] as const" :key="w">
            <p class="font-bold" :class="w === 'out' ? 'text-out' : 'text-in'">
              {{ w === 'out' ? 'Out, anticlockwise' : 'In, clockwise' }}
            </p>
            <div class="grid grid-cols-4 gap-1">
              <button
                v-for="a in AMOUNTS"
                :key="a"
                type="button"
                class="also figure min-h-11! justify-center px-0!"
                :data-test="`turn-${w}-${a}`"
                @click="turned(hand, w, a)"
              >
                {{ sayTurnsOf(a / 8).replace(/ turns?/, '') }}
              </button>
            </div>
          </div>
        </div>
      </details>
      <p v-if="written" class="small" data-test="written-order">
        The written order would answer: {{ screwName(written.screw) }} {{ written.way }}
        {{ sayTurnsOf(written.eighths / 8) }}, {{ FRONT_TURN_DOES[written.screw][written.way] }}.
      </p>
      <p class="small">{{ WHICH_SCREW }} {{ STOP_TOO_FAR }}</p>
    </template>
    <template v-else-if="panel === 'position' && parts">
      <p class="text-2xl leading-tight font-bold">{{ schools.height.name }} over the teeth, in line</p>
      <div class="grid grid-cols-2 gap-1" role="group" aria-label="Height school">
        <button
          v-for="h in HEIGHTS"
          :key="h.id"
          type="button"
          class="also min-h-11! justify-center px-1! text-sm"
          :class="{ 'bg-act! text-act-ink!': schools.height.id === h.id }"
          :aria-pressed="schools.height.id === h.id"
          :data-test="`height-${h.id}`"
          @click="put({ kind: 'schools', choice: { ...state.noted.schools, height: h.id } })"
        >
          {{ h.name }}
        </button>
      </div>
      <p class="small">{{ schools.height.why }}</p>
      <div class="grid gap-1">
        <button
          v-for="p in ['height', 'angle'] as const"
          :key="p"
          type="button"
          class="also min-h-13! leading-tight"
          :class="{ 'bg-act! text-act-ink!': place === p }"
          :aria-pressed="place === p"
          :data-test="`place-${p}`"
          @click="place = p"
        >
          <span>{{
            p === 'height'
              ? 'Outer plate over the big ring’s teeth'
              : parts.cage === 'rotating'
                ? 'Marks against the ring'
                : 'Plates against the rings'
          }}</span
          ><span class="figure whitespace-nowrap">{{
            (p === 'height' ? front.position.heightMm : front.position.angleDeg) === null
              ? '?'
              : p === 'height'
                ? `${front.position.heightMm!.toFixed(1)} mm`
                : `${front.position.angleDeg!.toFixed(1)}°`
          }}</span>
        </button>
      </div>
      <FigurePad
        v-if="place === 'height'"
        key="height"
        label="Height"
        unit="mm"
        :usual="[0, 1, 2, 3, 4, 6]"
        :least="-5"
        :most="25"
        in-word="touching"
        out-word="high above"
        hint="mm, plate to tips"
        @figure="placed"
      />
      <FigurePad
        v-else
        key="angle"
        label="Angle"
        unit="°"
        :usual="[-4, -2, -1, 0, 1, 2, 4]"
        :least="-20"
        :most="20"
        zero-word="line"
        in-word="tail outboard"
        out-word="tail inboard"
        hint="°, + tail outboard"
        @figure="placed"
      />
      <p class="small">
        Chain on the
        {{
          parts.cage === 'rotating'
            ? 'big ring, the inner stop wound in to hold the cage there'
            : 'small ring and the largest sprocket, cable off'
        }}. Cranks by hand.
      </p>
    </template>
    <template v-else-if="panel === 'gaps' && parts">
      <p class="text-2xl leading-tight font-bold">About 1 mm at both ends</p>
      <div class="grid gap-1">
        <button
          v-for="p in ['inner', 'outer'] as const"
          :key="p"
          type="button"
          class="also min-h-13! leading-tight"
          :class="{ 'bg-act! text-act-ink!': plate === p }"
          :aria-pressed="plate === p"
          :data-test="`plate-${p}`"
          @click="plate = p"
        >
          <span>{{
            p === 'inner' ? 'Small ring, largest sprocket: inner plate' : 'Big ring, smallest sprocket: outer plate'
          }}</span
          ><span class="figure whitespace-nowrap">{{
            front.gaps.measured[p]
              ? `${(p === 'inner' ? front.gaps.innerMm : front.gaps.outerMm).toFixed(1)} mm`
              : 'not measured'
          }}</span>
        </button>
      </div>
      <FigurePad
        :key="plate"
        :label="plate === 'inner' ? 'Inner gap' : 'Outer gap'"
        unit="mm"
        :usual="[3, 2, 1.5, 1, 0.5, 0]"
        :least="-5"
        :most="20"
        in-word="clear"
        out-word="touching"
        hint="mm, plate to chain"
        @figure="gap(plate, $event)"
      />
      <p class="small">Cranks by hand, no finger near a moving chain.</p>
    </template>
    <template v-else-if="panel === 'order'">
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="o in FRONT_ORDERS"
          :key="o"
          type="button"
          class="also min-h-11! justify-center"
          :class="{ 'bg-act! text-act-ink!': order === o }"
          :aria-pressed="order === o"
          @click="order = o"
        >
          {{ o }}
        </button>
      </div>
      <ol class="grid">
        <li v-for="s in steps" :key="s.id" class="border-b border-rule">
          <button
            type="button"
            class="grid min-h-13 w-full gap-0.5 py-1.5 text-left"
            :disabled="stepsDone.includes(s.id)"
            :data-test="`front-step-${s.id}`"
            @click="put({ kind: 'frontStep', order, step: s.id })"
          >
            <span :class="stepsDone.includes(s.id) ? 'text-soft' : 'font-bold'"
              >{{ stepsDone.includes(s.id) ? '✓ ' : '' }}{{ s.what }}
              <span class="small font-normal">cable {{ s.cable }}</span></span
            ><span v-if="s.id === nextStep?.id" class="text-[0.9375rem] leading-snug">{{ s.how }}</span
            ><span v-if="s.caution && s.id === nextStep?.id" class="text-sm font-semibold text-stop">{{
              s.caution
            }}</span>
          </button>
        </li>
      </ol>
    </template>
    <FrontNumbers v-else :parts="parts" @keep="put({ kind: 'frontParts', parts: $event }, 'Noted the front')" />
  </JobBench>
</template>
