import { z } from 'zod'
import type { BrakeKind, BrakeParts, LeverClass } from '#core/brake/kinds'
import { isDiagnosed } from '#core/brake/kinds'
import {
  armRatio,
  biteShare,
  discBiteShare,
  discFigures,
  discJudged,
  padGapMm,
  ROTOR_WITHIN_MM,
  straddle,
  straddleJudged,
} from '#core/brake/sums'
import { BRAKE_BARREL, MOST_LET_OUT_MM } from '#core/brake/barrel'
import { typedNumber } from '#core/quantity/typed'
import { within } from '#core/quantity/within'
import type { Standards } from '#core/standards/inForce'

/** Arms on a rim: a kind with its lever. */
type Rim = { kind: BrakeKind; lever: LeverClass }
/** What a sum gives, or why there is none. */
type Sum<T> = { value: T; trouble: null } | { value: null; trouble: string }

const LetOut = z.object({
  letOut: within('Let out, mm', 0, MOST_LET_OUT_MM),
  wound: within('Wound in, turns', 0, BRAKE_BARREL.turns),
  worn: within('Worn by, mm', 0, 6),
})
const Straddle = z.object({
  yokeMm: within('Yoke over its anchors, mm', 1, 300),
  apartMm: within('Anchors apart, mm', 1, 400),
  overTyreMm: within('Yoke over tyre, mm', 0, 200).nullable(),
})
const discOf = (rotorNewMm: number) =>
  z.object({
    rotorMm: z
      .number({ error: 'Rotor: type a number' })
      .positive('Rotor: more than 0 mm')
      .max(rotorNewMm + ROTOR_WITHIN_MM, `A rotor is at most ${rotorNewMm} mm, new: measure again, away from the edge`),
    padMm: within('Pad, mm', 0, 20),
    gapMm: within('Gap a side, mm', 0, 5),
  })

/** A brake's sums by what is typed, each refused in words; nothing of it is kept. */
export function useBrakeSums(parts: Ref<BrakeParts | null>, standards: Ref<Standards>) {
  const typed = reactive({
    letOut: '5',
    wound: '',
    worn: '1',
    rotor: '',
    pad: '',
    sideGap: '0.3',
    yoke: '60',
    apart: '120',
    overTyre: '30',
  })
  /** How far the lever is drawn, 0 to 1. */
  const share = ref(0)
  const number = (text: string) => (text.trim() === '' ? 0 : typedNumber(text))
  function summed<S extends z.ZodType, T>(schema: S, figures: unknown, sum: (read: z.infer<S>) => T): Sum<T> {
    const read = schema.safeParse(figures)
    if (!read.success) return { value: null, trouble: read.error.issues[0]!.message }
    try {
      return { value: sum(read.data), trouble: null }
    } catch (error) {
      return { value: null, trouble: (error as Error).message }
    }
  }
  const kind = computed(() => {
    const k = parts.value?.kind
    return k && isDiagnosed(k) ? k : null
  })
  const lever = computed(() => parts.value?.lever ?? null)
  const rim = computed<Rim | null>(() =>
    kind.value && lever.value && armRatio(kind.value, standards.value) !== null
      ? { kind: kind.value, lever: lever.value }
      : null,
  )
  const gap = computed(() =>
    rim.value
      ? summed(
          LetOut,
          { letOut: number(typed.letOut), wound: number(typed.wound), worn: number(typed.worn) },
          ({ letOut, wound, worn }) => {
            const { kind: k, lever: l } = rim.value!
            const gapMm = padGapMm(k, letOut + wound * BRAKE_BARREL.threadMm, standards.value)
            return {
              gapMm,
              wornMm: worn,
              bite: biteShare(k, l, gapMm, standards.value),
              wornBite: biteShare(k, l, gapMm + worn, standards.value),
            }
          },
        )
      : null,
  )
  const disc = computed(() =>
    kind.value === 'cable-disc' && typed.rotor.trim() && typed.pad.trim()
      ? summed(
          discOf(discFigures(standards.value).rotorNewMm),
          { rotorMm: typedNumber(typed.rotor), padMm: typedNumber(typed.pad), gapMm: typedNumber(typed.sideGap) },
          read => ({ ...read, words: discJudged(read.rotorMm, read.padMm, read.gapMm, standards.value) }),
        )
      : null,
  )
  const discBite = computed(() => {
    const gapMm = typedNumber(typed.sideGap)
    return kind.value === 'cable-disc' && lever.value && gapMm > 0 && gapMm <= 5
      ? discBiteShare(lever.value, gapMm, standards.value)
      : null
  })
  const straddled = computed(() =>
    kind.value === 'cantilever'
      ? summed(
          Straddle,
          {
            yokeMm: typedNumber(typed.yoke),
            apartMm: typedNumber(typed.apart),
            overTyreMm: typed.overTyre.trim() === '' ? null : typedNumber(typed.overTyre),
          },
          read => {
            const { deg } = straddle(read.yokeMm, read.apartMm)
            const { right, words } = straddleJudged(deg, read.overTyreMm, standards.value)
            return { ...read, deg, right, words: `${Math.round(deg)}° between the wires, ${words}.` }
          },
        )
      : null,
  )
  return { typed, share, kind, lever, rim, gap, disc, discBite, straddled }
}
export type BrakeSumsOf = ReturnType<typeof useBrakeSums>
