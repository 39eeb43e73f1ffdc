<!-- Finds a bike by tag, name, phone or frame number; arrow keys and Enter go to it. -->
<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { refDebounced } from '@vueuse/core'
import { FoundBike } from '#core/http/door'
import { useLatest } from '~/workers/latest'

defineProps<{ zone: string }>()
const emit = defineEmits<{ trouble: [words: string] }>()
const words = ref('')
const asked = refDebounced(
  computed(() => words.value.trim() || null),
  180,
)
const Found = FoundBike.array()
const { answer } = useLatest(asked, async q => ask(Found, `/api/bikes?q=${encodeURIComponent(q)}`))
const found = computed(() =>
  words.value.trim() && answer.value.value?.is === 'done' ? answer.value.value.value : null,
)
watch(
  () => sayTrouble(answer.value.value),
  trouble => emit('trouble', trouble),
)
/** A bike that is in the house opens its job; another is taken in. */
const to = (f: FoundBike) =>
  f.open
    ? `/jobs/${f.open.number}`
    : `/take-in?bike=${encodeURIComponent(f.bike.id)}&q=${encodeURIComponent(words.value.trim())}`
const go = (f: FoundBike | null) => f && void navigateTo(to(f))
const root = useTemplateRef<HTMLElement>('root')
defineExpose({
  focus: () => root.value?.querySelector('input')?.focus(),
  clear: () => {
    words.value = ''
  },
})
</script>

<template>
  <div ref="root" class="relative order-last w-full sm:order-none sm:ml-auto sm:w-80">
    <!-- nullable, and no Tab for it: to move on is not to choose; only Enter or a touch is -->
    <Combobox :model-value="null" nullable @update:model-value="go">
      <label class="sr-only" for="search">Find a bike by tag, name, phone or frame number</label>
      <ComboboxInput
        id="search"
        class="field"
        placeholder="Tag, name, phone or frame"
        autocomplete="off"
        data-test="search"
        :display-value="() => words"
        @keydown.tab.capture.stop
        @change="words = $event.target.value"
      />
      <span class="key absolute top-3.5 right-3 text-soft max-sm:hidden" aria-hidden="true">/</span>
      <ComboboxOptions
        v-if="found"
        static
        as="ul"
        class="absolute top-full right-0 left-0 z-40 mt-1 max-h-96 overflow-auto rounded-md border-2 border-ink bg-panel wrap-anywhere"
        data-test="found"
      >
        <li v-if="!found.length" class="p-3">
          Nothing of that name, tag or number. <NuxtLink class="underline" to="/take-in">Take it in as new</NuxtLink>
        </li>
        <ComboboxOption v-for="f in found" :key="f.bike.id" v-slot="{ active }" as="template" :value="f">
          <li class="border-b border-rule last:border-0" :class="{ 'bg-ground': active }">
            <NuxtLink class="block min-h-14 px-3 py-2" :to="to(f)" tabindex="-1">
              <span class="font-semibold">{{ f.bike.name }}</span>{{ ' '
              }}<span class="text-soft">{{ f.customer.name }} {{ f.customer.contact }}</span>
              <span class="small block"
                >{{
                  f.open
                    ? `here now, tag ${f.open.tag}`
                    : f.last
                      ? `last here ${sayWhen(f.last.closedAt, zone)}: take in again`
                      : 'take in'
                }}{{ f.bike.frameNumber ? `, frame ${f.bike.frameNumber}` : '' }}</span
              >
            </NuxtLink>
          </li>
        </ComboboxOption>
      </ComboboxOptions>
    </Combobox>
  </div>
</template>
