/** The value below which `share` of the values lie; NaN for none. */
export const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(share * values.length))] ?? NaN
export const sum = <T>(list: readonly T[], f: (x: T) => number | boolean): number =>
  list.reduce((s, x) => s + Number(f(x)), 0)
export const percent = (count: number, all: number): string => `${((100 * count) / all).toFixed(1)} %`

/** Stated minus true by tenths of what was stated; a dot where fewer than 200 calls lie. */
export const byTenths = (pairs: readonly [number, boolean][]): string[] =>
  Array.from({ length: 10 }, (_, t) => {
    const inside = pairs.filter(([p]) => Math.min(9, Math.floor(p * 10)) === t)
    return inside.length < 200
      ? '·'
      : (sum(inside, ([p]) => p) / inside.length - sum(inside, ([, is]) => is) / inside.length).toFixed(2)
  })
