<script setup lang="ts">
import { Undo2 } from '@lucide/vue'
import { BRAKE_CHECKS } from '#core/brake/checks'
import { diagnose } from '#core/brake/diagnose'
import { ARM_RATIO, BRAKE_KIND_WORDS, BRAKES, LEVER_WORDS, type Brake } from '#core/brake/kinds'
import { biteShare, cableTakenMm, discWear, gainAtPad, mismatchOf, padGapMm } from '#core/brake/sums'
import { typedNumber } from '#core/quantity/typed'

const { number, ledger, state, record, loaded } = useJobPage(() => 'Brakes')
useAwake()
const route = useRoute()
const brake = ref<Brake>(route.query.brake === 'rear' ? 'rear' : 'front')
const BRAKE_WORDS: Record<Brake, string> = { front: 'Front brake', rear: 'Rear brake' }
const here = computed(() => state.value.noted.brakes[brake.value])
const parts = computed(() => here.value.parts)
const { said, put, undo } = useTouches(ledger)

const panel = ref<'find' | 'sums' | 'parts'>('parts')
// what it is comes first, and stays until it is said
watch([brake, loaded], () => { panel.value = parts.value ? 'find' : 'parts' }, { immediate: true })
const PANELS = [['find', 'Find it'], ['sums', 'Sums'], ['parts', 'Brake']] as const
const diagnosis = computed(() => (parts.value ? diagnose(parts.value.kind, here.value.seen, here.value.cured) : null))
const saw = (check: string, outcome: string) => put({ kind: 'brakeSeen', brake: brake.value, check, outcome })
const cured = (fault: string) => put({ kind: 'brakeCured', brake: brake.value, fault }, 'Put right: prove it anew')
const seenWords = computed(() => here.value.seen.flatMap(s => { const c = BRAKE_CHECKS.find(x => x.id === s.check); return c ? [{ ask: c.ask, words: c.outcomes.find(o => o[0] === s.outcome)?.[1] ?? s.outcome, fine: c.outcomes[0]![0] === s.outcome }] : [] }))
const proofWords = (b: Brake) => { const p = state.value.proofs[b]; return p ? (p.holds ? `holds, ${record.value?.people[p.by] ?? ''}` : 'failed') : 'not proven' }

// sums: what is let out after the pads touch, and how far the lever is drawn
const letOut = ref('5')
const share = ref(0)
const rotor = ref('')
const pad = ref('')
const rim = computed(() => (parts.value && ARM_RATIO[parts.value.kind] !== undefined && parts.value.lever ? { kind: parts.value.kind, lever: parts.value.lever } : null))
const gap = computed<{ mm: number | null; trouble: string }>(() => {
  if (!rim.value) return { mm: null, trouble: '' }
  try { return { mm: padGapMm(rim.value.kind, typedNumber(letOut.value)), trouble: '' } } catch { return { mm: null, trouble: 'Let out: from 0 to 25 mm of cable' } }
})
const bite = computed(() => (rim.value && gap.value.mm !== null ? biteShare(rim.value.kind, rim.value.lever, gap.value.mm) : 1))
const wrong = computed(() => (parts.value?.lever ? mismatchOf(parts.value.lever, parts.value.kind) : null))
const disc = computed<string | null>(() => {
  if (!rotor.value.trim() || !pad.value.trim()) return null
  try { return discWear(typedNumber(rotor.value), typedNumber(pad.value)) ?? 'Rotor and pads have life left.' } catch (error) { return (error as Error).message.startsWith('rotorMm is at most') ? 'A rotor is at most 1.8 mm, new: measure again, away from the edge.' : 'Type both in mm.' }
})
useBenchKeys(() => ({
  z: undo,
  Enter: () => { const f = diagnosis.value?.found; if (panel.value === 'find' && f && f.id !== 'none') cured(f.id) },
  ...Object.fromEntries([1, 2, 3, 4, 5].map(i => [String(i), () => { const d = diagnosis.value; const o = d && !d.found && panel.value === 'find' ? d.next?.check.outcomes[i - 1] : null; if (d?.next && o) saw(d.next.check.id, o[0]) }])),
}))
</script>

