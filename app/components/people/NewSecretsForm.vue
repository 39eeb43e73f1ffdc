<!-- An owner gives somebody a new PIN or password. -->
<script setup lang="ts">
import { NewSecrets, type PersonView } from '#core/http/session'

const props = defineProps<{ person: PersonView }>()
const emit = defineEmits<{ done: [] }>()
const { form, trouble, server } = useContractForm({
  initial: { pin: '', password: '' },
  schema: NewSecrets,
  send: value => ask(`/api/shop/people/${props.person.id}/secrets`, { method: 'POST', body: value }),
  done: () => emit('done'),
})
</script>

<template>
  <form class="grid gap-3 pb-4" novalidate @submit.prevent="form.handleSubmit()">
    <form.Field v-slot="{ field, state }" name="pin"
      ><TextField
        :model-value="state.value"
        label="New PIN"
        type="password"
        inputmode="numeric"
        hint="4 to 8 digits; empty: as it is"
        :error="firstError(state.meta.errors) ?? server.pin"
        @update:model-value="field.handleChange($event)"
    /></form.Field>
    <form.Field v-slot="{ field, state }" name="password"
      ><TextField
        :model-value="state.value"
        label="New password"
        type="password"
        hint="for signing devices in; empty: as it is"
        :error="firstError(state.meta.errors) ?? server.password"
        @update:model-value="field.handleChange($event)"
    /></form.Field>
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <button class="act justify-center" data-test="renew-done">Give {{ person.name }} these</button>
  </form>
</template>
