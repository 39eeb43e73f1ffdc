import { cageOffMm, frontGeometry, type FrontBike } from '../front/response'
import type { FrontSight as FrontEvent } from '../front/events'
import type { FrontSeen } from '../front/moves'
import type { FrontSetup } from '../front/setup'

/**
 * What an eye finds at a practice front, from behind: rings, chain and cage, mm from the middle of the bike, +
 * outboard.
 */
export type FrontSight = {
  of: 'front'
  /** By ring, smallest first: its teeth, and where the chain runs through the cage from it. */
  rings: readonly { teeth: number; chainMm: number }[]
  chainWidthMm: number
  cageWidthMm: number
  /** Where the cage's middle stood, and where it stands now. */
  cageMm: { from: number; to: number }
  /** Ring the chain lay on, and the one it lies on now; null: it fell off. */
  ring: { from: number; to: number | null }
  /** To which side it fell. */
  fell: 'inboard' | 'outboard' | null
  /** Plate that it runs against. */
  rubs: 'inner' | 'outer' | null
  heightMm: number
  angleDeg: number
}

/** Where the chain lies after a shift that was seen to end so; null: off. */
function landed(seen: FrontSeen, from: number, to: number, last: number): number | null {
  if (seen === 'no-climb' || seen === 'no-drop') return from
  const past = to + Math.sign(to - from)
  if (seen.startsWith('falls')) return past < 0 || past > last ? null : past
  return to
}

/**
 * As the front stands after what was done with it; the chain lies on the small ring when it comes.
 * @param before as it stood before the last act: a turn moves the cage from there
 */
export function frontSight(
  setup: FrontSetup,
  now: FrontBike,
  log: readonly FrontEvent[],
  before: FrontBike = now,
): FrontSight {
  const g = frontGeometry(setup)
  const last = g.rings - 1
  let ring = 0
  let click = 0
  let outward = false
  const place = (bike: FrontBike) => g.idealMm[click]! + cageOffMm(g, bike, click, outward)
  let sight: Pick<FrontSight, 'ring' | 'fell' | 'rubs'> = { ring: { from: 0, to: 0 }, fell: null, rubs: null }
  let from = place(now)
  for (const e of log) {
    from = place(before)
    sight = { ring: { from: ring, to: ring }, fell: null, rubs: null }
    if (e.kind !== 'frontShift') continue
    outward = e.to > e.from
    click = e.to
    const to = landed(e.seen, e.from, e.to, last)
    sight = {
      ring: { from: e.from, to },
      fell: to === null ? (outward ? 'outboard' : 'inboard') : null,
      rubs: e.seen === 'rubs-inner' ? 'inner' : e.seen === 'rubs-outer' ? 'outer' : null,
    }
    // it is laid on again where the lever stands
    ring = to ?? e.to
  }
  return {
    of: 'front',
    rings: setup.parts.rings.map((teeth, i) => ({ teeth, chainMm: g.chainMm(i, g.judgedOn(i)) })),
    chainWidthMm: setup.chainWidthMm,
    cageWidthMm: setup.parts.cageWidthMm,
    cageMm: { from, to: place(now) },
    ...sight,
    heightMm: now.heightMm,
    angleDeg: now.angleDeg,
  }
}

/** A shift lasts so long, seconds. */
export const FRONT_SHIFT_S = 1.6
const share = (s: number, from: number, takes: number): number => Math.min(1, Math.max(0, (s - from) / takes))
/** Beyond the ring's edge it falls so far aside, mm, and hangs. */
const FALLS_MM = 9
/** A plate that is run against trembles with every link, mm. */
const TREMBLES_MM = 0.35
const LINKS_PER_S = 11

/**
 * Where cage and chain are so many seconds after the lever was moved, mm from the middle of the bike; `fallen` 0 to 1.
 */
export function frontPose(sight: FrontSight, s: number): { cageMm: number; chainMm: number; fallen: number } {
  const { cageMm, ring, rings, fell, rubs } = sight
  const moved = share(s, 0.1, 0.35)
  const crossed = share(s, 0.45, 0.5)
  const start = rings[ring.from]!.chainMm
  const off = fell === 'inboard' ? rings[0]!.chainMm - FALLS_MM : rings.at(-1)!.chainMm + FALLS_MM
  const end = ring.to === null ? off : rings[ring.to]!.chainMm
  const runs = s > 0.95 && s < FRONT_SHIFT_S
  const tremble = rubs && runs ? TREMBLES_MM * Math.sin(2 * Math.PI * LINKS_PER_S * s) : 0
  return {
    cageMm: cageMm.from + (cageMm.to - cageMm.from) * moved + tremble,
    chainMm: start + (end - start) * crossed,
    fallen: ring.to === null ? share(s, 0.75, 0.4) : 0,
  }
}
