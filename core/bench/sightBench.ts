import { randomFrom, type Random } from '../quantity/random'
import { radians } from '../quantity/angle'
import { seen, usualLens, type Lens, type Pixel, type Pose } from '../sight/camera'
import { tipDiameterMm } from '../standards/sprockets'
import { alongPulley, alongRim } from '../sight/alongRim'
import { findEnd, findNear, type Found, type Look, type Patch } from '../sight/edges'
import type { Behind, BehindPicture } from '../sight/fromBehind'
import { proposalsOf } from '../sight/propose'
import { barsOf, REACH_PX, TOUCH_SD_PX, type Touch } from '../sight/touch'
import { nearestOf } from '../sight/rim'
import { render, toothedEndsOf, type Disc, type Weather } from './render'

/*
 * Bikes and cameras with a truth of their own for measuring in pictures: real tips, chains, cages, lenses that are not
 * quite as thought, hands that do not stand quite in the plane.
 */

export type SightBike = {
  teeth: readonly number[]
  placeMm: readonly number[]
  click: number
  pulleyTeeth: number
  /** The truth: mm + inboard of the sprocket in gear, tips to tips, degrees. */
  offsetMm: number
  gapMm: number
  leanDeg: number
  discs: readonly Disc[]
  pulley: Disc
}

const PITCH_MM = 3.9
const TOOTH_MM = 4.6
/** Teeth are worn and shaped unlike each other, mm: in height, and to one side. */
const UNLIKE = { shorterSdMm: 0.12, leanSdMm: 0.15 } as const

/** With teeth that are each a little unlike the next, turned as the wheel happens to stand. */
const asItStands = (disc: Disc, random: Random): Disc => ({
  ...disc,
  turn: random.next() * ((2 * Math.PI) / disc.teeth),
  each: Array.from({ length: disc.teeth }, () => ({
    shorterMm: UNLIKE.shorterSdMm * random.normal(),
    leanMm: UNLIKE.leanSdMm * random.normal(),
  })),
})

/** The freewheel's body under the sprockets, its radius. */
const BODY_MM = 17
/** How light each part is, 0 black to about 1. */
export type Looks = {
  pulley: { from: number; more: number }
  cage: number
  body: number
  /** Its tone where it is black. */
  cassette: number | null
}
/** Of bikes in good light all is light: the stand-in's. */
const LIGHT_PARTS = { pulley: { from: 0.5, more: 0.4 }, cage: 0.55, body: 0.5, cassette: null } as const satisfies Looks
/** Many a pulley is black, and many a cage; some cassettes are, all their sprockets. */
export function partsAsTheyLook(seed: number): Looks {
  const random = randomFrom(seed, 629)
  const black = random.next() < 0.5
  return {
    pulley: black ? { from: 0.06, more: 0.12 } : LIGHT_PARTS.pulley,
    cage: random.next() < 0.5 ? 0.1 + 0.15 * random.next() : LIGHT_PARTS.cage,
    body: 0.15 + 0.3 * random.next(),
    cassette: random.next() < 0.15 ? 0.1 + 0.15 * random.next() : null,
  }
}

/** Of a drivetrain that is given, and standing where it is to. */
export type Given = {
  teeth: readonly number[]
  placeMm: readonly number[]
  /** The sprocket that the chain is on. */
  click: number
  /** The sprocket that the pulley was pushed to by hand, its chain where it was. */
  pushedTo?: number
  /** Where the pulley stands; by chance where left out. */
  offsetMm?: number
}

