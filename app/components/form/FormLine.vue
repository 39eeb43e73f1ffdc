<!-- One labelled line of a form, with what is wrong with it; the slot stands beside it. -->
<script setup lang="ts">
import type { AnyForm } from '~/composables/forms'

defineOptions({ inheritAttrs: false })
const props = defineProps<{ of: AnyForm; name: string; label: string }>()
const { server } = props.of
</script>

<template>
  <component :is="of.form.Field" v-slot="{ field, state }" :name="name">
    <TextField
      v-bind="$attrs"
      :model-value="state.value"
      :label="label"
      :error="firstError(state.meta.errors) ?? server[name]"
      @update:model-value="field.handleChange($event)"
    >
      <slot v-if="$slots.default" />
    </TextField>
  </component>
</template>
