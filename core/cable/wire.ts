import type { EndKind } from '../standards/brakeKinds'
import { isBrake, type RunName } from './housing'
import { radians } from '../quantity/angle'
import type { Piece, Run } from './run'
import { lossAlong } from './friction'
import type { Gives } from './stretch'

/** What an inner is clamped to at its far end: a brake's kind where it matters, null where nobody said. */
export type FarEnd = EndKind | null

/** Wire inside the lever, from its head's seat to where the housing begins, mm. `memory` */
const IN_LEVER_MM = { shift: 80, brake: 30 } as const
/** Wire from the last stop to the bolt, mm. `memory` */
const TO_BOLT_MM: Record<Exclude<RunName, 'front-brake' | 'rear-brake'>, number> = {
  rear: 55,
  front: 35,
  hub: 60,
  'hub-second': 60,
}
/** The same of a brake, by its kind: through the noodle and across both arms, to the yoke, to the arm. `memory` */
const TO_BRAKE_BOLT_MM: Partial<Record<EndKind, number>> = {
  'linear-pull': 210,
  'dual-pivot': 70,
  cantilever: 60,
  'cable-disc': 45,
  drum: 60,
  roller: 60,
}
/** Where a brake's kind was not said: enough for any. */
const TO_ANY_BRAKE_MM = Math.max(...Object.values(TO_BRAKE_BOLT_MM))

/** Wire that no piece of a run shows, mm: inside the lever, and from the last stop to the bolt. */
export const usualBeyond = (run: RunName, at: FarEnd = null): { leverMm: number; boltMm: number } =>
  isBrake(run)
    ? { leverMm: IN_LEVER_MM.brake, boltMm: (at && TO_BRAKE_BOLT_MM[at]) ?? TO_ANY_BRAKE_MM }
    : { leverMm: IN_LEVER_MM.shift, boltMm: TO_BOLT_MM[run as keyof typeof TO_BOLT_MM] }

/** The same as it was measured on this bike, else the usual. */
export const beyondOf = (run: Run, at: FarEnd = null): { leverMm: number; boltMm: number } =>
  run.beyond ?? usualBeyond(run.run, at)

/** A guide's arc counts. */
const lengthOf = (p: Piece): number => (p.kind === 'guide' ? radians(p.bend.deg) * p.bend.radiusMm : p.lengthMm)
/** Length of the wire over the run's pieces, mm. */
export const wireMm = (run: Run): number => run.pieces.reduce((s, p) => s + lengthOf(p), 0)
/** Of it inside housing, mm. */
export const housingMm = (run: Run): number =>
  run.pieces.reduce((s, p) => s + (p.kind === 'housing' ? p.lengthMm : 0), 0)

/**
 * What gives in a run under a pull: the whole wire that is pulled, lever and end with it, and the housing's own length.
 */
export const givesOf = (run: Run, at: FarEnd = null): Gives => ({
  wireMm: innerLiesMm(run, at),
  housingMm: housingMm(run),
})

/** A run's wire in order from its far end, with the housing over it and what its bends take, μφ. */
export function stretches(run: Run, mu?: number): { wireMm: number; housingMm: number; a: number }[] {
  const { leverMm, boltMm } = beyondOf(run)
  const losses = lossAlong(run, mu)
  const bare = (wireMm: number) => ({ wireMm, housingMm: 0, a: 0 })
  const pieces = run.pieces.map(p => ({
    wireMm: lengthOf(p),
    housingMm: p.kind === 'housing' ? p.lengthMm : 0,
    a: losses.filter(l => l.piece === p.name).reduce((sum, l) => sum + Math.log(l.before / l.after), 0),
  }))
  return [bare(leverMm), ...pieces, bare(boltMm)].reverse()
}

/** The whole inner as it lies, mm: from its head through lever and run to the bolt. */
export function innerLiesMm(run: Run, at: FarEnd = null): number {
  const { leverMm, boltMm } = beyondOf(run, at)
  return leverMm + wireMm(run) + boltMm
}

/** From the head to the end of the tail, mm, rounded up to 10: how long an inner must be. */
export const innerNeededMm = (run: Run, at: FarEnd = null): number =>
  Math.ceil((innerLiesMm(run, at) + run.tailMm) / 10) * 10

/** Usual lengths of inners as sold, mm. `memory` */
const INNERS_MM = { shift: [2100, 3100, 3500], brake: [1700, 2000, 3500] } as const

/** The shortest inner sold that reaches; null when none does, and never two joined. */
export function innerToTake(run: Run, at: FarEnd = null): number | null {
  const sold: readonly number[] = isBrake(run.run) ? INNERS_MM.brake : INNERS_MM.shift
  return sold.find(l => l >= innerNeededMm(run, at)) ?? null
}
