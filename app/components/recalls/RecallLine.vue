<!-- One recall: who, why, what to say; opened, what can be done with it. -->
<script setup lang="ts">
import { format } from 'date-fns'
import type { MessageAct, MessageView, RecallAct, RecallView } from '#core/http/recalls'
import { RIDER_SAYS, RIDER_WORDS, type RiderSays } from '#core/job/events'
import { sayTurns } from '#core/quantity/turns'

const props = defineProps<{
  recall: RecallView
  today: string
  zone: string
  days: readonly { day: string; due: number }[]
  places: number
  standIn: boolean
  open: boolean
}>()
const emit = defineEmits<{
  toggle: []
  act: [order: RecallAct, words: string]
  message: [id: string, order: MessageAct, words: string]
  leave: []
}>()
const sayDue = (day: string) =>
  day < props.today
    ? `${format(new Date(`${day}T12:00:00`), 'd MMM')}, overdue`
    : day === props.today
      ? 'today'
      : format(new Date(`${day}T12:00:00`), 'EEE d MMM')
const last = computed(() => props.recall.messages.at(-1) ?? null)
const STATE: Record<MessageView['state'], string> = {
  queued: 'waits to be sent',
  sending: 'on its way',
  sent: 'sent',
  failed: 'not sent',
  answered: 'answered',
  withdrawn: 'called off',
}
const sayState = (m: MessageView) =>
  m.state === 'queued' && m.notBefore > new Date().toISOString()
    ? `waits until ${sayTime(m.notBefore, props.zone)}`
    : STATE[m.state]

const panel = ref<'write' | 'told' | 'later' | null>(null)
const show = (p: 'write' | 'told' | 'later') => {
  panel.value = panel.value === p ? null : p
}
const text = ref('')
watch(
  () => panel.value === 'write',
  () => {
    text.value = props.recall.message ?? ''
  },
)
const tooLong = computed(() => text.value.trim().length > 600)
function send() {
  emit('act', { do: 'write', id: newUuid(), text: text.value }, 'Written')
  panel.value = null
}
const says = ref<RiderSays>('well')
const turned = ref<number>(0)
const TURNED = [0, 2, 4, 6, 8]
const SAYS = RIDER_SAYS.map(value => ({ value, words: RIDER_WORDS[value] }))
const TURNS = TURNED.map(value => ({ value, words: value === 0 ? 'not turned' : `${sayTurns(value / 16)} out` }))
function told() {
  emit('act', { do: 'reported', id: newUuid(), says: says.value, sixteenths: turned.value }, 'Noted in the ledger')
  panel.value = null
}
/** The next days with a free place, not the one it is due. */
const free = computed(() =>
  props.days.filter(d => d.day > props.today && d.day !== props.recall.dueOn && d.due < props.places).slice(0, 8),
)
const answer = ref('')
const phone = computed(() => props.recall.customer.contact.replace(/[^\d+]/g, ''))
</script>

