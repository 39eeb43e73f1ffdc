type Ends = readonly [number, number]

/**
 * A straight scale between two spans. Of a scale library the bench page needs only this, and would carry its colours
 * and formats of numbers too; where ticks are drawn, the library is used.
 * @param held keeps what lies beyond at the ends
 */
export const along =
  ([a, b]: Ends, [from, to]: Ends, held = false) =>
  (value: number): number => {
    const share = b === a ? 0 : (value - a) / (b - a)
    return from + (held ? Math.max(0, Math.min(1, share)) : share) * (to - from)
  }
