<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { DEVICES, playFigure, type DeviceId } from '~/composables/devices'
import { BAUD_RATES, useSerialLine } from '~/composables/serialLine'
import { HAND_ACTS, NOT_TAUGHT, type HandAct, type Hands, type StandIns } from '~/composables/hands'

useHead({ title: 'Devices · Ocho' })
const hands = useHands()
const session = useSession()
// from now on the benches of this tablet listen
onMounted(() => {
  if (!localStorage.getItem(HANDS_KEY)) localStorage.setItem(HANDS_KEY, '{}')
})
const set = (some: Partial<Hands>) => {
  hands.value = { ...hands.value, ...some }
}
/** What the next key of a pedal or button is to do. */
const teaching = ref<HandAct | null>(null)
const told = ref('')
useEventListener('keydown', (event: KeyboardEvent) => {
  if (!teaching.value || event.repeat) return
  event.preventDefault()
  const { key } = event
  if (key === 'Escape') return void (teaching.value = null)
  if ((NOT_TAUGHT as readonly string[]).includes(key)) {
    told.value = `${key} is needed by hands: set the pedal to another key`
    return
  }
  const words = HAND_ACTS.find(a => a.act === teaching.value)!.words
  set({ on: true, taught: { ...hands.value.taught, [key]: teaching.value } })
  told.value = `${name(key)}: ${words}`
  teaching.value = null
})
const name = (key: string) => (key === ' ' ? 'Space' : key)
const taught = computed(() =>
  Object.entries(hands.value.taught).map(([key, act]) => ({
    key,
    words: HAND_ACTS.find(a => a.act === act)!.words,
  })),
)
function forget(key: string) {
  const { [key]: _, ...taught } = hands.value.taught
  set({ taught })
}
/** One of a record's switches or figures, as a model. */
const handOf = (key: 'on' | 'speaks') => computed({ get: () => hands.value[key], set: value => set({ [key]: value }) })
const [handOn, speaks] = [handOf('on'), handOf('speaks')]
const KNOCKS = [{ value: '', words: 'Nothing' }, ...HAND_ACTS.map(a => ({ value: a.act as string, words: a.words }))]
const knocks = computed({
  get: () => hands.value.knocks ?? '',
  set: act => set({ knocks: HAND_ACTS.find(a => a.act === act)?.act ?? null }),
})

const serial = useSerialLine()
const { on: line, trouble: lineTrouble, last: lineLast } = serial
const lineOf = ref<DeviceId>('torque')
const speed = ref<number>(9_600)
const SPEEDS = BAUD_RATES.map(value => ({ value: value as number, words: String(value) }))
const LINE_OF = Object.entries(DEVICES).map(([value, d]) => ({ value: value as DeviceId, words: d.words }))
const connecting = ref(false)
async function connect() {
  connecting.value = true
  await serial.connect(lineOf.value, speed.value)
  connecting.value = false
}

const standIns = useStandIns()
const playOf = <K extends keyof StandIns>(key: K) =>
  computed<StandIns[K]>({
    get: () => standIns.value[key],
    set: value => void (standIns.value = { ...standIns.value, [key]: value }),
  })
const [camera, cameraDeg, microphone] = [playOf('camera'), playOf('cameraDeg'), playOf('microphone')]
const ANGLES = [-12, -1, 0.5, 12].map(value => ({ value, words: `${value > 0 ? '+' : '−'}${Math.abs(value)}°` }))
const played = ref<Record<string, number>>({})
const last = ref('')
function play(device: DeviceId) {
  const { says, words, unit } = DEVICES[device]
  const i = (played.value[device] ?? 0) % says.length
  played.value = { ...played.value, [device]: i + 1 }
  playFigure({ device, value: says[i]!, standIn: true })
  last.value = `${words}: ${says[i]} ${unit}`
}
</script>

