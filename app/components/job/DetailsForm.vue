<!-- The lines of a job as it was taken in, to be put right. -->
<script setup lang="ts">
import { Done } from '#core/http/answers'
import { Details, type JobView } from '#core/http/job'

const props = defineProps<{ job: JobView; zone: string; basedOn: number }>()
const emit = defineEmits<{ done: []; close: [] }>()
const initial = {
  customer: props.job.customer.name,
  contact: props.job.customer.contact,
  bike: props.job.bike.name,
  frameNumber: props.job.bike.frameNumber,
  complaint: props.job.complaint,
  promised: onShopClock(props.job.promisedAt, props.zone),
  tag: props.job.tag,
}
const order = useContractForm({
  initial,
  schema: Details,
  read: ({ promised, ...typed }) => ({
    id: newUuid(),
    basedOn: props.basedOn,
    ...typed,
    promisedAt: fromShopClock(promised, props.zone),
  }),
  line: field => (field === 'promisedAt' ? 'promised' : field),
  send: value => ask(Done, `/api/jobs/${props.job.number}/details`, { method: 'POST', body: value }),
  done: () => emit('done'),
})
const { form, trouble } = order
const past = form.useStore(s => inThePast(fromShopClock(s.values.promised, props.zone)))
</script>

<template>
  <form class="grid gap-3" novalidate data-test="details-form" @submit.prevent="form.handleSubmit()">
    <FormLine :of="order" name="complaint" label="What is wrong, in their words" long />
    <div class="grid gap-3 sm:grid-cols-2">
      <FormLine :of="order" name="customer" label="Customer" />
      <FormLine :of="order" name="contact" label="Phone" />
      <FormLine :of="order" name="bike" label="Bike" />
      <FormLine :of="order" name="frameNumber" label="Frame number" mono />
      <FormLine :of="order" name="promised" label="Ready by" type="datetime-local" test="edit-promised" />
      <FormLine :of="order" name="tag" label="Tag" mono />
    </div>
    <p v-if="past" class="stopped" role="status" data-test="past">That time has passed: is it meant?</p>
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <div class="flex gap-2">
      <button class="act grow" data-test="details-done">Put it right</button>
      <button type="button" class="also" @click="emit('close')">Leave it</button>
    </div>
  </form>
</template>
