<!-- Lines written on a job, and one more. -->
<script setup lang="ts">
import { Made } from '#core/http/answers'
import { Note, type JobView } from '#core/http/job'

const props = defineProps<{ job: JobView; zone: string; closed: boolean }>()
const emit = defineEmits<{ done: [] }>()
const order = useContractForm({
  initial: { text: '' },
  schema: Note,
  send: value => ask(Made, `/api/jobs/${props.job.number}/notes`, { method: 'POST', body: value }),
  done: () => {
    order.form.reset()
    emit('done')
  },
})
const { form, trouble } = order
</script>

<template>
  <section aria-labelledby="notes-title">
    <h2 id="notes-title" class="font-bold">In words</h2>
    <ul v-if="job.notes.length">
      <li v-for="n in job.notes" :key="n.id" class="border-b border-rule py-1">
        {{ n.text }} <span class="small">{{ n.by }}, {{ sayTime(n.at, zone) }}</span>
      </li>
    </ul>
    <p v-else class="text-soft">Nothing written.</p>
    <form v-if="!closed" class="mt-2 grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
      <FormLine :of="order" name="text" label="A line for this job" bare placeholder="A line for this job" test="note">
        <button class="also min-h-12! whitespace-nowrap" data-test="note-done">Write it</button>
      </FormLine>
      <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    </form>
  </section>
</template>
