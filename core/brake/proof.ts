/** What a brake is proven by, each passed or failed by a named person. `practice` */
export const PROOF_TESTS = ['squeeze', 'roll', 'ride'] as const
export type ProofTest = (typeof PROOF_TESTS)[number]
export const PROOF_WORDS: Record<ProofTest, { name: string; how: string }> = {
  squeeze: { name: 'hard squeeze', how: 'Both hands, hard: no slip, lever clear of the bar.' },
  roll: { name: 'roll', how: 'Walk it: brakes smoothly, lets go, runs free.' },
  ride: { name: 'ride', how: 'Slowly first, in the yard: stops straight.' },
}

export type Mark = { holds: boolean; by: string; at: string }
export type ProofMarks = Partial<Record<ProofTest, Mark>>
export type Proof = Mark & { failed: ProofTest | null }

/** The marks after one more; without a test all three are marked at once. */
export const marksAfter = (was: ProofMarks, mark: Mark, test: ProofTest | undefined): ProofMarks => ({
  ...was,
  ...Object.fromEntries((test ? [test] : PROOF_TESTS).map(t => [t, mark])),
})

/** What the marks come to: failed when one did, holds when all three do, else nothing yet. `test`: the one marked last. */
export function proofOf(marks: ProofMarks, last: Mark, test: ProofTest | undefined): Proof | null {
  if (!test) return { ...last, failed: null }
  const failed = PROOF_TESTS.find(t => marks[t]?.holds === false)
  if (failed) return { ...marks[failed]!, failed }
  return PROOF_TESTS.every(t => marks[t]?.holds) ? { ...last, failed: null } : null
}
