<!-- The gaps at both ends of the cage's travel. The inner one is measured on the largest sprocket: L is seen first. -->
<script setup lang="ts">
import type { FrontEvent } from '#core/front/events'
import type { FrontState } from '#core/front/state'

const props = defineProps<{ state: FrontState; mayLargest: boolean; job: number }>()
const emit = defineEmits<{ put: [event: FrontEvent]; done: [] }>()
/** One figure at a time waits, so that a caliper's goes to that one alone. */
const plate = defineModel<'inner' | 'outer'>('plate', { required: true })
const plates = computed(() => {
  const { measured, innerMm, outerMm } = props.state.gaps
  const aside = (known: boolean, mm: number) => (known ? `${mm.toFixed(1)} mm` : 'not measured')
  return [
    {
      value: 'inner' as const,
      words: 'Small ring, largest sprocket: inner plate',
      aside: aside(measured.inner, innerMm),
    },
    {
      value: 'outer' as const,
      words: 'Big ring, smallest sprocket: outer plate',
      aside: aside(measured.outer, outerMm),
    },
  ]
})
const barred = computed(() => plate.value === 'inner' && !props.mayLargest)
function measured(gapMm: number) {
  emit('put', { kind: 'frontGap', plate: plate.value, gapMm })
  emit('done')
}
</script>

<template>
  <p class="text-2xl leading-tight font-bold">About 1 mm at both ends</p>
  <ChoiceRow
    v-model="plate"
    label="Which gap"
    :choices="plates"
    :columns="1"
    size="roomy"
    :centred="false"
    test="plate"
  />
  <FrontBarred v-if="barred" :job="job" />
  <FigurePad
    v-else
    :key="plate"
    :label="plate === 'inner' ? 'Inner gap' : 'Outer gap'"
    unit="mm"
    :usual="[3, 2, 1.5, 1, 0.5, 0]"
    :least="-5"
    :most="20"
    in-word="clear"
    out-word="touching"
    hint="mm, plate to chain"
    @figure="measured"
  />
  <p class="small">Cranks by hand, no finger near a moving chain.</p>
</template>
