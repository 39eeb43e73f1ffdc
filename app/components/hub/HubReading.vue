<!-- One figure read in the setting gear: rod, marks or play. -->
<script setup lang="ts">
import type { HubParts } from '#core/hub/kinds'
import { FIGURE_OF_WAY, READING_WORDS } from '#core/hub/words'

const props = defineProps<{ parts: HubParts }>()
const emit = defineEmits<{ read: [mm: number] }>()
const USUAL: Record<HubParts['way'], readonly number[]> = {
  rod: [-1, 0, 1, 2, 3, 4],
  marks: [-3, -2, -1, 0, 1, 2, 3],
  twin: [0, 1, 2, 4, 6, 10],
}
const ENDS: Record<HubParts['way'], [string, string]> = {
  rod: ['inside the axle', 'far out'],
  marks: ['slack', 'tight'],
  twin: ['no play', 'much'],
}
</script>

<template>
  <FigurePad
    :label="READING_WORDS[props.parts.way]"
    unit="mm"
    :usual="USUAL[parts.way]"
    :signed="parts.way === 'rod'"
    :least="-20"
    :most="40"
    :zero-word="parts.way === 'marks' ? 'line' : '0'"
    :in-word="ENDS[parts.way][0]"
    :out-word="ENDS[parts.way][1]"
    :hint="parts.way === 'marks' ? 'mm, + too tight' : 'mm'"
    :like="{ run: 'hub', figure: FIGURE_OF_WAY[parts.way] }"
    @figure="emit('read', $event)"
  />
  <MeasureLink v-if="parts.way !== 'twin'" :what="parts.way" />
</template>
