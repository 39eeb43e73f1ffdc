/**
 * How often each item is drawn when `count` marks are set evenly along the summed weights: systematic sampling, any
 * handbook (`std`). Every item comes as often as its weight says, to within one.
 * @param weights sum 1
 * @param start where the first mark lies within its share, 0 to 1
 */
export function systematic(weights: ArrayLike<number>, count: number, start: number): Int32Array {
  const times = new Int32Array(weights.length)
  let at = 0
  let reached = weights[0] ?? 0
  for (let i = 0; i < count; i++) {
    const mark = (start + i) / count
    while (reached < mark && at < weights.length - 1) reached += weights[++at]!
    times[at]!++
  }
  return times
}
