import { degrees, radians } from '../quantity/angle'
import { notNegative } from '../quantity/check'
import { tipDiameterMm } from '../standards/sprockets'
import { lookAlong, PHONE, seen, type Lens, type Pixel, type Place, type Pose } from './camera'
import type { Figure } from './fromBehind'
import { pulleyRadius, TIP } from './pulley'
import { figureOf, held, solve, type Solved, type Unknown } from './solve'
import { THICK_MM, type Touch } from './touch'

/*
 * The gap between guide pulley and sprocket measured in a picture from the drive side: the sprocket's own tips are the
 * ruler, and tell where its middle is; the pulley's tips lie in nearly the same plane, so a camera that is not quite
 * square moves both alike.
 */

/** Tips of both rings that were found besides those that were touched (`tipsBeside.ts`). */
export type TipsFound = { tips: readonly Touch[]; pulleyTips: readonly Touch[] }

export type FromSide = {
  lens: Lens
  sprocket: { teeth: number; placeMm: number }
  /** Null where they were not counted. */
  pulleyTeeth: number | null
  /** Tips of that sprocket, three or more, well apart. */
  tips: readonly Touch[]
  /** Tips of the pulley, two or more. */
  pulleyTips: readonly Touch[]
  besides?: TipsFound
}
export type SideTold =
  | { is: 'told'; gapMm: Figure; centresMm: Figure; from: SeenFrom }
  | { is: 'unusable'; why: 'small' | 'apart' | 'together' }
/** From where the gap was looked at, degrees out of square: + from above, + from in front. */
export type SeenFrom = { aboveDeg: number; beforeDeg: number }
/** Told more widely than this a gap is no better than a template beside it, mm. `model` */
export const WIDEST_GAP_MM = 0.6

/** How far out of the wheel's square a picture is taken when one means to be square, degrees. `model` */
const SQUARE_SD_DEG = 5
/** How far a pulley stands aside of its sprocket, mm. `model` */
const ASIDE_SD_MM = 1.5
const LEAST_ACROSS_PX = 250
const APART = 22

const NONE: TipsFound = { tips: [], pulleyTips: [] }

/** What was solved: where the camera stood, and both rings. */
type Solution = {
  solved: Solved
  misfit: number
  strange: number
  lensAt(x: Float64Array): Lens
  poseAt(x: Float64Array): Pose
}
type Why = Extract<SideTold, { is: 'unusable' }>['why']

/**
 * @throws RangeError naming the argument: too few tips, or a tooth count that is none
 */
function solveSide(ask: FromSide): Solution | Why {
  if (ask.tips.length < 3) throw new RangeError('tips must be at least three')
  if (ask.pulleyTips.length < 2) throw new RangeError('pulleyTips must be at least two')
  notNegative('sprocket.placeMm', ask.sprocket.placeMm)
  const radiusMm = tipDiameterMm(ask.sprocket.teeth) / 2 - TIP.belowMm
  const pulleyRim = pulleyRadius(ask.pulleyTeeth)
  const pulleyMm = pulleyRim.mean
  const round = circleThrough(ask.tips.map(t => t.at))
  if (!round || round.spread < 1) return 'together'
  if (2 * round.radius < LEAST_ACROSS_PX) return 'small'
  const farMm = (ask.lens.focalPx * radiusMm) / round.radius
  const perPx = radiusMm / round.radius
  const [cx, cy] = [(round.middle[0] - ask.lens.middle[0]) * perPx, (round.middle[1] - ask.lens.middle[1]) * perPx]
  const [forward, down] = middleOfPulley(
    ask.pulleyTips.map(t => t.at),
    pulleyMm / perPx,
  ).map((v, i) => (v - round.middle[i]!) * perPx)
  const unknowns: Unknown[] = [
    { mean: Math.log(farMm), sd: 0.4 },
    // seen from the drive side forward lies to the right
    { mean: cy, sd: 200 },
    { mean: -cx, sd: 200 },
    { mean: -Math.PI / 2, sd: radians(SQUARE_SD_DEG) },
    { mean: 0, sd: radians(SQUARE_SD_DEG) },
    { mean: Math.log(ask.lens.focalPx), sd: PHONE.spread },
    { mean: radiusMm, sd: TIP.sdMm },
    pulleyRim,
    { mean: -down!, sd: 40 },
    { mean: forward!, sd: 40 },
    { mean: 0, sd: ASIDE_SD_MM },
  ]
  const poseAt = ([lnFar, up, forward, yaw, pitch]: Float64Array): Pose => ({
    atMm: [ask.sprocket.placeMm - Math.exp(lnFar!), up!, forward!],
    yaw: yaw!,
    pitch: pitch!,
    roll: 0,
  })
  const lensAt = (x: Float64Array): Lens => ({ ...ask.lens, focalPx: Math.exp(x[5]!) })
  const misfits = (x: Float64Array, besides = ask.besides ?? NONE): number[] => {
    const [pose, lens] = [poseAt(x), lensAt(x)]
    const round = (touches: readonly Touch[], found: readonly Touch[], ring: Ring) => {
      const rows = [...touches, ...found].map((t, i) => {
        // what is found is the outline of the face that looks at the camera
        const [, y, z] = onPlane(lens, pose, t.at, ring.planeMm - (i < touches.length ? 0 : ring.halfMm))
        const [fromUp, fromForward] = [y - ring.upMm, z - ring.forwardMm]
        return {
          far: Math.hypot(fromUp, fromForward),
          angle: Math.atan2(fromForward, fromUp),
          sdMm: t.sdPx * perPx,
        }
      })
      const first = firstTooth(rows, ring.teeth)
      return rows.flatMap(({ far, angle, sdMm }, i) => {
        const out = (far - ring.radiusMm) / Math.hypot(sdMm, TIP.eachSdMm)
        const beside =
          first === null ? [] : [(asideOf(angle, first, ring.teeth) * ring.radiusMm) / Math.hypot(sdMm, TIP.besideSdMm)]
        return [out, ...beside].map(m => (i < touches.length ? m : held(m)))
      })
    }
    const { sprocket, pulley } = ringsAt(ask, x)
    return [...round(ask.tips, besides.tips, sprocket), ...round(ask.pulleyTips, besides.pulleyTips, pulley)]
  }
  const solved = solve(unknowns, misfits)
  // what was found besides helps to tell, and is not what a picture is refused for
  const misfit = misfits(solved.at, NONE).reduce((s, v) => s + v * v, 0)
  const strange = unknowns.slice(3).reduce((s, u, i) => s + ((solved.at[i + 3]! - u.mean) / u.sd) ** 2, 0)
  return { solved, misfit, strange, lensAt, poseAt }
}

