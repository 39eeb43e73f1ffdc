import type { EndGaps } from './endGaps'
import { chainAngleDeg, chainAtCageMm, ringLines, sprocketLines } from './chainLine'
import type { FrontParts } from './parts'
import type { FrontSetup } from './setup'

/** Nearer than this a plate may touch as the frame flexes, mm. `model` */
const NEAR_MM = 0.3

/** A click of the lever: which ring it serves, and where the middle of the cage stands, mm from the middle plane. */
type CageClick = { ring: number; name: string; placeMm: number }

/**
 * Where the cage stands on each click: the end clicks by their gaps, trims beside them, a middle ring midway of its own
 * pairs. A rotating cage has no trim.
 */
export function cageClicks(
  p: FrontParts,
  pitchMm: readonly number[],
  chainWidthMm: number,
  gaps: EndGaps,
): CageClick[] {
  const rings = ringLines(p)
  const sprockets = sprocketLines(p.rearLineMm, pitchMm)
  const last = rings.length - 1
  const half = p.cageWidthMm / 2
  const small = chainAtCageMm(p, rings[0], sprockets.at(-1)!) - chainWidthMm / 2 - gaps.innerMm + half
  const big = chainAtCageMm(p, rings[last], sprockets[0]) + chainWidthMm / 2 + gaps.outerMm - half
  const trim = p.cage === 'rotating' ? 0 : p.trimMm
  const middles = rings.slice(1, -1).map((r, i): CageClick => ({
    ring: i + 1,
    name: 'middle',
    placeMm: (chainAtCageMm(p, r, sprockets[0]) + chainAtCageMm(p, r, sprockets.at(-1)!)) / 2,
  }))
  return [
    { ring: 0, name: 'small', placeMm: small },
    ...(trim > 0 ? [{ ring: 0, name: 'small, trimmed', placeMm: small + trim }] : []),
    ...middles,
    ...(trim > 0 ? [{ ring: last, name: 'big, trimmed', placeMm: big - trim }] : []),
    { ring: last, name: 'big', placeMm: big },
  ]
}

/** Where the nose swings farther than the tail, which plate is near in a pair is not modelled: it is looked at. */
export const rubIsModelled = (p: Pick<FrontParts, 'cage'>): boolean => p.cage !== 'rotating'

/** One pair: its angle, and what is clear on each plate with the click that serves it best. */
export type Pair = {
  ring: number
  sprocket: number
  angleDeg: number
  click: string
  innerMm: number
  outerMm: number
  clearMm: number
  rubs: 'inner' | 'outer' | null
  near: boolean
}

/** Where the cage's two plates stand for a pair, mm from the middle plane, and how far behind the axle. */
export function cageSpan(
  { parts, pitchMm, chainWidthMm }: FrontSetup,
  gaps: EndGaps,
  pair: Pick<Pair, 'ring' | 'click'>,
): { from: number; to: number; behindMm: number } {
  const clicks = cageClicks(parts, pitchMm, chainWidthMm, gaps)
  const { placeMm } = clicks.find(c => c.ring === pair.ring && c.name === pair.click)!
  const half = parts.cageWidthMm / 2
  return { from: placeMm - half, to: placeMm + half, behindMm: parts.cageBehindMm }
}

/** A pair in words: which plate it rubs, or how much is clear on both. */
export function sayPair(p: Pair): string {
  const clear = p.rubs
    ? `rubs the ${p.rubs} plate by ${Math.abs(p.clearMm).toFixed(1)} mm`
    : `inner plate ${p.innerMm.toFixed(1)}, outer ${p.outerMm.toFixed(1)} mm clear`
  return `${clear} on “${p.click}”`
}

/** Every pair of ring and sprocket: clear by how many mm on which plate, trims used. */
export function rubMap(p: FrontParts, pitchMm: readonly number[], chainWidthMm: number, gaps: EndGaps): Pair[][] {
  const rings = ringLines(p)
  const sprockets = sprocketLines(p.rearLineMm, pitchMm)
  const clicks = cageClicks(p, pitchMm, chainWidthMm, gaps)
  return rings.map((ringMm, ring) =>
    sprockets.map((sprocketMm, sprocket): Pair => {
      const chain = chainAtCageMm(p, ringMm, sprocketMm)
      const seen = clicks
        .filter(c => c.ring === ring)
        .map(c => {
          const innerMm = chain - chainWidthMm / 2 - (c.placeMm - p.cageWidthMm / 2)
          const outerMm = c.placeMm + p.cageWidthMm / 2 - (chain + chainWidthMm / 2)
          return { click: c.name, innerMm, outerMm, clearMm: Math.min(innerMm, outerMm) }
        })
      const best = seen.reduce((a, b) => (b.clearMm > a.clearMm + 1e-9 ? b : a))
      return {
        ring,
        sprocket,
        angleDeg: chainAngleDeg(ringMm, sprocketMm, p.chainstayMm),
        ...best,
        rubs: best.clearMm >= 0 ? null : best.innerMm < best.outerMm ? 'inner' : 'outer',
        near: best.clearMm >= 0 && best.clearMm < NEAR_MM,
      }
    }),
  )
}

/** Two pulls nearer than this go together: their clicks land within what a stop and a trim take up. `model` */
const PULLS_AGREE = 0.1

/** What lever, cage and rings say against each other, each in words; empty when nothing does. `practice` */
export function frontTroubles(p: FrontParts): string[] {
  const needed = p.rings.at(-1)! - p.rings[0]
  const big = p.rings.at(-1)!
  const stroke = strokeKnown(p)
  return [
    ...(needed > p.capacityTeeth
      ? [
          `The rings differ by ${needed} teeth, the cage takes up ${p.capacityTeeth}: on the small ring the chain drags on the cage’s tail`,
        ]
      : []),
    ...(p.largestTeeth !== undefined && big > p.largestTeeth
      ? [
          `The cage is curved for a ${p.largestTeeth} at most: over the ${big} its tail stands away and its nose touches`,
        ]
      : []),
    ...(stroke !== null && Math.abs(stroke - 1) > PULLS_AGREE
      ? [
          `The lever pulls ${p.leverPullMm} mm from ring to ring, the derailleur wants ${p.wantedPullMm}: the cage ${stroke < 1 ? 'falls short of' : 'goes past'} its ring by about ${Math.round(100 * Math.abs(stroke - 1))} %; no screw cures that`,
        ]
      : []),
  ]
}

/** Cage travel of the lever's stroke over what the rings need, where both pulls are known; else null. */
export const strokeKnown = (p: Pick<FrontParts, 'leverPullMm' | 'wantedPullMm'>): number | null =>
  p.leverPullMm !== undefined && p.wantedPullMm !== undefined ? p.leverPullMm / p.wantedPullMm : null
