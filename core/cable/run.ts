import { z } from 'zod'
import { Housing, housingRefused, RunName } from './housing'
import { Head } from './heads'

/** State of wire and liner. */
export const CONDITIONS = ['new', 'used', 'dirty', 'gritty'] as const
export type Condition = (typeof CONDITIONS)[number]

export const CONDITION_WORDS: Record<Condition, string> = {
  new: 'new, lined',
  used: 'clean',
  dirty: 'dirty',
  gritty: 'gritty',
}

const mm = (what: string, most: number) =>
  z
    .number({ error: `${what}: type a number in mm` })
    .min(1, `${what}: at least 1 mm`)
    .max(most, `${what}: at most ${most} mm`)
const Bend = z.strictObject({
  deg: z.number({ error: 'Bend: type its degrees' }).min(0, 'A bend is at least 0°').max(360, 'A bend is at most 360°'),
  radiusMm: mm('Radius', 1000),
})
export type Bend = z.infer<typeof Bend>

const name = z.string().trim().min(1, 'Name the piece').max(30, 'A piece’s name is at most 30 characters')
/** How a piece's length came to be known, each with what it may be off by, mm. `model`; templates are `memory` */
export const LENGTH_READ = {
  template: { words: 'usual of such bikes', short: 'usual', errorMm: 40 },
  last: { words: 'as it left last time', short: 'last visit', errorMm: 5 },
  old: { words: 'the old piece, and it was right', short: 'old piece', errorMm: 3 },
  bike: { words: 'along its way on the bike', short: 'on the bike', errorMm: 8 },
  loop: { words: 'worked out from the tape', short: 'computed', errorMm: 10 },
  cut: { words: 'the new piece, as it was cut', short: 'new piece', errorMm: 2 },
  shop: { words: 'as on such bikes here', short: 'such bikes', errorMm: 20 },
  guess: { words: 'typed, nobody said from what', short: 'guess', errorMm: 40 },
} as const
export type LengthRead = keyof typeof LENGTH_READ
/** Readings that are a figure of this bike, and may be kept for the next: not a usual length, nor a guess. */
const OF_THIS_BIKE: readonly LengthRead[] = ['last', 'old', 'bike', 'cut']
export const isMeasured = (p: Piece): boolean =>
  p.kind === 'housing' && p.read !== undefined && OF_THIS_BIKE.includes(p.read.by)
const LENGTHS_READ = Object.keys(LENGTH_READ) as [LengthRead, ...LengthRead[]]
/** A length's reading, and why it is that and no other; pieces from before it was kept have none. */
const read = z
  .strictObject({ by: z.enum(LENGTHS_READ), why: z.string().trim().max(80, 'A reason is at most 80 characters') })
  .optional()

/** One piece of a run: housing, wire lying bare between stops, or a guide that bare wire turns round. */
export const Piece = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('housing'),
    name,
    lengthMm: mm('Housing', 3500),
    of: Housing,
    bends: z.array(Bend).max(6, 'At most 6 bends a piece'),
    read,
    /** Ends that take bare housing instead of a ferrule; left out where both are ferruled. */
    bare: z
      .array(z.enum(['from', 'to']))
      .max(2)
      .optional(),
  }),
  z.strictObject({ kind: z.literal('bare'), name, lengthMm: mm('Bare wire', 3500), read }),
  z.strictObject({ kind: z.literal('guide'), name, bend: Bend }),
])
export type Piece = z.infer<typeof Piece>
type HousingPiece = Extract<Piece, { kind: 'housing' }>
/** Does that end of a piece take a ferrule? `from` is the lever's. */
export const isFerruled = (p: HousingPiece, end: 'from' | 'to'): boolean => !p.bare?.includes(end)

/** A run as the real chain of its pieces, from the lever to the clamp. */
export const Run = z
  .strictObject({
    run: RunName,
    condition: z.enum(CONDITIONS),
    pieces: z.array(Piece).min(1, 'A run has at least one piece').max(16, 'At most 16 pieces'),
    tailMm: z.number().min(0, 'A tail is not negative').max(300, 'A tail is at most 300 mm'),
    /** Wire that no piece shows, as measured on this bike; else the usual is taken. */
    beyond: z
      .strictObject({
        leverMm: z.number().min(0, 'Inside the lever: not negative').max(400, 'Inside the lever: at most 400 mm'),
        boltMm: z.number().min(0, 'Last stop to bolt: not negative').max(600, 'Last stop to bolt: at most 600 mm'),
      })
      .optional(),
    head: Head.optional(),
  })
  .superRefine((r, ctx) => {
    const seen = new Set<string>()
    r.pieces.forEach((p, i) => {
      const key = p.name.toLowerCase()
      if (seen.has(key))
        ctx.addIssue({
          code: 'custom',
          path: ['pieces', i, 'name'],
          message: `Two pieces are called ${p.name}: give each its own name`,
        })
      seen.add(key)
      const refused = p.kind === 'housing' ? housingRefused(r.run, p.of) : null
      if (refused) ctx.addIssue({ code: 'custom', path: ['pieces', i, 'of'], message: `${p.name}: ${refused}` })
    })
    if (!r.pieces.some(p => p.kind === 'housing'))
      ctx.addIssue({ code: 'custom', path: ['pieces'], message: 'A run has at least one piece of housing' })
  })
export type Run = z.infer<typeof Run>

/** The same run with every length said to be read so, where it was not measured: a start, not a reading. */
export const asRead = (run: Run, by: LengthRead, why: string): Run => ({
  ...run,
  pieces: run.pieces.map(p => (p.kind === 'guide' ? p : { ...p, read: { by, why } })),
})

/** "±3 mm, the old piece, and it was right: no pull at full lock". */
export const sayRead = (r: { by: LengthRead; why: string }): string =>
  `±${LENGTH_READ[r.by].errorMm} mm, ${LENGTH_READ[r.by].words}${r.why ? `: ${r.why}` : ''}`
