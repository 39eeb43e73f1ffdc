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
    mono?: boolean
    inputmode?: 'text' | 'numeric' | 'decimal'
  }>(),
  { type: 'text', autocomplete: 'off', error: null, hint: '', inputmode: 'text' },
)
const id = useId()
</script>

<template>
  <div>
    <label :for="id" class="label">{{ label }}</label>
    <input
      :id="id"
      v-model="value"
      class="field"
      :class="{ figure: mono }"
      :type="type"
      :autocomplete="autocomplete"
      :inputmode="inputmode"
      :aria-invalid="error ? 'true' : undefined"
      :aria-describedby="error ? `${id}-error` : hint ? `${id}-hint` : undefined"
    />
    <p v-if="error" :id="`${id}-error`" class="mt-1 text-sm font-semibold text-stop">{{ error }}</p>
    <p v-else-if="hint" :id="`${id}-hint`" class="small mt-1">{{ hint }}</p>
  </div>
</template>
