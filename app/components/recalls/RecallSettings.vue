<!-- What sends the messages, when nobody is written to, how many bikes a day; and the links a calendar reads. -->
<script setup lang="ts">
import { CalendarLink, type RecallDesk } from '#core/http/recalls'
import { Desk } from '#core/recall/desk'

const props = defineProps<{
  desk: Desk
  gateway: RecallDesk['gateway']
  calendars: RecallDesk['calendars']
  zone: string
}>()
const emit = defineEmits<{ desk: [desk: Desk]; revoke: [id: string]; made: [] }>()
const typed = reactive({ ...props.desk })
const wrong = ref('')
function keep() {
  const read = Desk.safeParse({
    quietFrom: Number(typed.quietFrom),
    quietTo: Number(typed.quietTo),
    placesADay: Number(typed.placesADay),
  })
  wrong.value = read.success ? '' : read.error.issues[0]!.message
  if (read.success) emit('desk', read.data)
}
const link = ref('')
const trouble = ref('')
async function make() {
  const asked = await ask(CalendarLink, '/api/calendars', { method: 'POST', body: {} })
  trouble.value = sayTrouble(asked)
  if (asked.is !== 'done') return
  link.value = asked.value.url
  emit('made')
}
const HOURS = Array.from({ length: 24 }, (_, h) => h)
const sayHour = (h: number) => `${String(h).padStart(2, '0')}:00`
</script>

<template>
  <section aria-labelledby="messages-title">
    <h2 id="messages-title" class="font-bold">Messages</h2>
    <p>
      By <b>{{ gateway.name.toLowerCase() }}</b
      >{{
        gateway.standIn ? ': they stay on this machine, in its outbox. A mail server is named as it is started.' : '.'
      }}
    </p>
    <form class="mt-2 grid grid-cols-3 items-end gap-2" novalidate @submit.prevent="keep">
      <label class="label"
        >Quiet from<select v-model="typed.quietFrom" class="field figure px-2">
          <option v-for="h in HOURS" :key="h" :value="h">{{ sayHour(h) }}</option>
        </select></label
      >
      <label class="label"
        >to<select v-model="typed.quietTo" class="field figure px-2">
          <option v-for="h in HOURS" :key="h" :value="h">{{ sayHour(h) }}</option>
        </select></label
      >
      <label class="label"
        >Places a day<input v-model="typed.placesADay" class="field figure" inputmode="numeric" data-test="places"
      /></label>
      <p v-if="wrong" class="wrong col-span-3" role="alert">{{ wrong }}</p>
      <button class="also col-span-3 justify-self-start" data-test="keep-desk">Keep</button>
    </form>
  </section>
  <section aria-labelledby="calendar-title">
    <h2 id="calendar-title" class="font-bold">Calendar</h2>
    <p class="text-[0.9375rem] leading-snug">
      A link that any calendar reads: bikes and tags, nobody’s name. Who has it sees them, so end it when it gets about.
    </p>
    <p v-if="link" class="figure mt-2 border-2 border-ink bg-panel p-2 text-sm break-all" data-test="calendar-url">
      {{ link }}
    </p>
    <p v-if="link" class="small">Shown this once.</p>
    <p v-if="trouble" class="wrong" role="alert">{{ trouble }}</p>
    <button type="button" class="also mt-2" data-test="make-calendar" @click="make">Make a link</button>
    <ul v-if="calendars.length" class="mt-2 border-t border-rule">
      <li v-for="c in calendars" :key="c.id" class="flex min-h-12 items-center justify-between border-b border-rule">
        <span
          >{{ c.by }}, {{ sayDay(c.madeAt.slice(0, 10))
          }}<span class="small block">{{ c.seenAt ? `read ${sayTime(c.seenAt, zone)}` : 'not read yet' }}</span></span
        ><button type="button" class="quiet text-stop" data-test="revoke-calendar" @click="emit('revoke', c.id)">
          End it
        </button>
      </li>
    </ul>
  </section>
</template>
