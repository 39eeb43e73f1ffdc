<!-- A photograph that is measured in: touched places with their lines, and a magnifier while a finger is down. A drag
     moves by the picture's own pixels, so that it is finer than the finger. -->
<script setup lang="ts">
import type { Pixel } from '#core/sight/camera'
import { REACH_PX, type Touch } from '#core/sight/touch'
import { placeOf, type Shot } from '~/composables/measure'

const props = defineProps<{
  shot: Shot
  /** What was found besides the places that are touched. */
  dots: readonly Touch[]
  inHand: string | null
  /** Which places are joined by a line. */
  lines: readonly (readonly [string, string])[]
  /** The place to be touched next, for who cannot see it; null when all are. */
  next: string | null
  /** Where a key has just moved the place in hand to. */
  nudged: Pixel | null
  /** An edge is being looked for. */
  looking: boolean
}>()
const emit = defineEmits<{ touch: [at: Pixel, reachPx: number]; move: [id: string, at: Pixel]; put: [at: Pixel] }>()
const frame = useTemplateRef<HTMLElement>('frame')
const glass = useTemplateRef<HTMLCanvasElement>('glass')
const picture = useTemplateRef<HTMLImageElement>('picture')
/** Pixels of the picture to one of the screen. */
const perScreen = () => props.shot.width / Math.max(1, frame.value?.getBoundingClientRect().width ?? 1)
/** What a finger holds: where it is in the picture, and which place it moves; null for a new one. */
const held = shallowRef<{
  at: Pixel
  from: Pixel
  /** Where the finger came down, in the picture and on the screen. */
  touched: Pixel
  screen: Pixel
  id: string | null
  dragged: boolean
} | null>(null)
/** How much closer than the whole picture, and about which place of it. */
const closer = shallowRef<{ times: number; at: Pixel } | null>(null)
const CLOSER = 2
watch(
  () => props.shot.url,
  () => {
    closer.value = null
  },
)
// all touched: the whole is looked at, and a place that is off is drawn under the magnifier
watch(
  () => props.next,
  next => {
    if (!next) closer.value = null
  },
)
const inner = computed(() => {
  const c = closer.value
  if (!c) return { width: '100%', left: '0', top: '0' }
  const { width, height } = props.shot
  const from = (place: number, whole: number) =>
    Math.max(0, Math.min(1 - 1 / c.times, place / whole - 0.5 / c.times)) * c.times * -100
  return {
    width: `${100 * c.times}%`,
    left: `${from(c.at[0], width)}%`,
    top: `${from(c.at[1], height)}%`,
  }
})
const GRAB_SCREEN_PX = 22
const GLASS = { sizePx: 168, times: 3 }

function down(event: PointerEvent) {
  const rect = frame.value!.getBoundingClientRect()
  const per = perScreen()
  const at: Pixel = [(event.clientX - rect.left) * per, (event.clientY - rect.top) * per]
  const near = Object.entries(props.shot.touched)
    .map(([id, t]) => ({ id, at: placeOf(t), off: Math.hypot(placeOf(t)[0] - at[0], placeOf(t)[1] - at[1]) }))
    .filter(t => t.off < GRAB_SCREEN_PX * per)
    .sort((a, b) => a.off - b.off)[0]
  // near a place that stands a drag moves it; a touch alone, or elsewhere, puts the next down
  if (!near && !props.next) return
  const from = near?.at ?? at
  const screen: Pixel = [event.clientX, event.clientY]
  held.value = { at: from, from, touched: at, screen, id: near?.id ?? null, dragged: false }
  frame.value!.setPointerCapture(event.pointerId)
  if (closer.value || near) magnify()
}
function move(event: PointerEvent) {
  const h = held.value
  if (!h) return
  const [du, dv] = [event.clientX - h.screen[0], event.clientY - h.screen[1]]
  held.value = { ...h, at: [h.from[0] + du, h.from[1] + dv], dragged: h.dragged || Math.hypot(du, dv) > 3 }
  magnify()
}
function up() {
  const h = held.value
  held.value = null
  if (!h) return
  // in the whole picture a finger is too thick: the first touch goes closer
  if (!closer.value && !h.dragged && perScreen() > 1.5) {
    closer.value = { times: Math.min(CLOSER, Math.max(2, perScreen())), at: h.at }
    return
  }
  if (h.id && h.dragged) emit('move', h.id, h.at)
  else if (h.dragged) emit('touch', h.at, REACH_PX.magnified)
  else if (props.next) emit('touch', h.touched, Math.max(REACH_PX.finger, Math.min(20, 2 * perScreen())))
}
/** What the magnifier shows. */
const seen = computed(() => (held.value && (closer.value || held.value.id) ? held.value.at : props.nudged))
watch(() => props.nudged, magnify)
function magnify() {
  void nextTick(() => {
    const [canvas, img, middle] = [glass.value, picture.value, seen.value]
    const at = canvas?.getContext('2d')
    if (!canvas || !img || !middle || !at) return
    const side = GLASS.sizePx / GLASS.times
    at.imageSmoothingEnabled = false
    at.fillRect(0, 0, GLASS.sizePx, GLASS.sizePx)
    at.drawImage(img, middle[0] - side / 2, middle[1] - side / 2, side, side, 0, 0, GLASS.sizePx, GLASS.sizePx)
  })
}
/** Without a pointer: the next place goes to the middle of what is shown, and arrow keys take it from there. */
const putMiddle = () => emit('put', closer.value?.at ?? [props.shot.width / 2, props.shot.height / 2])
/** The magnifier stands where the finger is not. */
const aside = computed(() => {
  const middle = closer.value?.at[0] ?? props.shot.width / 2
  return seen.value && seen.value[0] < middle ? 'right' : 'left'
})
const mark = computed(() => props.shot.width / (closer.value ? 60 * closer.value.times * 0.7 : 60))
const shown = computed(() =>
  Object.entries(props.shot.touched).map(([id, t]) => ({
    id,
    at: held.value?.id === id ? held.value.at : placeOf(t),
    sure: t.found !== null || t.byHand,
    alone: t.alone === true,
  })),
)
const ends = computed(() =>
  props.lines.flatMap(([a, b]) => {
    const [from, to] = [shown.value.find(s => s.id === a), shown.value.find(s => s.id === b)]
    return from && to ? [{ key: `${a}${b}`, from: from.at, to: to.at }] : []
  }),
)
</script>

