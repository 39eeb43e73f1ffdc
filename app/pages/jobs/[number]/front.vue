<script setup lang="ts">
import { Undo2 } from '@lucide/vue'
import { CROSSED_DEG, ringLines, sprocketLines } from '#core/front/chainLine'
import { FRONT_ELSEWHERE, FRONT_SCREWS, FRONT_SEEN, FRONT_SEEN_WORDS, FRONT_TURN_DOES, type FrontScrew, type FrontSeen } from '#core/front/moves'
import { FRONT_ORDERS, FRONT_STEPS, STOP_TOO_FAR, WHICH_SCREW, type FrontOrder } from '#core/front/orders'
import { RING_WORDS } from '#core/front/parts'
import { cageClicks, capacityTrouble, rubMap, type Pair } from '#core/front/rub'
import { nextFrontMove } from '#core/front/state'
import type { LedgerEvent } from '#core/ledger/events'
import { sayNet } from '#core/ledger/net'
import { sayTurnsOf } from '#core/quantity/turns'
import { chainOuterMm } from '#core/standards/tables/chains'

const { number, ledger, state, loaded } = useJobPage(() => 'Front')
useAwake()

const front = computed(() => state.value.noted.front)
const parts = computed(() => front.value.parts)
const said = ref('')
function put(event: LedgerEvent, words = 'Noted') {
  said.value = words
  requestAnimationFrame(() => setTimeout(tick))
  void ledger.append(event)
}
const undo = () => { said.value = ledger.canUndo ? 'Taken back' : 'Nothing to take back'; void ledger.undo() }

const cassette = computed(() => state.value.parts?.cassette ?? null)
const chainMm = computed(() => (cassette.value ? chainOuterMm(cassette.value.teeth.length) ?? 7.1 : 7.1))
const map = computed(() => (parts.value && cassette.value ? rubMap(parts.value, cassette.value.pitchMm, chainMm.value, front.value.gaps) : null))
const chosenAt = ref<{ ring: number; sprocket: number } | null>(null)
const pair = computed<Pair | null>(() => (map.value ? (chosenAt.value && map.value[chosenAt.value.ring]?.[chosenAt.value.sprocket]) || map.value[0].at(-1)! : null))
const cage = computed(() => {
  if (!parts.value || !cassette.value || !pair.value) return null
  const click = cageClicks(parts.value, cassette.value.pitchMm, chainMm.value, front.value.gaps).find(c => c.ring === pair.value!.ring && c.name === pair.value!.click)!
  return { from: click.placeMm - parts.value.cageWidthMm / 2, to: click.placeMm + parts.value.cageWidthMm / 2, behindMm: parts.value.cageBehindMm }
})
const rubbing = computed(() => map.value?.flat().filter(p => p.rubs).length ?? 0)

const panel = ref<'shift' | 'gaps' | 'order' | 'numbers'>('numbers')
const PANELS = [['shift', 'Shift'], ['gaps', 'Gaps'], ['order', 'Order'], ['numbers', 'Numbers']] as const
watch(parts, (p, was) => { if (p && !was) panel.value = 'shift' }, { immediate: true })
const order = ref<FrontOrder>('conventional')
watch(() => parts.value?.cage, c => { if (c) order.value = c }, { immediate: true })
const steps = computed(() => FRONT_STEPS[order.value])
const stepsDone = computed(() => front.value.steps[order.value] ?? [])
const nextStep = computed(() => steps.value.find(s => !stepsDone.value.includes(s.id)) ?? null)

