import { refAutoReset } from '@vueuse/core'
import { usualLens, type Pixel } from '#core/sight/camera'
import type { Found } from '#core/sight/edges'
import { MOST_BYTES, NO_PICTURE_WORDS, type Place } from '#core/sight/measures'
import type { TouchedPicture } from '#core/sight/tell'
import { barsOf, isBlurred, TOUCH_SD_PX, towards, type RimTouch, type Touch } from '#core/sight/touch'
import { useSight } from '~/workers/useSight'

/**
 * A place as it was touched: where the finger was, what was found there, whether a hand put it right, and whether it
 * was found without a touch.
 */
export type Touched = { by: Pixel; found: Found | null; byHand: boolean; alone?: boolean; sdPx: number }
/** A picture with its touches. */
export type Shot = {
  file: Blob
  url: string
  width: number
  height: number
  touched: Record<string, Touched>
  /** What was found besides along the largest sprocket's edge. */
  along: readonly RimTouch[]
  /** And along the pulley's. */
  pulleyAlong: readonly Touch[]
}

const within = (at: number, size: number) => Math.max(0, Math.min(size - 1, at))
/** How blurred its end is, px; null where none was found. */
const blurOf = (t: Touched) => t.found?.blurPx ?? null
export const placeOf = (t: Touched): Pixel => t.found?.at ?? t.by

/**
 * One or more pictures of the same thing, touched place by place. Edges are found beside the page; what is off is
 * dragged or nudged right.
 * @param places what is touched, in order
 * @param sprocket the one that is touched, where one is: its teeth, and its radius at their tips, mm
 * @param pulleyTeeth null where they were not counted
 */
