<!-- The front by its numbers, from a usual double or triple; each figure measured on its own. -->
<script setup lang="ts">
import { typedNumber, typedNumbers } from '#core/quantity/typed'
import { CAGES, FrontParts, USUAL_FRONT } from '#core/front/parts'

const props = defineProps<{ parts: FrontParts | null }>()
const emit = defineEmits<{ keep: [parts: FrontParts] }>()
const FIELDS = [['chainLineMm', 'Chain line, mm'], ['rearLineMm', 'Cassette’s line, mm'], ['chainstayMm', 'Chainstay, mm'], ['cageWidthMm', 'Cage, inside, mm'], ['cageBehindMm', 'Cage behind the axle, mm'], ['trimMm', 'Trim a click, mm'], ['capacityTeeth', 'Capacity, teeth']] as const
const text = (p: FrontParts) => ({ rings: p.rings.join(' '), spacingMm: p.spacingMm.join(' '), cage: p.cage as string, ...Object.fromEntries(FIELDS.map(([k]) => [k, String(p[k])])) }) as Record<string, string>
const typed = ref<Record<string, string>>(text(props.parts ?? USUAL_FRONT.double))
const errors = shallowRef<Record<string, string>>({})
function save() {
  const read = FrontParts.safeParse({ rings: typedNumbers(typed.value.rings), spacingMm: typedNumbers(typed.value.spacingMm), cage: typed.value.cage, ...Object.fromEntries(FIELDS.map(([k]) => [k, typedNumber(typed.value[k])])) })
  errors.value = read.success ? {} : Object.fromEntries(read.error.issues.map(i => [String(i.path[0]), i.message]))
  if (read.success) emit('keep', read.data)
}
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="save">
    <div class="grid grid-cols-2 gap-1"><button v-for="k in (['double', 'triple'] as const)" :key="k" type="button" class="also min-h-11! justify-center" :data-test="`usual-${k}`" @click="typed = text(USUAL_FRONT[k]); save()">Usual {{ k }}</button></div>
    <div class="grid grid-cols-2 gap-2">
      <TextField v-model="typed.rings" label="Rings, teeth" mono :error="errors.rings" />
      <TextField v-model="typed.spacingMm" label="Ring to ring, mm" mono :error="errors.spacingMm" />
      <TextField v-for="[k, words] in FIELDS" :key="k" :model-value="typed[k]" :label="words" mono inputmode="decimal" :error="errors[k]" @update:model-value="typed[k] = $event" />
      <label class="label">Cage<select v-model="typed.cage" class="field" data-test="cage"><option v-for="c in CAGES" :key="c" :value="c">{{ c }}</option></select></label>
    </div>
    <button class="act justify-center" data-test="keep-front">Keep it</button>
    <p class="small">Spacing, chain line and trim of a usual bike are from memory, the cage is our model’s: measure them.</p>
  </form>
</template>
