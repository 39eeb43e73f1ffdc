<!-- The gaps at both ends of the cage's travel, as it stands or on each stop by itself. The inner one is measured on
     the largest sprocket: L is seen first. -->
<script setup lang="ts">
import { mostGapMm } from '#core/front/endGaps'
import type { FrontEvent } from '#core/front/events'
import type { FrontState } from '#core/front/state'
import type { END_GAPS } from '#core/procedure/schools'

export type GapAsked = { plate: 'inner' | 'outer'; byStop: boolean }
const props = defineProps<{
  state: FrontState
  mayLargest: boolean
  job: number
  school: (typeof END_GAPS)[number]
  /** What the next move asks for, if it asks for a gap. */
  asked: GapAsked | null
}>()
const emit = defineEmits<{ put: [event: FrontEvent]; done: [] }>()
/** One figure at a time waits, so that a caliper's goes to that one alone. */
const gap = ref<'inner' | 'outer' | 'L' | 'H'>('inner')
watch(
  () => props.asked,
  a => {
    if (a) gap.value = a.byStop ? (a.plate === 'inner' ? 'L' : 'H') : a.plate
  },
  { immediate: true },
)
const plate = computed(() => (gap.value === 'inner' || gap.value === 'L' ? 'inner' : 'outer'))
const byStop = computed(() => gap.value === 'L' || gap.value === 'H')
const gaps = computed(() => {
  const { gaps: as, byStop: alone } = props.state
  const aside = (mm: number | null) => (mm === null ? 'not measured' : `${mm.toFixed(1)} mm`)
  return [
    { value: 'L' as const, words: 'L by itself, cable slack', aside: aside(alone.inner) },
    { value: 'H' as const, words: 'H by itself, wire drawn', aside: aside(alone.outer) },
    { value: 'inner' as const, words: 'As it stands, inner', aside: aside(as.measured.inner ? as.innerMm : null) },
    { value: 'outer' as const, words: 'As it stands, outer', aside: aside(as.measured.outer ? as.outerMm : null) },
  ]
})
const WHERE = {
  inner: 'Small ring, largest sprocket: inner plate to chain.',
  outer: 'Big ring, smallest sprocket: outer plate to chain.',
} as const
const MEASURED_AS = { inner: 'innerGap', outer: 'outerGap', L: 'innerStop', H: 'outerStop' } as const
const barred = computed(() => plate.value === 'inner' && !props.mayLargest)
function measured(gapMm: number) {
  emit('put', { kind: 'frontGap', plate: plate.value, gapMm, ...(byStop.value ? { byStop: true } : {}) })
  emit('done')
}
</script>

<template>
  <p class="text-2xl leading-tight font-bold">{{ school.name }} at both ends</p>
  <ChoiceRow v-model="gap" label="Which gap" :choices="gaps" :columns="1" size="roomy" :centred="false" test="plate" />
  <p data-test="gap-where">{{ WHERE[plate] }}</p>
  <FrontBarred v-if="barred" :job="job" />
  <FigurePad
    v-else
    :key="gap"
    :label="plate === 'inner' ? 'Inner gap' : 'Outer gap'"
    unit="mm"
    :usual="[4, 3, 2, 1.5, 1, 0.5, 0]"
    :least="0"
    :most="byStop || !state.parts ? 20 : mostGapMm(state.parts)"
    in-word="clear"
    out-word="touching"
    hint="mm, plate to chain"
    :like="byStop ? undefined : { run: 'front', figure: `front-${plate}` }"
    @figure="measured"
  />
  <MeasureLink v-if="!barred" :what="MEASURED_AS[gap]" />
  <p class="small">Cranks by hand, no finger near a moving chain.</p>
</template>
