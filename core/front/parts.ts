import { z } from 'zod'
import { within } from '../quantity/within'

/** The cage's swing: the front of a rotating one swings further, so it needs no trim. */
export const CAGES = ['conventional', 'rotating'] as const
/**
 * How it is held: a band on the seat tube by the tube's diameter, brazed on, or bolted straight to the frame. `memory`
 */
export const FRONT_MOUNTS = ['28.6 mm band', '31.8 mm band', '34.9 mm band', 'brazed on', 'direct'] as const
/** Where the wire comes to it from. */
export const PULL_WAYS = ['from below', 'from above', 'from the front'] as const
/**
 * What draws its cable: a barrel, an inline adjuster, a small screw on the derailleur, or nothing but the bolt.
 * `practice`
 */
export const TENSION_BY = ['barrel', 'inline adjuster', 'tension screw', 'bolt alone'] as const
/** Which way its parallelogram swings. */
export const SWINGS = ['down', 'up', 'sideways'] as const

/**
 * A front drivetrain by its numbers. Rings run from the smallest; offsets are from the bike's middle plane, + outboard.
 */
export const FrontParts = z
  .strictObject({
    rings: z
      .array(
        z.int('Teeth are whole numbers').min(16, 'A ring has at least 16 teeth').max(70, 'A ring has at most 70 teeth'),
      )
      .min(2, 'A front derailleur needs at least 2 rings')
      .max(3, 'At most 3 rings'),
    /** From ring to ring, one for each gap. */
    spacingMm: z
      .array(within('Ring spacing, mm', 4, 14))
      .min(1)
      .max(2),
    /** From the middle plane to the middle of the rings. */
    chainLineMm: within('Chain line, mm', 30, 70),
    /** From the middle plane to the middle of the cassette. */
    rearLineMm: within('Rear chain line, mm', 30, 70),
    chainstayMm: within('Chainstay, mm', 250, 1200),
    cage: z.enum(CAGES),
    /** Clear width between the plates, and how far behind the rings' axle they end, mm. */
    cageWidthMm: within('Cage width, mm', 7, 20),
    cageBehindMm: within('Cage behind the axle, mm', 20, 160),
    /** What a trim click moves the cage, mm; 0 without trim. */
    trimMm: within('Trim, mm', 0, 4),
    /** Teeth the cage takes up from ring to ring. */
    capacityTeeth: z.int('Capacity: whole teeth').min(4, 'Capacity: from 4').max(40, 'Capacity: to 40'),
    /** The largest ring the cage's curve is made for. */
    largestTeeth: z
      .int('Largest ring: whole teeth')
      .min(20, 'Largest ring: from 20')
      .max(70, 'Largest ring: to 70')
      .optional(),
    mount: z.enum(FRONT_MOUNTS).optional(),
    pullWay: z.enum(PULL_WAYS).optional(),
    swing: z.enum(SWINGS).optional(),
    tensionBy: z.enum(TENSION_BY).optional(),
    /**
     * Cable from ring to ring: what the lever gives, and what the derailleur wants. About 6 to 12 mm by family,
     * `memory`.
     */
    leverPullMm: within('Lever pulls, mm', 3, 20).optional(),
    wantedPullMm: within('Derailleur wants, mm', 3, 20).optional(),
  })
  .superRefine((p, ctx) => {
    if (p.spacingMm.length !== p.rings.length - 1)
      ctx.addIssue({
        code: 'custom',
        path: ['spacingMm'],
        message: `${p.rings.length} rings have ${p.rings.length - 1} gaps, not ${p.spacingMm.length}`,
      })
    p.rings.forEach((t, i) => {
      if (i > 0 && t <= p.rings[i - 1])
        ctx.addIssue({
          code: 'custom',
          path: ['rings'],
          message: 'Rings cross: give them from the smallest to the largest',
        })
    })
  })
export type FrontParts = z.infer<typeof FrontParts>

/** Usual figures to start from, to be measured: `memory` for spacing, chain line and trim, `model` for the cage. */
export const USUAL_FRONT: Record<'double' | 'triple', FrontParts> = {
  double: {
    rings: [34, 50],
    spacingMm: [7.5],
    chainLineMm: 43.5,
    rearLineMm: 43.5,
    chainstayMm: 425,
    cage: 'conventional',
    cageWidthMm: 12,
    cageBehindMm: 70,
    trimMm: 1.2,
    capacityTeeth: 16,
  },
  triple: {
    rings: [26, 36, 48],
    spacingMm: [8, 8],
    chainLineMm: 47.5,
    rearLineMm: 43.5,
    chainstayMm: 440,
    cage: 'conventional',
    cageWidthMm: 13,
    cageBehindMm: 75,
    trimMm: 0,
    capacityTeeth: 22,
  },
}

const RING_WORDS: Record<number, readonly string[]> = { 2: ['small', 'big'], 3: ['small', 'middle', 'big'] }
/** A ring by its place, the smallest 0. */
export const ringName = (p: Pick<FrontParts, 'rings'>, i: number): string =>
  RING_WORDS[p.rings.length]?.[i] ?? String(i)
