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
  while (left.length > LEAST) {
    const round = roundThrough(left)
    const gain = left.map((_, i) => {
      const { off, own } = round[i]!
      const isFar = off > furthest.out || off < -furthest.in
      // so much less are the squares of what the others are off without it
      return isFar ? off ** 2 / Math.max(1e-9, 1 - own) : 0
    })
    const worst = gain.indexOf(Math.max(...gain))
    if (gain[worst] === 0) break
    left = left.filter((_, i) => i !== worst)
  }
  return left
}

/** A round has three unknowns: with fewer places than this nothing is left over to judge them by. */
const LEAST = 4
type OnRound = { phi: number; outPx: number }

/** How far each lies beside the smooth curve through all, px, and how much of that curve there is its own. */
function roundThrough(found: readonly OnRound[]): { off: number; own: number }[] {
  const X = new Matrix(found.map(({ phi }) => [1, Math.sin(phi), Math.sin(phi) ** 2]))
  const hat = X.mmul(inverse(X.transpose().mmul(X))).mmul(X.transpose())
  const fit = hat.mmul(Matrix.columnVector(found.map(t => t.outPx)))
  return found.map(({ outPx }, i) => ({ off: outPx - fit.get(i, 0), own: hat.get(i, i) }))
}

/** How far places scatter about their own round, px; 0 where too few are left over to tell. */
export function scatterOf(found: readonly OnRound[]): number {
  const over = found.length - 3
  if (found.length < LEAST) return 0
  return Math.sqrt(roundThrough(found).reduce((s, { off }) => s + off ** 2, 0) / over)
}
