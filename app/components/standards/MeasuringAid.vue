<!-- Measures parts nobody knows: what was read, what it may be, what to measure next. Emits the drivetrain's lines. -->
<script setup lang="ts">
import type { PartsOfShop } from '#core/standards/partsOfShop'
import { sayChance } from '#core/quantity/chance'
import { identify, type Candidate } from '#core/standards/identify'
import {
  INSTRUMENTS,
  MEASUREMENT_RULES,
  MEASUREMENTS,
  readingOf,
  readTyped,
  type Instrument,
  type Measurement,
  type Readings,
} from '#core/standards/measuring'
import { givesNumbers, measuredParts, placesOf, sayMeasured } from '#core/rear/measuredParts'
import type { TypedParts } from '#core/rear/typedParts'
import type { EntryInForce } from '#core/standards/shopValues'

const props = defineProps<{ parts: PartsOfShop; catalogue: readonly EntryInForce[]; useWords: string }>()
const emit = defineEmits<{ use: [change: Partial<TypedParts>] }>()
type Of = 'shifter' | 'derailleur' | 'cassette'
const GROUPS: readonly { of: Of; title: string }[] = [
  { of: 'shifter', title: 'Shifter' },
  { of: 'derailleur', title: 'Derailleur' },
  { of: 'cassette', title: 'Cassette and chain' },
]
const text = reactive(Object.fromEntries(MEASUREMENTS.map(m => [m, ''])) as Record<Measurement, string>)
const instrument = reactive(
  Object.fromEntries(
    MEASUREMENTS.map(m => [m, m === 'cableAllMm' || m === 'pulleyMm' || m === 'pulledMm' ? 'ruler' : 'caliper']),
  ) as Record<Measurement, Instrument>,
)
const active = ref<Measurement>('cableAllMm')

const read = computed(
  () =>
    Object.fromEntries(MEASUREMENTS.map(m => [m, readTyped(m, text[m])])) as Record<
      Measurement,
      ReturnType<typeof readTyped>
    >,
)
const readings = computed<Readings>(() =>
  Object.fromEntries(
    MEASUREMENTS.flatMap(m => {
      const r = read.value[m]
      return r.is === 'values'
        ? [[m, { values: r.values, sd: MEASUREMENT_RULES[m].counted ? 0 : INSTRUMENTS[instrument[m]].sdMm }]]
        : []
    }),
  ),
)
const found = computed(() => identify(props.parts, readings.value))
const anything = computed(() => Object.keys(readings.value).length > 0)

/** A caliper types its figure and Enter: the figure is one more repeat of the measurement in hand. */
const addRepeat = (m: Measurement, figure: string) => {
  text[m] = MEASUREMENT_RULES[m].counted ? figure : `${text[m]} ${figure}`.trim()
}
useFigureTyped(text => addRepeat(active.value, text))
useBenchKeys(() => ({}))
/** Enter ends a figure: a space follows, ready for the next repeat. */
function entered(m: Measurement, event: KeyboardEvent) {
  event.preventDefault()
  if (text[m].trim() && !MEASUREMENT_RULES[m].counted) text[m] = `${text[m].trim()} `
}

const places = computed(() => placesOf(props.parts))
const rules = computed(() => {
  const chance = (of: Of, id: string) =>
    found.value[of].is === 'nothing' ? 0 : (found.value[of].candidates.find(c => c.ids.includes(id))?.chance ?? 0)
  const along = (of: Of) => places.value[of].map(p => ({ ...p, chance: chance(of, p.id) }))
  const { cableAllMm, stackMm } = readings.value
  return {
    shifter: {
      title: 'Cable over all clicks',
      unit: 'mm',
      digits: 1,
      reading: cableAllMm ? readingOf(cableAllMm) : null,
      parts: along('shifter'),
    },
    derailleur: {
      title: 'Pull ratio, pulley ÷ cable',
      unit: '',
      digits: 3,
      reading: found.value.ratio,
      parts: along('derailleur'),
    },
    cassette: {
      title: 'Stack, outer face to outer face',
      unit: 'mm',
      digits: 1,
      reading: stackMm ? readingOf(stackMm) : null,
      parts: along('cassette'),
    },
  }
})

const say = (c: Candidate) => c.names.join(' or ')
function verdict(of: Of): string {
  const a = found.value[of]
  if (a.is === 'nothing') return 'not measured'
  if (a.is === 'none') return `None of these${a.nearest ? `; nearest ${say(a.nearest)}` : ''}`
  if (a.is === 'named') return `${say(a.apart[0])}, ${sayChance(a.apart[0].chance)} sure`
  if (a.apart.length === 1)
    return `Likely ${say(a.apart[0]!)}, ${sayChance(a.apart[0]!.chance)}: measure finer, or once more`
  return `Cannot tell apart: ${a.apart.slice(0, 4).map(say).join(', ')}${a.apart.length > 4 ? ` and ${a.apart.length - 4} more` : ''}`
}

