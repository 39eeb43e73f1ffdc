import { FRONT_FAULTS, type FrontFault } from './causes'
import { END_GAP_MM } from './endGaps'
import { radians } from '../quantity/angle'
import { logistic } from '../response/heard'
import { chainAtCageMm, ringLines, sprocketLines } from './chainLine'
import type { FrontOutcome } from './moves'
import type { FrontParts } from './parts'
import type { FrontSetup } from './setup'

/**
 * How a front derailleur answers. All `model` but the gap of about 1 mm and the height, which are practice; lengths at
 * the cage in mm, + outboard, from where the cage would stand ideally on that ring.
 */
export const FRONT = {
  /** Short of its ring by more than this the chain does not climb, or does not drop. */
  climbMm: 1.3,
  dropMm: 1.2,
  /** Past its ring by more than this the chain goes over it. */
  pastMm: 1.5,
  pastMiddleMm: 2.2,
  /** Width of every threshold's logistic. */
  widthMm: 0.15,
  /** What each mm of height outside 1 to 3 takes from both tolerances: the plates guide the chain less. */
  perHeightMm: 0.35,
  heightMm: { from: 1, to: 3 },
  /** Half the cage's length: what a turned cage takes from both gaps is this times the tangent. */
  halfCageMm: 40,
  /** A stop is safe when, the cable left out of account, the cage cannot stand further past than this. */
  safePastMm: 1,
  /** Cage travel a lever has to spare beyond the way from ring to ring. */
  spareMm: 0.3,
  /** Clean at least this often, either way, is what "right" means. */
  rightChance: 0.7,
  wrongReports: 0.04,
} as const

/**
 * Where rings, chain and ideal cage stand, worked out once. `idealMm` by ring; `chainMm` by ring in the pair it is
 * judged in.
 */
export type FrontGeometry = {
  parts: FrontParts
  rings: number
  sprockets: number
  idealMm: number[]
  travelMm: number
  chainHalfMm: number
  chainMm: (ring: number, sprocket: number) => number
  judgedOn: (ring: number) => number
}

export function frontGeometry({ parts, pitchMm, chainWidthMm }: FrontSetup): FrontGeometry {
  const rings = ringLines(parts)
  const sprockets = sprocketLines(parts.rearLineMm, pitchMm)
  const last = rings.length - 1
  const half = parts.cageWidthMm / 2
  const chainMm = (ring: number, sprocket: number) => chainAtCageMm(parts, rings[ring], sprockets[sprocket])
  const small = chainMm(0, sprockets.length - 1) - chainWidthMm / 2 - END_GAP_MM + half
  const big = chainMm(last, 0) + chainWidthMm / 2 + END_GAP_MM - half
  const middle = Math.floor(sprockets.length / 2)
  const idealMm = rings.map((_, i) => (i === 0 ? small : i === last ? big : chainMm(i, middle)))
  return {
    parts,
    rings: rings.length,
    sprockets: sprockets.length,
    idealMm,
    travelMm: big - small,
    chainHalfMm: chainWidthMm / 2,
    chainMm,
    judgedOn: ring => (ring === 0 ? sprockets.length - 1 : ring === last ? 0 : middle),
  }
}

/**
 * A front derailleur in its real state; `slackMm` is where the cable would hold the cage on the slackest click, from
 * the small ring's ideal.
 */
export type FrontBike = {
  slackMm: number
  stopLMm: number
  stopHMm: number
  /** The cage stops short by half of this moving outboard, and stands as far outboard moving back. */
  backlashMm: number
  heightMm: number
  angleDeg: number
  /** Cage travel of the lever's stroke over what the rings need; 1 fits. */
  stroke: number
  /** Multiplies the tolerances of climbing, dropping and going past. */
  sharpness: number
  /** A triple's middle click from where it should be. */
  middleMm: number
}

/** What the cage's height takes from both tolerances, mm. */
const strayMm = (b: FrontBike): number =>
  FRONT.perHeightMm * Math.max(0, b.heightMm - FRONT.heightMm.to, FRONT.heightMm.from - b.heightMm)
/** What a turned cage takes from both gaps, mm. */
const turnedMm = (b: FrontBike): number => FRONT.halfCageMm * Math.tan(radians(Math.abs(b.angleDeg)))