<template>
  <div>
    <PageHead title="Devices" />
    <main class="mx-auto grid max-w-2xl gap-6 px-4 py-5 sm:px-6">
      <section aria-labelledby="hand" class="grid gap-3">
        <h2 id="hand" class="border-b-2 border-ink text-lg font-bold">A third hand</h2>
        <p v-if="!session.now?.person" class="stopped" role="status">Say who works here first: it is kept for each.</p>
        <template v-else>
          <p>
            A pedal, a media button, two knocks: for {{ session.now.person.name }}, on this tablet. All of it off with
            one switch.
          </p>
          <OnOff v-model="handOn" words="Third hand" test="hand-on" />
          <div class="grid gap-2 sm:grid-cols-2">
            <button
              v-for="a in HAND_ACTS"
              :key="a.act"
              type="button"
              class="also"
              :aria-pressed="teaching === a.act"
              :data-test="`teach-${a.act}`"
              @click="teaching = teaching === a.act ? null : a.act"
            >
              {{ teaching === a.act ? 'Press the pedal now' : `Teach: ${a.words.toLowerCase()}` }}
            </button>
          </div>
          <p v-if="told" role="status" data-test="taught">{{ told }}</p>
          <ul v-if="taught.length" class="border-t border-rule">
            <li v-for="t in taught" :key="t.key" class="flex min-h-12 items-center gap-3 border-b border-rule">
              <kbd class="key">{{ name(t.key) }}</kbd> {{ t.words }}
              <button
                type="button"
                class="quiet ml-auto text-stop"
                :aria-label="`Forget ${name(t.key)}`"
                @click="forget(t.key)"
              >
                Forget
              </button>
            </li>
          </ul>
          <p class="label">Two knocks on the stand, or two claps</p>
          <ChoiceRow v-model="knocks" label="Two knocks" :choices="KNOCKS" :columns="3" test="knocks" />
          <OnOff v-model="speaks" words="The next move, spoken by the browser’s own voice" test="speaks" />
          <p class="small">
            Knocks are listened for on the tablet while a bench is open; nothing heard is kept or sent. A gate is never
            signed by a knock or a pedal: it asks for the hand that answers for it.
          </p>
        </template>
      </section>
      <section aria-labelledby="real" class="grid gap-2">
        <h2 id="real" class="border-b-2 border-ink text-lg font-bold">Gauges</h2>
        <p>
          One that types like a keyboard needs no teaching: it is told from a person by its speed, and its figure goes
          into the line that waits for one; at Prove a torque wrench’s goes to the bolt that is next.
        </p>
        <p class="label">On a serial line: what is it</p>
        <p v-if="line" class="figure font-semibold" role="status" data-test="line-on">
          {{ DEVICES[line.device].words }} is on the line{{ lineLast ? `. Last said, ${lineLast}` : '' }}
        </p>
        <template v-else>
          <ChoiceRow v-model="lineOf" label="What is on the line" :choices="LINE_OF" :columns="2" test="line" />
          <p class="label">Its speed, as its paper says</p>
          <ChoiceRow v-model="speed" label="Speed of the line" :choices="SPEEDS" :columns="3" test="speed" />
        </template>
        <p v-if="lineTrouble" class="stopped" role="alert" data-test="line-trouble">{{ lineTrouble }}.</p>
        <button v-if="line" type="button" class="also justify-center" data-test="line-off" @click="serial.disconnect">
          Let the line go
        </button>
        <button
          v-else
          type="button"
          class="also justify-center"
          :disabled="connecting"
          data-test="line-connect"
          @click="connect"
        >
          {{ connecting ? 'Connecting' : 'Connect the line' }}
        </button>
        <p class="small">
          A wrench’s highest before the hand lets go is meant, a gauge’s length where it stands still. The line stays
          open from page to page until this one is loaded anew.
        </p>
      </section>
      <section v-if="session.now?.shop.demo" aria-labelledby="stand-ins" class="grid gap-3" data-test="stand-ins">
        <h2 id="stand-ins" class="border-b-2 border-ink text-lg font-bold">Stand-ins</h2>
        <p>
          They play what a shop would plug in, to try things with. Each says that it is one, and plays in this shop of
          made-up bikes only.
        </p>
        <OnOff v-model="camera" words="Camera that shows rendered bikes" test="stand-in-camera" />
        <p class="label">Taken from so far to the frame’s side</p>
        <ChoiceRow v-model="cameraDeg" label="From the side" :choices="ANGLES" test="stand-in-angle" />
        <OnOff v-model="microphone" words="Microphone that hears made chains" test="stand-in-microphone" />
        <p class="label">Gauges: each touch sends the next figure to the bench that is open on this tablet</p>
        <div class="grid gap-2 sm:grid-cols-2">
          <button
            v-for="(d, id) in DEVICES"
            :key="id"
            type="button"
            class="also justify-center text-center"
            :data-test="`play-${id}`"
            @click="play(id)"
          >
            {{ d.words }}
          </button>
        </div>
        <p v-if="last" role="status" class="figure" data-test="played">Sent, {{ last }}</p>
      </section>
    </main>
  </div>
</template>
