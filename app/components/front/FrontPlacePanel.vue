<!-- Where the cage stands: its height over the teeth and its angle, by the shop's school. -->
<script setup lang="ts">
import { whyOf } from '#core/procedure/schoolWhys'
import type { FrontEvent } from '#core/front/events'
import type { FrontParts } from '#core/front/parts'
import type { FrontState } from '#core/front/state'
import { HEIGHTS } from '#core/procedure/schools'

const props = defineProps<{
  state: FrontState
  parts: FrontParts
  height: (typeof HEIGHTS)[number]
  mayLargest: boolean
  job: number
}>()
const emit = defineEmits<{ put: [event: FrontEvent]; school: [id: string]; done: [] }>()
const place = ref<'height' | 'angle'>('height')
const SCHOOLS = HEIGHTS.map(h => ({ value: h.id, words: h.name }))
const rotating = computed(() => props.parts.cage === 'rotating')
/** A cage in line with its rings is looked at with the chain on the largest sprocket: L is seen first. */
const barred = computed(() => !rotating.value && !props.mayLargest)
const places = computed(() => {
  const { heightMm, angleDeg } = props.state.position
  return [
    {
      value: 'height' as const,
      words: 'Outer plate over the big ring’s teeth',
      aside: heightMm === null ? '?' : `${heightMm.toFixed(1)} mm`,
    },
    {
      value: 'angle' as const,
      words: rotating.value ? 'Marks against the ring' : 'Plates against the rings',
      aside: angleDeg === null ? '?' : `${angleDeg.toFixed(1)}°`,
    },
  ]
})
function placed(figure: number) {
  const isHeight = place.value === 'height'
  emit('put', { kind: 'frontPosition', heightMm: isHeight ? figure : null, angleDeg: isHeight ? null : figure })
  if (isHeight) place.value = 'angle'
  else emit('done')
}
</script>

<template>
  <p class="text-2xl leading-tight font-bold">{{ height.name }} over the teeth, in line</p>
  <ChoiceRow
    :model-value="height.id"
    label="Height school"
    :choices="SCHOOLS"
    :columns="2"
    test="height"
    @update:model-value="id => id && emit('school', id)"
  />
  <p class="small">{{ whyOf('height', height.id) }}</p>
  <ChoiceRow
    v-model="place"
    label="What is measured"
    :choices="places"
    :columns="1"
    size="roomy"
    :centred="false"
    test="place"
  />
  <FrontBarred v-if="barred" :job="job" />
  <FigurePad
    v-else-if="place === 'height'"
    key="height"
    label="Height"
    unit="mm"
    :usual="[0, 1, 2, 3, 4, 6]"
    :least="-5"
    :most="25"
    in-word="touching"
    out-word="high above"
    hint="mm, plate to tips"
    :like="{ run: 'front', figure: 'front-height' }"
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
  <MeasureLink v-if="!barred && place === 'height'" what="plate" />
  <p class="small">
    Chain on the
    {{
      rotating
        ? 'big ring, the inner stop wound in to hold the cage there'
        : 'small ring and the largest sprocket, cable off'
    }}. Cranks by hand.
  </p>
</template>
