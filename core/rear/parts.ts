import { MAX_SPROCKETS } from '../standards/drivetrains'
import { z } from 'zod'
import type { RearSetup } from '../response/setup'
import { ANCHOR_WORDS, ANCHORS, anchorFactor } from '../standards/anchor'
import { sharedNumbers } from './fit'

const within = (least: number, most: number, what: string, unit: string) =>
  z
    .number({ error: `${what}: type a number` })
    .min(least, `${what} must be from ${least} to ${most} ${unit}`)
    .max(most, `${what} must be from ${least} to ${most} ${unit}`)

/** Id of a row of the standards table or of a part of the shop's own, or null when typed in. */
const StandardId = z.string().trim().min(1).max(40).nullable()

/**
 * How a part's numbers are known: measured on this bike, the shop's own measurement of such parts, the table's, or
 * typed in without saying. Older entries do not say: a standard counts as the table's, the rest as typed.
 */
export const KNOWN_BY = ['measured', 'shop', 'table', 'typed'] as const
const KnownBy = z.enum(KNOWN_BY).optional()
export type KnownBy = (typeof KNOWN_BY)[number]

const Ratio = within(0.5, 3, 'Pull ratio', '')

/** Shifter, derailleur and cassette are three records, mixed freely. Lists run from the smallest sprocket. */
export const RearParts = z
  .strictObject({
    shifter: z.strictObject({
      standard: StandardId,
      known: KnownBy,
      friction: z.literal(true).optional(),
      pullMm: z
        .array(within(1, 6, 'Pull per click', 'mm'))
        .min(1, 'The shifter needs at least 2 speeds')
        .max(MAX_SPROCKETS - 1, `At most ${MAX_SPROCKETS} speeds`),
    }),
    derailleur: z.strictObject({
      standard: StandardId,
      known: KnownBy,
      /** As listed or typed. */
      pullRatio: Ratio,
      /**
       * What sums go by, when it is known better than the listed one: fitted or measured; a list runs along the travel,
       * click by click.
       */
      ratio: z
        .union([
          Ratio,
          z
            .array(Ratio)
            .min(1)
            .max(MAX_SPROCKETS - 1),
        ])
        .optional(),
      spring: z.enum(['high', 'low']).optional(),
      /** Where the cable lies in a place that the ratio is not of. */
      anchor: z.enum(ANCHORS).optional(),
      /** The maker's own figure for the B gap, where it is known; it wins over every school. */
      makerGapMm: within(1, 30, 'The maker’s gap', 'mm').optional(),
    }),
    cassette: z.strictObject({
      standard: StandardId,
      known: KnownBy,
      teeth: z
        .array(
          z
            .int('Teeth are whole numbers')
            .min(9, 'A sprocket has at least 9 teeth')
            .max(60, 'A sprocket has at most 60 teeth'),
        )
        .min(2, 'A cassette has at least 2 sprockets')
        .max(MAX_SPROCKETS, `At most ${MAX_SPROCKETS} sprockets`),
      pitchMm: z
        .array(within(2.5, 8, 'Sprocket pitch', 'mm'))
        .min(1)
        .max(MAX_SPROCKETS - 1),
    }),
    barrel: z.strictObject({
      threadMm: within(0.5, 1.5, 'Barrel thread', 'mm per turn'),
      /** How its thread is known; left out: as usual. */
      known: KnownBy,
      turnsOut: within(0, 12, 'Barrel turns out', 'turns'),
      rangeTurns: within(1, 12, 'Barrel travel', 'turns'),
      /** True when the turns at arrival were not counted. */
      assumed: z.boolean(),
    }),
  })
  .superRefine((p, ctx) => {
    const say = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message })
    const n = p.cassette.teeth.length
    if (p.cassette.pitchMm.length !== n - 1)
      say(['cassette', 'pitchMm'], `${n} sprockets have ${n - 1} gaps, not ${p.cassette.pitchMm.length}`)
    p.cassette.teeth.forEach((t, i) => {
      if (i === 0) return
      const step = t - p.cassette.teeth[i - 1]
      if (step <= 0) say(['cassette', 'teeth', i], 'Give the teeth from the smallest sprocket to the largest')
      else if (step > 20)
        say(['cassette', 'teeth', i], `A step of ${step} teeth between neighbours is not a cassette: check the figures`)
    })
    const { ratio } = p.derailleur
    if (Array.isArray(ratio) && ratio.length < Math.min(n - 1, p.shifter.pullMm.length))
      say(
        ['derailleur', 'ratio'],
        `Pull ratio: one number, or one for each of ${Math.min(n - 1, p.shifter.pullMm.length)} clicks`,
      )
    if (p.barrel.turnsOut > p.barrel.rangeTurns)
      say(['barrel', 'turnsOut'], `The barrel cannot be further out than its travel of ${p.barrel.rangeTurns} turns`)
  })
export type RearParts = z.infer<typeof RearParts>

/** Gears that both shifter and cassette have; the rest cannot be used together. */
export const sharedGears = (parts: RearParts): number =>
  Math.min(parts.shifter.pullMm.length + 1, parts.cassette.teeth.length)

/** The contract's setup of these parts, the shared gears only; the barrel as the log begins. */
export const setupOf = (parts: RearParts): RearSetup => ({
  teeth: parts.cassette.teeth.slice(0, sharedGears(parts)),
  pitchMm: parts.cassette.pitchMm.slice(0, sharedGears(parts) - 1),
  ...pullAndRatio(parts),
  barrelPitchMm: parts.barrel.threadMm,
  barrelTurnsOut: parts.barrel.turnsOut,
  barrelTurnsRange: parts.barrel.rangeTurns,
  ...(parts.derailleur.spring === 'low' ? { spring: 'low' as const } : {}),
})

/** An uneven ratio is folded into the pulls, so that the contract's one ratio is left: the mean along the travel. */
function pullAndRatio(parts: RearParts): { pullMm: number[]; pullRatio: number } {
  const { pullMm, ratio } = sharedNumbers({
    pullMm: parts.shifter.pullMm,
    ratio: parts.derailleur.ratio ?? parts.derailleur.pullRatio,
    pitchMm: parts.cassette.pitchMm,
  })
  const { ratio: better, pullRatio } = parts.derailleur
  return { pullMm, pullRatio: (typeof better === 'object' ? ratio : pullRatio) * anchorFactor(parts.derailleur) }
}

/** How each part's numbers are known. */
export const knownBy = (part: { standard: string | null; known?: KnownBy }): KnownBy =>
  part.known ?? (part.standard === null ? 'typed' : 'table')

const mean = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / values.length

/** "11-speed · 3.6 mm × 1.1 → 3.96 · pitch 3.90": a drivetrain by its numbers. */
export function sayParts(parts: RearParts): string {
  const pull = mean(parts.shifter.pullMm)
  const ratio = parts.derailleur.pullRatio * anchorFactor(parts.derailleur)
  return [
    `${parts.cassette.teeth.length}-speed`,
    `${trim(pull)} mm × ${trim(ratio)} = ${(pull * ratio).toFixed(2)}`,
    `pitch ${mean(parts.cassette.pitchMm).toFixed(2)}`,
    ...(parts.derailleur.spring === 'low' ? ['low-normal'] : []),
    ...(parts.derailleur.anchor ? [ANCHOR_WORDS[parts.derailleur.anchor]] : []),
    ...(parts.shifter.friction ? ['friction lever'] : []),
  ].join(' · ')
}

/** A figure as it is read: no more than three places, none that say nothing. */
export const trim = (value: number): string => String(Math.round(value * 1000) / 1000)