export function sightBike(
  seed: number,
  given?: Given,
  looks: Looks = given ? LIGHT_PARTS : partsAsTheyLook(seed),
): SightBike {
  const random = randomFrom(seed, 611)
  const teethBy = randomFrom(seed, 628)
  const teeth = given?.teeth ?? [11, 13, 15, 17, 19, 21, 24, 28, 32 + 2 * random.below(3)]
  const placeMm = given?.placeMm ?? teeth.map((_, k) => k * PITCH_MM)
  const click = given?.click ?? 1 + random.below(teeth.length - 2)
  const steel = 0.75 + 0.3 * random.next()
  const metal = looks.cassette ?? steel
  const sprockets = teeth.map((t, k): Disc => {
    const radiusMm = tipDiameterMm(t) / 2 - 0.3 * random.next()
    const disc: Disc = {
      middle: [placeMm[k]!, 0, 0],
      radiusMm,
      rootMm: radiusMm - TOOTH_MM,
      camber: 0,
      toe: 0,
      teeth: t,
      halfMm: 0.85,
      tone: metal * (0.95 + 0.1 * random.next()),
    }
    return asItStands(disc, teethBy)
  })
  const offsetMm = given?.offsetMm ?? 3 * (random.next() - 0.5)
  const gapMm = 3 + 8 * random.next()
  const leanDeg = random.next() < 0.3 ? (random.next() < 0.5 ? -1 : 1) * (1 + 2 * random.next()) : 0.3 * random.normal()
  const pulleyTeeth = 11 + random.below(3)
  const pulleyMm = tipDiameterMm(pulleyTeeth) / 2 - 0.3 * random.next()
  const at = given?.pushedTo ?? click
  const centres = gapMm + sprockets[at]!.radiusMm + pulleyMm
  const forward = 4 + 12 * random.next()
  const middle = [placeMm[at]! + offsetMm, -Math.sqrt(centres ** 2 - forward ** 2), forward] as const
  const leaning = { camber: radians(leanDeg), toe: radians(0.7 * random.normal()) }
  const round: Disc = {
    middle,
    radiusMm: pulleyMm,
    rootMm: pulleyMm - TOOTH_MM,
    ...leaning,
    teeth: pulleyTeeth,
    halfMm: 1.1,
    tone: looks.pulley.from + looks.pulley.more * random.next(),
  }
  const pulley = asItStands(round, teethBy)
  const beside = (mm: number, radiusMm: number): Disc => ({
    ...round,
    middle: [middle[0] + mm, middle[1], middle[2]],
    radiusMm,
    rootMm: radiusMm,
    halfMm: 0.8,
    tone: looks.cage,
  })
  const on = sprockets[click]!
  const chain: Disc = {
    ...on,
    each: undefined,
    radiusMm: on.radiusMm + 1.5,
    rootMm: on.radiusMm + 0.5,
    halfMm: 3.1,
    tone: 0.6,
    teeth: teeth[click]! * 2,
  }
  // the hub's body stands behind the gaps between the sprockets
  const widthMm = placeMm.at(-1)!
  const body: Disc = {
    middle: [widthMm / 2, 0, 0],
    radiusMm: BODY_MM,
    rootMm: BODY_MM,
    camber: 0,
    toe: 0,
    teeth: 1,
    halfMm: widthMm / 2,
    tone: looks.body,
  }
  return {
    teeth,
    placeMm,
    click,
    pulleyTeeth,
    offsetMm,
    gapMm,
    leanDeg,
    discs: [...sprockets, chain, pulley, beside(-4, 15), beside(4, 15), ...(given ? [] : [body])],
    pulley,
  }
}

/** A hand that means to hold a camera at the axle's height is so far from it, mm. */
export const CAMERA_UP_SD_MM = 60

/**
 * A camera of its own, so many degrees out of the largest sprocket's plane, about 0.5 to 0.8 m behind.
 * @param upMm how far above the axle; by chance where left out
 */
export function cameraBehind(
  bike: SightBike,
  viewDeg: number,
  random: Random,
  widthPx = 4000,
  heightPx = 3000,
  nearMm = 500,
  upMm?: number,
) {
  const usual = usualLens(widthPx, heightPx)
  const lens: Lens = {
    focalPx: usual.focalPx * (1 + 0.04 * random.normal()),
    middle: [usual.middle[0] + 12 * random.normal(), usual.middle[1] + 12 * random.normal()],
    bend: -0.04 * random.next(),
  }
  const far = nearMm * (1 + 0.6 * random.next())
  const a = radians(viewDeg)
  const byChance = CAMERA_UP_SD_MM * random.normal()
  const up = upMm ?? byChance
  const pose: Pose = {
    atMm: [bike.placeMm.at(-1)! - far * Math.tan(a), up, -far],
    yaw: -a + 0.03 * random.normal(),
    pitch: -Math.atan2(up + 50, far) + 0.03 * random.normal(),
    roll: 0.03 * random.normal(),
  }
  return { lens, pose }
}

