<!-- What was written of a job at the door; put right line by line, with what stood there before. -->
<script setup lang="ts">
import Phone from '@lucide/vue/dist/esm/icons/phone.mjs'
import type { JobView } from '#core/http/job'
import { DETAIL_WORDS, type Detail } from '#core/job/events'
import { capital } from '#core/quantity/words'
import { FRAME_WORDS } from '#core/standards/frames'

const props = defineProps<{ job: JobView; zone: string; basedOn: number; closed: boolean }>()
const emit = defineEmits<{ done: [] }>()
const editing = ref(false)
const merging = ref(false)
function merged() {
  merging.value = false
  emit('done')
}
function put() {
  editing.value = false
  emit('done')
}
const dials = computed(() => {
  const digits = props.job.customer.contact.replace(/[^\d+]/g, '')
  return digits.length >= 5 ? `tel:${digits}` : null
})
const was = (field: Detail, value: string) => (field === 'promisedAt' ? sayTime(value, props.zone) : value || 'nothing')
</script>

<template>
  <section aria-label="As it was taken in">
    <LazyDetailsForm v-if="editing" :job="job" :zone="zone" :based-on="basedOn" @done="put" @close="editing = false" />
    <template v-else>
      <p class="text-xl">“{{ job.complaint }}”</p>
      <dl class="mt-3 grid grid-cols-[6.5rem_1fr] items-baseline gap-y-1">
        <dt class="text-soft">Customer</dt>
        <dd class="font-semibold">{{ job.customer.name }}</dd>
        <dt class="text-soft">Phone</dt>
        <dd>
          <a
            v-if="dials"
            :href="dials"
            class="figure inline-flex min-h-11 items-center gap-2 underline"
            data-test="phone"
            ><Phone :size="18" aria-hidden="true" />{{ job.customer.contact }}</a
          ><span v-else>{{ job.customer.contact || 'none given' }}</span>
        </dd>
        <dt class="text-soft">Promised</dt>
        <dd>{{ sayWhen(job.promisedAt, zone) }}</dd>
        <dt class="text-soft">Bike</dt>
        <dd>
          <NuxtLink class="underline underline-offset-4" :to="`/bikes/${job.bike.id}`">{{ job.bike.name }}</NuxtLink
          >{{ job.bike.frameKind ? `, ${FRAME_WORDS[job.bike.frameKind]}` : '' }}
        </dd>
        <dt class="text-soft">Frame</dt>
        <dd class="figure">{{ job.bike.frameNumber || 'no number' }}</dd>
        <dt class="text-soft">Taken in</dt>
        <dd>{{ sayTime(job.createdAt, zone) }}</dd>
      </dl>
      <button v-if="!closed" type="button" class="quiet -ml-2 mt-1" data-test="edit-details" @click="editing = true">
        Put something right
      </button>
      <button
        v-if="!closed && !merging"
        type="button"
        class="quiet mt-1"
        data-test="entered-twice"
        @click="merging = true"
      >
        Entered twice
      </button>
      <a class="quiet mt-1" :href="`/api/jobs/${job.number}/tag.pdf`" download data-test="tag-label">Tag label</a>
      <LazyJobSameBike
        v-if="merging"
        :job="job"
        :zone="zone"
        :based-on="basedOn"
        @close="merging = false"
        @done="merged"
      />
    </template>
    <details v-if="job.edits.length" class="mt-1 border-t border-rule" data-test="edits">
      <summary class="flex min-h-11 cursor-pointer items-center font-semibold">
        What stood there before, {{ job.edits.length }}
      </summary>
      <ul>
        <li
          v-for="(e, i) in job.edits"
          :key="i"
          class="grid grid-cols-[6.5rem_1fr_auto] gap-x-2 border-b border-rule py-1"
        >
          <span class="text-soft">{{ capital(DETAIL_WORDS[e.field]) }}</span
          ><span class="break-words">{{ was(e.field, e.was) }}</span
          ><span class="small">{{ e.by }}, {{ sayTime(e.at, zone) }}</span>
        </li>
      </ul>
    </details>
  </section>
</template>
