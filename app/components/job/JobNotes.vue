<!-- Lines written on a job, and one more. -->
<script setup lang="ts">
import type { JobView } from '#core/http/job'

defineProps<{ job: JobView; zone: string; closed: boolean }>()
const emit = defineEmits<{ done: [] }>()
const writing = ref(false)
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
    <LazyNoteForm v-if="writing && !closed" :number="job.number" @done="emit('done')" />
    <button v-else-if="!closed" type="button" class="quiet -ml-2" data-test="write-note" @click="writing = true">
      Write a line
    </button>
  </section>
</template>
