import { radians } from '../quantity/angle'
import { randomFrom } from '../quantity/random'
import { seen, usualLens, type Pixel, type Pose } from '../sight/camera'
import { findStep } from '../sight/edges'
import { measureFromBehind, type Behind } from '../sight/fromBehind'
import { besidePlaces, LENGTHS } from '../sight/measures'
import { measureBeside, RULERS } from '../sight/planar'
import { MOST_OFF_MM } from '../sight/tell'
import { isBlurred, TOUCH_SD_PX, towards, type Touch } from '../sight/touch'
import { gapBeside } from './sideBench'
import { rodPicture } from './rodPicture'
import { asked, CAMERA_UP_SD_MM, pictureBehind, sightBike } from './sightBench'

/** How one kind of picture did: what was off, what was said of that, what was refused. */
export type SightScore = {
  kind: string
  pictures: number
  refused: number
  rmsMm: number
  /** Half of 95 % of what was told lies within this of the truth. */
  within95Mm: number
  statedSdMm: number
  share68: number
  share95: number
  leanRmsDeg: number | null
  /** Touches a picture, with those that put something right. */
  touches: number
}

/** A hand that was asked for the same height once more is so far from it, mm. */
const SAME_HEIGHT_SD_MM = 30
const bothSides = (next: () => number) => [-(8 + 12 * next()), 8 + 12 * next()]
/** From where each kind's pictures are taken, degrees; `asked`: the second from the first's height, as is asked for. */
export const SIGHT_KINDS = {
  'in the plane, within 1°': { views: (next: () => number) => [2 * (next() - 0.5)], asked: false },
  'two, 8 to 20° to both sides': { views: bothSides, asked: true },
  'the same, each from a height of its own': { views: bothSides, asked: false },
  'one at 15°': { views: () => [15], asked: false },
} as const
export type SightKind = keyof typeof SIGHT_KINDS

const rms = (of: readonly number[]) => Math.sqrt(of.reduce((s, v) => s + v * v, 0) / of.length)
const share = (of: readonly boolean[]) => of.filter(Boolean).length / of.length

function scored(
  kind: string,
  told: readonly { off: number; sd: number; lean: number | null }[],
  pictures: number,
  touches: number,
): SightScore {
  const offs = told.map(t => Math.abs(t.off)).sort((a, b) => a - b)
  const leans = told.flatMap(t => (t.lean === null ? [] : [t.lean]))
  return {
    kind,
    pictures,
    refused: pictures - told.length,
    rmsMm: rms(offs),
    within95Mm: offs[Math.ceil(0.95 * offs.length) - 1] ?? NaN,
    statedSdMm: told.reduce((s, t) => s + t.sd, 0) / told.length,
    share68: share(told.map(t => Math.abs(t.off) <= t.sd)),
    share95: share(told.map(t => Math.abs(t.off) <= 1.96 * t.sd)),
    leanRmsDeg: leans.length ? rms(leans) : null,
    touches,
  }
}

/**
 * Offsets from rendered pictures from behind; what was too oblique is scored with the spread that it states.
 * @param counted whether somebody counted the pulley's teeth
 */
export function scoreBehind(kind: SightKind, bikes: number, first: number, counted = true): SightScore {
  let [touches, taken] = [0, 0]
  const told = Array.from({ length: bikes }, (_, i) => {
    const seed = first + i
    const random = randomFrom(seed, 615)
    const bike = sightBike(seed)
    const { views, asked: isAsked } = SIGHT_KINDS[kind]
    const from = views(() => random.next())
    const firstUpMm = CAMERA_UP_SD_MM * random.normal()
    const pictures = from.map((view, k) => {
      const upMm = isAsked ? firstUpMm + (k ? SAME_HEIGHT_SD_MM * random.normal() : 0) : undefined
      return pictureBehind(bike, view, seed, counted, { upMm })
    })
    touches += pictures.reduce((s, p) => s + p.touches, 0)
    taken += pictures.length
    const ask = asked(
      bike,
      pictures.map(p => p.picture),
    )
    const m = measureFromBehind(counted ? ask : { ...ask, pulleyTeeth: null })
    const figures = m.is === 'told' ? m : m.why === 'oblique' ? m.told : null
    return figures
      ? [
          {
            off: figures.offsetMm.mean - bike.offsetMm,
            sd: figures.offsetMm.sd,
            lean: figures.leanDeg.mean - bike.leanDeg,
          },
        ]
      : []
  }).flat()
  return scored(counted ? kind : `${kind}, teeth not counted`, told, bikes, touches / taken)
}

/** Gaps from drawn pictures from the drive side, three tips and three touched; then by these alone, not by more. */
export function scoreSide(bikes: number, first: number): { found: SightScore; touched: SightScore } {
  const gaps = Array.from({ length: bikes }, (_, i) => {
    const gap = gapBeside(first + i)
    return { found: gap.told(), touched: gap.told(false), gapMm: gap.gapMm }
  })
  const score = (kind: string, by: 'found' | 'touched') => {
    const told = gaps.flatMap(gap => {
      const m = gap[by]
      return m ? [{ off: m.mean - gap.gapMm, sd: m.sd, lean: null }] : []
    })
    return scored(kind, told, bikes, 6)
  }
  return { found: score('gap from the side', 'found'), touched: score('the same, by its touches alone', 'touched') }
}

