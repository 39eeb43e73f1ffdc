<!-- The recall desk: who is due, why, what to say; what was written and what came of it; free places by day; the
     calendar's links. -->
<script setup lang="ts">
import { Done } from '#core/http/answers'
import { RecallDesk, type MessageAct, type RecallAct, type RecallView } from '#core/http/recalls'

useHead({ title: 'Recalls · Ocho' })
const session = useSession()
const zone = computed(() => session.now?.shop.zone ?? 'UTC')
const { data: desk, error, refresh } = await useRead(RecallDesk, '/api/recalls')
const open = computed(() => desk.value?.recalls.filter(r => r.state === 'due') ?? [])
const settled = computed(() => desk.value?.recalls.filter(r => r.state !== 'due') ?? [])
const groups = computed(() => {
  const today = desk.value?.today ?? ''
  return [
    { words: 'Due now', recalls: open.value.filter(r => r.dueOn <= today) },
    { words: 'To come', recalls: open.value.filter(r => r.dueOn > today) },
  ].filter(g => g.recalls.length)
})
const chosen = ref<string | null>(null)
const trouble = ref('')
const said = ref('')

/** Asks for something at the desk, and reads it anew. */
async function act(url: string, body: unknown, words: string, method: 'POST' | 'DELETE' = 'POST'): Promise<boolean> {
  const asked = await ask(Done, url, method === 'DELETE' ? { method } : { method, body })
  trouble.value = sayTrouble(asked)
  said.value = asked.is === 'done' ? words : ''
  await refresh()
  return asked.is === 'done'
}
const onRecall = (r: RecallView, order: RecallAct, words: string) => act(`/api/recalls/${r.id}`, order, words)
const onMessage = (id: string, order: MessageAct, words: string) => act(`/api/messages/${id}`, order, words)
const leave = (r: RecallView) =>
  act(
    `/api/customers/${r.customer.id}/messages`,
    { noMessages: !r.customer.noMessages },
    r.customer.noMessages ? 'They may be written to again' : 'They are not written to any more',
  )
// what was written in quiet hours goes on its way without anybody's touch
let timer: ReturnType<typeof setInterval> | undefined
onMounted(() => {
  timer = setInterval(() => void refresh(), 20_000)
})
onScopeDispose(() => clearInterval(timer))
</script>

<template>
  <div>
    <PageHead title="Recalls" />
    <main class="mx-auto grid max-w-[1440px] gap-x-8 gap-y-5 px-4 py-4 sm:px-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <p v-if="error" class="stopped lg:col-span-2" role="alert">
        {{ OFFLINE_WORDS }} <button type="button" class="quiet underline" @click="refresh()">Try again</button>
      </p>
      <div v-if="desk" class="min-w-0">
        <p v-if="trouble" class="stopped mb-3" role="alert" data-test="recall-trouble">{{ trouble }}</p>
        <p class="sr-only" role="status">{{ said }}</p>
        <section v-for="g in groups" :key="g.words" class="mb-6" :aria-label="g.words">
          <h2 class="text-lg font-bold">{{ g.words }}, {{ g.recalls.length }}</h2>
          <ul class="mt-1 border-t-2 border-ink">
            <RecallLine
              v-for="r in g.recalls"
              :key="r.id"
              :recall="r"
              :today="desk.today"
              :zone="zone"
              :days="desk.days"
              :places="desk.desk.placesADay"
              :stand-in="desk.gateway.standIn"
              :open="chosen === r.id"
              @toggle="chosen = chosen === r.id ? null : r.id"
              @act="(order, words) => onRecall(r, order, words)"
              @message="onMessage"
              @leave="leave(r)"
            />
          </ul>
        </section>
        <p v-if="!groups.length" class="mb-6 border-2 border-dashed border-rule p-6 text-soft">
          Nobody is due. A bike that is handed back is booked here by itself, for the day its new cable will want a
          touch.
        </p>
        <section v-if="settled.length" aria-label="Settled this week">
          <h2 class="text-lg font-bold">Settled this week</h2>
          <ul class="mt-1 border-t-2 border-ink">
            <li
              v-for="r in settled"
              :key="r.id"
              class="flex min-h-12 flex-wrap items-center justify-between gap-x-4 border-b border-rule"
            >
              <span
                ><b class="figure mr-2">{{ r.job.tag }}</b>{{ r.bike.name }}, {{ r.customer.name
                }}<span v-if="r.report" class="small ml-2">{{ r.report }}</span></span
              ><span class="flex items-center gap-3"
                ><span class="small">{{
                  { came: 'came', done: 'done', notneeded: 'not needed', due: '' }[r.state]
                }}</span
                ><button type="button" class="quiet underline" @click="onRecall(r, { do: 'due' }, 'Due again')">
                  Bring it back
                </button></span
              >
            </li>
          </ul>
        </section>
      </div>
      <aside v-if="desk" class="grid content-start gap-6">
        <RecallDays :days="desk.days" :places="desk.desk.placesADay" />
        <RecallSettings
          :desk="desk.desk"
          :gateway="desk.gateway"
          :calendars="desk.calendars"
          :zone="zone"
          @desk="d => act('/api/recalls/desk', d, 'Kept')"
          @revoke="id => act(`/api/calendars/${id}`, null, 'That link is ended', 'DELETE')"
          @made="refresh()"
        />
      </aside>
    </main>
  </div>
</template>
