import { z } from 'zod'

export const BRAKES = ['front', 'rear'] as const
export type Brake = (typeof BRAKES)[number]
export const BRAKE_KINDS = ['linear-pull', 'dual-pivot', 'cantilever', 'cable-disc', 'drum', 'coaster'] as const
export type BrakeKind = (typeof BRAKE_KINDS)[number]
export const BRAKE_KIND_WORDS: Record<BrakeKind, string> = {
  'linear-pull': 'Linear-pull arms',
  'dual-pivot': 'Dual-pivot calliper',
  cantilever: 'Cantilever with straddle',
  'cable-disc': 'Cable disc',
  drum: 'Drum or roller',
  coaster: 'Coaster, no cable',
}

/** Pull classes of levers, with cable over the stroke, mm, and force gain. `memory` */
export const LEVERS = ['short', 'long'] as const
export type LeverClass = (typeof LEVERS)[number]
export const LEVER_WORDS: Record<LeverClass, string> = { short: 'Short pull', long: 'Long pull' }
export const LEVER_PULL_MM: Record<LeverClass, { from: number; to: number }> = {
  short: { from: 13, to: 16 },
  long: { from: 24, to: 30 },
}
export const LEVER_GAIN: Record<LeverClass, number> = { short: 4, long: 2.2 }

/** Cable travel for each mm at a pad. `memory`; a cantilever's changes with its straddle. Drum and coaster have no such sum here. */
export const ARM_RATIO: Partial<Record<BrakeKind, number>> = { 'linear-pull': 3.6, 'dual-pivot': 1.35, cantilever: 1.4 }

/** The lever that a brake is made for; null where either serves by its own lever or none. */
export const FITTING_LEVER: Record<BrakeKind, LeverClass | null> = {
  'linear-pull': 'long',
  'dual-pivot': 'short',
  cantilever: 'short',
  'cable-disc': null,
  drum: null,
  coaster: null,
}

/** Which side the front lever is on: recorded, never assumed; the custom of the country decides. `std` ISO 4210-2 leaves it to the market, recalled */
export const FrontLeverSide = z.enum(['left', 'right'])

/** What is on the bike. */
export const BrakeParts = z.strictObject({
  brake: z.enum(BRAKES),
  kind: z.enum(BRAKE_KINDS),
  lever: z.enum(LEVERS).nullable(),
  leverSide: FrontLeverSide.nullable(),
})
export type BrakeParts = z.infer<typeof BrakeParts>
