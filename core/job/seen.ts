import { z } from 'zod'
import { BRAKE_KIND_WORDS, END_KINDS } from '../standards/brakeKinds'
import { countOf } from '../quantity/words'
import {
  BARS_OF,
  DRIVETRAIN_STANDARDS,
  MAX_SPROCKETS,
  type Bar,
  type DrivetrainStandard,
} from '../standards/drivetrains'

/** Bar and lever, as the eye tells them. */
export const LEVER_KINDS = ['drop', 'trigger', 'grip', 'other'] as const
export type LeverKind = (typeof LEVER_KINDS)[number]
export const LEVER_KIND_WORDS: Record<LeverKind, string> = {
  drop: 'drop',
  trigger: 'flat, trigger',
  grip: 'flat, grip',
  other: 'other',
}
const BAR_OF: Record<LeverKind, Bar | null> = { drop: 'drop', trigger: 'flat', grip: 'flat', other: null }

/** What the eye can count at the door; null is left for the stand. One sprocket is a hub gear or a single speed. */
export const Seen = z.strictObject({
  sprockets: z
    .int('Sprockets are counted whole')
    .min(1, 'At least one sprocket')
    .max(MAX_SPROCKETS, `At most ${MAX_SPROCKETS} sprockets`)
    .nullable(),
  rings: z.int('Rings are counted whole').min(1, 'At least one ring').max(3, 'At most 3 rings').nullable(),
  lever: z.enum(LEVER_KINDS).nullable(),
  front: z.enum(END_KINDS).nullable(),
  rear: z.enum(END_KINDS).nullable(),
})
export type Seen = z.infer<typeof Seen>
export const UNSEEN: Seen = { sprockets: null, rings: null, lever: null, front: null, rear: null }

/**
 * Jobs here from which one drivetrain is taken without asking, when it is also this many times as frequent as the next.
 * `model`
 */
const OFTEN = { jobs: 3, times: 3 } as const

/** A stock drivetrain that fits what was seen. `used`: how many jobs of this shop had it. */
export type Fitting = { standard: DrivetrainStandard; used: number }

/**
 * Stock drivetrains that what was seen leaves possible, most often here first. How many sprockets rules one out; the
 * bar only makes it less usual, since levers are swapped: those come apart, but for what this shop has seen often.
 * @param used jobs of this shop by standard
 */
export function fittingSeen(
  seen: Pick<Seen, 'sprockets' | 'lever'>,
  used: Readonly<Record<string, number>> = {},
): { usual: Fitting[]; less: Fitting[] } {
  const bar = seen.lever && BAR_OF[seen.lever]
  const all = DRIVETRAIN_STANDARDS.filter(s => seen.sprockets === null || s.speeds === seen.sprockets)
    .map(standard => ({ standard, used: used[standard.id] ?? 0 }))
    .sort((a, b) => b.used - a.used)
  const usual = (f: Fitting) => bar === null || BARS_OF[f.standard.id]?.includes(bar) || f.used >= OFTEN.jobs
  return { usual: all.filter(usual), less: all.filter(f => !usual(f)) }
}

/** The one that may be chosen without being asked: the only one possible, or by far the most frequent here. */
export function plainlyFits({ usual, less }: { usual: readonly Fitting[]; less: readonly Fitting[] }): Fitting | null {
  const [first, next] = usual
  if (!first) return null
  if (!next && !less.length) return first
  return first.used >= OFTEN.jobs && first.used >= OFTEN.times * (next?.used ?? 0) ? first : null
}

/** A bike by what was seen, where nobody gave it a name. */
export function nameBySeen({ sprockets, rings, lever }: Seen): string {
  const gears =
    sprockets === null
      ? []
      : sprockets === 1
        ? ['one sprocket']
        : [rings === null ? `${sprockets} sprockets` : `${rings} × ${sprockets}`]
  const bar = lever === null || lever === 'other' ? [] : [lever === 'drop' ? 'drop bar' : 'flat bar']
  const words = [...bar, ...gears].join(', ')
  return words ? `${words[0]!.toUpperCase()}${words.slice(1)}` : 'Bike without a name'
}

/** What was seen, in a line. */
export function saySeen({ sprockets, rings, lever, front, rear }: Seen): string {
  const many = (n: number | null, what: string) => (n === null ? [] : [countOf(n, what)])
  const brake = (kind: Seen['front'], end: string) =>
    kind === null ? [] : [`${end}: ${BRAKE_KIND_WORDS[kind].toLowerCase()}`]
  const said = [
    ...many(sprockets, 'sprocket'),
    ...many(rings, 'ring'),
    ...(lever === null ? [] : [`${LEVER_KIND_WORDS[lever]} lever`]),
    ...brake(front, 'front'),
    ...brake(rear, 'rear'),
  ]
  return said.length ? said.join(', ') : 'nothing yet'
}
