<!-- Who brings it: a customer known here with their bikes, or a new one by the name that is typed. -->
<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { refDebounced } from '@vueuse/core'
import { FoundBike } from '#core/http/door'
import { useLatest } from '~/workers/latest'

/** One that is known: a bike of theirs, or another that was never here. */
export type Brought = { customer: FoundBike['customer']; bike: FoundBike | null }

const name = defineModel<string>({ required: true })
withDefaults(
  defineProps<{
    zone: string
    error: string | null
    label?: string
    /** A bike is looked for, not somebody who brings one. */
    bikesOnly?: boolean
  }>(),
  { label: 'Who brings it' },
)
const emit = defineEmits<{ pick: [brought: Brought]; here: [job: number] }>()
const id = useId()
const asked = refDebounced(
  computed(() => (name.value.trim().length >= 2 ? name.value.trim() : null)),
  180,
)
const Found = FoundBike.array()
const { answer } = useLatest(asked, async q => ask(Found, `/api/bikes?q=${encodeURIComponent(q)}`))
/** Customers as found, each with their bikes. */
const people = computed(() => {
  const told = answer.value.value
  if (!name.value.trim() || told?.is !== 'done') return []
  const by = new Map<string, FoundBike[]>()
  for (const f of told.value) by.set(f.customer.id, [...(by.get(f.customer.id) ?? []), f])
  // choices are made here, once an answer: made anew at each drawing they would be new choices each time
  return [...by.values()].slice(0, 4).map(bikes => {
    const { customer } = bikes[0]!
    return { customer, bikes: bikes.map(bike => ({ customer, bike })), another: { customer, bike: null } }
  })
})
type Choice = Brought | null
function go(to: Choice) {
  if (!to) return
  if (to.bike?.open) emit('here', to.bike.open.number)
  else emit('pick', to)
}
const aside = (f: FoundBike, zone: string) =>
  f.open
    ? `here now, tag ${f.open.tag}: open its job`
    : [f.bike.frameNumber, f.last ? `last here ${sayWhen(f.last.closedAt, zone)}` : ''].filter(Boolean).join(', ')
</script>

<template>
  <div>
    <!-- nullable, and no Tab for it: to move on is not to choose; only Enter or a touch is -->
    <Combobox :model-value="null as Choice" nullable @update:model-value="go">
      <label class="label" :for="id">{{ label }}</label>
      <ComboboxInput
        :id="id"
        class="field"
        autocomplete="off"
        autofocus
        placeholder="Name, phone, bike or frame number"
        :aria-invalid="error ? 'true' : undefined"
        :aria-describedby="error ? `${id}-error` : undefined"
        :display-value="() => name"
        data-test="who"
        @keydown.tab.capture.stop
        @change="name = $event.target.value"
      />
      <p v-if="error" :id="`${id}-error`" class="wrong mt-1">{{ error }}</p>
      <ComboboxOptions
        v-if="people.length"
        static
        as="ul"
        class="mt-1 max-h-64 overflow-auto rounded-md border-2 border-rule bg-panel wrap-anywhere"
        data-test="brought"
      >
        <template v-for="p in people" :key="p.customer.id">
          <li class="px-3 pt-2 text-[0.9375rem]">
            <b>{{ p.customer.name }}</b> <span class="text-soft">{{ p.customer.contact }}</span>
          </li>
          <ComboboxOption v-for="b in p.bikes" :key="b.bike.bike.id" v-slot="{ active }" as="template" :value="b">
            <li
              class="grid min-h-11 cursor-pointer content-center px-3 pl-7 leading-tight"
              :class="{ 'bg-ground': active }"
              :data-test="`bring-${b.bike.bike.frameNumber || b.bike.bike.name}`"
            >
              <span
                ><b class="mr-2 font-semibold">{{ b.bike.bike.name }}</b
                ><span class="text-soft text-[0.9375rem]">{{ aside(b.bike, zone) }}</span></span
              >
            </li>
          </ComboboxOption>
          <ComboboxOption v-if="!bikesOnly" v-slot="{ active }" as="template" :value="p.another">
            <li
              class="grid min-h-11 cursor-pointer content-center border-b border-rule px-3 pl-7 text-[0.9375rem]"
              :class="{ 'bg-ground': active }"
              data-test="another-bike"
            >
              Another bike of theirs
            </li>
          </ComboboxOption>
        </template>
      </ComboboxOptions>
    </Combobox>
  </div>
</template>
