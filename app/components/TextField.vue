<!-- A labelled line with its own words when something is wrong. -->
<script setup lang="ts">
const value = defineModel<string>({ required: true })
withDefaults(
  defineProps<{
    label: string
    error?: string | null
    type?: string
    autocomplete?: string
    hint?: string
    placeholder?: string
    mono?: boolean
    /** What it is called stands in the line itself. */
    bare?: boolean
    /** Names it for tests. */
    test?: string
    inputmode?: 'text' | 'numeric' | 'decimal' | 'tel'
    /** More than one line; `short`: but few. */
    long?: boolean
    short?: boolean
  }>(),
  {
    type: 'text',
    autocomplete: 'off',
    error: null,
    hint: '',
    placeholder: undefined,
    test: undefined,
    inputmode: 'text',
  },
)
const id = useId()
</script>

<template>
  <div>
    <label :for="id" :class="bare ? 'sr-only' : 'label'">{{ label }}</label>
    <div :class="{ 'flex gap-2': $slots.default }">
      <textarea
        v-if="long"
        :id="id"
        v-model="value"
        class="field py-2"
        :class="short ? 'min-h-16' : 'min-h-24'"
        :rows="2"
        :aria-invalid="error ? 'true' : undefined"
        :aria-describedby="error ? `${id}-error` : hint ? `${id}-hint` : undefined"
        :data-test="test"
      />
      <input
        v-else
        :id="id"
        v-model="value"
        class="field"
        :class="{ figure: mono }"
        :type="type"
        :autocomplete="autocomplete"
        :inputmode="inputmode"
        :placeholder="placeholder"
        :aria-invalid="error ? 'true' : undefined"
        :aria-describedby="error ? `${id}-error` : hint ? `${id}-hint` : undefined"
        :data-test="test"
      />
      <slot />
    </div>
    <p v-if="error" :id="`${id}-error`" class="wrong mt-1" :role="bare ? 'alert' : undefined">{{ error }}</p>
    <p v-else-if="hint" :id="`${id}-hint`" class="small mt-1">{{ hint }}</p>
  </div>
</template>