const ringName = (i: number) => RING_WORDS[parts.value?.rings.length ?? 2][i]
const shifts = computed(() => { const n = parts.value?.rings.length ?? 2; return Array.from({ length: n - 1 }, (_, i) => [[i, i + 1], [i + 1, i]] as const).flat() })
const shift = ref(0)
const seen = (what: FrontSeen) => { (document.activeElement as HTMLElement | null)?.blur(); const [from, to] = shifts.value[Math.min(shift.value, shifts.value.length - 1)]; put({ kind: 'frontShift', from, to, seen: what }) }
const move = computed(() => nextFrontMove(front.value))
const signed = (screw: FrontScrew, way: 'in' | 'out', eighths: number) => 2 * eighths * ((screw === 'barrel') === (way === 'out') ? 1 : -1)
const turned = (screw: FrontScrew, way: 'in' | 'out', eighths: number) => put({ kind: 'frontTurn', screw, sixteenths: signed(screw, way, eighths) }, `Logged ${sayTurnsOf(eighths / 8)}`)
const hand = ref<FrontScrew>('barrel')
const AMOUNTS = [1, 2, 4, 8]
/** One plate at a time waits for a figure, so that a caliper's goes to that one alone. */
const plate = ref<'inner' | 'outer'>('inner')
const gap = (plate: 'inner' | 'outer', gapMm: number) => put({ kind: 'frontGap', plate, gapMm })
const screwName = (s: FrontScrew) => (s === 'barrel' ? 'Barrel' : `${s} screw`)
useBenchKeys(() => ({ z: undo, Enter: () => { if (move.value) turned(move.value.screw, move.value.way, move.value.eighths) }, ...Object.fromEntries(FRONT_SEEN.map((s, i) => [String(i), () => seen(s)])) }))
</script>

