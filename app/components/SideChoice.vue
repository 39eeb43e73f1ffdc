<!-- Which of a few at the side of a bench: a radio group down the left edge. -->
<script setup lang="ts" generic="V extends string">
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'
import type { Choice } from './ChoiceRow.vue'

defineProps<{ label: string; choices: readonly Choice<V>[]; test: string }>()
const chosen = defineModel<V>({ required: true })
</script>

<template>
  <RadioGroup v-model="chosen" as="div" :aria-label="label" class="max-lg:flex max-lg:overflow-x-auto">
    <RadioGroupOption v-for="c in choices" :key="c.value" v-slot="{ checked }" as="template" :value="c.value">
      <button
        type="button"
        class="block min-h-13 border-l-[6px] py-1 pr-3 pl-2 text-left max-lg:shrink-0 max-lg:whitespace-nowrap lg:w-full lg:pr-0"
        :class="checked ? 'border-ink font-bold' : 'border-transparent'"
        :data-test="`${test}-${c.value}`"
      >
        <slot :choice="c" :checked="checked">{{ c.words }}</slot>
      </button>
    </RadioGroupOption>
  </RadioGroup>
</template>