/** A ring of tips on its plane; `teeth` 0 where they were not counted. */
type Ring = { planeMm: number; halfMm: number; upMm: number; forwardMm: number; radiusMm: number; teeth: number }
function ringsAt(ask: FromSide, x: Float64Array): { sprocket: Ring; pulley: Ring } {
  const [, , , , , , radiusMm, pulleyMm, upMm, forwardMm, aside] = x as unknown as number[]
  const { placeMm, teeth } = ask.sprocket
  return {
    sprocket: { planeMm: placeMm, halfMm: THICK_MM.sprocket / 2, upMm: 0, forwardMm: 0, radiusMm: radiusMm!, teeth },
    pulley: {
      planeMm: placeMm + aside!,
      halfMm: THICK_MM.pulley / 2,
      upMm: upMm!,
      forwardMm: forwardMm!,
      radiusMm: pulleyMm!,
      teeth: ask.pulleyTeeth ?? 0,
    },
  }
}

/** @throws RangeError naming the argument: too few tips, or a tooth count that is none */
export function measureFromSide(ask: FromSide): SideTold {
  const is = solveSide(ask)
  if (typeof is === 'string') return { is: 'unusable', why: is }
  if (is.misfit + is.strange > APART)
    // what was found for the hand is no reason to refuse what it touched
    return ask.besides ? measureFromSide({ ...ask, besides: undefined }) : { is: 'unusable', why: 'apart' }
  const centres = (x: Float64Array) => Math.hypot(x[8]!, x[9]!)
  return {
    is: 'told',
    centresMm: figureOf(is.solved, centres),
    gapMm: figureOf(is.solved, x => centres(x) - x[6]! - x[7]!),
    from: seenFrom(is, ask),
  }
}

function seenFrom({ solved, poseAt }: Solution, ask: FromSide): SeenFrom {
  const { pulley, sprocket } = ringsAt(ask, solved.at)
  const [aside, up, forward] = poseAt(solved.at).atMm
  const far = sprocket.planeMm - aside
  // the gap lies where the sprocket ends towards the pulley
  const share = sprocket.radiusMm / Math.hypot(pulley.upMm, pulley.forwardMm)
  return {
    aboveDeg: degrees(Math.atan2(up - share * pulley.upMm, far)),
    beforeDeg: degrees(Math.atan2(forward - share * pulley.forwardMm, far)),
  }
}

/** A ring of teeth in the picture, and where its first tooth is, radians forward of upright. */
export type TeethSeen = { ring: Ring; firstAt: number; lens: Lens; pose: Pose }

/**
 * Where both rings' teeth stand in the picture, from what was touched; null for a ring whose teeth nobody counted.
 * @returns null where the touches tell nothing
 */