<template>
  <div class="bench-frame">
    <BenchTop />
    <div v-if="loaded !== 'ready'" class="p-6"><p v-if="loaded === 'loading'">Reading the log</p><p v-else class="stopped" role="alert">{{ loaded === 'missing' ? `There is no job ${number} here.` : OFFLINE_WORDS }}</p></div>
    <template v-else>
      <aside class="bench-left" aria-label="Order and turns">
        <ol><li v-for="s in steps" :key="s.id" class="flex min-h-10 items-center gap-2" :class="s.id === nextStep?.id ? 'font-bold' : 'text-soft'"><span class="inline-block size-3.5 rounded-sm border-2" :class="stepsDone.includes(s.id) ? 'border-ink bg-ink' : 'border-rule'" aria-hidden="true" />{{ s.what }}<span class="sr-only">{{ stepsDone.includes(s.id) ? ', done' : '' }}</span></li></ol>
        <dl class="mt-4 border-t border-rule pt-2"><template v-for="s in FRONT_SCREWS" :key="s"><div class="flex justify-between"><dt>{{ screwName(s) }}</dt><dd class="figure">{{ sayNet(s, front.net[s]) }}</dd></div></template></dl>
        <NuxtLink class="quiet mt-2 w-full border-t border-rule" :to="`/jobs/${number}/rear`">Rear bench</NuxtLink>
        <NuxtLink class="quiet w-full" :to="`/jobs/${number}`">The job</NuxtLink>
        <button type="button" class="quiet mt-auto w-full justify-between border-t border-rule px-0!" :disabled="!ledger.canUndo" data-test="undo" @click="undo"><span class="flex items-center gap-2"><Undo2 :size="18" aria-hidden="true" />Take back</span> <kbd class="key">Z</kbd></button>
      </aside>
      <main class="bench-middle">
        <BenchTroubles />
        <div class="bench-stage">
          <section class="look" aria-label="Chain lines">
            <template v-if="parts && map && pair && cassette">
              <div class="mat p-1"><ChainLines :ring-mm="ringLines(parts)" :rings="parts.rings" :sprocket-mm="sprocketLines(parts.rearLineMm, cassette.pitchMm)" :teeth="cassette.teeth" :cage="cage" :chainstay-mm="parts.chainstayMm" :pair="pair" /></div>
              <p class="text-lg" data-test="pair-words"><b class="figure">{{ parts.rings[pair.ring] }} × {{ cassette.teeth[pair.sprocket] }}</b>: {{ pair.rubs ? `rubs the ${pair.rubs} plate by ${Math.abs(pair.clearMm).toFixed(1)} mm` : `inner plate ${pair.innerMm.toFixed(1)}, outer ${pair.outerMm.toFixed(1)} mm clear` }} on “{{ pair.click }}”, chain at {{ Math.abs(pair.angleDeg).toFixed(1) }}°{{ Math.abs(pair.angleDeg) > CROSSED_DEG ? ', crossed' : '' }}.</p>
              <RubMap :map="map" :rings="parts.rings" :teeth="cassette.teeth" :chosen="pair" @choose="chosenAt = $event" />
              <p v-if="capacityTrouble(parts)" class="stopped">{{ capacityTrouble(parts) }}.</p>
            </template>
            <div v-else class="mat p-8 text-mat-soft">Say at the right what is in front: rings, chain line, cage. Chain lines and the map of rub show here.</div>
          </section>
          <aside class="panel" :aria-label="PANELS.find(p => p[0] === panel)![1]">
            <div class="grid grid-cols-4 gap-1"><button v-for="[key, words] in PANELS" :key="key" type="button" class="also min-h-11! justify-center px-1! text-sm" :class="{ 'bg-act! text-act-ink!': panel === key }" :aria-pressed="panel === key" :data-test="`panel-${key}`" @click="panel = key">{{ words }}</button></div>
            <template v-if="panel === 'shift' && parts">
              <section aria-label="Next move" aria-live="polite" class="grid gap-2">
                <div v-if="move" class="flex items-center gap-3" data-test="front-move">
                  <ClockFace :turns="move.eighths / 8" :way="move.way" class="shrink-0" />
                  <p :class="move.way === 'out' ? 'text-out' : 'text-in'"><span class="block font-bold">{{ screwName(move.screw) }} {{ move.way }}</span><span class="block text-3xl leading-none font-bold">{{ sayTurnsOf(move.eighths / 8) }}</span></p>
                </div>
                <p v-if="move" class="leading-snug">{{ FRONT_TURN_DOES[move.screw][move.way] }}: {{ move.why }}.</p>
                <button v-if="move" type="button" class="act" data-test="front-done" @click="turned(move.screw, move.way, move.eighths)">Turned {{ sayTurnsOf(move.eighths / 8) }} {{ move.way }} <kbd class="key">Enter</kbd></button>
                <p v-else-if="front.open" class="text-xl leading-tight font-bold text-stop" data-test="front-elsewhere">{{ FRONT_ELSEWHERE[front.open.seen as Exclude<FrontSeen, 'clean'>] }}</p>
                <p v-else class="text-2xl leading-tight font-bold" data-test="front-move">{{ front.shifts.length ? 'Clean: shift the other way, then the other pairs' : 'Shift, and say what you saw' }}</p>
                <p v-if="front.lookAgain" class="border-l-[6px] border-ink pl-2 font-semibold" data-test="look-again">H was turned: L wants looking at again, small ring and largest sprocket.</p>
                <p v-if="rubbing" class="text-stop">{{ rubbing }} of {{ map!.flat().length }} pairs rub with trims used.</p>
              </section>
              <div class="grid grid-cols-2 gap-1 border-t border-rule pt-2"><button v-for="([from, to], i) in shifts" :key="i" type="button" class="also min-h-11! justify-center px-1! text-sm" :class="{ 'bg-act! text-act-ink!': shift === i }" :aria-pressed="shift === i" :data-test="`shift-${from}-${to}`" @click="shift = i">{{ ringName(from) }} → {{ ringName(to) }}</button></div>
              <div class="grid grid-cols-2 gap-1"><button v-for="(s, i) in FRONT_SEEN" :key="s" type="button" class="also min-h-13! px-2.5! leading-tight" :class="{ 'col-span-2 text-clean': s === 'clean' }" :data-test="`seen-${s}`" @click="seen(s)">{{ FRONT_SEEN_WORDS[s] }} <kbd class="key">{{ i }}</kbd></button></div>
              <details class="border-t border-rule pt-1"><summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="other-turn">I turned something else</summary>
                <div class="grid gap-1"><div class="grid grid-cols-3 gap-1"><button v-for="s in FRONT_SCREWS" :key="s" type="button" class="also min-h-11! justify-center px-1!" :class="{ 'bg-act! text-act-ink!': hand === s }" :aria-pressed="hand === s" @click="hand = s">{{ s === 'barrel' ? 'Barrel' : s }}</button></div>
                  <div v-for="w in (['in', 'out'] as const)" :key="w"><p class="font-bold" :class="w === 'out' ? 'text-out' : 'text-in'">{{ w === 'out' ? 'Out, anticlockwise' : 'In, clockwise' }}</p><div class="grid grid-cols-4 gap-1"><button v-for="a in AMOUNTS" :key="a" type="button" class="also figure min-h-11! justify-center px-0!" :data-test="`turn-${w}-${a}`" @click="turned(hand, w, a)">{{ sayTurnsOf(a / 8).replace(/ turns?/, '') }}</button></div></div></div>
              </details>
              <p class="small">{{ WHICH_SCREW }} {{ STOP_TOO_FAR }}</p>
            </template>
            <template v-else-if="panel === 'gaps' && parts">
              <p class="text-2xl leading-tight font-bold">About 1 mm at both ends</p>
              <div class="grid gap-1"><button v-for="p in (['inner', 'outer'] as const)" :key="p" type="button" class="also min-h-13! leading-tight" :class="{ 'bg-act! text-act-ink!': plate === p }" :aria-pressed="plate === p" :data-test="`plate-${p}`" @click="plate = p"><span>{{ p === 'inner' ? 'Small ring, largest sprocket: inner plate' : 'Big ring, smallest sprocket: outer plate' }}</span><span class="figure whitespace-nowrap">{{ front.gaps.measured[p] ? `${(p === 'inner' ? front.gaps.innerMm : front.gaps.outerMm).toFixed(1)} mm` : 'not measured' }}</span></button></div>
              <FigurePad :key="plate" :label="plate === 'inner' ? 'Inner gap' : 'Outer gap'" unit="mm" :usual="[3, 2, 1.5, 1, 0.5, 0]" :least="-5" :most="20" in-word="clear" out-word="touching" hint="mm, plate to chain" @figure="gap(plate, $event)" />
              <p class="small">Cranks by hand, no finger near a moving chain.</p>
            </template>
            <template v-else-if="panel === 'order'">
              <div class="grid grid-cols-2 gap-1"><button v-for="o in FRONT_ORDERS" :key="o" type="button" class="also min-h-11! justify-center" :class="{ 'bg-act! text-act-ink!': order === o }" :aria-pressed="order === o" @click="order = o">{{ o }}</button></div>
              <ol class="grid"><li v-for="s in steps" :key="s.id" class="border-b border-rule"><button type="button" class="grid min-h-13 w-full gap-0.5 py-1.5 text-left" :disabled="stepsDone.includes(s.id)" :data-test="`front-step-${s.id}`" @click="put({ kind: 'frontStep', order, step: s.id })"><span :class="stepsDone.includes(s.id) ? 'text-soft' : 'font-bold'">{{ stepsDone.includes(s.id) ? '✓ ' : '' }}{{ s.what }} <span class="small font-normal">cable {{ s.cable }}</span></span><span v-if="s.id === nextStep?.id" class="text-[0.9375rem] leading-snug">{{ s.how }}</span><span v-if="s.caution && s.id === nextStep?.id" class="text-sm font-semibold text-stop">{{ s.caution }}</span></button></li></ol>
            </template>
            <FrontNumbers v-else :parts="parts" @keep="put({ kind: 'frontParts', parts: $event }, 'Noted the front')" />
          </aside>
        </div>
        <p class="sr-only" aria-live="polite">{{ said }}</p>
      </main>
    </template>
  </div>
</template>
