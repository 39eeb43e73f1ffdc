<script setup lang="ts">
import { BRAKE_CHECKS } from '#core/brake/checks'
import { diagnose } from '#core/brake/diagnose'
import { ARM_RATIO, BRAKE_KIND_WORDS, BRAKES, LEVER_WORDS, type Brake } from '#core/brake/kinds'
import { PROOF_WORDS, type ProofTest } from '#core/brake/proof'
import { BRAKE_STEPS } from '#core/brake/fitting'
import {
  biteShare,
  BRAKE_BARREL,
  DISC,
  discBiteShare,
  discGapWords,
  discWear,
  mismatchOf,
  padGapMm,
  straddle,
  straddleJudged,
} from '#core/brake/sums'
import { typedNumber } from '#core/quantity/typed'

const { number, ledger, state, record, loaded } = useJobPage(() => 'Brakes')
useAwake()
const route = useRoute()
const brake = ref<Brake>(route.query.brake === 'rear' ? 'rear' : 'front')
const BRAKE_WORDS: Record<Brake, string> = { front: 'Front brake', rear: 'Rear brake' }
const here = computed(() => state.value.noted.brakes[brake.value])
const parts = computed(() => here.value.parts)
const { said, put, undo } = useTouches(ledger)

const panel = ref<'find' | 'fit' | 'sums' | 'parts'>('parts')
// what it is comes first, and stays until it is said
watch(
  [brake, loaded],
  () => {
    panel.value = parts.value ? 'find' : 'parts'
  },
  { immediate: true },
)
const PANELS = [
  ['find', 'Find it'],
  ['fit', 'Fit'],
  ['sums', 'Sums'],
  ['parts', 'Brake'],
] as const
const diagnosis = computed(() => (parts.value ? diagnose(parts.value.kind, here.value.seen, here.value.cured) : null))
const saw = (check: string, outcome: string) => put({ kind: 'brakeSeen', brake: brake.value, check, outcome })
const cured = (fault: string) => put({ kind: 'brakeCured', brake: brake.value, fault }, 'Put right: prove it anew')
const seenWords = computed(() =>
  here.value.seen.flatMap(s => {
    const c = BRAKE_CHECKS.find(x => x.id === s.check)
    return c
      ? [
          {
            ask: c.ask,
            words: c.outcomes.find(o => o[0] === s.outcome)?.[1] ?? s.outcome,
            fine: c.outcomes[0]![0] === s.outcome,
          },
        ]
      : []
  }),
)
const proofWords = (b: Brake) => {
  const p = state.value.proofs[b]
  return p ? (p.holds ? `holds, ${record.value?.people[p.by] ?? ''}` : 'failed') : 'not proven'
}

