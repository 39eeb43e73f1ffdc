import { z } from 'zod'
import type { RearSetup } from '../response/setup'

const within = (least: number, most: number, what: string, unit: string) =>
  z.number({ error: `${what}: type a number` }).min(least, `${what} must be from ${least} to ${most} ${unit}`).max(most, `${what} must be from ${least} to ${most} ${unit}`)

/** Id of a row of the standards table, or null when typed in. */
const StandardId = z.string().trim().min(1).max(20).nullable()

export const MAX_SPROCKETS = 14

/** Shifter, derailleur and cassette are three records, mixed freely. Lists run from the smallest sprocket. */
export const RearParts = z.strictObject({
  shifter: z.strictObject({ standard: StandardId, friction: z.literal(true).optional(), pullMm: z.array(within(1, 6, 'Pull per click', 'mm')).min(1, 'The shifter needs at least 2 speeds').max(MAX_SPROCKETS - 1, `At most ${MAX_SPROCKETS} speeds`) }),
  derailleur: z.strictObject({ standard: StandardId, pullRatio: within(0.5, 3, 'Pull ratio', ''), spring: z.enum(['high', 'low']).optional() }),
  cassette: z.strictObject({
    standard: StandardId,
    teeth: z.array(z.int('Teeth are whole numbers').min(9, 'A sprocket has at least 9 teeth').max(60, 'A sprocket has at most 60 teeth')).min(2, 'A cassette has at least 2 sprockets').max(MAX_SPROCKETS, `At most ${MAX_SPROCKETS} sprockets`),
    pitchMm: z.array(within(2.5, 8, 'Sprocket pitch', 'mm')).min(1).max(MAX_SPROCKETS - 1),
  }),
  barrel: z.strictObject({
    threadMm: within(0.5, 1.5, 'Barrel thread', 'mm per turn'),
    turnsOut: within(0, 12, 'Barrel turns out', 'turns'),
    rangeTurns: within(1, 12, 'Barrel travel', 'turns'),
    /** True when the turns at arrival were not counted. */
    assumed: z.boolean(),
  }),
}).superRefine((p, ctx) => {
  const say = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message })
  const n = p.cassette.teeth.length
  if (p.cassette.pitchMm.length !== n - 1) say(['cassette', 'pitchMm'], `${n} sprockets have ${n - 1} gaps, not ${p.cassette.pitchMm.length}`)
  p.cassette.teeth.forEach((t, i) => {
    if (i === 0) return
    const step = t - p.cassette.teeth[i - 1]
    if (step <= 0) say(['cassette', 'teeth', i], 'Give the teeth from the smallest sprocket to the largest')
    else if (step > 20) say(['cassette', 'teeth', i], `A step of ${step} teeth between neighbours is not a cassette: check the figures`)
  })
  if (p.barrel.turnsOut > p.barrel.rangeTurns) say(['barrel', 'turnsOut'], `The barrel cannot be further out than its travel of ${p.barrel.rangeTurns} turns`)
})
export type RearParts = z.infer<typeof RearParts>

/** Gears that both shifter and cassette have; the rest cannot be used together. */
export const sharedGears = (parts: RearParts): number => Math.min(parts.shifter.pullMm.length + 1, parts.cassette.teeth.length)

/** The contract's setup of these parts, the shared gears only; the barrel as the log begins. */
export const setupOf = (parts: RearParts): RearSetup => ({
  teeth: parts.cassette.teeth.slice(0, sharedGears(parts)),
  pitchMm: parts.cassette.pitchMm.slice(0, sharedGears(parts) - 1),
  pullMm: parts.shifter.pullMm.slice(0, sharedGears(parts) - 1),
  pullRatio: parts.derailleur.pullRatio,
  barrelPitchMm: parts.barrel.threadMm,
  barrelTurnsOut: parts.barrel.turnsOut,
  barrelTurnsRange: parts.barrel.rangeTurns,
  ...(parts.derailleur.spring === 'low' ? { spring: 'low' as const } : {}),
})

const mean = (values: readonly number[]): number => values.reduce((s, v) => s + v, 0) / values.length

/** "11-speed · 3.6 mm × 1.1 → 3.96 · pitch 3.90": a drivetrain by its numbers. */
export function sayParts(parts: RearParts): string {
  const pull = mean(parts.shifter.pullMm)
  return `${parts.cassette.teeth.length}-speed · ${trim(pull)} mm × ${trim(parts.derailleur.pullRatio)} = ${(pull * parts.derailleur.pullRatio).toFixed(2)} · pitch ${mean(parts.cassette.pitchMm).toFixed(2)}${parts.derailleur.spring === 'low' ? ' · low-normal' : ''}${parts.shifter.friction ? ' · friction lever' : ''}`
}

const trim = (value: number): string => String(Math.round(value * 1000) / 1000)

/** What shifter and cassette leave unused of each other, in words; null when they have the same number of gears. */
export function unusedGears(parts: RearParts): string | null {
  const clicks = parts.shifter.pullMm.length + 1
  const sprockets = parts.cassette.teeth.length
  if (clicks > sprockets) return `The shifter's last ${count(clicks - sprockets, 'click')} find no sprocket`
  if (sprockets > clicks) return `The largest ${count(sprockets - clicks, 'sprocket')} cannot be reached by this shifter`
  return null
}

const count = (n: number, what: string): string => (n === 1 ? what : `${n} ${what}s`)
