<!-- A bike that was entered twice becomes one: its other entry is found, and asked once more. -->
<script setup lang="ts">
import { Done } from '#core/http/answers'
import type { JobView } from '#core/http/job'
import type { Brought } from '~/components/take-in/WhoBrings.vue'

const props = defineProps<{ job: JobView; zone: string; basedOn: number }>()
const emit = defineEmits<{ done: []; close: [] }>()
const words = ref('')
const chosen = shallowRef<NonNullable<Brought['bike']> | null>(null)
const trouble = ref('')
const busy = ref(false)
const id = newUuid()
function pick({ bike }: Brought) {
  chosen.value = bike && bike.bike.id !== props.job.bike.id ? bike : null
  trouble.value = chosen.value ? '' : 'That is this bike already: find its other entry'
}
async function merge() {
  if (!chosen.value || busy.value) return
  busy.value = true
  const asked = await ask(Done, `/api/jobs/${props.job.number}/same-bike`, {
    method: 'POST',
    body: { id, basedOn: props.basedOn, bike: chosen.value.bike.id },
  })
  busy.value = false
  trouble.value = sayTrouble(asked)
  if (asked.is === 'done') emit('done')
}
</script>

<template>
  <div class="grid gap-2 border-l-[6px] border-ink pl-3" data-test="same-bike">
    <template v-if="chosen">
      <p>
        <b>{{ job.bike.name }}</b>, {{ job.customer.name }}, is <b>{{ chosen.bike.name }}</b>, {{ chosen.customer.name
        }}{{ chosen.last ? `, last here ${sayWhen(chosen.last.closedAt, zone)}` : '' }}: the two become one, with all
        their visits. This cannot be taken apart again.
      </p>
      <div class="flex flex-wrap gap-2">
        <button type="button" class="act" :disabled="busy" data-test="same-bike-sure" @click="merge">
          They are one bike
        </button>
        <button type="button" class="also" @click="chosen = null">Another one</button>
      </div>
    </template>
    <WhoBrings
      v-else
      v-model="words"
      label="Its other entry"
      bikes-only
      :zone="zone"
      :error="null"
      @pick="pick"
      @here="trouble = 'That one is here as well, under its own tag: cancel one of the two jobs first'"
    />
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <button type="button" class="quiet -ml-2 justify-self-start" @click="emit('close')">Leave it</button>
  </div>
</template>