export function useMeasure(
  places: () => readonly Place[],
  sprocket: () => { teeth: number; radiusMm: number },
  pulleyTeeth: () => number | null,
) {
  const sight = useSight()
  const shots = shallowRef<Shot[]>([])
  const trouble = ref('')
  const busy = ref(false)
  /** How many touches an edge is being looked for. */
  const looking = ref(0)
  const shot = computed(() => shots.value.at(-1) ?? null)
  const next = computed(() => places().find(p => !shot.value?.touched[p.id]) ?? null)
  /** What a nudge moves: the last touched. */
  const inHand = ref<string | null>(null)
  /** Where a key has just moved it to: shown under the magnifier for a while. */
  const nudged = refAutoReset<Pixel | null>(null, 2_000)
  const blurred = computed(() => {
    const ends = places().filter(p => p.finding === 'end')
    return isBlurred(ends.flatMap(p => (shot.value?.touched[p.id] ? [blurOf(shot.value.touched[p.id]!)] : [])))
  })
  const drop = () => shots.value.forEach(s => URL.revokeObjectURL(s.url))
  onScopeDispose(drop)

  function again(): void {
    drop()
    shots.value = []
    inHand.value = null
    trouble.value = ''
  }
  async function open(file: Blob): Promise<void> {
    trouble.value = ''
    if (file.size > MOST_BYTES) return void (trouble.value = NO_PICTURE_WORDS.large)
    busy.value = true
    const opened = await sight().open(file)
    busy.value = false
    if (opened.is === 'no') return void (trouble.value = NO_PICTURE_WORDS[opened.why])
    inHand.value = null
    shots.value = [
      ...shots.value,
      {
        file,
        url: URL.createObjectURL(file),
        width: opened.width,
        height: opened.height,
        touched: {},
        along: [],
        pulleyAlong: [],
      },
    ]
  }

  const write = (id: string, touched: Touched | null) => {
    const last = shot.value
    if (!last) return
    const { [id]: _, ...others } = last.touched
    const all = touched ? { ...last.touched, [id]: touched } : others
    shots.value = [...shots.value.slice(0, -1), { ...last, touched: all }]
  }
  const alone = computed(() => Object.entries(shot.value?.touched ?? {}).filter(([, t]) => t.alone))
  /** Takes the last touch off, and what was found by itself from it. */
  function back(): void {
    for (const [id] of alone.value) write(id, null)
    const last = [...places()].reverse().find(p => shot.value?.touched[p.id])
    if (last) write(last.id, null)
    inHand.value = null
  }
  /** What is plain by itself is put down, for the hand to look at. */
  async function propose(): Promise<void> {
    const last = shot.value
    const untouched = (id: string) => places().some(p => p.id === id) && !shot.value?.touched[id]
    if (!last || (!untouched('near') && !untouched('pulleyUpper'))) return
    const standing = Object.fromEntries(
      Object.entries(last.touched).map(([id, t]) => [id, { at: placeOf(t), found: t.found }]),
    )
    for (const { id, found } of await sight().propose(standing, sprocket().radiusMm, pulleyTeeth()))
      // touched, or another picture taken, meanwhile
      if (shot.value?.url === last.url && untouched(id))
        write(id, { by: found.at, found, byHand: false, alone: true, sdPx: TOUCH_SD_PX.found })
  }

  /**
   * Once a bar's ends and the near edge stand, more of it is found between them; anew when one of them is moved.
   * @param find null where what stands is no bar
   */
  function findAlong(ids: readonly string[], find: (ends: Touched[]) => Promise<Partial<Shot> | null>): void {
    watch(
      ids.map(id => () => shot.value?.touched[id]),
      async ends => {
        const last = shot.value
        if (!last || !ends.every(t => t !== undefined)) return
        const found = await find(ends)
        // moved, or another picture taken, meanwhile
        if (found && shot.value?.url === last.url && ends.every(t => Object.values(shot.value!.touched).includes(t)))
          shots.value = [...shots.value.slice(0, -1), { ...shot.value, ...found }]
      },
    )
  }
  const rimOf = (ends: readonly Touched[]) => {
    const [upper, lower, near] = ends.map(placeOf) as [Pixel, Pixel, Pixel]
    return towards(upper, lower) && { upper, lower, near }
  }
  findAlong(['upper', 'lower', 'near'], async ends => {
    const rim = rimOf(ends)
    return rim && { along: await sight().along(rim, sprocket()) }
  })
  findAlong(['upper', 'lower', 'near', 'pulleyUpper', 'pulleyLower'], async ends => {
    const rim = rimOf(ends)
    const [upper, lower] = ends.slice(3).map(placeOf) as [Pixel, Pixel]
    if (!rim || !towards(upper, lower)) return null
    return { pulleyAlong: await sight().pulleyAlong(rim, { upper, lower }, sprocket().radiusMm) }
  })

  async function findAt(place: Place, by: Pixel, reachPx: number): Promise<Found | null> {
    if (place.finding === 'none') return null
    if (place.finding === 'step') {
      const other = shot.value?.touched[place.from!]
      const along = other && towards(placeOf(other), by)
      return along ? sight().find('step', by, along, 0, reachPx) : null
    }
    const { upper, lower } = shot.value?.touched ?? {}
    // which way the bar runs is known once both of the sprocket's ends were touched
    if (!upper || !lower) return null
    const { focalPx } = usualLens(shot.value!.width, shot.value!.height)
    const { down, widthPx } = barsOf(placeOf(upper), placeOf(lower), sprocket().radiusMm, focalPx)
    const along: Pixel = place.bar?.end === 'lower' ? [-down[0], -down[1]] : down
    return sight().find(place.finding, by, along, widthPx[place.bar?.of ?? 'near'], reachPx)
  }

  /**
   * A place is touched, or put right by hand.
   * @param reachPx how far off the touch may be, px of the picture
   */
  async function touch(place: Place, by: Pixel, reachPx: number, byHand: boolean): Promise<void> {
    looking.value++
    try {
      await placed(place, by, reachPx, byHand)
    } finally {
      looking.value--
    }
  }
  async function placed(place: Place, by: Pixel, reachPx: number, byHand: boolean): Promise<void> {
    inHand.value = place.id
    write(place.id, { by, found: null, byHand, sdPx: byHand ? TOUCH_SD_PX.byHand : reachPx / 2 })
    await settle(place, by, reachPx, byHand)
    // the first end is looked for only now that the second tells which way the bar runs
    if (place.id === 'lower') {
      const first = places().find(p => p.id === 'upper')!
      const was = shot.value?.touched.upper
      if (was && !was.byHand) await settle(first, was.by, was.sdPx * 2, false)
    }
    const from = places().find(p => p.id === place.from)
    const other = from && shot.value?.touched[from.id]
    if (other && !other.found && !other.byHand) await settle(from, other.by, other.sdPx * 2, false)
    if (place.id === 'pulleyLower') await propose()
  }
  async function settle(place: Place, by: Pixel, reachPx: number, byHand: boolean): Promise<void> {
    const found = await findAt(place, by, reachPx)
    // touched anew meanwhile
    if (shot.value?.touched[place.id]?.by !== by) return
    const sdPx = found ? TOUCH_SD_PX.found : byHand ? TOUCH_SD_PX.byHand : reachPx / 2
    write(place.id, { by, found, byHand, sdPx })
  }
  /** Put down where it is shown, for keys to take from there: nothing is looked for about it. */
  function put(place: Place, by: Pixel): void {
    inHand.value = place.id
    nudged.value = by
    write(place.id, { by, found: null, byHand: true, sdPx: TOUCH_SD_PX.byHand })
  }
  /** Moves what is in hand by whole pixels, where no edge was the right one. */
  function nudge(right: number, down: number): void {
    const id = inHand.value
    const was = id ? shot.value?.touched[id] : undefined
    if (!id || !was) return
    const [u, v] = placeOf(was)
    const by: Pixel = [within(u + right, shot.value!.width), within(v + down, shot.value!.height)]
    nudged.value = by
    write(id, { by, found: null, byHand: true, sdPx: TOUCH_SD_PX.byHand })
  }
  /** Every picture's places as the measuring takes them; null while one is still to be touched. */
  const touches = computed<TouchedPicture[] | null>(() =>
    shots.value.length && shots.value.every(s => places().every(p => s.touched[p.id])) ? touchedSoFar() : null,
  )
  function touchedSoFar(): TouchedPicture[] {
    const touched = (s: Shot) =>
      Object.fromEntries(Object.entries(s.touched).map(([id, t]) => [id, { at: placeOf(t), sdPx: t.sdPx }]))
    return shots.value.map(s => ({
      widthPx: s.width,
      heightPx: s.height,
      touched: touched(s),
      along: s.along,
      pulleyAlong: s.pulleyAlong,
    }))
  }

  return {
    sight,
    shots,
    shot,
    next,
    inHand,
    nudged,
    alone,
    blurred,
    trouble,
    busy,
    looking,
    touches,
    touchedSoFar,
    open,
    again,
    back,
    touch,
    put,
    nudge,
  }
}
export type Measure = ReturnType<typeof useMeasure>
