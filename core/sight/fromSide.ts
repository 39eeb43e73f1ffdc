import { radians } from '../quantity/angle'
import { notNegative } from '../quantity/check'
import { tipDiameterMm } from '../standards/sprockets'
import { lookAlong, PHONE, type Lens, type Place, type Pose } from './camera'
import type { Figure } from './fromBehind'
import { pulleyRadius, TIP } from './pulley'
import { figureOf, solve, type Unknown } from './solve'
import type { Touch } from './touch'

/*
 * The gap between guide pulley and sprocket measured in a picture from the drive side: the sprocket's own tips are the
 * ruler, and tell where its middle is; the pulley's tips lie in nearly the same plane, so a camera that is not quite
 * square moves both alike.
 */

export type FromSide = {
  lens: Lens
  sprocket: { teeth: number; placeMm: number }
  /** Null where they were not counted. */
  pulleyTeeth: number | null
  /** Tips of that sprocket, three or more, well apart. */
  tips: readonly Touch[]
  /** Tips of the pulley, two or more. */
  pulleyTips: readonly Touch[]
}
export type SideTold =
  { is: 'told'; gapMm: Figure; centresMm: Figure } | { is: 'unusable'; why: 'small' | 'apart' | 'together' }

/** How far out of the wheel's square a picture is taken when one means to be square, degrees. `model` */
const SQUARE_SD_DEG = 5
/** How far a pulley stands aside of its sprocket, mm. `model` */
const ASIDE_SD_MM = 1.5
const LEAST_ACROSS_PX = 250
const APART = 22

/**
 * @throws RangeError naming the argument: too few tips, or a tooth count that is none
 */
export function measureFromSide(ask: FromSide): SideTold {
  if (ask.tips.length < 3) throw new RangeError('tips must be at least three')
  if (ask.pulleyTips.length < 2) throw new RangeError('pulleyTips must be at least two')
  notNegative('sprocket.placeMm', ask.sprocket.placeMm)
  const radiusMm = tipDiameterMm(ask.sprocket.teeth) / 2 - TIP.belowMm
  const pulleyRim = pulleyRadius(ask.pulleyTeeth)
  const pulleyMm = pulleyRim.mean
  const round = circleThrough(ask.tips.map(t => t.at))
  if (!round || round.spread < 1) return { is: 'unusable', why: 'together' }
  if (2 * round.radius < LEAST_ACROSS_PX) return { is: 'unusable', why: 'small' }
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
  const misfits = (x: Float64Array): number[] => {
    const [lnFar, up, forward, yaw, pitch, lnFocal, r, pulleyR, pulleyUp, pulleyForward, aside] = x
    const far = Math.exp(lnFar!)
    const pose: Pose = { atMm: [ask.sprocket.placeMm - far, up!, forward!], yaw: yaw!, pitch: pitch!, roll: 0 }
    const lens = { ...ask.lens, focalPx: Math.exp(lnFocal!) }
    const round = (touches: readonly Touch[], planeMm: number, y0: number, z0: number, radius: number, of: number) => {
      const tips = touches.map(t => {
        const [, y, z] = onPlane(lens, pose, t, planeMm)
        return { far: Math.hypot(y - y0, z - z0), angle: Math.atan2(z - z0, y - y0), sdMm: t.sdPx * perPx }
      })
      return [
        ...tips.map(t => (t.far - radius) / Math.hypot(t.sdMm, TIP.eachSdMm)),
        ...asideOfTeeth(tips, of).map((a, i) => (a * radius) / Math.hypot(tips[i]!.sdMm, TIP.besideSdMm)),
      ]
    }
    return [
      ...round(ask.tips, ask.sprocket.placeMm, 0, 0, r!, ask.sprocket.teeth),
      ...round(
        ask.pulleyTips,
        ask.sprocket.placeMm + aside!,
        pulleyUp!,
        pulleyForward!,
        pulleyR!,
        ask.pulleyTeeth ?? 0,
      ),
    ]
  }
  const solved = solve(unknowns, misfits)
  const strange = unknowns.slice(3).reduce((s, u, i) => s + ((solved.at[i + 3]! - u.mean) / u.sd) ** 2, 0)
  if (solved.misfit + strange > APART) return { is: 'unusable', why: 'apart' }
  const centres = (x: Float64Array) => Math.hypot(x[8]!, x[9]!)
  return {
    is: 'told',
    centresMm: figureOf(solved, centres),
    gapMm: figureOf(solved, x => centres(x) - x[6]! - x[7]!),
  }
}

/**
 * How far round each tip lies from where its tooth stands, radians: teeth are evenly parted, so that all tips of one
 * ring agree on where its first tooth is. Seen from aside they do not, which tells from where it was taken.
 * @returns nothing where its teeth were not counted
 */
function asideOfTeeth(tips: readonly { angle: number }[], teeth: number): number[] {
  if (teeth === 0) return []
  const sum = (f: (x: number) => number) => tips.reduce((s, t) => s + f(t.angle * teeth), 0)
  const first = Math.atan2(sum(Math.sin), sum(Math.cos))
  return tips.map(t => Math.asin(Math.sin((t.angle * teeth - first) / 2)) * (2 / teeth))
}

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
function onPlane(lens: Lens, pose: Pose, { at }: Touch, planeMm: number): Place {
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
