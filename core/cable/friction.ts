import { capstan } from './capstan'
import { leastRadiusMm } from './housing'
import type { Bend, Condition, Piece, Run } from './run'

/**
 * Friction of wire in housing by condition, no unit. `memory`: 0.06 to 0.10 clean and lined, the middle once it has
 * run; 0.2 to 0.3 dirty.
 */
export const MU: Record<Condition, number> = { new: 0.06, used: 0.08, dirty: 0.2, gritty: 0.3 }

/** A bend tighter than the least radius grips more than its angle says; by so much. `model` */
const TIGHT_BEND_FACTOR = 1.5

/** A bend with what is left of the lever's pull before and after it. */
export type BendLoss = { piece: string; deg: number; radiusMm: number; tight: boolean; before: number; after: number }

const bendsOf = (p: Piece): readonly Bend[] => (p.kind === 'housing' ? p.bends : p.kind === 'guide' ? [p.bend] : [])

/** Where along a run the lever's pull goes: a share of 1 at the lever, less at every bend. Capstan equation, `std`. */
export function lossAlong(run: Run, mu = MU[run.condition]): BendLoss[] {
  let pull = 1
  return run.pieces.flatMap(piece =>
    bendsOf(piece).map((bend): BendLoss => {
      const tight = bend.radiusMm < leastRadiusMm(run.run)
      const before = pull
      pull /= capstan(mu * (tight ? TIGHT_BEND_FACTOR : 1), bend.deg)
      return { piece: piece.name, deg: bend.deg, radiusMm: bend.radiusMm, tight, before, after: pull }
    }),
  )
}

/** Share of the lever's pull that reaches the clamp, 0 to 1. */
export const pullAtClamp = (run: Run, mu?: number): number => lossAlong(run, mu).at(-1)?.after ?? 1

/** Sum of all bends as the friction feels it: μφ, no unit. */
export const frictionAngle = (run: Run, mu?: number): number => -Math.log(pullAtClamp(run, mu))