<template>
  <li class="border-b border-rule" :data-test="`recall-${recall.job.number}`">
    <button
      type="button"
      class="grid min-h-14 w-full grid-cols-[4rem_minmax(0,1fr)_auto] items-center gap-x-3 py-1 text-left"
      :aria-expanded="open"
      data-test="recall-open"
      @click="emit('toggle')"
    >
      <span class="figure text-lg font-semibold">{{ recall.job.tag }}</span>
      <span class="min-w-0"
        ><b>{{ recall.bike.name }}</b> <span class="text-soft">{{ recall.customer.name }}</span
        ><span v-if="last" class="small block" data-test="message-state"
          >{{ sayState(last) }}<template v-if="last.answer">: “{{ last.answer }}”</template
          ><span v-if="last.trouble && last.state === 'failed'" class="text-stop"> {{ last.trouble }}</span></span
        ><span v-if="recall.report" class="small block">{{ recall.report }}</span></span
      >
      <span class="figure text-right" :class="recall.dueOn < today ? 'font-semibold text-stop' : ''">{{
        sayDue(recall.dueOn)
      }}</span>
    </button>
    <div v-if="open" class="grid gap-3 border-l-[6px] border-ink bg-panel p-3">
      <p class="text-lg leading-snug" data-test="recall-why">{{ recall.why }}</p>
      <p class="flex flex-wrap items-center gap-x-5">
        <a v-if="phone.length > 5" class="quiet underline" :href="`tel:${phone}`">{{ recall.customer.contact }}</a
        ><span v-else>{{ recall.customer.contact || 'no number' }}</span>
        <NuxtLink class="quiet underline" :to="`/jobs/${recall.job.number}/sheet`">Its sheet</NuxtLink
        ><NuxtLink class="quiet underline" :to="`/bikes/${recall.bike.id}`">The bike</NuxtLink>
        <span v-if="recall.firstDueOn" class="small">first due {{ sayDue(recall.firstDueOn) }}</span>
      </p>
      <div class="grid grid-cols-2 gap-2 sm:grid-cols-3 xl:grid-cols-6">
        <button
          type="button"
          class="act justify-center"
          :disabled="recall.message === null"
          data-test="recall-write"
          @click="show('write')"
        >
          Write
        </button>
        <button type="button" class="also justify-center" data-test="recall-told" @click="show('told')">
          They say
        </button>
        <button type="button" class="also justify-center" data-test="recall-later" @click="show('later')">Later</button>
        <button
          type="button"
          class="also justify-center"
          data-test="recall-came"
          @click="emit('act', { do: 'came' }, 'It came')"
        >
          Came
        </button>
        <button
          type="button"
          class="also justify-center"
          data-test="recall-done"
          @click="emit('act', { do: 'done' }, 'Done')"
        >
          Done
        </button>
        <button
          type="button"
          class="also justify-center"
          data-test="recall-not"
          @click="emit('act', { do: 'notneeded' }, 'Not needed')"
        >
          Not needed
        </button>
      </div>
      <p v-if="recall.message === null" class="small" data-test="recall-unwritten">
        {{
          recall.customer.noMessages
            ? 'They want no messages: phone, or leave it.'
            : 'No e-mail address and no number stands here: put the contact right on the job first.'
        }}
      </p>
      <form v-if="panel === 'write'" class="grid gap-2" novalidate @submit.prevent="send">
        <label class="label"
          >What it says<textarea v-model="text" class="field min-h-28 py-2" data-test="message-text" />
        </label>
        <p v-if="tooLong" class="wrong" role="alert">Longer than 600 characters: shorten it</p>
        <p class="small">
          {{ standIn ? 'Goes into the stand-in’s outbox: nothing leaves this machine.' : 'Goes to the mail server.' }}
        </p>
        <button class="act justify-self-start" :disabled="!text.trim() || tooLong" data-test="message-send">
          Send it
        </button>
      </form>
      <form v-if="panel === 'told'" class="grid gap-2" novalidate @submit.prevent="told">
        <ChoiceRow v-model="says" label="How it runs" :choices="SAYS" :columns="1" :centred="false" test="says" />
        <ChoiceRow v-model="turned" label="What they turned the barrel" :choices="TURNS" :columns="5" test="turned" />
        <button class="act justify-self-start" data-test="told-note">Note it in its ledger</button>
      </form>
      <div v-if="panel === 'later'" class="grid grid-cols-2 gap-2 sm:grid-cols-4" role="group" aria-label="Put off to">
        <button
          v-for="d in free"
          :key="d.day"
          type="button"
          class="also justify-between"
          :data-test="`later-${d.day}`"
          @click="emit('act', { do: 'postpone', to: d.day }, 'Put off')"
        >
          {{ format(new Date(`${d.day}T12:00:00`), 'EEE d MMM') }} <span class="small">{{ places - d.due }} free</span>
        </button>
        <p v-if="!free.length" class="small col-span-full">No day has a free place: raise the places a day.</p>
      </div>
      <ol v-if="recall.messages.length" class="border-t border-rule" data-test="messages">
        <li v-for="m in recall.messages" :key="m.id" class="grid gap-1 border-b border-rule py-2">
          <p class="small">
            {{ m.way === 'mail' ? 'Mail' : 'Text' }} to {{ m.address }}, {{ sayTime(m.at, zone) }}:
            <b>{{ sayState(m) }}</b>
          </p>
          <p>{{ m.body }}</p>
          <p v-if="m.trouble" class="wrong">{{ m.trouble }}</p>
          <p v-if="m.answer" class="font-semibold">“{{ m.answer }}”</p>
          <div class="flex flex-wrap gap-2">
            <button
              v-if="m.state === 'failed'"
              type="button"
              class="also"
              data-test="message-again"
              @click="emit('message', m.id, { do: 'again' }, 'Tried again')"
            >
              Try again
            </button>
            <button
              v-if="m.state === 'queued' || m.state === 'failed'"
              type="button"
              class="quiet"
              data-test="message-withdraw"
              @click="emit('message', m.id, { do: 'withdraw' }, 'Called off')"
            >
              Call it off
            </button>
          </div>
          <form
            v-if="m.state === 'sent'"
            class="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2"
            novalidate
            @submit.prevent="emit('message', m.id, { do: 'answered', text: answer }, 'Answer noted')"
          >
            <label class="label"
              >{{ standIn ? 'Play their answer' : 'What they answered'
              }}<input v-model="answer" class="field" autocomplete="off" data-test="message-answer"
            /></label>
            <button class="also" :disabled="!answer.trim()" data-test="message-answered">Note it</button>
          </form>
        </li>
      </ol>
      <button type="button" class="quiet justify-self-start underline" data-test="leave-alone" @click="emit('leave')">
        {{ recall.customer.noMessages ? 'They may be written to again' : 'They want no messages' }}
      </button>
    </div>
  </li>
</template>
