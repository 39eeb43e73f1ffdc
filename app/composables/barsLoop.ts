import { TransitionPresets, useTransition, usePreferredReducedMotion } from '@vueuse/core'
import { BarLoop, loopGeometry, usualBarLoop, type Side } from '#core/cable/barLoop'
import { leastRadiusMm, type RunName } from '#core/cable/housing'
import { apartMm, type LoopAt, type LoopGeometry, type PoseName } from '#core/cable/loop'
import { SuspensionLoop, suspensionGeometry, USUAL_SUSPENSION_LOOP } from '#core/cable/suspensionLoop'
import { typedNumber } from '#core/quantity/typed'
import { within } from '#core/quantity/within'
import type { LoopKind } from '~/components/cables/LoopPanel.vue'
import { LOOP_FRAMES, type useCables } from '~/workers/useCables'

/** Typed with a tape: numbers as text, choices as they are. */
export type Tape = Record<string, string | boolean>
const asText = (usual: object): Tape =>
  Object.fromEntries(Object.entries(usual).map(([k, v]) => [k, typeof v === 'number' ? String(v) : v])) as Tape
/** Of what is typed, what is no number. */
const WORDS = ['exit', 'end', 'leverSide']
const TURN_MS = 420
/** Another length than the best one, tried by hand. */
const GivenMm = within('Length, mm', 20, 2000).int('Length: whole mm')

/**
 * The loop at the bars, or across a rear pivot: measured with a tape, worked out beside the page, turned by a touch.
 */
export function useLoopBench(
  run: Ref<RunName>,
  side: Ref<Side | null>,
  open: Ref<boolean>,
  useLoop: ReturnType<typeof useCables>['useLoop'],
) {
  const kind = ref<LoopKind>('bars')
  const tape = ref<Record<LoopKind, Tape>>({
    bars: asText(usualBarLoop(run.value, side.value)),
    suspension: asText(USUAL_SUSPENSION_LOOP),
  })
  const given = ref('')
  // another run, another lever and another end: its own usual figures
  watch([run, side], () => {
    tape.value = { ...tape.value, bars: asText(usualBarLoop(run.value, side.value)) }
  })
  const measured = computed<{ geometry: LoopGeometry | null; axleMm: number; trouble: string }>(() => {
    const figures = Object.fromEntries(
      Object.entries(tape.value[kind.value]).map(([k, v]) => [
        k,
        typeof v === 'string' && !WORDS.includes(k) ? typedNumber(v) : v,
      ]),
    )
    const least = leastRadiusMm(run.value)
    if (kind.value === 'suspension') {
      const read = SuspensionLoop.safeParse(figures)
      return read.success
        ? { geometry: suspensionGeometry(read.data, least), axleMm: read.data.axleMm, trouble: '' }
        : { geometry: null, axleMm: 0, trouble: read.error.issues[0]!.message }
    }
    const read = BarLoop.safeParse(figures)
    return read.success
      ? { geometry: loopGeometry(read.data, least), axleMm: 0, trouble: '' }
      : { geometry: null, axleMm: 0, trouble: read.error.issues[0]!.message }
  })
  const wanted = computed(() => {
    if (given.value.trim() === '') return { mm: null, trouble: '' }
    const read = GivenMm.safeParse(typedNumber(given.value))
    return read.success ? { mm: read.data, trouble: '' } : { mm: null, trouble: read.error.issues[0]!.message }
  })
  const answer = useLoop(
    computed(() =>
      open.value && measured.value.geometry && !wanted.value.trouble
        ? { geometry: measured.value.geometry, givenMm: wanted.value.mm }
        : null,
    ),
  )
  const trouble = computed(
    () => measured.value.trouble || wanted.value.trouble || (answer.value.is === 'failed' ? answer.value.message : ''),
  )
  /**
   * What the figures say and a touch may take: never of a question that was changed meanwhile. The drawing keeps the
   * last shape.
   */
  const picture = computed(() => (!trouble.value && answer.value.is === 'ready' ? answer.value.value : null))
  const shapes = computed(() => (trouble.value ? null : answer.value.value))

  /** Degrees about the loop's axis, between the ends of its turn. */
  const wantedDeg = ref(0)
  const still = usePreferredReducedMotion()
  const turnDeg = useTransition(wantedDeg, {
    duration: TURN_MS,
    easing: TransitionPresets.easeOutCubic,
    disabled: computed(() => still.value === 'reduce'),
  })
  const ends = computed(() => {
    const degs = measured.value.geometry?.poses.map(p => p.deg) ?? [0]
    return { from: Math.min(...degs), to: Math.max(...degs) }
  })
  const drawn = computed<LoopAt | null>(() => {
    const { from, to } = ends.value
    const at = to > from ? Math.max(0, Math.min(1, (turnDeg.value - from) / (to - from))) * (LOOP_FRAMES - 1) : 0
    const [a, b] = [shapes.value?.frames[Math.floor(at)], shapes.value?.frames[Math.ceil(at)]]
    if (!a || !b) return a ?? b ?? null
    const share = at - Math.floor(at)
    return {
      ...(share < 0.5 ? a : b),
      points: a.points.map((p, i) => p.map((v, k) => v + share * (b.points[i]![k]! - v)) as unknown as typeof p),
    }
  })
  const turnTo = (pose: PoseName) => {
    wantedDeg.value = measured.value.geometry?.poses.find(p => p.name === pose)?.deg ?? 0
  }
  const slackMm = computed(() =>
    picture.value && measured.value.geometry
      ? picture.value.lengthMm - apartMm(measured.value.geometry, turnDeg.value)
      : 0,
  )
  watch(kind, () => {
    wantedDeg.value = 0
    given.value = ''
  })
  return { kind, tape, given, measured, answer, trouble, picture, drawn, turnDeg, turnTo, slackMm }
}