/** Cage travel of the lever at a ring's click from the slackest, mm. */
function clickMm(g: FrontGeometry, b: FrontBike, ring: number): number {
  if (ring === 0) return 0
  const full = g.travelMm * b.stroke + FRONT.spareMm
  return ring === g.rings - 1 ? full : (g.idealMm[ring] - g.idealMm[0]) * b.stroke + b.middleMm
}

/** Where the cage comes to rest on a ring's click, mm from that ring's ideal. */
export function cageOffMm(g: FrontGeometry, b: FrontBike, ring: number, outward: boolean): number {
  const free = g.idealMm[0] + b.slackMm + clickMm(g, b, ring) + (outward ? -0.5 : 0.5) * b.backlashMm
  return Math.min(g.idealMm[g.rings - 1] + b.stopHMm, Math.max(g.idealMm[0] + b.stopLMm, free)) - g.idealMm[ring]
}

/** What is clear between plate and chain in a pair, mm, the cage standing `offMm` from the ring's ideal. */
export function clearMm(
  g: FrontGeometry,
  b: FrontBike,
  ring: number,
  sprocket: number,
  offMm: number,
): { inner: number; outer: number } {
  const place = g.idealMm[ring] + offMm
  const chain = g.chainMm(ring, sprocket)
  const room = g.parts.cageWidthMm / 2 - g.chainHalfMm - turnedMm(b)
  return { inner: room + chain - place, outer: room + place - chain }
}

export type FrontChances = Record<FrontOutcome, number>

/** Chances of what is seen of a shift, the wrong reports left out. `sprocket` is where the chain lies behind. */
export function shiftChances(
  g: FrontGeometry,
  b: FrontBike,
  from: number,
  to: number,
  sprocket = g.judgedOn(to),
): FrontChances {
  const outward = to > from
  return chancesAt(g, b, to, sprocket, outward, cageOffMm(g, b, to, outward))
}

function chancesAt(
  g: FrontGeometry,
  b: FrontBike,
  to: number,
  sprocket: number,
  outward: boolean,
  offMm: number,
): FrontChances {
  const stray = strayMm(b)
  const beyond = outward ? offMm : -offMm
  const end = to === 0 || to === g.rings - 1
  const steep = (x: number) => logistic(x / FRONT.widthMm)
  const short = steep(-(outward ? FRONT.climbMm : FRONT.dropMm) * b.sharpness + stray - beyond)
  const past = (1 - short) * steep(beyond - (end ? FRONT.pastMm : FRONT.pastMiddleMm) * b.sharpness + stray)
  const { inner, outer } = clearMm(g, b, to, sprocket, offMm)
  const there = 1 - short - past
  const rubsOuter = there * steep(-outer)
  const rubsInner = (there - rubsOuter) * steep(-inner)
  return {
    'no-climb': outward ? short : 0,
    'no-drop': outward ? 0 : short,
    'falls-outboard': outward ? past : 0,
    'falls-inboard': outward ? 0 : past,
    'rubs-outer': rubsOuter,
    'rubs-inner': rubsInner,
    clean: there - rubsOuter - rubsInner,
  }
}

/** The wire undone, the cage on its inner stop: chance that the chain drops to the small ring. */
export const dropsUndone = (g: FrontGeometry, b: FrontBike): number =>
  1 - chancesAt(g, b, 0, g.judgedOn(0), false, b.stopLMm)['no-drop']

/**
 * Where each screw may stand so that the bike is right, mm from the ideals; a span that is empty has `from` above `to`.
 */
export type FrontWindow = { slack: Span; L: Span; H: Span }
export type Span = { from: number; to: number }

/** Half the width of a threshold at which the chance passes 0.7. */
const MARGIN_MM = FRONT.widthMm * Math.log(FRONT.rightChance / (1 - FRONT.rightChance))

/**
 * Where two thresholds of this width, both to be passed, together let 0.7 through: they add up where they lie close.
 */
const beyondBoth = (a: number, b: number): number =>
  Math.max(a, b) + FRONT.widthMm * Math.log1p(Math.exp(-Math.abs(a - b) / FRONT.widthMm)) + MARGIN_MM

/**
 * In closed form from the 0.7 points: the outer stop must let the chain climb without a rub and not be thrown, the
 * inner one let it drop likewise, and the cable reach the one and free the other.
 */