// sums: what is let out after the pads touch, and how far the lever is drawn
const letOut = ref('5')
const wound = ref('')
/** Cable given once the pads touch: at the anchor, and by a barrel wound in. */
const cableOut = computed(
  () => typedNumber(letOut.value.trim() || '0') + typedNumber(wound.value.trim() || '0') * BRAKE_BARREL.threadMm,
)
const share = ref(0)
const rotor = ref('')
const pad = ref('')
const rim = computed(() =>
  parts.value && ARM_RATIO[parts.value.kind] !== undefined && parts.value.lever
    ? { kind: parts.value.kind, lever: parts.value.lever }
    : null,
)
const gap = computed<{ mm: number | null; trouble: string }>(() => {
  if (!rim.value) return { mm: null, trouble: '' }
  try {
    return { mm: padGapMm(rim.value.kind, cableOut.value), trouble: '' }
  } catch {
    return { mm: null, trouble: 'Let out: from 0 to 25 mm of cable, barrel and all' }
  }
})
const bite = computed(() =>
  rim.value && gap.value.mm !== null ? biteShare(rim.value.kind, rim.value.lever, gap.value.mm) : 1,
)
const wrong = computed(() => (parts.value?.lever ? mismatchOf(parts.value.lever, parts.value.kind) : null))
const worn = ref('1')
const wornMm = computed(() => {
  const mm = typedNumber(worn.value)
  return mm >= 0 && mm <= 6 ? mm : 0
})
const wornBite = computed(() =>
  rim.value && gap.value.mm !== null ? biteShare(rim.value.kind, rim.value.lever, gap.value.mm + wornMm.value) : 1,
)
const sideGap = ref('0.3')
const disc = computed<{
  words: string | null
  trouble: string
  drawn: { rotorMm: number; padMm: number; gapMm: number } | null
}>(() => {
  if (!rotor.value.trim() || !pad.value.trim()) return { words: null, trouble: '', drawn: null }
  const gapMm = typedNumber(sideGap.value)
  try {
    const words = discWear(typedNumber(rotor.value), typedNumber(pad.value)) ?? 'Rotor and pads have life left.'
    if (!(gapMm >= 0 && gapMm <= 5)) return { words: null, trouble: 'Gap a side: from 0 to 5 mm', drawn: null }
    const far = discGapWords(gapMm)
    return {
      words: `${words.replace(/\.?$/, '.')}${far ? ` ${far}.` : ''}`,
      trouble: '',
      drawn: { rotorMm: typedNumber(rotor.value), padMm: typedNumber(pad.value), gapMm },
    }
  } catch (error) {
    return {
      words: null,
      trouble: (error as Error).message.startsWith('rotorMm is at most')
        ? 'A rotor is at most 1.8 mm, new: measure again, away from the edge.'
        : 'Type both in mm.',
      drawn: null,
    }
  }
})
const discBite = computed(() => {
  const gapMm = typedNumber(sideGap.value)
  return parts.value?.lever && gapMm > 0 && gapMm <= 5 ? discBiteShare(parts.value.lever, gapMm) : null
})
// a cantilever's straddle
const yoke = ref('60')
const apart = ref('120')
const overTyre = ref('30')
const straddled = computed<{
  view: {
    deg: number
    words: string
    yokeMm: number
    apartMm: number
    overTyreMm: number | null
    right: boolean
  } | null
  trouble: string
}>(() => {
  const [yokeMm, apartMm, tyre] = [yoke, apart, overTyre].map(r => typedNumber(r.value)) as [number, number, number]
  if (!(yokeMm > 0 && yokeMm <= 300)) return { view: null, trouble: 'Yoke over its anchors: from 1 to 300 mm' }
  if (!(apartMm > 0 && apartMm <= 400)) return { view: null, trouble: 'Anchors apart: from 1 to 400 mm' }
  const { deg } = straddle(yokeMm, apartMm)
  const over = tyre >= 0 && tyre <= 200 ? tyre : null
  const { right, words } = straddleJudged(deg, over)
  return {
    view: { deg, words: `${Math.round(deg)}° between the wires, ${words}.`, yokeMm, apartMm, overTyreMm: over, right },
    trouble: '',
  }
})
/** Which pad stood nearer when last looked at, until a screw is turned. */
const nearer = computed(() => {
  const last = here.value.centring.at(-1)
  return panel.value === 'fit' && last?.kind === 'seen' ? last.nearer : null
})
const schools = useSchools(state)
const { signing, words: gateWords, gate, signed } = useGate(ledger)
const prove = (holds: boolean, test?: ProofTest) =>
  gate(
    { kind: 'proof', brake: brake.value, holds, ...(test ? { test } : {}) },
    `${BRAKE_WORDS[brake.value]}${test ? `, ${PROOF_WORDS[test].name},` : ''} ${holds ? 'holds' : 'failed'}`,
  )
useBenchKeys(() => ({
  z: undo,
  Enter: () => {
    const next =
      panel.value === 'fit' && parts.value
        ? BRAKE_STEPS[parts.value.kind]?.find(x => !here.value.steps.includes(x.id))
        : null
    if (next) return put({ kind: 'brakeStep', brake: brake.value, step: next.id })
    const f = diagnosis.value?.found
    if (panel.value === 'find' && f && f.id !== 'none') cured(f.id)
  },
  ...Object.fromEntries(
    [1, 2, 3, 4, 5].map(i => [
      String(i),
      () => {
        const d = diagnosis.value
        const o = d && !d.found && panel.value === 'find' ? d.next?.check.outcomes[i - 1] : null
        if (d?.next && o) saw(d.next.check.id, o[0])
      },
    ]),
  ),
}))
</script>

