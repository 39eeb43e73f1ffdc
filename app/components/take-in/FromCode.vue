<!-- A bike that brings its setup with it: the square code read by camera, from a picture, or pasted; what it would take
     is shown first. -->
<script setup lang="ts">
import { sayParts } from '#core/rear/parts'
import { readSetup, type ReadSetup } from '#core/travel/read'
import type { Setup } from '#core/travel/setup'

const emit = defineEmits<{ take: [setup: Setup]; close: [] }>()
const texts = ref<string[]>([])
const pasted = ref('')
const read = shallowRef<ReadSetup | null>(null)
const trouble = ref('')
function see(text: string) {
  if (!text.trim() || texts.value.includes(text)) return
  trouble.value = ''
  // a half joins the other half; anything else starts anew
  const with2 = read.value?.is === 'part' ? [...texts.value, text] : [text]
  texts.value = with2
  read.value = readSetup(with2)
  if (read.value.is === 'wrong') texts.value = []
  if (read.value.is === 'setup') stop()
}
/** What is wrong with the last try, of a picture or of what it said. */
const wrong = computed(() => trouble.value || (read.value?.is === 'wrong' ? read.value.why : ''))
const facts = computed(() => {
  if (read.value?.is !== 'setup') return []
  const s = read.value.setup
  return [
    ['Bike', s.bike],
    ['It left', sayDay(s.left)],
    ['Drivetrain', s.rear ? sayParts(s.rear) : 'no derailleur at the back'],
    ...(s.gapMm === null ? [] : [['B gap', `${s.gapMm} mm`]]),
    ...s.housing.map(h => [`Housing, ${h.run} ${h.place}`, `${h.lengthMm} mm`]),
    ...(s.hub ? [['Hub', `${s.hub.ratios.length} gears, ${s.hub.way}`]] : []),
    ...s.brakes.map(b => [`${b.parts.brake} brake`, b.parts.kind.replace('-', ' ')]),
  ] as [string, string][]
})

/** Looks for a square code in a picture; the reader is fetched when it is first wanted. */
async function scan(image: ImageData): Promise<string | null> {
  const { default: jsQR } = await import('jsqr')
  return jsQR(image.data, image.width, image.height)?.data ?? null
}
const canvas = () => document.createElement('canvas').getContext('2d', { willReadFrequently: true })!
function pixels(of: CanvasImageSource, width: number, height: number, most: number): ImageData {
  const scale = Math.min(1, most / Math.max(width, height))
  const to = canvas()
  to.canvas.width = Math.max(1, Math.round(width * scale))
  to.canvas.height = Math.max(1, Math.round(height * scale))
  to.drawImage(of, 0, 0, to.canvas.width, to.canvas.height)
  return to.getImageData(0, 0, to.canvas.width, to.canvas.height)
}
/** A picture larger than this is not one of a code. */
const MOST_BYTES = 30_000_000
async function picture(event: Event) {
  const file = (event.target as HTMLInputElement).files?.[0]
  if (!file) return
  trouble.value = ''
  if (file.size > MOST_BYTES)
    return void (trouble.value = 'That picture is larger than 30 MB: take one of the code alone')
  try {
    const bitmap = await createImageBitmap(file)
    for (const most of [1600, 900, 2600]) {
      const found = await scan(pixels(bitmap, bitmap.width, bitmap.height, most))
      if (found) return see(found)
    }
    trouble.value = 'No square code is seen in that picture: nearer, flat, and in good light'
  } catch {
    trouble.value = 'That is no picture that can be read'
  }
}

const video = useTemplateRef<HTMLVideoElement>('video')
const looking = ref(false)
let stream: MediaStream | null = null
let timer: ReturnType<typeof setTimeout> | undefined
const EVERY_MS = 250
async function look() {
  trouble.value = ''
  try {
    stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment' } })
  } catch {
    return void (trouble.value = 'No camera, or it may not be used here: take a picture, or paste its text')
  }
  looking.value = true
  await nextTick()
  const v = video.value!
  v.srcObject = stream
  await v.play().catch(() => undefined)
  const once = async () => {
    if (!looking.value) return
    if (v.videoWidth) {
      const found = await scan(pixels(v, v.videoWidth, v.videoHeight, 1000))
      if (found) see(found)
    }
    timer = setTimeout(() => void once(), EVERY_MS)
  }
  void once()
}
function stop() {
  looking.value = false
  clearTimeout(timer)
  for (const track of stream?.getTracks() ?? []) track.stop()
  stream = null
}
onScopeDispose(stop)
</script>

<template>
  <section class="border-l-[6px] border-ink bg-panel p-3" aria-label="From its code" data-test="from-code">
    <div class="flex flex-wrap items-center justify-between gap-2">
      <h2 class="text-lg font-bold">From the code it brings</h2>
      <button type="button" class="quiet" @click="emit('close')">Close</button>
    </div>
    <div class="mt-2 flex flex-wrap gap-2">
      <button type="button" class="also" data-test="code-camera" @click="looking ? stop() : look()">
        {{ looking ? 'Stop the camera' : 'With the camera' }}
      </button>
      <label class="also cursor-pointer"
        >From a picture<input type="file" accept="image/*" class="sr-only" data-test="code-picture" @change="picture"
      /></label>
    </div>
    <video
      v-if="looking"
      ref="video"
      class="mt-2 max-h-72 w-full bg-mat"
      muted
      playsinline
      aria-label="What the camera sees"
    />
    <form class="mt-2 grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2" novalidate @submit.prevent="see(pasted)">
      <label class="label"
        >Or its text, pasted<textarea v-model="pasted" class="field min-h-14 py-2" rows="2" data-test="code-text" />
      </label>
      <button class="also" data-test="code-read">Read it</button>
    </form>
    <p v-if="wrong" class="wrong mt-2" role="alert" data-test="code-trouble">{{ wrong }}</p>
    <p v-if="read?.is === 'part'" class="mt-2 font-semibold" role="status" data-test="code-part">
      That was {{ read.part }} of 2: now the other code.
    </p>
    <div v-if="read?.is === 'setup'" class="mt-3" data-test="code-setup">
      <dl class="grid grid-cols-[minmax(0,12rem)_1fr] border-t-2 border-ink">
        <template v-for="[what, figure] in facts" :key="what"
          ><dt class="border-b border-rule py-1">{{ what }}</dt>
          <dd class="figure border-b border-rule py-1">{{ figure }}</dd></template
        >
      </dl>
      <p v-if="read.unknown.length" class="small mt-1" data-test="code-unknown">
        Not known to this Ocho, and left out: {{ read.unknown.join('; ') }}
      </p>
      <p class="small mt-1">
        Its figures are what another shop left: nothing is proven by them, and both brakes are proven here.
      </p>
      <button type="button" class="act mt-2" data-test="code-take" @click="emit('take', read.setup)">
        Start from this
      </button>
    </div>
  </section>
</template>
