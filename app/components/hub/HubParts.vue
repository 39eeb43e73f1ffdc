<!-- The hub by its numbers: from the table, or its own ratios; ring and sprocket of this bike; which end is slack, recorded. -->
<script setup lang="ts">
import { HUB_WAY_WORDS, HUB_WAYS, HubParts, USUAL_HUBS } from '#core/hub/kinds'
import { typedNumber, typedNumbers } from '#core/quantity/typed'

const props = defineProps<{ parts: HubParts | null; last: HubParts | null }>()
const emit = defineEmits<{ keep: [parts: HubParts] }>()
const text = (p: HubParts) =>
  ({
    ratios: p.ratios.join(' '),
    ringTeeth: String(p.ringTeeth),
    sprocketTeeth: String(p.sprocketTeeth),
    referenceGear: String(p.referenceGear),
  }) as Record<string, string>
const base = ref<HubParts>(props.parts ?? USUAL_HUBS[0]!.parts)
const typed = ref(text(base.value))
const errors = shallowRef<Record<string, string>>({})
function usual(id: string) {
  const found = USUAL_HUBS.find(h => h.id === id)
  if (!found) return void (base.value = { ...base.value, standard: null })
  base.value = {
    ...found.parts,
    ringTeeth: base.value.ringTeeth,
    sprocketTeeth: base.value.sprocketTeeth,
    derailleur: base.value.derailleur,
  }
  typed.value = { ...text(found.parts), ringTeeth: typed.value.ringTeeth, sprocketTeeth: typed.value.sprocketTeeth }
}
function save() {
  const ratios = typedNumbers(typed.value.ratios)
  const read = HubParts.safeParse({
    ...base.value,
    standard:
      ratios.join() === USUAL_HUBS.find(h => h.id === base.value.standard)?.parts.ratios.join()
        ? base.value.standard
        : null,
    ratios,
    ringTeeth: typedNumber(typed.value.ringTeeth),
    sprocketTeeth: typedNumber(typed.value.sprocketTeeth),
    referenceGear: typedNumber(typed.value.referenceGear),
  })
  errors.value = read.success ? {} : Object.fromEntries(read.error.issues.map(i => [String(i.path[0]), i.message]))
  if (read.success) emit('keep', read.data)
}
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="save">
    <p class="text-2xl leading-tight font-bold">What hub is it?</p>
    <button v-if="last && !parts" type="button" class="also" data-test="hub-last" @click="emit('keep', last)">
      As it left last time: {{ last.ratios.length }} gears, {{ last.ringTeeth }} × {{ last.sprocketTeeth }}
    </button>
    <label class="label"
      >From the table<select
        class="field"
        :value="base.standard ?? ''"
        data-test="hub-usual"
        @change="usual(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="h in USUAL_HUBS" :key="h.id" :value="h.id">{{ h.title }}</option>
        <option value="">By its own ratios</option>
      </select></label
    >
    <label v-if="base.standard === null" class="label"
      >Set by<select v-model="base.way" class="field" data-test="hub-way">
        <option v-for="w in HUB_WAYS" :key="w" :value="w">{{ HUB_WAY_WORDS[w] }}</option>
      </select></label
    >
    <div class="grid grid-cols-3 gap-2">
      <TextField v-model="typed.ringTeeth" label="Ring" mono inputmode="numeric" :error="errors.ringTeeth" />
      <TextField
        v-model="typed.sprocketTeeth"
        label="Sprocket"
        mono
        inputmode="numeric"
        :error="errors.sprocketTeeth"
      />
      <TextField
        v-if="base.way !== 'twin'"
        v-model="typed.referenceGear"
        label="Set in gear"
        mono
        inputmode="numeric"
        :error="errors.referenceGear"
      />
    </div>
    <TextField v-model="typed.ratios" label="Ratios, lowest first" mono :error="errors.ratios" />
    <div v-if="base.way !== 'twin'">
      <p class="label mb-1!">Cable let go, the hub goes to its</p>
      <div class="grid grid-cols-2 gap-1">
        <button
          v-for="s in ['lowest', 'highest'] as const"
          :key="s"
          type="button"
          class="also min-h-11! justify-center"
          :class="{ 'bg-act! text-act-ink!': base.slackest === s }"
          :aria-pressed="base.slackest === s"
          :data-test="`slackest-${s}`"
          @click="base = { ...base, slackest: s }"
        >
          {{ s }} gear
        </button>
      </div>
    </div>
    <button
      type="button"
      class="also min-h-11!"
      :class="{ 'bg-act! text-act-ink!': base.derailleur }"
      :aria-pressed="base.derailleur"
      data-test="hub-derailleur"
      @click="base = { ...base, derailleur: !base.derailleur }"
    >
      A small derailleur shares the wheel
    </button>
    <button class="act justify-center" data-test="keep-hub">Keep it</button>
    <p class="small">
      Ratios are from memory; which end is slack differs by hub: look, it is recorded for this one. The maker’s
      instructions win.
    </p>
  </form>
</template>