<template>
  <!-- what is pressed stands beside the picture, never over a place in it -->
  <div class="mb-2 flex min-h-12 flex-wrap gap-2">
    <button v-if="next" type="button" class="also" data-test="put-middle" @click="putMiddle">
      Put it in the middle
    </button>
    <button v-if="closer" type="button" class="also" data-test="whole" @click="closer = null">Whole picture</button>
  </div>
  <div
    class="mat relative w-full overflow-hidden"
    :style="{ aspectRatio: `${shot.width} / ${shot.height}` }"
    role="application"
    :aria-busy="looking"
    data-test="photo"
    :aria-label="next ? `Photograph: touch ${next}` : 'Photograph: every place is touched'"
  >
    <div
      ref="frame"
      class="frame absolute"
      :style="inner"
      data-test="photo-touch"
      @pointerdown.prevent="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="held = null"
    >
      <img ref="picture" :src="shot.url" alt="" class="block h-auto w-full select-none" draggable="false" />
      <svg class="absolute inset-0 h-full w-full" :viewBox="`0 0 ${shot.width} ${shot.height}`" aria-hidden="true">
        <g v-for="l in ends" :key="l.key">
          <path
            :d="`M${l.from[0]} ${l.from[1]}L${l.to[0]} ${l.to[1]}`"
            class="under"
            :stroke-width="mark / 3"
            fill="none"
          />
          <path
            :d="`M${l.from[0]} ${l.from[1]}L${l.to[0]} ${l.to[1]}`"
            class="line"
            :stroke-width="mark / 8"
            fill="none"
          />
        </g>
        <!-- nothing to be moved -->
        <circle
          v-for="(t, i) in dots"
          :key="`along${i}`"
          :cx="t.at[0]"
          :cy="t.at[1]"
          :r="mark / 5"
          class="dot"
          :stroke-width="mark / 12"
          data-test="along"
        />
        <g v-for="s in shown" :key="s.id" :transform="`translate(${s.at[0]} ${s.at[1]})`" :data-test="`at-${s.id}`">
          <circle :r="mark" fill="none" class="under" :stroke-width="mark / 2.4" />
          <circle
            :r="mark"
            fill="none"
            :class="s.id === inHand ? 'held' : 'line'"
            :stroke-width="mark / 6"
            :stroke-dasharray="s.alone ? mark / 2 : undefined"
          />
          <path
            v-if="!s.sure"
            data-test="unsure"
            :d="`M0 ${-1.9 * mark}V${-1.2 * mark}M0 ${1.2 * mark}V${1.9 * mark}`"
            class="line"
            :stroke-width="mark / 6"
          />
        </g>
      </svg>
    </div>
    <div v-if="seen" class="glass" :class="aside">
      <canvas ref="glass" :width="GLASS.sizePx" :height="GLASS.sizePx" />
      <i class="cross-v" /><i class="cross-h" />
    </div>
  </div>
</template>

<style scoped>
.frame {
  touch-action: none;
  cursor: crosshair;
}
.under {
  stroke: var(--night);
  stroke-opacity: 0.75;
}
.line {
  stroke: var(--bone);
}
.dot {
  fill: var(--bone);
  stroke: var(--night);
}
.held {
  stroke: var(--mat-out);
}
.glass {
  position: absolute;
  top: 8px;
  width: 168px;
  height: 168px;
  border: 3px solid var(--bone);
  border-radius: 10px;
  overflow: hidden;
  pointer-events: none;
}
.glass.left {
  left: 8px;
}
.glass.right {
  right: 8px;
}
.cross-v,
.cross-h {
  position: absolute;
  background: var(--mat-out);
}
.cross-v {
  left: 50%;
  top: 0;
  bottom: 0;
  width: 1px;
}
.cross-h {
  top: 50%;
  left: 0;
  right: 0;
  height: 1px;
}
</style>