/** A camera on the drive side, a few degrees from square to a sprocket, about 0.5 m away. */
export function cameraBeside(sprocket: Disc, random: Random, widthPx = 4000, heightPx = 3000, nearMm = 450) {
  const usual = usualLens(widthPx, heightPx)
  const lens: Lens = { ...usual, focalPx: usual.focalPx * (1 + 0.04 * random.normal()), bend: -0.04 * random.next() }
  const far = nearMm + 200 * random.next()
  const [yaw, pitch] = [radians(4 * random.normal()), radians(4 * random.normal())]
  const pose: Pose = {
    atMm: [
      sprocket.middle[0] - far,
      // about the gap's height, as is asked
      30 * random.normal() - sprocket.radiusMm - far * Math.tan(pitch),
      30 * random.normal() - far * Math.tan(yaw),
    ],
    yaw: yaw - Math.PI / 2,
    pitch,
    roll: 0.05 * random.normal(),
  }
  return { lens, pose }
}

export function weatherOf(random: Random, seed: number): Weather {
  const side = random.next() - 0.5
  const size = Math.hypot(side, 0.7, 0.75)
  return {
    blurPx: 1 + random.next(),
    noise: 3 + 4 * random.next(),
    grease: 0.35 * random.next(),
    uneven: 0.5 * (random.next() - 0.5),
    lightFrom: [side / size, 0.7 / size, -0.75 / size],
    fill: 105,
    seed,
  }
}

/** What lies behind a bike: a dark workshop, or anything up to a light wall. */
export function behindOf(seed: number): number | undefined {
  const random = randomFrom(seed, 630)
  return random.next() < 0.5 ? undefined : LIGHT_WALL.from + (LIGHT_WALL.to - LIGHT_WALL.from) * random.next()
}
const LIGHT_WALL = { from: 40, to: 190 } as const

/** A finger is off by so much before an edge is found for it, px, and by so much under the magnifier, by hand. */
const HAND = { touchSdPx: 5, magnifiedSdPx: 1.5, seesPx: 3.5 } as const
const PATCH_PX = 110

type Taken = { lens: Lens; pose: Pose; weather: Weather }

/** The picture about a place, so many pixels each way. */
function patchAbout(bike: SightBike, camera: Taken, about: Pixel, aroundPx: number): Patch {
  const size = 2 * Math.round(aroundPx)
  const part = {
    left: Math.round(about[0]) - size / 2,
    top: Math.round(about[1]) - size / 2,
    width: size,
    height: size,
  }
  return { ...render(bike.discs, camera.lens, camera.pose, camera.weather, part), ...part }
}

/** Under the magnifier nobody sees it off; along a side it does not matter where. */
function looksRight(found: Found, truth: Pixel, aside: Pixel | null): boolean {
  const [du, dv] = [found.at[0] - truth[0], found.at[1] - truth[1]]
  return (aside ? Math.abs(du * aside[1] - dv * aside[0]) : Math.hypot(du, dv)) <= HAND.seesPx
}

export type Assisted = { touch: Touch; found: Found | null; touches: number }

/**
 * A hand touches, an edge is found for it; what is plainly off under the magnifier is put right by hand.
 * @param find how the edge is looked for, in the picture about the touch
 * @param aside the direction of the bar, where only its middle is wanted
 */
export function assisted(
  bike: SightBike,
  camera: Taken,
  truth: Pixel,
  find: (patch: Patch, touched: Pixel, reachPx: number) => Found | null,
  random: Random,
  aside: Pixel | null = null,
): Assisted {
  const put = (sdPx: number): Pixel => [truth[0] + sdPx * random.normal(), truth[1] + sdPx * random.normal()]
  const look = (touched: Pixel, reachPx: number) => {
    const found = find(patchAbout(bike, camera, touched, PATCH_PX / 2), touched, reachPx)
    return found && looksRight(found, truth, aside) ? found : null
  }
  const first = look(put(HAND.touchSdPx), REACH_PX.finger)
  if (first) return { touch: { at: first.at, sdPx: TOUCH_SD_PX.found }, found: first, touches: 1 }
  const by = put(HAND.magnifiedSdPx)
  const second = look(by, REACH_PX.magnified)
  return {
    touch: second ? { at: second.at, sdPx: TOUCH_SD_PX.found } : { at: by, sdPx: TOUCH_SD_PX.byHand },
    found: second,
    touches: 2,
  }
}

const back = ([u, v]: Pixel): Pixel => [-u, -v]

