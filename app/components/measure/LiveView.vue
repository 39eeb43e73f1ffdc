<!-- The camera held live: the gaps between the sprockets, how open they stand against the most that was seen, and the
     picture when the hand is there. Nothing of it is kept but what is taken. -->
<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import type { Remote } from 'comlink'
import type { StandInAsk } from '#core/bench/standInCamera'
import { bandOf, lead, type Led } from '#core/sight/plane'
import type { SightApi } from '~/workers/sight'

const props = defineProps<{
  sight: () => Remote<SightApi>
  /** What a stand-in is held at, from so many degrees to the frame's side; null where the tablet's own camera is. */
  standIn: ((viewDeg: number) => StandInAsk) | null
}>()
const emit = defineEmits<{ taken: [picture: Blob]; close: [] }>()

/** A hand is led by so many looks a second. */
const EVERY_MS = 200
/** The largest sprocket is held in a box so high, about so far down the picture, shares of its height. */
const BOX = { high: 0.42, down: 0.45 } as const
/** A stand-in rocks by itself: so far to both sides, °, once in so long, ms. */
const ROCKS = { deg: 3.5, everyMs: 9_000 } as const

const video = useTemplateRef<HTMLVideoElement>('video')
const drawn = useTemplateRef<HTMLCanvasElement>('drawn')
const trouble = ref('')
const led = shallowRef<Led | null>(null)
let stream: MediaStream | undefined
let viewDeg = 0
const began = performance.now()

onMounted(async () => {
  if (props.standIn) return
  const words = (name: string) => mediaTrouble('camera', 'take the picture without seeing it live', name)
  // what types say is always there is missing on an insecure page
  const devices = navigator.mediaDevices as MediaDevices | undefined
  if (!devices) return void (trouble.value = words('Insecure'))
  try {
    stream = await devices.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 4096 } } })
  } catch (error) {
    trouble.value = words((error as Error).name)
    return
  }
  if (!video.value) return stop()
  video.value.srcObject = stream
  await video.value.play().catch(() => {})
})
const stop = () => stream?.getTracks().forEach(t => t.stop())
onBeforeUnmount(stop)

let busy = false
async function look() {
  if (busy || trouble.value) return
  busy = true
  try {
    const shown = props.standIn ? await lookOfStandIn(props.standIn) : await lookOfVideo()
    if (shown !== null) led.value = lead(led.value, shown)
  } catch {
    trouble.value = 'The live view broke off: take the picture without it'
  } finally {
    busy = false
  }
}
async function lookOfStandIn(ask: (deg: number) => StandInAsk): Promise<number | null> {
  viewDeg = ROCKS.deg * Math.cos((2 * Math.PI * (performance.now() - began)) / ROCKS.everyMs)
  const { small, shown } = await props.sight().standInLook(ask(viewDeg))
  const canvas = drawn.value
  if (!canvas) return null
  canvas.width = small.width
  canvas.height = small.height
  canvas.getContext('2d')!.putImageData(small, 0, 0)
  return shown
}
async function lookOfVideo(): Promise<number | null> {
  const v = video.value
  if (!v?.videoWidth) return null
  const band = bandOf([v.videoWidth / 2, BOX.down * v.videoHeight], BOX.high * v.videoHeight)
  const canvas = new OffscreenCanvas(band.width, band.height)
  const at = canvas.getContext('2d', { willReadFrequently: true })!
  at.drawImage(v, band.left, band.top, band.width, band.height, 0, 0, band.width, band.height)
  return props.sight().gaps(at.getImageData(0, 0, band.width, band.height))
}
useIntervalFn(() => void look(), EVERY_MS)

const taking = ref(false)
async function take() {
  taking.value = true
  try {
    if (props.standIn) return emit('taken', await props.sight().rendered(props.standIn(viewDeg)))
    const v = video.value!
    const canvas = new OffscreenCanvas(v.videoWidth, v.videoHeight)
    canvas.getContext('2d')!.drawImage(v, 0, 0)
    emit('taken', await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.95 }))
  } finally {
    taking.value = false
  }
}
const words = computed(() =>
  !led.value?.best
    ? 'Bring the cassette into the box'
    : !led.value.passed
      ? 'Rock it slowly from side to side, through straight behind'
      : led.value.there
        ? 'In the plane: take it'
        : 'Past it: slowly back',
)
</script>

<template>
  <div class="grid gap-2" data-test="live">
    <p v-if="trouble" class="stopped" role="alert" data-test="live-trouble">{{ trouble }}.</p>
    <div v-else class="mat relative overflow-hidden">
      <canvas v-if="standIn" ref="drawn" class="block h-auto w-full" width="400" height="300" />
      <video v-else ref="video" class="block h-auto w-full" muted playsinline />
      <span
        v-if="!standIn"
        class="pointer-events-none absolute border-2 border-dashed border-mat-out"
        :style="{ left: '38%', right: '38%', top: `${100 * (BOX.down - BOX.high / 2)}%`, height: `${100 * BOX.high}%` }"
        aria-hidden="true"
      />
    </div>
    <template v-if="!trouble">
      <p class="text-2xl leading-tight font-bold" aria-live="polite" data-test="led">{{ words }}</p>
      <div
        class="h-4 border-2 border-ink"
        role="meter"
        aria-label="How open the gaps between the sprockets stand, of the most that was seen"
        aria-valuemin="0"
        aria-valuemax="100"
        :aria-valuenow="Math.round(100 * (led?.share ?? 0))"
      >
        <div
          class="h-full"
          :class="led?.there ? 'bg-clean' : 'bg-ink'"
          :style="{ width: `${100 * (led?.share ?? 0)}%` }"
        />
      </div>
      <p class="small">
        {{
          standIn
            ? 'A stand-in rocks in place of a hand.'
            : 'The largest sprocket from top to bottom of the box. From straight behind the gaps stand open.'
        }}
      </p>
    </template>
    <div class="grid grid-cols-2 gap-2">
      <button
        type="button"
        class="justify-center"
        :class="led?.there ? 'act' : 'also'"
        :disabled="taking || !!trouble || !led"
        data-test="live-take"
        @click="take"
      >
        {{ taking ? 'Taking' : 'Take it' }}
      </button>
      <button type="button" class="also justify-center" data-test="live-close" @click="emit('close')">Leave it</button>
    </div>
  </div>
</template>