const usable = computed(() => measuredParts(props.catalogue, found.value, readings.value))
const canUse = computed(() => givesNumbers(usable.value))
const gives = computed(() => sayMeasured(usable.value))
function clear() {
  for (const m of MEASUREMENTS) text[m] = ''
}
const mm = (m: Measurement) => {
  const r = readings.value[m]
  if (!r || r.values.length < 2) return ''
  const { mean, sd } = readingOf(r)
  return `mean ${mean.toFixed(2)} ± ${sd.toFixed(2)}`
}
</script>

<template>
  <div class="grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)]">
    <section class="grid content-start gap-5" aria-label="What was read">
      <fieldset v-for="g in GROUPS" :key="g.of">
        <legend class="text-lg font-bold">{{ g.title }}</legend>
        <div class="grid gap-x-4 gap-y-2 sm:grid-cols-2">
          <div v-for="m in MEASUREMENTS.filter(x => MEASUREMENT_RULES[x].of === g.of)" :key="m" class="min-w-0">
            <div class="flex min-h-9 items-end justify-between gap-2">
              <label class="label leading-tight" :for="`m-${m}`">{{ MEASUREMENT_RULES[m].what }}</label>
              <button
                v-if="!MEASUREMENT_RULES[m].counted"
                type="button"
                class="-my-1 min-h-11 shrink-0 px-1 text-sm whitespace-nowrap text-soft underline underline-offset-4"
                :data-test="`with-${m}`"
                :aria-label="`${MEASUREMENT_RULES[m].what}: measured with a ${INSTRUMENTS[instrument[m]].words}, change`"
                @click="instrument[m] = instrument[m] === 'ruler' ? 'caliper' : 'ruler'"
              >
                {{ INSTRUMENTS[instrument[m]].words }} ±{{ INSTRUMENTS[instrument[m]].sdMm }}
              </button>
            </div>
            <input
              :id="`m-${m}`"
              v-model="text[m]"
              class="field figure text-lg"
              :inputmode="MEASUREMENT_RULES[m].counted ? 'numeric' : 'decimal'"
              autocomplete="off"
              :aria-invalid="read[m].is === 'wrong' ? 'true' : undefined"
              :data-test="m"
              @focus="active = m"
              @keydown.enter="entered(m, $event)"
            />
            <p v-if="read[m].is === 'wrong'" class="mt-1 text-sm font-semibold text-stop">
              {{ (read[m] as { words: string }).words }}
            </p>
            <p v-else-if="mm(m)" class="small figure mt-1">{{ mm(m) }}</p>
            <p v-else-if="active === m" class="small mt-1">{{ MEASUREMENT_RULES[m].how }}</p>
          </div>
        </div>
      </fieldset>
      <p class="small">
        Type a figure, or let the caliper type it; Enter, and the next one is a repeat. Repeats narrow the answer.
      </p>
    </section>
    <section class="grid content-start gap-4" aria-label="What it may be">
      <div v-for="g in GROUPS" :key="g.of" :data-test="`answer-${g.of}`">
        <p
          class="mb-1 text-xl leading-tight font-bold"
          :class="{
            'text-soft font-semibold!': found[g.of].is === 'nothing',
            'text-clean': found[g.of].is === 'named',
            'text-stop': found[g.of].is === 'none',
          }"
          role="status"
        >
          {{ g.of === 'cassette' ? 'Cassette' : g.title }}: {{ verdict(g.of) }}
        </p>
        <div class="mat p-1"><FamilyRule v-bind="rules[g.of]" /></div>
        <ul v-if="found[g.of].is !== 'nothing'" class="figure mt-1 flex flex-wrap gap-x-5 text-[0.9375rem]">
          <li v-for="c in found[g.of].candidates.slice(0, 4).filter(x => x.chance >= 0.005)" :key="c.ids[0]">
            {{ say(c) }} <b>{{ sayChance(c.chance) }}</b>
          </li>
          <li :class="{ 'text-soft': found[g.of].none < 0.5 }">
            none of these <b>{{ sayChance(found[g.of].none) }}</b>
          </li>
        </ul>
      </div>
      <p v-if="found.next" class="border-l-[6px] border-ink pl-3" data-test="next">
        Next: <b>{{ MEASUREMENT_RULES[found.next.measure].what.toLowerCase() }}</b>. It tells
        {{ found.next.between.join(', ') }} apart.
        <span class="small">{{ MEASUREMENT_RULES[found.next.measure].how }}</span>
      </p>
      <p v-else-if="found.derailleur.is === 'apart'" class="border-l-[6px] border-ink pl-3" data-test="next">
        Next: <b>measure both travels again</b>, over more clicks: each repeat narrows the ratio.
      </p>
      <div v-if="anything" class="grid gap-2 border-t border-rule pt-3">
        <p v-if="canUse" class="figure font-semibold" data-test="gives">{{ gives }}</p>
        <p v-else class="text-soft">Count the clicks or sprockets too, and the numbers can be used.</p>
        <slot name="use"
          ><button type="button" class="act" :disabled="!canUse" data-test="use" @click="emit('use', usable)">
            {{ useWords }}
          </button></slot
        >
        <slot name="more" :usable="usable" :can-use="canUse" />
        <button type="button" class="quiet justify-self-start" @click="clear">Start again</button>
      </div>
    </section>
  </div>
</template>