export function frontWindow(g: FrontGeometry, b: FrontBike): FrontWindow {
  const stray = strayMm(b)
  const turned = turnedMm(b)
  const q = b.sharpness
  const last = g.rings - 1
  const big: Span = {
    from: beyondBoth(-FRONT.climbMm * q + stray, turned - END_GAP_MM),
    to: Math.min(FRONT.pastMm * q - stray - MARGIN_MM, FRONT.safePastMm),
  }
  const small: Span = {
    from: Math.max(-FRONT.pastMm * q + stray + MARGIN_MM, -FRONT.safePastMm),
    to: -beyondBoth(-FRONT.dropMm * q + stray, turned - END_GAP_MM),
  }
  const half = b.backlashMm / 2
  const slack: Span = { from: big.from - (clickMm(g, b, last) - g.travelMm) + half, to: small.to - half }
  if (g.rings === 3) {
    const off = clickMm(g, b, 1) - (g.idealMm[1] - g.idealMm[0])
    const room = g.parts.cageWidthMm / 2 - g.chainHalfMm - turned - MARGIN_MM
    const low = Math.max(-Math.min(FRONT.climbMm, FRONT.pastMiddleMm) * q + stray + MARGIN_MM, -room)
    const high = Math.min(Math.min(FRONT.dropMm, FRONT.pastMiddleMm) * q - stray - MARGIN_MM, room)
    slack.from = Math.max(slack.from, low - off + half)
    slack.to = Math.min(slack.to, high - off - half)
  }
  return { slack, L: small, H: big }
}

/** A front with nothing wrong, its cage where it should be. */
export const STRAIGHT: FrontBike = {
  slackMm: 0,
  stopLMm: 0,
  stopHMm: 0,
  backlashMm: 0,
  heightMm: 2,
  angleDeg: 0,
  stroke: 1,
  sharpness: 1,
  middleMm: 0,
}

/** By ring, smallest first: where a straight cage may stand and shift clean, mm from its ideal. */
export function usualSpans(g: FrontGeometry): Span[] {
  const { L, H } = frontWindow(g, STRAIGHT)
  const middle: Span = { from: -FRONT.climbMm, to: FRONT.dropMm }
  return Array.from({ length: g.rings }, (_, ring) => (ring === 0 ? L : ring === g.rings - 1 ? H : middle))
}

const inside = (x: number, { from, to }: Span): boolean => x >= from && x <= to

/** Does every shift go clean often enough both ways, and are both stops safe? */
export function frontIsRight(g: FrontGeometry, b: FrontBike, w = frontWindow(g, b)): boolean {
  return inside(b.slackMm, w.slack) && inside(b.stopLMm, w.L) && inside(b.stopHMm, w.H)
}

/** The narrowest of the three spans, mm; nothing below 0. */
const narrowestMm = (w: FrontWindow): number =>
  Math.max(0, Math.min(w.slack.to - w.slack.from, w.L.to - w.L.from, w.H.to - w.H.from))

/** As a new cable, a lever that fits or a cage set anew would leave it. */
export const CURED: Record<FrontFault, Partial<FrontBike>> = {
  height: { heightMm: 2 },
  angle: { angleDeg: 0 },
  friction: { backlashMm: 0.5 },
  pull: { stroke: 1.02 },
}
const cured = (b: FrontBike, faults: readonly FrontFault[]): FrontBike => {
  const out = faults.reduce<FrontBike>((x, f) => ({ ...x, ...CURED[f] }), b)
  return { ...out, backlashMm: Math.min(b.backlashMm, out.backlashMm) }
}

/**
 * A window narrower than this puts a cause at fault; it is blamed when curing it alone opens the window by `opensMm`.
 */
const NARROW = { mm: 0.25, opensMm: 0.1 } as const

/** Faults to blame: the window is narrow and opens when this alone is cured, or only with it once all else is. */
export function frontFaults(g: FrontGeometry, b: FrontBike, narrowMm: number = NARROW.mm): Record<FrontFault, boolean> {
  const width = (faults: readonly FrontFault[]) => narrowestMm(frontWindow(g, cured(b, faults)))
  const now = width([])
  const out = { height: false, angle: false, friction: false, pull: false }
  if (now >= narrowMm) return out
  const all = width(FRONT_FAULTS)
  for (const f of FRONT_FAULTS) {
    const others = width(FRONT_FAULTS.filter(x => x !== f))
    out[f] = width([f]) >= now + NARROW.opensMm || (others < narrowMm && all >= others + NARROW.opensMm)
  }
  return out
}
