<!-- Four places round the clock with the hanger gauge; the fit is core's. -->
<script setup lang="ts">
import { GAUGE_RADIUS_MM } from '#core/rear/gaugeRadius'
import { schemaOf } from '#core/ledger/events'
import { typedNumber } from '#core/quantity/typed'
import { fitHanger, sayFit, type HangerFit } from '#core/rear/hanger'

const emit = defineEmits<{ gauge: [fit: HangerFit] }>()
const HOURS = [12, 3, 6, 9]
type Typed = { gaps: Record<string, string>; radius: string }
const initial: Typed = { gaps: { 12: '', 3: '', 6: '', 9: '' }, radius: String(GAUGE_RADIUS_MM) }
const readings = ({ gaps }: Typed) =>
  HOURS.flatMap(hour => (gaps[hour]?.trim() ? [{ hour, gapMm: typedNumber(gaps[hour]!) }] : []))
function fitted(typed: Typed): { fit: HangerFit | null; words: string } {
  const read = readings(typed)
  if (read.length < 3)
    return { fit: null, words: 'Three or four places: gap from gauge tip to rim, wheel and gauge turned together' }
  try {
    const fit = fitHanger(read, typedNumber(typed.radius))
    return { fit, words: sayFit(fit) }
  } catch (error) {
    return { fit: null, words: (error as Error).message }
  }
}
const gauge = useEntryForm({
  initial,
  schema: schemaOf('gauge'),
  read: typed => {
    const { fit } = fitted(typed)
    return {
      kind: 'gauge',
      camberDeg: fit?.camberDeg,
      toeDeg: fit?.toeDeg,
      acrossMm: fit?.acrossMm,
      readings: readings(typed),
      radiusMm: typedNumber(typed.radius),
    }
  },
  line: (field, typed) => {
    const [part, i] = field.split('.')
    if (part === 'readings') return `gaps.${readings(typed)[Number(i)]?.hour ?? 12}`
    return part === 'radiusMm' ? 'radius' : 'gaps.12'
  },
  done: (_, typed) => emit('gauge', fitted(typed).fit!),
})
const read = gauge.form.useStore(s => fitted(s.values))
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="gauge.form.handleSubmit()">
    <div class="grid grid-cols-4 gap-2">
      <FormLine
        v-for="hour in HOURS"
        :key="hour"
        :of="gauge"
        :name="`gaps.${hour}`"
        :label="`${hour} o’clock`"
        mono
        inputmode="decimal"
        :test="`gap-${hour}`"
      />
    </div>
    <FormLine :of="gauge" name="radius" label="Bolt to gauge tip, mm" mono inputmode="decimal" />
    <p class="small" aria-live="polite">{{ read.words }}</p>
    <button class="act" :disabled="!read.fit" data-test="gauge-done">Note the hanger</button>
  </form>
</template>
