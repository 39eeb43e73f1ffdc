import { isHydraulic, type EndKind } from './kinds'

/**
 * What a brake is proven by, each passed or failed by a named person. `practice`; the hold and the back-pedalling by
 * kind
 */
export const PROOF_TESTS = ['squeeze', 'hold', 'backpedal', 'roll', 'ride'] as const
export type ProofTest = (typeof PROOF_TESTS)[number]
export const PROOF_WORDS: Record<ProofTest, { name: string; how: string }> = {
  squeeze: { name: 'hard squeeze', how: 'Both hands, hard: no slip, lever clear of the bar.' },
  hold: { name: 'half a minute’s hold', how: 'Squeeze hard and hold for 30 seconds: it must not sink, nothing wet.' },
  backpedal: { name: 'back-pedal', how: 'Pedal back hard: it bites within 60°, the strap holds.' },
  roll: { name: 'roll', how: 'Walk it: brakes smoothly, lets go, runs free.' },
  ride: { name: 'ride', how: 'Slowly first, in the yard: stops straight.' },
}

/** The tests of a kind of brake, in order; of one nobody has named, those of most. */
export function testsOf(kind: EndKind | undefined): readonly ProofTest[] {
  if (kind === 'none') return []
  if (kind === 'coaster') return ['backpedal', 'roll', 'ride']
  return kind && isHydraulic(kind) ? ['squeeze', 'hold', 'roll', 'ride'] : ['squeeze', 'roll', 'ride']
}

export type Mark = { holds: boolean; by: string; at: string }
export type ProofMarks = Partial<Record<ProofTest, Mark>>
/** `failed`: the test it failed; null when all hold, or it failed as a whole. */
export type Proof = Mark & { failed: ProofTest | null }

/** The marks after one more; without a test all of them are marked at once. */
export const marksAfter = (
  was: ProofMarks,
  mark: Mark,
  test: ProofTest | undefined,
  tests: readonly ProofTest[],
): ProofMarks => ({ ...was, ...Object.fromEntries((test ? [test] : tests).map(t => [t, mark])) })

/** What the marks come to: failed when one did, holds when all do, else nothing yet. `test`: the one marked last. */
export function proofOf(
  marks: ProofMarks,
  last: Mark,
  test: ProofTest | undefined,
  tests: readonly ProofTest[],
): Proof | null {
  if (!test) return { ...last, failed: null }
  const failed = tests.find(t => marks[t]?.holds === false)
  if (failed) return { ...marks[failed]!, failed }
  return tests.every(t => marks[t]?.holds) ? { ...last, failed: null } : null
}
