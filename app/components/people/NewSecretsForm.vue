<!-- An owner gives somebody a new PIN or password. -->
<script setup lang="ts">
import { Done } from '#core/http/answers'
import { NewSecrets } from '#core/http/people'
import type { PersonView } from '#core/http/session'

const props = defineProps<{ person: PersonView }>()
const emit = defineEmits<{ done: [] }>()
const secrets = useContractForm({
  initial: { pin: '', password: '' },
  schema: NewSecrets,
  send: value =>
    asOwner(() => ask(Done, `/api/shop/people/${props.person.id}/secrets`, { method: 'POST', body: value })),
  done: () => emit('done'),
})
const { form, trouble } = secrets
</script>

<template>
  <form class="grid gap-3 pb-4" novalidate @submit.prevent="form.handleSubmit()">
    <FormLine
      :of="secrets"
      name="pin"
      label="New PIN"
      type="password"
      inputmode="numeric"
      hint="4 to 8 digits; empty: as it is"
    />
    <FormLine
      :of="secrets"
      name="password"
      label="New password"
      type="password"
      hint="for signing devices in; empty: as it is"
    />
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <button class="act justify-center" data-test="renew-done">Give {{ person.name }} these</button>
  </form>
</template>
