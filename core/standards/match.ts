import { positive, positiveList } from '../quantity/check'

/** Over this part of a pitch, after the best offset, an end gear needs care. `model` */
export const CARE_PITCH = 0.1
/** Over this part of a pitch it will not index. `model` */
export const MISMATCH_PITCH = 0.15

export type MatchParts = { pullMm: number[]; pullRatio: number; pitchMm: number[] }
export type Match = { errorMm: number[]; worstMm: number; ratioNeeded: number }

/**
 * Cable pull × pull ratio against sprocket pitch, gear by gear, after the best constant offset (least greatest error).
 * @param p pull of each click and gap of each pair of sprockets, smallest first, mm; ratio in mm of pulley per mm of cable
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
  const raw = cable.map((c, k) => p.pullRatio * c - sprocket[k])
  const offset = (Math.max(...raw) + Math.min(...raw)) / 2
  const errorMm = raw.map(e => e - offset)
  return { errorMm, worstMm: Math.max(...errorMm.map(Math.abs)), ratioNeeded: bestRatio(cable, sprocket) }
}

/** What a match means for the mechanic. Thresholds are `model`. */
export function matchVerdict(match: Match, pitchMm: number[]): 'works' | 'care' | 'will-not-index' {
  const worstPitch = Math.max(Math.abs(match.errorMm[0]) / pitchMm[0], Math.abs(match.errorMm.at(-1)!) / pitchMm.at(-1)!, match.worstMm / Math.max(...pitchMm))
  if (worstPitch > MISMATCH_PITCH) return 'will-not-index'
  return worstPitch > CARE_PITCH ? 'care' : 'works'
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
