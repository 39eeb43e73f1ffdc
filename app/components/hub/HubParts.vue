<!-- The hub by its numbers: from the table, or its own ratios; ring and sprocket of this bike; which end is slack,
     recorded. -->
<script setup lang="ts">
import { HUB_WAY_WORDS, HUB_WAYS, HubParts, usualHubs, type HubWay } from '#core/hub/kinds'
import { typedNumber, typedNumbers } from '#core/quantity/typed'

const props = defineProps<{ parts: HubParts | null; last: HubParts | null }>()
const emit = defineEmits<{ keep: [parts: HubParts] }>()
const { standards } = storeToRefs(useLedger())
const hubs = computed(() => usualHubs(standards.value))
const ENDS = (['lowest', 'highest'] as const).map(value => ({ value, words: `${value} gear` }))
const text = (p: HubParts) => ({
  standard: p.standard ?? '',
  way: p.way,
  slackest: p.slackest,
  derailleur: p.derailleur,
  ratios: p.ratios.join(' '),
  ringTeeth: String(p.ringTeeth),
  sprocketTeeth: String(p.sprocketTeeth),
  referenceGear: String(p.referenceGear),
})
type Typed = ReturnType<typeof text>
/** Ratios typed otherwise than the table's are this hub's own. */
function standardOf(typed: Typed): string | null {
  const listed = hubs.value.find(h => h.id === typed.standard)
  return listed && typedNumbers(typed.ratios).join() === listed.parts.ratios.join() ? listed.id : null
}
const hub = useEntryForm({
  initial: text(props.parts ?? hubs.value[0]!.parts),
  schema: HubParts,
  read: (typed: Typed) => ({
    standard: standardOf(typed),
    way: typed.way,
    slackest: typed.slackest,
    derailleur: typed.derailleur,
    ratios: typedNumbers(typed.ratios),
    ringTeeth: typedNumber(typed.ringTeeth),
    sprocketTeeth: typedNumber(typed.sprocketTeeth),
    referenceGear: typedNumber(typed.referenceGear),
  }),
  line: field => field.split('.')[0]!,
  done: parts => emit('keep', parts),
})
const { form } = hub
const typed = form.useStore(s => s.values)
/** Another row of the table: ring, sprocket and the derailleur beside it are the bike's own, and stay. */
function usual(id: string) {
  const found = hubs.value.find(h => h.id === id)
  form.setFieldValue('standard', found?.id ?? '')
  if (!found) return
  const { ratios, way, slackest, referenceGear } = text(found.parts)
  form.setFieldValue('ratios', ratios)
  form.setFieldValue('way', way)
  form.setFieldValue('slackest', slackest)
  form.setFieldValue('referenceGear', referenceGear)
}
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
    <p class="text-2xl leading-tight font-bold">What hub is it?</p>
    <button v-if="last && !parts" type="button" class="also" data-test="hub-last" @click="emit('keep', last)">
      As it left last time: {{ last.ratios.length }} gears, {{ last.ringTeeth }} × {{ last.sprocketTeeth }}
    </button>
    <label class="label"
      >From the table<select
        class="field"
        :value="typed.standard"
        data-test="hub-usual"
        @change="usual(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="h in hubs" :key="h.id" :value="h.id">{{ h.title }}</option>
        <option value="">By its own ratios</option>
      </select></label
    >
    <label v-if="typed.standard === ''" class="label"
      >Set by<select
        class="field"
        :value="typed.way"
        data-test="hub-way"
        @change="form.setFieldValue('way', ($event.target as HTMLSelectElement).value as HubWay)"
      >
        <option v-for="w in HUB_WAYS" :key="w" :value="w">{{ HUB_WAY_WORDS[w] }}</option>
      </select></label
    >
    <div class="grid grid-cols-3 gap-2">
      <FormLine :of="hub" name="ringTeeth" label="Ring" mono inputmode="numeric" />
      <FormLine :of="hub" name="sprocketTeeth" label="Sprocket" mono inputmode="numeric" />
      <FormLine
        v-if="typed.way !== 'twin'"
        :of="hub"
        name="referenceGear"
        label="Set in gear"
        mono
        inputmode="numeric"
      />
    </div>
    <FormLine :of="hub" name="ratios" label="Ratios, lowest first" mono />
    <div v-if="typed.way !== 'twin'">
      <p class="label mb-1!">Cable let go, the hub goes to its</p>
      <ChoiceRow
        :model-value="typed.slackest"
        label="Cable let go, the hub goes to its"
        :choices="ENDS"
        test="slackest"
        @update:model-value="s => s && form.setFieldValue('slackest', s)"
      />
    </div>
    <button
      type="button"
      class="also min-h-11!"
      :class="{ chosen: typed.derailleur }"
      :aria-pressed="typed.derailleur"
      data-test="hub-derailleur"
      @click="form.setFieldValue('derailleur', !typed.derailleur)"
    >
      A small derailleur shares the wheel
    </button>
    <p v-if="hub.trouble.value" class="wrong" role="alert">{{ hub.trouble.value }}</p>
    <button class="act justify-center" data-test="keep-hub">Keep it</button>
    <p class="small">
      Ratios are from memory unless measured here; which end is slack differs by hub: look, it is recorded for this one.
      The maker’s instructions win.
    </p>
  </form>
</template>
