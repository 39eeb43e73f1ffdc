import { degrees, radians } from '../quantity/angle'
import { notNegative, positive } from '../quantity/check'
import { USUAL_PULLEY_TEETH } from '../rear/gap'
import { tipDiameterMm } from '../standards/sprockets'
import { PHONE, seen, type Lens, type Pixel, type Pose } from './camera'
import { edgeBeside, endsOf, nearestOf, outwardOf, type Rim } from './rim'
import { pulleyRadius, TIP } from './pulley'
import { figureOf, held, solve, type Unknown } from './solve'
import { THICK_MM, TOUCH_SD_PX, type RimTouch, type Touch } from './touch'

/*
 * Guide pulley and cage measured in pictures from behind. The sprocket is its own ruler and its own level: its height
 * tells the scale, its ends the upright, and how far its near edge stands beside them from which side it is seen. The
 * pulley's height tells how deep it lies, so that a look from the side is taken off; what is left of that is in the
 * spread, and two pictures from both sides leave little.
 */

/**
 * One picture's touches: the ends of a sprocket and of the guide pulley, and the sprocket's edge nearest to you; and
 * more places that were found along both edges (`alongRim.ts`).
 */
export type BehindPicture = {
  lens: Lens
  sprocket: { upper: Touch; lower: Touch; near: Touch; along?: readonly RimTouch[] }
  pulley: { upper: Touch; lower: Touch; along?: readonly Touch[] }
}

export type Behind = {
  /** The sprocket whose edges were touched: best the largest. */
  sprocket: { teeth: number; placeMm: number }
  /** Null where they were not counted. */
  pulleyTeeth: number | null
  /** The plane that the offset is told from: of the sprocket in gear, or of an end. */
  planeMm: number
  pictures: readonly BehindPicture[]
}

export type Figure = { mean: number; sd: number }
export type BehindTold = {
  /** The pulley from that plane, mm, + inboard. */
  offsetMm: Figure
  /** The pulley's lean beside the sprockets, degrees, + its foot inboard. */
  leanDeg: Figure
  /** From which side each picture looks, degrees out of the sprocket's plane, + from the frame's side. */
  viewDeg: readonly Figure[]
  /** How far before the axle the pulley hangs, mm. */
  depthMm: Figure
}

/** Why a picture does not tell. */
export type Unusable =
  | { is: 'unusable'; why: 'small' | 'apart' }
  /** It would tell too widely: from where to take the next. */
  | { is: 'unusable'; why: 'oblique'; told: BehindTold }

/** A sprocket lower than this in the picture is no ruler, px. `model` */
const LEAST_HEIGHT_PX = 200
/** Wider than this a figure is no better than an eye (`MEASURE.sightSdMm`), mm. `model` */
const WIDEST_MM = 0.6
/**
 * Touches and thoughts further apart than so many spreads, squared and summed, are not of this bike: right ones come to
 * one or two a picture, a cassette of eight teeth fewer to 8 and more. `model`
 */
const APART = { first: 7, eachMore: 6 } as const

/** Where a guide pulley hangs, mm before the axle, and how it leans, degrees. `model` */
const HANGS = { forwardMm: 10, forwardSdMm: 14, downSdMm: 40, asideSdMm: 6, leanSdDeg: 2.5 } as const
/** From where pictures are taken when one means to hold the camera at the axle's height, mm. `model` */
const STANDS = { upSdMm: 70, asideSdMm: 400 } as const

/** Seen from the side an end is round, and its middle harder to tell: by so much of how far the rim bows. `model` */
const BOW_SHARE = 0.02

/**
 * How far the middle of a sprocket's end that was found may lie across its bar, px: it stands free, unlike a pulley in
 * its cage. From made pictures (docs/senses.md). `model`
 */
const FREE_END_SD_PX = 0.35
/** How much further off than a bar's an end of a round may be, along it: tips tell its height more closely. `model` */
const ROUND_END = 2.4
/** So many places along the edge tell how it runs. `model` */
const ENOUGH_ALONG = 4

/**
 * What an eye sees as a pulley's end is the tip of one of its teeth, which stands beside the end of their round: by so
 * much of half a pitch, since a tip is flat. The same tooth in every picture, so that what it feigns from one side it
 * takes back from the other. `model`
 */
const TIP_BESIDE_END = 1 / 3
/**
 * And so much lower than that end, as a share of the radius and of half a pitch (radians) squared: on the average of
 * 1 − cos over half a pitch, a third of which is flat, (2/3)³/6.
 */
const TIP_BELOW_END = (2 / 3) ** 3 / 6
/** A second picture is asked for from the first one's height, and taken so far from it, mm. `model` */
const LEVEL_SD_MM = 60

const SHARED = 11
const EACH = 6

/**
 * What pictures from behind tell of the guide pulley, all of them together.
 * @throws RangeError naming the argument
 */