export function teethSeen(ask: FromSide): { sprocket: TeethSeen; pulley: TeethSeen | null } | null {
  const is = solveSide(ask)
  if (typeof is === 'string' || is.misfit + is.strange > APART) return null
  const [lens, pose] = [is.lensAt(is.solved.at), is.poseAt(is.solved.at)]
  const { sprocket, pulley } = ringsAt(ask, is.solved.at)
  const of = (ring: Ring, touches: readonly Touch[]): TeethSeen | null => {
    const angles = touches.map(t => {
      const [, y, z] = onPlane(lens, pose, t.at, ring.planeMm)
      return { angle: Math.atan2(z - ring.forwardMm, y - ring.upMm) }
    })
    const firstAt = firstTooth(angles, ring.teeth)
    return firstAt === null ? null : { ring, firstAt, lens, pose }
  }
  return {
    sprocket: of(sprocket, [...ask.tips, ...(ask.besides?.tips ?? [])])!,
    pulley: of(pulley, [...ask.pulleyTips, ...(ask.besides?.pulleyTips ?? [])]),
  }
}

/** Where a ring's middle lies in the picture. */
export const middleSeen = ({ ring, lens, pose }: TeethSeen): Pixel =>
  seen(lens, pose, [ring.planeMm - ring.halfMm, ring.upMm, ring.forwardMm])

/** Where a tooth of such a ring has its tip, which way it points, and how many pixels a millimetre takes there. */
export function tipAt(
  { ring, firstAt, lens, pose }: TeethSeen,
  k: number,
): { at: Pixel; outward: Pixel; perMm: number } {
  const angle = firstAt + (k / ring.teeth) * 2 * Math.PI
  const place = (radiusMm: number) =>
    seen(lens, pose, [
      ring.planeMm - ring.halfMm,
      ring.upMm + radiusMm * Math.cos(angle),
      ring.forwardMm + radiusMm * Math.sin(angle),
    ])
  const [at, further] = [place(ring.radiusMm), place(ring.radiusMm + 1)]
  const perMm = Math.hypot(further[0] - at[0], further[1] - at[1])
  return { at, outward: [(further[0] - at[0]) / perMm, (further[1] - at[1]) / perMm], perMm }
}

/**
 * Where a ring's first tooth is, radians: teeth are evenly parted, so that all tips of one ring agree on it. Seen from
 * aside they do not, which tells from where it was taken.
 * @returns null where its teeth were not counted
 */
function firstTooth(tips: readonly { angle: number }[], teeth: number): number | null {
  if (teeth === 0) return null
  const sum = (f: (x: number) => number) => tips.reduce((s, t) => s + f(t.angle * teeth), 0)
  return Math.atan2(sum(Math.sin), sum(Math.cos)) / teeth
}
/** How far round a tip lies from where its tooth stands, radians. */
const asideOf = (angle: number, first: number, teeth: number): number =>
  Math.asin(Math.sin(((angle - first) * teeth) / 2)) * (2 / teeth)

/** About where the pulley's middle is, px: in its tips' circle, or below two of them, which look at the sprocket. */
function middleOfPulley(tips: readonly (readonly [number, number])[], radiusPx: number): readonly [number, number] {
  const circle = circleThrough(tips)
  if (circle && circle.spread > 1.5) return circle.middle
  const [x, y] = middleOf(tips)
  return [x, y + radiusPx / 2]
}

const middleOf = (points: readonly (readonly [number, number])[]): [number, number] => [
  points.reduce((s, p) => s + p[0], 0) / points.length,
  points.reduce((s, p) => s + p[1], 0) / points.length,
]

/** Where what a touch looks at meets a plane of the wheel's. */
function onPlane(lens: Lens, pose: Pose, at: Pixel, planeMm: number): Place {
  const along = lookAlong(lens, pose, at)
  const s = (planeMm - pose.atMm[0]) / along[0]
  return [planeMm, pose.atMm[1] + s * along[1], pose.atMm[2] + s * along[2]]
}

/**
 * A first circle through points, by least squares on x² + y² + ax + by + c = 0 about their middle.
 * @returns null for points on a line; `spread`: the angle that they span, below 1 where they lie together
 */
function circleThrough(points: readonly (readonly [number, number])[]) {
  const n = points.length
  const [mx, my] = middleOf(points)
  let [xx, xy, yy, xr, yr, rr] = [0, 0, 0, 0, 0, 0]
  for (const p of points) {
    const [x, y] = [p[0] - mx, p[1] - my]
    const r = x * x + y * y
    xx += x * x
    xy += x * y
    yy += y * y
    xr += x * r
    yr += y * r
    rr += r
  }
  const det = xx * yy - xy * xy
  if (Math.abs(det) < 1e-6 * (xx + yy) ** 2) return null
  const [a, b] = [(xr * yy - yr * xy) / (2 * det), (yr * xx - xr * xy) / (2 * det)]
  const radius = Math.sqrt(a * a + b * b + rr / n)
  const angles = points.map(p => Math.atan2(p[1] - my - b, p[0] - mx - a)).sort((l, r) => l - r)
  const open = angles.map((t, i) => (i + 1 < n ? angles[i + 1]! : angles[0]! + 2 * Math.PI) - t)
  return { middle: [mx + a, my + b] as const, radius, spread: 2 * Math.PI - Math.max(...open) }
}
