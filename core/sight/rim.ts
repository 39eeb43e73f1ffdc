import { dot, minus, onPicture, seen, turned, type Lens, type Pixel, type Place, type Pose } from './camera'

/**
 * A flat ring of teeth: its middle, its radius to the tips, and how it leans, radians: `camber` + its foot inboard,
 * `toe` + its front inboard.
 */
export type Rim = { middle: Place; radiusMm: number; camber: number; toe: number }

/** Two directions across each other in the rim's plane: up, and forward. */
function plane({ camber, toe }: Rim): readonly [Place, Place] {
  return [
    [-Math.sin(camber), Math.cos(camber), 0],
    [Math.sin(toe), 0, Math.cos(toe)],
  ]
}

/**
 * The place on a rim at an angle, radians from upright forward.
 * The last are its two directions, where they were worked out already.
 */
export function onRim(rim: Rim, angle: number, [up, forward] = plane(rim)): Place {
  const { middle, radiusMm } = rim
  const [c, s] = [radiusMm * Math.cos(angle), radiusMm * Math.sin(angle)]
  return [
    middle[0] + c * up[0] + s * forward[0],
    middle[1] + c * up[1] + s * forward[1],
    middle[2] + c * up[2] + s * forward[2],
  ]
}

/**
 * The two places where a rim ends in a picture, along its length: the upper and the lower. Where a circle's picture
 * goes farthest along a direction, `a + b·cos + c·sin` over `d + e·cos + f·sin` is stationary: one sine of its angle.
 * @param forward places so far forward of them, radians, in their place
 */
export function endsOf(
  lens: Lens,
  pose: Pose,
  rim: Rim,
  forward = { upper: 0, lower: 0 },
): { upper: Pixel; lower: Pixel } {
  const [right, down, into] = turned(pose)
  const [up, front] = plane(rim)
  const from = minus(rim.middle, pose.atMm)
  // along the picture of the rim's own upright, so that a turned picture ends it where the eye does
  const [ux, uy] = [dot(right, up), dot(down, up)]
  const along: Place = [0, 1, 2].map(i => ux * right[i]! + uy * down[i]!) as unknown as Place
  const r = rim.radiusMm
  const [a, b, c] = [dot(along, from), r * dot(along, up), r * dot(along, front)]
  const [d, e, f] = [dot(into, from), r * dot(into, up), r * dot(into, front)]
  // (ae − bd)·sin + (cd − af)·cos + (ce − bf) = 0
  const [s, k, rest] = [a * e - b * d, c * d - a * f, c * e - b * f]
  const size = Math.hypot(s, k)
  const turn = Math.atan2(s, k)
  const half = Math.acos(Math.max(-1, Math.min(1, -rest / size)))
  const at = (angle: number): Pixel => {
    const p = minus(onRim(rim, angle), pose.atMm)
    const deep = dot(into, p)
    return onPicture(lens, dot(right, p) / deep, dot(down, p) / deep)
  }
  const [one, other] = [turn + half, turn - half]
  const [upper, lower] = Math.cos(one) > Math.cos(other) ? [one, other] : [other, one]
  // along its foot forward is the other way round
  return { upper: at(upper + forward.upper), lower: at(lower - forward.lower) }
}

/** Where on the rim it is nearest to the camera, radians. */
function nearestAngle(pose: Pose, rim: Rim): number {
  const [up, forward] = plane(rim)
  const to = minus(pose.atMm, rim.middle)
  return Math.atan2(dot(forward, to), dot(up, to))
}
/** The place of the rim nearest to the camera. */
export const nearestOf = (pose: Pose, rim: Rim): Place => onRim(rim, nearestAngle(pose, rim))

/**
 * The place of a rim's near edge that lies beside a place in the picture, along its bar.
 * @param past how far a pixel lies past it, along the bar
 */
export function edgeBeside(lens: Lens, pose: Pose, rim: Rim, past: (at: Pixel) => number): Pixel {
  const middle = nearestAngle(pose, rim)
  const at = (angle: number) => seen(lens, pose, onRim(rim, angle))
  let [a, b] = [middle - 0.6, middle + 0.6]
  let [pa, pb] = [past(at(a)), past(at(b))]
  // between the ends it runs nearly like a sine: a few secants leave nothing to speak of
  for (let i = 0; i < 4 && Math.abs(pb) > 1e-3 && pa !== pb; i++) {
    const next = Math.max(middle - 1.5, Math.min(middle + 1.5, b - (pb * (b - a)) / (pb - pa)))
    ;[a, pa, b, pb] = [b, pb, next, past(at(next))]
  }
  return at(b)
}

/**
 * How far a place in the picture lies outward of a rim's picture there, px.
 * @param angle where on the rim about, radians
 */
export function outwardOf(lens: Lens, pose: Pose, rim: Rim, at: Pixel, angle: number): number {
  const step = 0.01
  // once for all: this is most of what solving two pictures takes
  const [rows, leans] = [turned(pose), plane(rim)]
  const of = (a: number) => seen(lens, pose, onRim(rim, a, leans), rows)
  const middle = seen(lens, pose, rim.middle, rows)
  for (let round = 0, a = angle; ; round++) {
    const here = of(a)
    const next = of(a + step)
    const [tu, tv] = [next[0] - here[0], next[1] - here[1]]
    const [du, dv] = [at[0] - here[0], at[1] - here[1]]
    const along = (du * tu + dv * tv) / (tu * tu + tv * tv)
    if (round === 2) {
      const aside = (du * tv - dv * tu) / Math.hypot(tu, tv)
      // outward is away from the middle
      return (here[0] - middle[0]) * tv - (here[1] - middle[1]) * tu > 0 ? aside : -aside
    }
    a += along * step
  }
}
