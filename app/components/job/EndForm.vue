<!-- Why a job ends without its work, and that it does. -->
<script setup lang="ts">
import { Made } from '#core/http/answers'
import { Note } from '#core/http/job'
import type { Leaves } from '#core/job/events'
import { mayHandBack, mayLeave } from '#core/ledger/gates'
import type { JobState } from '#core/ledger/reduce'

const props = defineProps<{
  number: number
  state: JobState
  how: Leaves
  words: string
  means: string
}>()
const emit = defineEmits<{ done: []; close: [] }>()
const session = useSession()
const leave = useHandBack()
/** Why, as it is written down already: when the job could not be ended then, it is not written again. */
let noted: string | null = null
const shut = computed(() => {
  const { role } = session.now?.person ?? {}
  if (!role) return 'Say who works: choose your name first'
  return (mayLeave(props.state, props.how) ?? mayHandBack(role, props.how))?.message ?? null
})
const order = useContractForm({
  initial: { text: '' },
  schema: Note,
  async send(value) {
    if (value.text !== noted) {
      const asked = await ask(Made, `/api/jobs/${props.number}/notes`, { method: 'POST', body: value, once: true })
      if (asked.is !== 'done') return asked
      noted = value.text
    }
    return leave(props.how)
  },
  done: () => emit('done'),
})
const { form, trouble } = order
</script>

<template>
  <form class="grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
    <p class="font-semibold">{{ words }}</p>
    <p class="small">{{ means }} It can be reopened.</p>
    <FormLine :of="order" name="text" label="Why, in a few words" test="why" />
    <p v-if="shut" class="wrong" role="status">{{ shut }}.</p>
    <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
    <div class="flex gap-2">
      <button class="also border-stop! text-stop!" :disabled="shut !== null" data-test="end-sure">
        {{ how === 'cancelled' ? 'Cancel this job' : 'It was fetched' }}
      </button>
      <button type="button" class="quiet" @click="emit('close')">Keep it here</button>
    </div>
  </form>
</template>