<template>
  <JobBench
    v-model:panel="panel"
    :number="number"
    left-label="Brakes"
    look-label="The brake"
    :panels="PANELS"
    :said="said"
    runs-first
    act-first
    @undo="undo"
  >
    <template #left>
      <button
        v-for="b in BRAKES"
        :key="b"
        type="button"
        class="grid min-h-14 w-full border-l-[6px] py-1 pl-2 text-left"
        :class="brake === b ? 'border-ink font-bold' : 'border-transparent'"
        :aria-pressed="brake === b"
        :data-test="`brake-${b}`"
        @click="brake = b"
      >
        <span>{{ BRAKE_WORDS[b] }}</span
        ><span
          class="text-sm font-semibold"
          :class="state.proofs[b]?.holds ? 'text-clean' : state.proofs[b] ? 'text-stop' : 'text-soft'"
          :data-test="`proof-of-${b}`"
          >{{ proofWords(b) }}</span
        >
      </button>
      <NuxtLink class="quiet mt-2 w-full border-t border-rule" :to="`/jobs/${number}/sheet`" data-test="to-proof"
        >The sheet</NuxtLink
      >
      <NuxtLink class="quiet w-full" :to="`/jobs/${number}/cables?run=${brake}-brake`">Its cable</NuxtLink>
    </template>
    <template #look>
      <p v-if="wrong && parts?.lever" class="stopped" role="alert" data-test="lever-mismatch">
        {{ LEVER_WORDS[parts.lever] }} lever on {{ BRAKE_KIND_WORDS[parts.kind].toLowerCase() }}: {{ wrong.feel }}. A
        {{ wrong.instead }}-pull lever matches.
      </p>
      <div v-if="rim && gap.mm !== null" class="mat p-1">
        <BrakeGap
          :gap-mm="gap.mm"
          :share="share"
          :bite-share="bite"
          :kind-words="BRAKE_KIND_WORDS[rim.kind]"
          :nearer="nearer"
          :worn="panel === 'sums' && wornMm > 0 ? { mm: wornMm, share: wornBite } : null"
        />
      </div>
      <div v-if="parts?.kind === 'cable-disc' && disc.drawn" class="mat p-1">
        <DiscGap
          v-bind="disc.drawn"
          :share="share"
          :bite-share="discBite"
          :scrap="{ rotorMm: DISC.rotorScrapMm, padMm: DISC.padScrapMm }"
        />
      </div>
      <div v-if="parts?.kind === 'cantilever' && panel === 'sums' && straddled.view" class="mat p-1">
        <Straddle v-bind="straddled.view" />
      </div>
      <div v-if="!(rim && gap.mm !== null) && !disc.drawn" class="mat p-6 text-mat-soft">
        {{
          parts
            ? parts.lever || parts.kind === 'coaster'
              ? `${BRAKE_KIND_WORDS[parts.kind]}: no pads on a rim to draw.`
              : 'Say which lever it has: pads and rim show here.'
            : 'Say at the right what brake it is.'
        }}
      </div>
      <section v-if="seenWords.length" aria-label="Seen so far">
        <h2 class="small">Seen since it was last put right</h2>
        <ul>
          <li v-for="s in seenWords" :key="s.ask" class="flex justify-between gap-4 border-b border-rule py-1.5">
            <span class="text-soft">{{ s.ask }}</span
            ><span class="text-right font-semibold" :class="s.fine ? 'text-clean' : ''">{{ s.words }}</span>
          </li>
        </ul>
      </section>
      <section v-if="here.cured.length" aria-label="Put right">
        <h2 class="small">Put right</h2>
        <ul>
          <li v-for="(id, i) in here.cured" :key="i" class="font-semibold">
            {{ diagnosis?.faults.find(f => f.id === id)?.words ?? id }}
          </li>
        </ul>
      </section>
      <BrakeProof
        v-if="parts"
        :marks="state.proofMarks[brake]"
        :brake-words="BRAKE_WORDS[brake]"
        :people="record?.people ?? {}"
        @prove="prove"
      />
      <p v-if="gateWords" class="stopped" role="alert">{{ gateWords }}</p>
      <p class="small">
        Every brake job ends with a hard squeeze on both levers, a roll, then a ride. Nobody rides until both pass; the
        maker’s instructions and local law win over Ocho.
      </p>
    </template>
    <BrakeKindPick
      v-if="panel === 'parts' || !parts"
      :brake="brake"
      :parts="parts"
      :last="record?.known?.brakes.find(b => b.parts.brake === brake) ?? null"
      @keep="put({ kind: 'brakeParts', parts: $event })"
    />
    <BrakeDiagnosis
      v-else-if="panel === 'find' && diagnosis"
      :key="brake"
      :diagnosis="diagnosis"
      :seen="here.seen"
      @saw="saw"
      @cured="cured"
    />
    <BrakeFit
      v-else-if="panel === 'fit'"
      :key="brake"
      :brake="brake"
      :state="here"
      :pads="schools.pads"
      @put="put($event)"
      @pads="put({ kind: 'schools', choice: { ...state.noted.schools, pads: $event } })"
    />
    <BrakeSums
      v-else-if="panel === 'sums'"
      v-model:let-out="letOut"
      v-model:share="share"
      v-model:wound="wound"
      v-model:worn="worn"
      v-model:rotor="rotor"
      v-model:pad="pad"
      v-model:side-gap="sideGap"
      v-model:yoke="yoke"
      v-model:apart="apart"
      v-model:over-tyre="overTyre"
      :kind="parts.kind"
      :rim="rim"
      :lever="parts.lever"
      :gap="gap"
      :bite="bite"
      :worn-bite="wornBite"
      :disc="disc.words"
      :disc-trouble="disc.trouble"
      :disc-bite="discBite"
      :straddle="straddled.view"
      :straddle-trouble="straddled.trouble"
    />
    <template #below>
      <SignGate v-if="signing" :what="signing.words" @sign="signed" @close="signing = null" />
    </template>
  </JobBench>
</template>