export function measureFromBehind(ask: Behind): (BehindTold & { is: 'told' }) | Unusable {
  if (!ask.pictures.length) throw new RangeError('pictures must be at least one')
  notNegative('sprocket.placeMm', ask.sprocket.placeMm)
  const radiusMm = tipDiameterMm(ask.sprocket.teeth) / 2 - TIP.belowMm
  const toTips = pulleyRadius(ask.pulleyTeeth)
  const halfPitch = Math.PI / (ask.pulleyTeeth ?? USUAL_PULLEY_TEETH)
  const pulleyMm = toTips.mean * (1 - TIP_BELOW_END * halfPitch ** 2)
  const pulleyRim = { mean: pulleyMm, sd: toTips.sd }
  const tipSd = TIP_BESIDE_END * halfPitch
  const starts = ask.pictures.map(p => startOf(p, radiusMm, ask.sprocket.placeMm))
  if (starts.some(s => s.heightPx < LEAST_HEIGHT_PX)) return { is: 'unusable', why: 'small' }
  const lens = ask.pictures[0]!.lens
  const unknowns: Unknown[] = [
    { mean: 0, sd: HANGS.asideSdMm },
    { mean: -(radiusMm + pulleyMm + 6), sd: HANGS.downSdMm },
    { mean: HANGS.forwardMm, sd: HANGS.forwardSdMm },
    { mean: 0, sd: radians(HANGS.leanSdDeg) },
    { mean: 0, sd: radians(1.5) },
    { mean: radiusMm, sd: TIP.sdMm },
    pulleyRim,
    { mean: Math.log(lens.focalPx), sd: PHONE.spread },
    { mean: 0, sd: 0.06 },
    { mean: 0, sd: tipSd },
    { mean: 0, sd: tipSd },
    ...starts.flatMap(s => s.unknowns),
  ]
  const solved = solve(unknowns, x => {
    const poses = ask.pictures.map((_, i) => poseAt(x, i))
    return [
      ...ask.pictures.flatMap((p, i) => misfitsOf(ask, p, poses[i]!, x)),
      ...poses.slice(1).map(({ atMm }) => (atMm[1] - poses[0]!.atMm[1]) / LEVEL_SD_MM),
    ]
  })
  const looks = (i: number) => (x: Float64Array) => {
    const { atMm } = poseAt(x, i)
    return degrees(Math.atan2(ask.sprocket.placeMm - atMm[0], -atMm[2]))
  }
  const told: BehindTold = {
    offsetMm: figureOf(solved, x => x[0]!),
    leanDeg: figureOf(solved, x => degrees(x[3]!)),
    viewDeg: ask.pictures.map((_, i) => figureOf(solved, looks(i))),
    depthMm: figureOf(solved, x => x[2]!),
  }
  // what was found besides helps to tell, and is not what a picture is refused for
  const misfit = ask.pictures
    .flatMap((p, i) => misfitsOf(ask, p, poseAt(solved.at, i), solved.at, false))
    .reduce((s, v) => s + v * v, 0)
  const strange = unknowns.slice(0, SHARED).reduce((s, u, i) => s + ((solved.at[i]! - u.mean) / u.sd) ** 2, 0)
  if (misfit + strange > APART.first + APART.eachMore * (ask.pictures.length - 1))
    return { is: 'unusable', why: 'apart' }
  return told.offsetMm.sd > WIDEST_MM ? { is: 'unusable', why: 'oblique', told } : { is: 'told', ...told }
}

/** A first guess of where the camera stood, from the touches alone, and how wide it is left open. */
function startOf({ lens, sprocket }: BehindPicture, radiusMm: number, placeMm: number) {
  const [upper, lower, near] = [sprocket.upper.at, sprocket.lower.at, sprocket.near.at]
  const [du, dv] = [lower[0] - upper[0], lower[1] - upper[1]]
  const heightPx = Math.hypot(du, dv)
  positive('a sprocket’s height in the picture', heightPx)
  const farMm = (lens.focalPx * 2 * radiusMm) / heightPx
  const middle = [(upper[0] + lower[0]) / 2, (upper[1] + lower[1]) / 2] as const
  const across = ((near[0] - middle[0]) * dv - (near[1] - middle[1]) * du) / heightPx
  const nearer = 1 / Math.max(farMm / 3, farMm - radiusMm) - 1 / farMm
  // to the right of it when its near edge stands to the left
  const asideMm = Math.max(-farMm, Math.min(farMm, across / (lens.focalPx * nearer)))
  const at = -Math.atan2(-asideMm, farMm)
  const unknowns: Unknown[] = [
    { mean: placeMm + asideMm, sd: STANDS.asideSdMm },
    { mean: 0, sd: STANDS.upSdMm },
    { mean: Math.log(farMm), sd: 0.4 },
    { mean: at - Math.atan((middle[0] - lens.middle[0]) / lens.focalPx), sd: 0.5 },
    { mean: Math.atan((middle[1] - lens.middle[1]) / lens.focalPx), sd: 0.5 },
    { mean: -Math.atan2(du, dv), sd: 0.5 },
  ]
  return { heightPx, unknowns }
}