<template>
  <div class="bench-frame runs-first">
    <BenchTop />
    <div v-if="loaded !== 'ready'" class="p-6"><p v-if="loaded === 'loading'">Reading the log</p><p v-else class="stopped" role="alert">{{ loaded === 'missing' ? `There is no job ${number} here.` : OFFLINE_WORDS }}</p></div>
    <template v-else>
      <aside class="bench-left" aria-label="Brakes">
        <button v-for="b in BRAKES" :key="b" type="button" class="grid min-h-14 w-full border-l-[6px] py-1 pl-2 text-left" :class="brake === b ? 'border-ink font-bold' : 'border-transparent'" :aria-pressed="brake === b" :data-test="`brake-${b}`" @click="brake = b"><span>{{ BRAKE_WORDS[b] }}</span><span class="text-sm font-semibold" :class="state.proofs[b]?.holds ? 'text-clean' : state.proofs[b] ? 'text-stop' : 'text-soft'" :data-test="`proof-of-${b}`">{{ proofWords(b) }}</span></button>
        <NuxtLink class="quiet mt-3 w-full border-t border-rule" :to="`/jobs/${number}/sheet`" data-test="to-proof">Prove them</NuxtLink>
        <NuxtLink class="quiet w-full" :to="`/jobs/${number}/cables?run=${brake}-brake`">Its cable</NuxtLink>
        <NuxtLink class="quiet w-full" :to="`/jobs/${number}`">The job</NuxtLink>
        <button type="button" class="quiet mt-auto w-full justify-between border-t border-rule px-0!" :disabled="!ledger.canUndo" data-test="undo" @click="undo"><span class="flex items-center gap-2"><Undo2 :size="18" aria-hidden="true" />Take back</span> <kbd class="key">Z</kbd></button>
      </aside>
      <main class="bench-middle">
        <BenchTroubles />
        <div class="bench-stage act-first">
          <section class="look" aria-label="The brake">
            <p v-if="wrong && parts?.lever" class="stopped" role="alert" data-test="lever-mismatch">{{ LEVER_WORDS[parts.lever] }} lever on {{ BRAKE_KIND_WORDS[parts.kind].toLowerCase() }}: {{ wrong.feel }}. A {{ wrong.instead }}-pull lever matches.</p>
            <div v-if="rim && gap.mm !== null" class="mat p-1"><BrakeGap :gap-mm="gap.mm" :share="share" :bite-share="bite" :kind-words="BRAKE_KIND_WORDS[rim.kind]" /></div>
            <div v-else class="mat p-6 text-mat-soft">{{ parts ? (parts.lever || parts.kind === 'coaster' ? `${BRAKE_KIND_WORDS[parts.kind]}: no pads on a rim to draw.` : 'Say which lever it has: pads and rim show here.') : 'Say at the right what brake it is.' }}</div>
            <section v-if="seenWords.length" aria-label="Seen so far"><h2 class="small">Seen since it was last put right</h2><ul><li v-for="s in seenWords" :key="s.ask" class="flex justify-between gap-4 border-b border-rule py-1.5"><span class="text-soft">{{ s.ask }}</span><span class="text-right font-semibold" :class="s.fine ? 'text-clean' : ''">{{ s.words }}</span></li></ul></section>
            <section v-if="here.cured.length" aria-label="Put right"><h2 class="small">Put right</h2><ul><li v-for="(id, i) in here.cured" :key="i" class="font-semibold">{{ diagnosis?.faults.find(f => f.id === id)?.words ?? id }}</li></ul></section>
            <p class="small">Every brake job ends with a hard squeeze on both levers, a roll, then a ride. Nobody rides until both pass; the maker’s instructions and local law win over Ocho.</p>
          </section>
          <aside class="panel" :aria-label="PANELS.find(p => p[0] === panel)![1]">
            <div class="grid grid-cols-3 gap-1"><button v-for="[key, words] in PANELS" :key="key" type="button" class="also min-h-11! justify-center px-1! text-sm" :class="{ 'bg-act! text-act-ink!': panel === key }" :aria-pressed="panel === key" :data-test="`panel-${key}`" @click="panel = key">{{ words }}</button></div>
            <BrakeKindPick v-if="panel === 'parts' || !parts" :brake="brake" :parts="parts" @keep="put({ kind: 'brakeParts', parts: $event })" />
            <BrakeDiagnosis v-else-if="panel === 'find' && diagnosis" :key="brake" :diagnosis="diagnosis" :seen="here.seen" @saw="saw" @cured="cured" />
            <template v-else-if="panel === 'sums'">
              <template v-if="rim">
                <TextField v-model="letOut" label="Cable let out after the pads touch, mm" mono inputmode="decimal" :error="gap.trouble" />
                <p v-if="gap.mm !== null" class="text-2xl leading-tight font-bold" data-test="pad-gap">{{ gap.mm.toFixed(1) }} mm at each pad</p>
                <label class="label">Draw the lever<input v-model.number="share" type="range" min="0" max="1" step="0.01" class="mt-2 h-11 w-full accent-ink" data-test="draw"></label>
                <dl class="grid grid-cols-[auto_1fr] gap-x-4 border-t border-rule pt-2">
                  <dt class="text-soft">Gain, hand to one pad</dt><dd class="figure text-right" data-test="gain">{{ gainAtPad(rim.lever, rim.kind)!.toFixed(1) }}</dd>
                  <dt class="text-soft">Bites at</dt><dd class="figure text-right" data-test="bite">{{ bite >= 1 ? 'the bar first' : `${Math.round(bite * 100)} % of the stroke` }}</dd>
                  <dt class="text-soft">A millimetre of wear takes</dt><dd class="figure text-right">{{ cableTakenMm(rim.kind, 1).toFixed(1) }} mm of cable</dd>
                </dl>
                <p class="small">Pull over the stroke, gain and arm ratio are from memory: the bike has the last word.</p>
              </template>
              <template v-else-if="parts.kind === 'cable-disc'">
                <div class="grid grid-cols-2 gap-2"><TextField v-model="rotor" label="Rotor, mm" mono inputmode="decimal" /><TextField v-model="pad" label="Pad without plate, mm" mono inputmode="decimal" /></div>
                <p v-if="disc" class="font-semibold" data-test="disc-wear">{{ disc }}</p>
                <p class="small">0.2 to 0.4 mm a side. Wear is taken up at the pads, never by preloading the arm. No oil near the rotor.</p>
              </template>
              <p v-else class="text-soft">{{ parts.kind === 'coaster' ? 'No cable: strap fast, wheel free, at most 60° of free back-pedal.' : parts.lever ? 'Free wheel, bite by a third of the stroke, reaction arm fast before any test.' : 'Say which lever it has.' }}</p>
            </template>
          </aside>
        </div>
        <p class="sr-only" aria-live="polite">{{ said }}</p>
      </main>
    </template>
  </div>
</template>
