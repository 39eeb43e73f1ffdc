<!-- The front by its numbers, from a usual double or triple; each figure measured on its own. -->
<script setup lang="ts">
import { typedNumber, typedNumbers } from '#core/quantity/typed'
import { CAGES, FRONT_MOUNTS, FrontParts, PULL_WAYS, SWINGS, TENSION_BY, USUAL_FRONT } from '#core/front/parts'

const props = defineProps<{ parts: FrontParts | null }>()
const emit = defineEmits<{ keep: [parts: FrontParts] }>()
const FIELDS = [
  ['chainLineMm', 'Chain line, mm'],
  ['rearLineMm', 'Cassette’s line, mm'],
  ['chainstayMm', 'Chainstay, mm'],
  ['cageWidthMm', 'Cage, inside, mm'],
  ['cageBehindMm', 'Cage behind axle, mm'],
  ['trimMm', 'Trim a click, mm'],
  ['capacityTeeth', 'Capacity, teeth'],
] as const
/** May be left empty: what was not read off is not noted. */
const MORE = [
  ['largestTeeth', 'Largest ring it takes'],
  ['leverPullMm', 'Lever pulls, mm'],
  ['wantedPullMm', 'Derailleur wants, mm'],
] as const
const PICKS = [
  ['mount', 'Mount', FRONT_MOUNTS],
  ['pullWay', 'Wire comes', PULL_WAYS],
  ['swing', 'Swings', SWINGS],
  ['tensionBy', 'Tension by', TENSION_BY],
] as const
type Typed = Record<string, string>
const text = (p: FrontParts): Typed => ({
  rings: p.rings.join(' '),
  spacingMm: p.spacingMm.join(' '),
  cage: p.cage,
  ...Object.fromEntries([...FIELDS, ...MORE, ...PICKS].map(([k]) => [k, String(p[k] ?? '')])),
})
const front = useEntryForm({
  initial: text(props.parts ?? USUAL_FRONT.double),
  schema: FrontParts,
  read: typed => ({
    ...Object.fromEntries([
      ...FIELDS.map(([k]) => [k, typedNumber(typed[k]!)]),
      ...MORE.map(([k]) => [k, typed[k]!.trim() ? typedNumber(typed[k]!) : undefined]),
      ...PICKS.map(([k]) => [k, typed[k] || undefined]),
    ]),
    rings: typedNumbers(typed.rings!),
    spacingMm: typedNumbers(typed.spacingMm!),
    cage: typed.cage,
  }),
  line: field => field.split('.')[0]!,
  done: parts => emit('keep', parts),
})
const { form } = front
const typed = form.useStore(s => s.values)
function usual(k: 'double' | 'triple') {
  form.reset(text(USUAL_FRONT[k]))
  void form.handleSubmit()
}
const chose = (field: string, event: Event) => form.setFieldValue(field, (event.target as HTMLSelectElement).value)
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
    <div class="grid grid-cols-2 gap-1">
      <button
        v-for="k in ['double', 'triple'] as const"
        :key="k"
        type="button"
        class="also min-h-11! justify-center"
        :data-test="`usual-${k}`"
        @click="usual(k)"
      >
        Usual {{ k }}
      </button>
    </div>
    <div class="grid grid-cols-2 gap-2">
      <FormLine :of="front" name="rings" label="Rings, teeth" mono />
      <FormLine :of="front" name="spacingMm" label="Ring to ring, mm" mono />
      <FormLine v-for="[k, words] in FIELDS" :key="k" :of="front" :name="k" :label="words" mono inputmode="decimal" />
      <label class="label"
        >Cage<select class="field" :value="typed.cage" data-test="cage" @change="chose('cage', $event)">
          <option v-for="c in CAGES" :key="c" :value="c">{{ c }}</option>
        </select></label
      >
    </div>
    <details class="border-t border-rule pt-1">
      <summary class="min-h-11 cursor-pointer py-2 font-semibold" data-test="front-more">
        Mount, pull, largest ring
      </summary>
      <div class="grid grid-cols-2 gap-2">
        <label v-for="[k, words, options] in PICKS" :key="k" class="label"
          >{{ words
          }}<select class="field" :value="typed[k]" :data-test="`front-${k}`" @change="chose(k, $event)">
            <option value="">not noted</option>
            <option v-for="o in options" :key="o" :value="o">{{ o }}</option>
          </select></label
        >
        <FormLine v-for="[k, words] in MORE" :key="k" :of="front" :name="k" :label="words" mono inputmode="decimal" />
      </div>
      <p class="small">
        Cable from ring to ring is 6 to 12 mm by family, and families do not mix: measure both at the wire. With both
        known, the advice starts from them.
      </p>
    </details>
    <p v-if="front.trouble.value" class="wrong" role="alert">{{ front.trouble.value }}</p>
    <button class="act justify-center" data-test="keep-front">Keep it</button>
    <p class="small">
      Spacing, chain line and trim of a usual bike are from memory, the cage is our model’s: measure them.
    </p>
  </form>
</template>
