import { inverse, Matrix } from 'ml-matrix'

/**
 * What was found along a round lies on one smooth curve. So the place without which the others lie best on one is left
 * out, until none lies far. (Not the one that lies furthest: one at an end bends the round to itself, and its
 * neighbours would go.)
 * @param found where on the round each lies, radians from its middle, and how far out of where it was looked for, px
 * @param furthest how far beside the others' round one may lie, px inward and outward
 */
export function onOneRound<T extends { phi: number; outPx: number }>(
  found: readonly T[],
  furthest: { in: number; out: number },
): T[] {
  let left = [...found]
  while (left.length > 4) {
    const X = new Matrix(left.map(({ phi }) => [1, Math.sin(phi), Math.sin(phi) ** 2]))
    const hat = X.mmul(inverse(X.transpose().mmul(X))).mmul(X.transpose())
    const fit = hat.mmul(Matrix.columnVector(left.map(t => t.outPx)))
    const gain = left.map((t, i) => {
      const off = t.outPx - fit.get(i, 0)
      const isFar = off > furthest.out || off < -furthest.in
      // so much less are the squares of what the others are off without it
      return isFar ? off ** 2 / Math.max(1e-9, 1 - hat.get(i, i)) : 0
    })
    const worst = gain.indexOf(Math.max(...gain))
    if (gain[worst] === 0) break
    left = left.filter((_, i) => i !== worst)
  }
  return left
}