/** One picture from behind, touched with help: what is found without a touch is looked at, and put right if off. */
export function pictureBehind(
  bike: SightBike,
  viewDeg: number,
  seed: number,
  counted = true,
  unlike: { blurPx?: number; nearMm?: number; upMm?: number } = {},
): { picture: BehindPicture; touches: number; blurs: (number | null)[] } {
  const random = randomFrom(seed, 612, Math.round(10 * viewDeg) + 4000)
  const taken = cameraBehind(bike, viewDeg, random, 4000, 3000, unlike.nearMm, unlike.upMm)
  const weather = weatherOf(random, seed)
  const camera = {
    ...taken,
    weather: { ...weather, blurPx: unlike.blurPx ?? weather.blurPx, behind: behindOf(seed) },
  }
  const largest = bike.discs[bike.teeth.length - 1]!
  const ends = toothedEndsOf(camera.lens, camera.pose, largest)
  const pulley = toothedEndsOf(camera.lens, camera.pose, bike.pulley)
  const near = seen(camera.lens, camera.pose, nearestOf(camera.pose, largest))
  const { focalPx } = usualLens(4000, 3000)
  const { down: unit, widthPx } = barsOf(ends.upper, ends.lower, largest.radiusMm, focalPx)
  const { sprocket: bar, pulley: pulleyBar } = widthPx
  const touch = (truth: Pixel, find: Parameters<typeof assisted>[3], aside: Pixel | null = null) =>
    assisted(bike, camera, truth, find, random, aside)
  const upper = touch(ends.upper, (p, t, reach) => findEnd(p, t, unit, bar, reach))
  const lower = touch(ends.lower, (p, t, reach) => findEnd(p, t, back(unit), bar, reach))
  const pulleyLower = touch(pulley.lower, (p, t, reach) => findEnd(p, t, back(unit), pulleyBar, reach))
  const standing = (a: Assisted) => ({ at: a.touch.at, found: a.found })
  const proposed = proposalsOf(
    { upper: standing(upper), lower: standing(lower), pulleyLower: standing(pulleyLower) },
    largest.radiusMm,
    focalPx,
    counted ? bike.pulleyTeeth : null,
    (about, aroundPx) => patchAbout(bike, camera, about, aroundPx),
  )
  const found = (id: string, truth: Pixel, aside: Pixel | null): Assisted | null => {
    const p = proposed.find(of => of.id === id)?.found
    return p && looksRight(p, truth, aside)
      ? { touch: { at: p.at, sdPx: TOUCH_SD_PX.found }, found: p, touches: 0 }
      : null
  }
  const pulleyUpper =
    found('pulleyUpper', pulley.upper, null) ??
    touch(pulley.upper, (p, t, reach) => findEnd(p, t, unit, pulleyBar, reach))
  const nearest =
    found('near', near, unit) ?? touch(near, (p, t, reach) => findNear(p, t, unit, widthPx.near, reach), unit)
  const [end, other, nearer] = [upper, lower, nearest].map(a => a.touch.at) as [Pixel, Pixel, Pixel]
  const look: Look = (about, aroundPx) => patchAbout(bike, camera, about, aroundPx)
  const rim = { upper: end, lower: other, near: nearer }
  const along = alongRim(rim, largest, focalPx, look)
  const pulleyEnds = { upper: pulleyUpper.touch.at, lower: pulleyLower.touch.at }
  const pulleyAlong = alongPulley(rim, pulleyEnds, largest.radiusMm, focalPx, look)
  return {
    picture: {
      lens: usualLens(4000, 3000),
      sprocket: { upper: upper.touch, lower: lower.touch, near: nearest.touch, along },
      pulley: { upper: pulleyUpper.touch, lower: pulleyLower.touch, along: pulleyAlong },
    },
    blurs: [upper, lower, pulleyUpper, pulleyLower].map(a => a.found?.blurPx ?? null),
    touches: [upper, lower, pulleyLower, pulleyUpper, nearest].reduce((n, a) => n + a.touches, 0),
  }
}

export const asked = (bike: SightBike, pictures: readonly BehindPicture[]): Behind => ({
  sprocket: { teeth: bike.teeth.at(-1)!, placeMm: bike.placeMm.at(-1)! },
  pulleyTeeth: bike.pulleyTeeth,
  planeMm: bike.placeMm[bike.click]!,
  pictures,
})
