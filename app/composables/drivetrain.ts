import { fittingSeen, plainlyFits, type Seen } from '#core/job/seen'
import {
  NOTHING_TYPED,
  ofThisBike,
  readTypedParts,
  standardById,
  typedFromCatalogue,
  wholeStandard,
  withMeasured,
  type TypedParts,
} from '#core/rear/typedParts'
import type { EntryInForce } from '#core/standards/shopValues'

type Seeing = Pick<Seen, 'sprockets' | 'lever'>
type Options = {
  seen: Ref<Seeing>
  used: Ref<Readonly<Record<string, number>>>
  catalogue: Ref<readonly EntryInForce[]>
  /** Lines already known; null where nobody has said anything. */
  start: TypedParts | null
}

/**
 * A drivetrain chosen by looking: out of what fits, measured or typed; open until one is taken. What was counted takes
 * one by itself only where nothing else is plausible, and never over what a hand has chosen.
 */
export function useDrivetrain({ seen, used, catalogue, start }: Options) {
  const typed = ref<TypedParts>(start ?? NOTHING_TYPED)
  const open = ref(start === null)
  /** Chosen by a hand, or known from before: stays while it can be. */
  const byHand = ref(start !== null)
  const way = ref<'fits' | 'figures' | 'measure'>('fits')
  const read = computed(() => readTypedParts(typed.value))
  const chosen = computed(() => (open.value ? null : wholeStandard(typed.value) || 'typed'))

  function take(id: string | null) {
    open.value = id === null
    if (id !== null)
      typed.value = { ...typed.value, ...typedFromCatalogue(id, catalogue.value), ...ofThisBike(typed.value) }
  }
  function choose(id: string | null) {
    byHand.value = id !== null
    take(id)
  }
  function measured(change: Partial<TypedParts>) {
    typed.value = withMeasured(typed.value, change)
    open.value = false
    byHand.value = true
    way.value = 'fits'
  }
  /** Lines typed by hand: they are its parts. */
  function type(lines: TypedParts) {
    typed.value = lines
    open.value = false
    byHand.value = true
  }
  /** Starts anew, as when another bike is chosen. */
  function restart(lines: TypedParts | null) {
    typed.value = lines ?? NOTHING_TYPED
    open.value = lines === null
    byHand.value = lines !== null
  }
  watch(
    () => [seen.value.sprockets, seen.value.lever, used.value] as const,
    ([sprockets]) => {
      const now = chosen.value && chosen.value !== 'typed' ? standardById(chosen.value) : undefined
      const fits = !now || sprockets === null || now.speeds === sprockets
      if (byHand.value && fits) return
      byHand.value = false
      take(plainlyFits(fittingSeen(seen.value, used.value))?.standard.id ?? null)
    },
  )
  const go = (to: typeof way.value) => {
    way.value = to
  }
  return { typed, open, way, go, read, chosen, byHand, choose, measured, type, restart }
}
export type Drivetrain = ReturnType<typeof useDrivetrain>
