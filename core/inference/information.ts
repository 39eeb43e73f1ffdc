/** Entropy of chances that sum to 1, nats. Shannon; any handbook of information theory (`std`). */
export const entropy = (p: readonly number[]): number => -p.reduce((s, x) => s + (x > 0 ? x * Math.log(x) : 0), 0)

/** Weights that sum to 1. @throws RangeError when there is nothing to share out */
export function normalised(weights: readonly number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0)
  if (!(sum > 0) || !Number.isFinite(sum)) throw new RangeError('weights must have a sum above 0')
  return weights.map(w => w / sum)
}

/**
 * What an outcome would tell of hypotheses: their mutual information, nats, by the definition H(what) − H(what | outcome).
 * @param chances of each hypothesis, sum 1
 * @param outcomes chances of each outcome under hypothesis i
 * @param what of the hypotheses is asked for: chances in, chances of that out (which fault, say); left out, each of them
 */
export function mutualInformation(
  chances: readonly number[],
  outcomes: (i: number) => Iterable<readonly [string, number]>,
  what: (chances: readonly number[]) => readonly number[] = p => p,
): number {
  const joint = new Map<string, number[]>()
  chances.forEach((chance, i) => {
    for (const [outcome, p] of outcomes(i)) {
      const row = joint.get(outcome) ?? joint.set(outcome, new Array<number>(chances.length).fill(0)).get(outcome)!
      row[i]! += chance * p
    }
  })
  let left = 0
  for (const row of joint.values()) {
    const p = row.reduce((a, b) => a + b, 0)
    if (p > 0) left += p * entropy(what(row.map(x => x / p)))
  }
  return Math.max(0, entropy(what(chances)) - left)
}