function poseAt(x: Float64Array, i: number): Pose {
  const [aside, up, lnFar, yaw, pitch, roll] = x.subarray(SHARED + EACH * i, SHARED + EACH * (i + 1))
  return { atMm: [aside!, up!, -Math.exp(lnFar!)], yaw: yaw!, pitch: pitch!, roll: roll! }
}

function misfitsOf(ask: Behind, picture: BehindPicture, pose: Pose, x: Float64Array, besides = true): number[] {
  const [offset, up, forward, camber, toe, radiusMm, pulleyMm, lnFocal, bend, upperTip, lowerTip] = x
  const lens: Lens = { focalPx: Math.exp(lnFocal!), middle: picture.lens.middle, bend: bend! }
  const sprocket: Rim = { middle: [ask.sprocket.placeMm, 0, 0], radiusMm: radiusMm!, camber: 0, toe: 0 }
  const pulley: Rim = {
    middle: [ask.planeMm + offset!, up!, forward!],
    radiusMm: pulleyMm!,
    camber: camber!,
    toe: toe!,
  }
  const { upper, lower, near } = picture.sprocket
  const [du, dv] = [lower.at[0] - upper.at[0], lower.at[1] - upper.at[1]]
  const height = Math.hypot(du, dv)
  const [ax, ay] = [du / height, dv / height]
  const across = (u: number, v: number) => u * ay - v * ax
  const bowPx = Math.abs(
    across(near.at[0] - (upper.at[0] + lower.at[0]) / 2, near.at[1] - (upper.at[1] + lower.at[1]) / 2),
  )
  const bowSd = BOW_SHARE * bowPx
  const endSd = (TIP.eachSdMm * height) / (2 * radiusMm!)
  const both = (was: Touch, is: Pixel) => {
    const [u, v] = [was.at[0] - is[0], was.at[1] - is[1]]
    return [across(u, v) / Math.hypot(was.sdPx, bowSd), (u * ax + v * ay) / Math.hypot(was.sdPx, endSd)]
  }
  const s = endsOf(lens, pose, sprocket)
  const p = endsOf(lens, pose, pulley, { upper: upperTip!, lower: lowerTip! })
  const along = picture.sprocket.along ?? []
  const outvoted = along.length >= ENOUGH_ALONG
  /** Seen well aside an end is the top of a round, put by hand: what lies across it the tips tell. */
  const round = outvoted && along.every(t => t.tip)
  /** Its face towards the wheel, where its tips are found. */
  const face: Rim = { ...sprocket, middle: [ask.sprocket.placeMm + THICK_MM.sprocket / 2, 0, 0] }
  /** An end that was found: across its bar it is known better than along it. */
  const free = (was: Touch, is: Pixel) => {
    const sdPx = besides && was.sdPx <= TOUCH_SD_PX.found ? FREE_END_SD_PX : was.sdPx
    if (round) return [both({ ...was, sdPx: ROUND_END * was.sdPx }, is)[1]!]
    const along = both(was, is)[1]!
    return [...voted(both({ ...was, sdPx }, is)[0]!, outvoted), along]
  }
  /** Where the edge was found at enough places, one beside it is outvoted: it pulls less, and refuses nothing. */
  const voted = (aside: number, by: boolean): number[] => (!by ? [aside] : besides ? [held(aside)] : [])
  const pulleyAlong = picture.pulley.along ?? []
  const ofPulley = (was: Touch, is: Pixel) => {
    const [aside, along] = both(was, is)
    return [...voted(aside!, pulleyAlong.length >= ENOUGH_ALONG), along!]
  }
  /** A place on a near edge: across its bar. */
  const beside = (rim: Rim, t: Touch) => {
    const at = edgeBeside(lens, pose, rim, ([u, v]) => (u - t.at[0]) * ax + (v - t.at[1]) * ay)
    return held(across(t.at[0] - at[0], t.at[1] - at[1]) / Math.hypot(t.sdPx, bowSd))
  }
  return [
    ...free(upper, s.upper),
    ...free(lower, s.lower),
    // where along the near edge it was touched does not matter
    ...voted(both(near, seen(lens, pose, nearestOf(pose, sprocket)))[0]!, outvoted),
    ...ofPulley(picture.pulley.upper, p.upper),
    ...ofPulley(picture.pulley.lower, p.lower),
    ...(besides ? along : []).map(t =>
      t.tip
        ? held(outwardOf(lens, pose, face, t.at, Math.atan2(t.tip.forward, -t.tip.down)) / t.sdPx)
        : beside(sprocket, t),
    ),
    ...(besides ? pulleyAlong : []).map(t => beside(pulley, t)),
  ]
}
