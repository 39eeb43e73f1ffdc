<!-- The front by its numbers, from a usual double or triple; each figure measured on its own. -->
<script setup lang="ts">
import { typedNumber, typedNumbers } from '#core/quantity/typed'
import { CAGES, FRONT_MOUNTS, FrontParts, PULL_WAYS, SWINGS, USUAL_FRONT } from '#core/front/parts'

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
] as const
const text = (p: FrontParts) =>
  ({
    rings: p.rings.join(' '),
    spacingMm: p.spacingMm.join(' '),
    cage: p.cage as string,
    ...Object.fromEntries([...FIELDS, ...MORE, ...PICKS].map(([k]) => [k, String(p[k] ?? '')])),
  }) as Record<string, string>
const typed = ref<Record<string, string>>(text(props.parts ?? USUAL_FRONT.double))
const errors = shallowRef<Record<string, string>>({})
function save() {
  const more = Object.fromEntries([
    ...MORE.map(([k]) => [k, typed.value[k].trim() ? typedNumber(typed.value[k]) : undefined]),
    ...PICKS.map(([k]) => [k, typed.value[k] || undefined]),
  ])
  const read = FrontParts.safeParse({
    ...more,
    rings: typedNumbers(typed.value.rings),
    spacingMm: typedNumbers(typed.value.spacingMm),
    cage: typed.value.cage,
    ...Object.fromEntries(FIELDS.map(([k]) => [k, typedNumber(typed.value[k])])),
  })
  errors.value = read.success ? {} : Object.fromEntries(read.error.issues.map(i => [String(i.path[0]), i.message]))
  if (read.success) emit('keep', read.data)
}
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="save">
    <div class="grid grid-cols-2 gap-1">
      <button
        v-for="k in ['double', 'triple'] as const"
        :key="k"
        type="button"
        class="also min-h-11! justify-center"
        :data-test="`usual-${k}`"
        @click="
          typed = text(USUAL_FRONT[k])
          save()
        "
      >
        Usual {{ k }}
      </button>
    </div>
    <div class="grid grid-cols-2 gap-2">
      <TextField v-model="typed.rings" label="Rings, teeth" mono :error="errors.rings" />
      <TextField v-model="typed.spacingMm" label="Ring to ring, mm" mono :error="errors.spacingMm" />
      <TextField
        v-for="[k, words] in FIELDS"
        :key="k"
        :model-value="typed[k]"
        :label="words"
        mono
        inputmode="decimal"
        :error="errors[k]"
        @update:model-value="typed[k] = $event"
      />
      <label class="label"
        >Cage<select v-model="typed.cage" class="field" data-test="cage">
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
          }}<select v-model="typed[k]" class="field" :data-test="`front-${k}`">
            <option value="">not noted</option>
            <option v-for="o in options" :key="o" :value="o">{{ o }}</option>
          </select></label
        >
        <TextField
          v-for="[k, words] in MORE"
          :key="k"
          :model-value="typed[k]"
          :label="words"
          mono
          inputmode="decimal"
          :error="errors[k]"
          @update:model-value="typed[k] = $event"
        />
      </div>
      <p class="small">
        Cable from ring to ring is 6 to 12 mm by family, and families do not mix: measure both at the wire. With both
        known, the advice starts from them.
      </p>
    </details>
    <button class="act justify-center" data-test="keep-front">Keep it</button>
    <p class="small">
      Spacing, chain line and trim of a usual bike are from memory, the cage is our model’s: measure them.
    </p>
  </form>
</template>
