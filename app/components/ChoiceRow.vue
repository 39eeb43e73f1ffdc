<!-- One of a few, by touch or by arrow key: a radio group. -->
<script setup lang="ts" generic="V extends string | number | boolean">
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'

/** `test` names it for tests, where its value is no name. */
export type Choice<T> = { value: T; words: string; aside?: string; test?: string }
const props = withDefaults(
  defineProps<{
    /** What is chosen, for who cannot see it. */
    label: string
    choices: readonly Choice<V>[]
    /** Columns; all in one row where left out. */
    columns?: number
    /** Names each choice for tests, with its value. */
    test: string
    /** How a choice stands: set close, with room, or a picture over its word. */
    size?: 'close' | 'roomy' | 'picture'
    centred?: boolean
    disabled?: boolean
  }>(),
  { columns: undefined, size: 'close', centred: true, disabled: false },
)
const chosen = defineModel<V | null>({ required: true })
const template = computed(() => `repeat(${props.columns ?? props.choices.length}, minmax(0, 1fr))`)
</script>

<template>
  <RadioGroup
    :aria-label="label"
    :model-value="chosen ?? undefined"
    :disabled="disabled"
    @update:model-value="chosen = $event"
  >
    <div class="grid gap-1" :style="{ gridTemplateColumns: template }">
      <RadioGroupOption
        v-for="c in choices"
        :key="String(c.value)"
        v-slot="{ checked }"
        as="template"
        :value="c.value"
        :disabled="disabled"
      >
        <button
          type="button"
          class="also leading-tight"
          :class="[
            {
              close: 'min-h-11! px-2! text-[0.9375rem]',
              roomy: 'min-h-13! px-2.5!',
              picture: 'min-h-15 flex-col gap-0 border-rule px-1 py-1 text-[0.875rem]',
            }[size],
            { 'justify-center text-center': centred, chosen: checked },
          ]"
          :disabled="disabled"
          :data-test="`${test}-${c.test ?? String(c.value).replaceAll(' ', '-')}`"
        >
          <slot :choice="c" :checked="checked"
            >{{ c.words }}<span v-if="c.aside" class="figure font-normal whitespace-nowrap">{{ c.aside }}</span></slot
          >
        </button>
      </RadioGroupOption>
    </div>
  </RadioGroup>
</template>
