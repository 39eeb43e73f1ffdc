import { z } from 'zod'
import { BRAKE_KINDS, END_KINDS, HYDRAULIC_KINDS, type BrakeKind, type EndKind } from '../standards/brakeKinds'

export { BRAKE_KINDS, BRAKE_KIND_WORDS, END_KINDS, type BrakeKind, type EndKind } from '../standards/brakeKinds'

export const BRAKES = ['front', 'rear'] as const
export type Brake = (typeof BRAKES)[number]
export const isDiagnosed = (kind: EndKind): kind is BrakeKind => BRAKE_KINDS.some(k => k === kind)
export const isHydraulic = (kind: EndKind): boolean => HYDRAULIC_KINDS.some(k => k === kind)

/** Why there may be no brake at an end. A bike with none at both ends stays. */
export const NO_BRAKE = {
  coaster: 'the coaster at the other end is its brake',
  fixed: 'a fixed wheel',
} as const
export type NoBrake = keyof typeof NO_BRAKE

/** Pull classes of levers; how much they pull is in the standards. */
export const LEVERS = ['short', 'long'] as const
export type LeverClass = (typeof LEVERS)[number]
export const LEVER_WORDS: Record<LeverClass, string> = { short: 'Short pull', long: 'Long pull' }

/** The lever that a brake is made for; null where either serves by its own lever or none. */
export const FITTING_LEVER: Record<EndKind, LeverClass | null> = {
  'linear-pull': 'long',
  'dual-pivot': 'short',
  cantilever: 'short',
  'cable-disc': null,
  drum: null,
  roller: null,
  coaster: null,
  'hydraulic-rim': null,
  'hydraulic-disc': null,
  none: null,
}

/**
 * Which side the front lever is on: recorded, never assumed; the custom of the country decides. `std` ISO 4210-2 leaves
 * it to the market, recalled
 */
export const FrontLeverSide = z.enum(['left', 'right'])

/** What is at one end of the bike. */
export const BrakeParts = z
  .strictObject({
    brake: z.enum(BRAKES),
    kind: z.enum(END_KINDS),
    lever: z.enum(LEVERS).nullable(),
    leverSide: FrontLeverSide.nullable(),
    /** Why there is no brake, where there is none. */
    none: z.enum(Object.keys(NO_BRAKE) as [NoBrake, ...NoBrake[]]).optional(),
  })
  .refine(p => (p.kind === 'none') === (p.none !== undefined), {
    path: ['none'],
    message: 'Say why there is no brake at this end: a coaster at the other, or a fixed wheel',
  })
export type BrakeParts = z.infer<typeof BrakeParts>
