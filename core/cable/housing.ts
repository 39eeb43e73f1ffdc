import { z } from 'zod'
import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'

/** Which run a piece belongs to. */
export const RUNS = ['rear', 'front', 'front-brake', 'rear-brake', 'hub', 'hub-second'] as const
export const RunName = z.enum(RUNS)
export type RunName = (typeof RUNS)[number]
export const RUN_WORDS: Record<RunName, string> = {
  rear: 'Rear derailleur',
  front: 'Front derailleur',
  'front-brake': 'Front brake',
  'rear-brake': 'Rear brake',
  hub: 'Hub gear',
  'hub-second': 'Hub, second cable',
}
export const isBrake = (run: RunName): boolean => run === 'front-brake' || run === 'rear-brake'

/** Kinds of housing a shop has on the wall. `practice` */
export const HOUSINGS = [
  'shift 4 mm',
  'shift 5 mm',
  'shift liner',
  'brake 5 mm',
  'compressionless',
  'compressionless, rated for brakes',
] as const
export const Housing = z.enum(HOUSINGS)
export type Housing = (typeof HOUSINGS)[number]

/**
 * Why a housing must not be used on a run, or null. Shift housing has its wires along the run and can burst under a
 * hard squeeze; brake housing is coiled. `practice`: it is refused, not warned of.
 */
export function housingRefused(run: RunName, of: Housing): string | null {
  if (!isBrake(run)) return null
  if (of.startsWith('shift'))
    return 'Shift housing can burst in an emergency stop: it never carries a brake. Use brake housing.'
  if (of === 'compressionless')
    return 'This compressionless housing is not rated for brakes: use one that is, or coiled brake housing.'
  return null
}

/** The housing a run is usually cut from. */
export const usualHousing = (run: RunName): Housing => (isBrake(run) ? 'brake 5 mm' : 'shift 4 mm')
/** Least radius of a bend, mm. `memory` */
export const leastRadiusMm = (run: RunName): number => (isBrake(run) ? 60 : 50)
/** Inner left past the clamp, capped, mm. */
export const tailMm = (s: Standards = TABLE_ONLY): { from: number; to: number } => targetIn(s, 'tail')
/** The middle of that: what is taken where nobody measured. */
export const usualTailMm = (s: Standards = TABLE_ONLY): number => (tailMm(s).from + tailMm(s).to) / 2
