<!-- The highest gear heard as its wheel coasts: so many seconds from the moment it is let go, then what they say. -->
<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { COAST_S, type Coasted, type NotCoasted } from '#core/hearing/coasting'
import { NOT_COASTED_WORDS, sayOdds } from '#core/hearing/words'
import { saySoundedTick } from '#core/hub/words'
import { useHearing } from '~/workers/useHearing'

const emit = defineEmits<{ noted: [tickOdds: number] }>()
const hearing = useHearing()
const microphone = useMicrophone(COAST_S)
const standIns = useStandIns()
const standing = ref(false)
const told = shallowRef<Coasted | NotCoasted | null>(null)
const sure = computed(() => (told.value?.is === 'heard' ? told.value : null))
/** Listening began then; null while it does not. */
const since = ref<number | null>(null)
const now = ref(0)
const part = computed(() => (since.value === null ? 0 : Math.min(1, (now.value - since.value) / 1000 / COAST_S)))
const STEP_MS = 100
const { pause, resume } = useIntervalFn(step, STEP_MS, { immediate: false })

/** From the tap until it says something: a second tap begins nothing. */
const busy = ref(false)
async function begin(standIn: boolean) {
  if (busy.value) return
  busy.value = true
  told.value = null
  standing.value = standIn
  if (standIn) return listened(await hearing().standInCoast())
  await microphone.start()
  if (!microphone.on.value) return void (busy.value = false)
  since.value = now.value = Date.now()
  resume()
}
function step() {
  now.value = Date.now()
  if (part.value >= 1) void listened(microphone.recording())
}
async function listened({ samples, rateHz }: { samples: Float32Array; rateHz: number }) {
  pause()
  microphone.stop()
  since.value = null
  try {
    told.value = await hearing().coast(samples, rateHz)
  } finally {
    busy.value = false
  }
}
const oddsWords = computed(() => sayOdds(sure.value?.tickOdds ?? 1, 'the highest gear', 'another'))
</script>

<template>
  <section class="grid gap-2 border-t border-rule pt-2" aria-label="Listen to the highest gear">
    <p class="small">
      Highest gear, cranks held, tablet within half a metre. Spin the wheel, let go, then tap: it listens for
      {{ COAST_S }} seconds. Fingers clear of the spokes.
    </p>
    <div aria-live="polite">
      <template v-if="sure">
        <p class="text-xl leading-tight font-bold first-letter:uppercase" data-test="tick-heard">
          {{ saySoundedTick(sure.tickOdds) }}
        </p>
        <p class="leading-snug" data-test="tick-figures">
          {{ sure.ticksHz.toFixed(0) }} ticks a second, would stand in about {{ sure.stopsInS.toFixed(0) }} s:
          {{ oddsWords ?? 'that is like either' }}.
        </p>
      </template>
      <p v-else-if="told && told.is === 'nothing'" data-test="tick-not-heard">{{ NOT_COASTED_WORDS[told.why] }}</p>
    </div>
    <p v-if="microphone.trouble.value" class="stopped" role="alert" data-test="mic-trouble">
      {{ microphone.trouble.value }}.
    </p>
    <p v-if="standing" class="small font-semibold">A stand-in plays in place of the microphone.</p>
    <ProgressBar v-if="since !== null" :share="part" what="Listening" />
    <template v-else>
      <template v-if="sure && oddsWords">
        <button type="button" class="act" data-test="tick-note" @click="emit('noted', sure.tickOdds)">
          Note what it heard
        </button>
        <p class="small">It counts beside what you say, never instead.</p>
      </template>
      <button type="button" class="also justify-center" :disabled="busy" data-test="tick-listen" @click="begin(false)">
        {{ told ? 'Listen again' : 'It spins: listen' }}
      </button>
      <button
        v-if="standIns.microphone"
        type="button"
        class="also justify-center"
        :disabled="busy"
        data-test="tick-stand-in"
        @click="begin(true)"
      >
        From the stand-in microphone
      </button>
    </template>
  </section>
</template>
