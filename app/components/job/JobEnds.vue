<!-- A job that ends without its work: its customer fetched the bike, or there was no job. Asked once more, with the reason. -->
<script setup lang="ts">
import { Made } from '#core/http/answers'
import { Note } from '#core/http/job'
import type { Leaves } from '#core/job/events'
import { mayHandBack, mayLeave } from '#core/ledger/gates'
import type { JobState } from '#core/ledger/reduce'
import { Sheet } from '#core/ledger/sheet'

const props = defineProps<{ number: number; state: JobState; basedOn: number }>()
const emit = defineEmits<{ done: [] }>()
const session = useSession()
const WAYS = [
  [
    'unrepaired',
    'Its customer fetched it unrepaired',
    'The sheet will say on top that the work was not done, and prove nothing.',
  ],
  ['cancelled', 'Cancel: there was no job', 'The tag is free again, nothing of it goes into the records.'],
] as const
const way = ref<(typeof WAYS)[number] | null>(null)
const id = newUuid()
const shut = (how: Leaves) => {
  const { role } = session.now?.person ?? {}
  if (!role) return 'Say who works: choose your name first'
  return (mayLeave(props.state, how) ?? mayHandBack(role, how))?.message ?? null
}
const order = useContractForm({
  initial: { text: '' },
  schema: Note,
  async send(value) {
    const how = way.value![0]
    const noted = await ask(Made, `/api/jobs/${props.number}/notes`, { method: 'POST', body: value })
    if (noted.is !== 'done') return noted
    return ask(Sheet, `/api/jobs/${props.number}/hand-back`, {
      method: 'POST',
      body: { id, basedOn: props.basedOn, how, fault: null },
    })
  },
  done: () => {
    way.value = null
    emit('done')
  },
})
const { form, trouble } = order
</script>

<template>
  <section class="border-t border-rule pt-2" aria-label="It ends otherwise">
    <div v-if="way === null" class="flex flex-wrap gap-x-3">
      <button v-for="w in WAYS" :key="w[0]" type="button" class="quiet -ml-2" :data-test="w[0]" @click="way = w">
        {{ w[1] }}
      </button>
    </div>
    <form v-else class="grid gap-2" novalidate @submit.prevent="form.handleSubmit()">
      <p class="font-semibold">{{ way[1] }}</p>
      <p class="small">{{ way[2] }} It can be reopened.</p>
      <FormLine :of="order" name="text" label="Why, in a few words" test="why" />
      <p v-if="shut(way[0])" class="wrong" role="status">{{ shut(way[0]) }}.</p>
      <p v-if="trouble" class="stopped" role="alert">{{ trouble }}</p>
      <div class="flex gap-2">
        <button class="also border-stop! text-stop!" :disabled="shut(way[0]) !== null" data-test="end-sure">
          {{ way[0] === 'cancelled' ? 'Cancel this job' : 'It was fetched' }}
        </button>
        <button type="button" class="quiet" @click="way = null">Keep it here</button>
      </div>
    </form>
  </section>
</template>
