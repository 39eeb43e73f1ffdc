<!-- Four places round the clock with the hanger gauge; the fit is core's. -->
<script setup lang="ts">
import { typedNumber } from '#core/quantity/typed'
import { fitHanger, type HangerFit } from '#core/rear/hanger'

const emit = defineEmits<{ gauge: [fit: HangerFit] }>()
const gaps = reactive<Record<number, string>>({ 12: '', 3: '', 6: '', 9: '' })
const radius = ref('311')
const read = computed<{ fit: HangerFit | null; words: string }>(() => {
  const readings = Object.entries(gaps).flatMap(([hour, text]) =>
    text.trim() === '' ? [] : [{ hour: Number(hour), gapMm: typedNumber(text) }],
  )
  if (readings.length < 3)
    return { fit: null, words: 'Three or four places: gap from gauge tip to rim, wheel and gauge turned together' }
  if (readings.some(r => r.gapMm > 150)) return { fit: null, words: 'A gap over 150 mm is not one: check the figure' }
  try {
    const fit = fitHanger(readings, typedNumber(radius.value))
    return {
      fit,
      words: `${fit.acrossMm.toFixed(1)} mm across, camber ${fit.camberDeg.toFixed(1)}°, toe ${fit.toeDeg.toFixed(1)}°`,
    }
  } catch (error) {
    return { fit: null, words: (error as Error).message }
  }
})
</script>

<template>
  <form class="grid gap-2" @submit.prevent="read.fit && emit('gauge', read.fit)">
    <div class="grid grid-cols-4 gap-2">
      <label v-for="hour in [12, 3, 6, 9]" :key="hour" class="small"
        >{{ hour }} o’clock<input
          v-model="gaps[hour]"
          class="field figure"
          inputmode="decimal"
          autocomplete="off"
          :data-test="`gap-${hour}`"
      /></label>
    </div>
    <label class="small flex items-center gap-2"
      >Bolt to gauge tip, mm <input v-model="radius" class="field figure max-w-24" inputmode="decimal"
    /></label>
    <p class="small" aria-live="polite">{{ read.words }}</p>
    <button class="act" :disabled="!read.fit" data-test="gauge-done">Note the hanger</button>
  </form>
</template>
