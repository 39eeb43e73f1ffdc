<!-- One more line for a job. -->
<script setup lang="ts">
import { Made } from '#core/http/answers'
import { Note } from '#core/http/job'

const props = defineProps<{ number: number }>()
const emit = defineEmits<{ done: [] }>()
const order = useContractForm({
  initial: { text: '' },
  schema: Note,
  send: value => ask(Made, `/api/jobs/${props.number}/notes`, { method: 'POST', body: value, once: true }),
  done: () => {
    order.form.reset()
    emit('done')
  },
})
const { form, trouble } = order
</script>

<template>
  <form class="mt-2 grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
    <FormLine :of="order" name="text" label="A line for this job" bare placeholder="A line for this job" test="note">
      <button class="also min-h-12! whitespace-nowrap" data-test="note-done">Write it</button>
    </FormLine>
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
  </form>
</template>
