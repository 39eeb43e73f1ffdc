/** Entropy of chances that sum to 1, nats. Shannon; any handbook of information theory (`std`). */
export const entropy = (p: readonly number[]): number => -p.reduce((s, x) => s + (x > 0 ? x * Math.log(x) : 0), 0)

/** Weights that sum to 1. @throws RangeError when there is nothing to share out */
export function normalised(weights: readonly number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0)
  if (!(sum > 0) || !Number.isFinite(sum)) throw new RangeError('weights must have a sum above 0')
  return weights.map(w => w / sum)
}

/** Chances of kinds and outcomes together, a row a kind: what `mutualInformation` reads. */
type Joint = { readonly table: Float64Array; readonly outcomes: number }
export const emptyJoint = (kinds: number, outcomes: number): Joint => ({
  table: new Float64Array(kinds * outcomes),
  outcomes,
})

/**
 * Hypotheses and what each would show, put together.
 * @param weights of the hypotheses, sum about 1
 * @param kinds which kind each is of: what is to be told apart
 * @param shows chances of the outcomes under each; need not sum to 1
 */
export function jointOf(
  weights: ArrayLike<number>,
  kinds: ArrayLike<number>,
  shows: readonly ArrayLike<number>[],
): Joint {
  let most = 0
  for (let i = 0; i < kinds.length; i++) most = Math.max(most, kinds[i]!)
  const joint = emptyJoint(most + 1, shows[0]?.length ?? 0)
  const { table, outcomes } = joint
  shows.forEach((row, i) => {
    let all = 0
    for (let o = 0; o < outcomes; o++) all += row[o]!
    if (all > 0) for (let o = 0; o < outcomes; o++) table[kinds[i]! * outcomes + o]! += (weights[i]! * row[o]!) / all
  })
  return joint
}

/** Outcomes named by words, as rows over all the names there are: for `jointOf`. */
export function rowsOf(shows: readonly ReadonlyMap<string, number>[]): Float64Array[] {
  const at = new Map<string, number>()
  for (const row of shows) for (const outcome of row.keys()) if (!at.has(outcome)) at.set(outcome, at.size)
  return shows.map(row => {
    const out = new Float64Array(at.size)
    for (const [outcome, chance] of row) out[at.get(outcome)!] = chance
    return out
  })
}

/**
 * What an outcome tells of the kinds: their mutual information, nats, of a joint table. Its sum is taken as the whole:
 * outcomes that are left out of it tell nothing. Shannon (`std`).
 */
export function mutualInformation({ table, outcomes }: Joint): number {
  const kinds = table.length / outcomes
  const column = new Float64Array(outcomes)
  const row = new Float64Array(kinds)
  for (let i = 0; i < kinds; i++)
    for (let j = 0; j < outcomes; j++) {
      column[j]! += table[i * outcomes + j]!
      row[i]! += table[i * outcomes + j]!
    }
  let all = 0
  for (const chance of row) all += chance
  if (!(all > 0)) return 0
  let sum = 0
  for (let i = 0; i < kinds; i++)
    for (let j = 0; j < outcomes; j++) {
      const p = table[i * outcomes + j]!
      if (p > 1e-12) sum += p * Math.log((p * all) / (row[i]! * column[j]!))
    }
  return Math.max(0, sum / all)
}
