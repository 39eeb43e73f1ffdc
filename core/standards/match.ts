import { positive, positiveList } from '../quantity/check'

export type MatchParts = { pullMm: number[]; pullRatio: number; pitchMm: number[] }
export type Match = { errorMm: number[]; worstMm: number; ratioNeeded: number }

/**
 * Cable pull × pull ratio against sprocket pitch, gear by gear, after the best constant offset (least greatest error).
 * @param p pull of each click and gap of each pair of sprockets, smallest first, mm; ratio in mm of pulley per mm of
 *   cable
 * @returns error of the pulley at each sprocket, mm, + inboard; the worst of them; the ratio with the least worst error
 * @throws RangeError naming the argument: empty, of other length than its partner, or not positive
 * @example matchDrivetrain({ pullMm: [2.8, 2.8], pullRatio: 1.7, pitchMm: [4.8, 4.8] }).worstMm // 0.04
 */
export function matchDrivetrain(p: MatchParts): Match {
  positiveList('pullMm', p.pullMm)
  positive('pullRatio', p.pullRatio)
  positiveList('pitchMm', p.pitchMm)
  if (p.pullMm.length !== p.pitchMm.length)
    throw new RangeError(`pullMm has ${p.pullMm.length} clicks for the ${p.pitchMm.length} gaps of pitchMm`)
  const cable = runningSum(p.pullMm)
  const sprocket = runningSum(p.pitchMm)
  return { ...errorsAfterOffset(cable, sprocket, p.pullRatio), ratioNeeded: bestRatio(cable, sprocket) }
}

/**
 * Errors of places along the cable × ratio against those of the sprockets, mm, after the offset with the least greatest
 * error.
 */
export function errorsAfterOffset(
  cable: readonly number[],
  sprocket: readonly number[],
  ratio: number,
): Omit<Match, 'ratioNeeded'> {
  const raw = cable.map((c, k) => ratio * c - sprocket[k])
  const high = Math.max(...raw)
  const low = Math.min(...raw)
  return { errorMm: raw.map(e => e - (high + low) / 2), worstMm: (high - low) / 2 }
}

/** Places from the first, mm: [4, 5] → [0, 4, 9]. */
export function runningSum(steps: readonly number[]): number[] {
  const out = [0]
  for (const step of steps) out.push(out[out.length - 1] + step)
  return out
}

/** The line with the least greatest error lies along an edge of the points' hull, so its slope is that of some pair. */
function bestRatio(cable: number[], sprocket: number[]): number {
  let best = Infinity
  let ratio = sprocket.at(-1)! / cable.at(-1)!
  for (let i = 0; i < cable.length; i++) {
    for (let j = i + 1; j < cable.length; j++) {
      const slope = (sprocket[j] - sprocket[i]) / (cable[j] - cable[i])
      const errors = cable.map((c, k) => slope * c - sprocket[k])
      const span = Math.max(...errors) - Math.min(...errors)
      if (span < best - 1e-12) {
        best = span
        ratio = slope
      }
    }
  }
  return ratio
}