/** A rod past its axle beside the axle's own thread, from pictures not quite square. */
export function scoreRod(bikes: number, first: number): SightScore {
  const told = Array.from({ length: bikes }, (_, i) => {
    const random = randomFrom(first + i, 618)
    const usual = usualLens(4000, 3000)
    const lens = { ...usual, focalPx: usual.focalPx * (1 + 0.04 * random.normal()), bend: -0.04 * random.next() }
    const threadMm = RULERS.axle.mm + RULERS.axle.sdMm * random.normal()
    const rodMm = 1 + 4 * random.next()
    const far = 250 + 200 * random.next()
    const [yaw, pitch] = [radians(6 * random.normal()), radians(6 * random.normal())]
    // it looks at the rod, but that is not just in the picture's middle
    const pose: Pose = {
      atMm: [-far * Math.tan(yaw), -far * Math.tan(pitch), -far],
      yaw: -yaw + radians(3 * random.normal()),
      pitch: pitch + radians(3 * random.normal()),
      roll: 0.1 * random.normal(),
    }
    // the rod lies in the axle's middle, its end a little before or behind the thread's own outline
    const deeper = 4 * (random.next() - 0.5)
    const look = rodPicture(lens, pose, { threadMm, rodMm, deeperMm: deeper }, random)
    // a finger, then its edge; where none stands out the hand looks under the magnifier
    const put = (x: number, y: number, z: number): Pixel => {
      const [u, v] = seen(lens, pose, [x, y, z])
      return [u + 2.5 * random.normal(), v + 2.5 * random.normal()]
    }
    const [rulerFrom, rulerTo, rootEdged, endEdged] = besidePlaces('rod').map(p => p.finding === 'step')
    const pair = (one: Pixel, other: Pixel, truth: readonly [Pixel, Pixel], edged: readonly boolean[]) => {
      const along = towards(one, other) ?? towards(...truth)!
      const ended = [one, other].map((at, i): Touch => {
        const found = edged[i] ? findStep(look(at), at, along) : null
        const [du, dv] = [0, 1].map(k => (found?.at[k] ?? Infinity) - truth[i]![k]!)
        return found && Math.hypot(du!, dv!) < 5
          ? { at: found.at, sdPx: TOUCH_SD_PX.found }
          : {
              at: truth[i]!.map(v => v + TOUCH_SD_PX.byHand * random.normal()) as unknown as Pixel,
              sdPx: TOUCH_SD_PX.byHand,
            }
      })
      return [ended[0]!, ended[1]!] as const
    }
    const at = (x: number, y: number, z: number) => seen(lens, pose, [x, y, z])
    // the thread is touched a little inside its end, where its flanks stand
    const [low, high] = [-threadMm / 2, threadMm / 2]
    const [from, to] = pair(
      put(-3, low, 0),
      put(-3, high, 0),
      [at(-3, low, 0), at(-3, high, 0)],
      [rulerFrom!, rulerTo!],
    )
    const [root, end] = pair(
      put(0, 0, deeper),
      put(rodMm, 0, deeper),
      [at(0, 0, deeper), at(rodMm, 0, deeper)],
      [rootEdged!, endEdged!],
    )
    const m = measureBeside({
      ruler: { ...RULERS.axle, from, to },
      length: { from: root, to: end },
      deeperMm: LENGTHS.rod.deeperMm,
    })
    return m.is === 'told' ? [{ off: m.mean - rodMm, sd: m.sd, lean: null }] : []
  }).flat()
  return scored('rod past the axle', told, bikes, 4)
}

/** Pictures that should not be measured in. */
export const UNFIT = [
  'blurred',
  'blurred, from the side',
  'from too far',
  'another cassette',
  'touched anywhere',
] as const
export type Unfit = (typeof UNFIT)[number]

/** @returns the share that is refused, or told as too wide to be noted */
export function scoreUnfit(kind: Unfit, bikes: number, first: number): number {
  const refused = Array.from({ length: bikes }, (_, i) => {
    const seed = first + i
    const random = randomFrom(seed, 619)
    if (kind === 'blurred, from the side') return gapBeside(seed, 6 + 4 * random.next()).told() === null
    const bike = sightBike(seed)
    const view = 2 * (random.next() - 0.5)
    if (kind === 'blurred') {
      const { picture, blurs } = pictureBehind(bike, view, seed, true, { blurPx: 6 + 4 * random.next() })
      return isBlurred(blurs) || !isTold(asked(bike, [picture]))
    }
    if (kind === 'from too far') {
      const { picture } = pictureBehind(bike, view, seed, true, { nearMm: 2400 + 800 * random.next() })
      return !isTold(asked(bike, [picture]))
    }
    const { picture } = pictureBehind(bike, view, seed)
    if (kind === 'another cassette') {
      const ask = asked(bike, [picture])
      // eight teeth fewer than is said
      return !isTold({ ...ask, sprocket: { ...ask.sprocket, teeth: ask.sprocket.teeth - 8 } })
    }
    const anywhere = (): Touch => ({ at: [4000 * random.next(), 3000 * random.next()], sdPx: 1.2 })
    const [sprocket, pulley] = [
      { upper: anywhere(), lower: anywhere() },
      { upper: anywhere(), lower: anywhere() },
    ]
    return !isTold(asked(bike, [{ lens: picture.lens, sprocket: { ...sprocket, near: anywhere() }, pulley }]))
  })
  return share(refused)
}
const isTold = (ask: Behind): boolean => {
  const m = measureFromBehind(ask)
  return m.is === 'told' && Math.abs(m.offsetMm.mean) < MOST_OFF_MM
}
