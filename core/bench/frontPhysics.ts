import { radians } from '../quantity/angle'
import { normalBelow } from '../quantity/normal'
import { randomFrom } from '../quantity/random'
import type { FrontBike, FrontChances, FrontGeometry } from '../front/response'

/**
 * A front that answers by figures of its own and not by the response the advice believes in: thresholds, their widths
 * and what height and twist take are drawn for every bike, the hand that measures has a bias, and a plate that presses
 * on the chain reads as touching. Invented for the bench; lengths in mm at the cage.
 */
export type OwnFront = {
  climbMm: number
  dropMm: number
  pastMm: number
  pastMiddleMm: number
  widthMm: number
  perHeightMm: number
  halfCageMm: number
  /** A plate this far from the chain is heard already; below 0 it may press so far unheard. */
  heardMm: number
  hand: { gapBiasMm: number; gapSdMm: number; placeSdMm: number; angleSdDeg: number }
}

export function ownFront(seed: number): OwnFront {
  const random = randomFrom(seed, 521)
  const about = (x: number, spread: number) => x * Math.exp(spread * Math.max(-2, Math.min(2, random.normal())))
  const uniform = (from: number, to: number) => from + (to - from) * random.next()
  return {
    climbMm: about(1.35, 0.14),
    dropMm: about(1.25, 0.14),
    pastMm: about(1.6, 0.1),
    pastMiddleMm: about(2.2, 0.12),
    widthMm: uniform(0.12, 0.3),
    perHeightMm: uniform(0.2, 0.5),
    halfCageMm: uniform(32, 48),
    heardMm: uniform(-0.15, 0.1),
    hand: {
      gapBiasMm: 0.12 * random.normal(),
      gapSdMm: uniform(0.15, 0.35),
      placeSdMm: uniform(0.25, 0.5),
      angleSdDeg: uniform(0.4, 0.9),
    },
  }
}

/**
 * Plates that are safe with the cable out of account, mm of gap on their stops: no rub, and not so wide that a chain
 * goes over.
 */
const SAFE_GAP_MM = { from: 0, to: 2.1 }

/**
 * Where the cage comes to rest on a ring's click, mm from its ideal: friction holds it back by half its play both ways.
 */
function restMm(g: FrontGeometry, b: FrontBike, ring: number, outward: boolean): number {
  const last = g.rings - 1
  const way = g.idealMm[last]! - g.idealMm[0]!
  const click = ring === 0 ? 0 : ring === last ? way * b.stroke + 0.3 : (g.idealMm[ring]! - g.idealMm[0]!) * b.stroke
  const drawn = b.slackMm + click + (ring === 1 && last === 2 ? b.middleMm : 0)
  const held = drawn + (outward ? -b.backlashMm : b.backlashMm) / 2
  const between = Math.max(b.stopLMm, Math.min(way + b.stopHMm, held))
  return between - (g.idealMm[ring]! - g.idealMm[0]!)
}

/** What is clear at each plate in a pair with the cage `offMm` from the ring's ideal. */
function gapsMm(own: OwnFront, g: FrontGeometry, b: FrontBike, ring: number, sprocket: number, offMm: number) {
  const half = g.parts.cageWidthMm / 2 - own.halfCageMm * Math.tan(radians(Math.abs(b.angleDeg)))
  const chain = g.chainMm(ring, sprocket) - g.idealMm[ring]!
  return { inner: half + chain - offMm - g.chainHalfMm, outer: half - chain + offMm - g.chainHalfMm }
}

/** Chances of what is seen of a shift in this front. */
export function ownChances(own: OwnFront, g: FrontGeometry, b: FrontBike, from: number, to: number): FrontChances {
  const outward = to > from
  const last = g.rings - 1
  const at = restMm(g, b, to, outward)
  const lost = own.perHeightMm * Math.max(0, 1 - b.heightMm, b.heightMm - 3)
  const over = (x: number) => normalBelow(x / own.widthMm)
  const forward = outward ? at : -at
  const reach = (outward ? own.climbMm : own.dropMm) * b.sharpness - lost
  const short = over(-forward - reach)
  const most = (to === 0 || to === last ? own.pastMm : own.pastMiddleMm) * b.sharpness - lost
  const past = (1 - short) * over(forward - most)
  const { inner, outer } = gapsMm(own, g, b, to, g.judgedOn(to), at)
  const left = 1 - short - past
  const rubsOuter = left * over(own.heardMm - outer)
  const rubsInner = (left - rubsOuter) * over(own.heardMm - inner)
  return {
    clean: left - rubsOuter - rubsInner,
    'no-climb': outward ? short : 0,
    'no-drop': outward ? 0 : short,
    'falls-outboard': outward ? past : 0,
    'falls-inboard': outward ? 0 : past,
    'rubs-inner': rubsInner,
    'rubs-outer': rubsOuter,
  }
}

/** A gap in an end pair, mm; `byStop` with the cable out of account. Below 0 the plate presses on the chain. */
export function ownGapMm(
  own: OwnFront,
  g: FrontGeometry,
  b: FrontBike,
  plate: 'inner' | 'outer',
  byStop: boolean,
): number {
  const ring = plate === 'inner' ? 0 : g.rings - 1
  const at = byStop ? (plate === 'inner' ? b.stopLMm : b.stopHMm) : restMm(g, b, ring, plate === 'outer')
  return gapsMm(own, g, b, ring, g.judgedOn(ring), at)[plate]
}

/** Right here: every shift clean both ways at least seven times in ten, and both stops safe by themselves. */
export function ownRight(own: OwnFront, g: FrontGeometry, b: FrontBike): boolean {
  return ownShiftsClean(own, g, b) && (['inner', 'outer'] as const).every(plate => safe(own, g, b, plate))
}
function safe(own: OwnFront, g: FrontGeometry, b: FrontBike, plate: 'inner' | 'outer'): boolean {
  const gap = ownGapMm(own, g, b, plate, true)
  return gap >= SAFE_GAP_MM.from && gap <= SAFE_GAP_MM.to
}
export const ownShiftsClean = (own: OwnFront, g: FrontGeometry, b: FrontBike): boolean =>
  Array.from({ length: g.rings - 1 }, (_, r) => [
    [r, r + 1],
    [r + 1, r],
  ])
    .flat()
    .every(([from, to]) => ownChances(own, g, b, from!, to!).clean >= 0.7)
