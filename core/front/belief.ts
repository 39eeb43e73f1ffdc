import { afterNext, believing, weightsOf, type Belief, type Step } from '../inference/particles'
import { normalBelow, one, quantileOf, two } from '../quantity/normal'
import { logistic } from '../response/heard'
import type { FrontSight } from './events'
import type { FrontSeen } from './moves'
import {
  cageOffMm,
  clearMm,
  dropsUndone,
  FRONT,
  shiftChances,
  type FrontBike,
  type FrontChances,
  type FrontGeometry,
} from './response'
import { strokeKnown } from './rub'

/** Beliefs about a front nothing is known of. All `model`; lengths in mm at the cage, from the ideals. */
const PRIOR = {
  slack: two(0.6, 0, 0.8, 0, 2.2),
  stopL: two(0.75, 0, 0.45, 0, 1.7),
  stopH: two(0.75, 0, 0.45, 0, 1.7),
  lnBacklash: two(0.82, Math.log(0.5), 0.35, Math.log(2), 0.3),
  height: two(0.8, 2, 0.5, 4, 3),
  angle: two(0.85, 0, 0.35, 0, 2.5),
  lnStroke: two(0.95, 0.02, 0.02, 0, 0.22),
  perL: one(1, 0.15),
  perH: one(1, 0.15),
  perBarrel: one(0.8, 0.12),
  lnSharpness: one(0, 0.12),
  middle: one(0, 0.3),
} as const
/** What a re-clamp, a cage set anew, a new cable and a lever that fits bring. */
export const SNUG_SD_MM = 0.5
const RENEWED = {
  clampMm: one(0, SNUG_SD_MM),
  movedMm: two(0.6, 0, 0.6, 0, 1.5),
  /** Both stops set anew by somebody, to about their millimetre. */
  stopMm: two(0.85, 0, 0.4, 0, 1.5),
  height: one(2, 0.4),
  angle: one(0, 0.4),
  lnBacklash: one(Math.log(0.5), 0.3),
  lnStroke: one(0.02, 0.02),
} as const
/** Spread of what is measured or judged, and the share of slips; fewer where it lies open to the eye. */
export const FRONT_MEASURE = {
  gapMm: 0.25,
  heightMm: 0.5,
  angleDeg: 0.7,
  marksDeg: 0.4,
  handMm: 0.35,
  slips: 0.02,
  plainSlips: 0.004,
} as const

type Unknown = keyof typeof PRIOR
const UNKNOWNS = Object.keys(PRIOR) as Unknown[]
type Draw = (z: number) => number
const EXPONENTIAL: ReadonlySet<string> = new Set(['lnBacklash', 'lnStroke', 'lnSharpness'])
const drawsOf = <K extends string>(densities: Record<K, Parameters<typeof quantileOf>[0]>) =>
  Object.fromEntries(
    Object.entries<Parameters<typeof quantileOf>[0]>(densities).map(([k, d]) => {
      const q = quantileOf(d)
      return [k, EXPONENTIAL.has(k) ? (z: number) => Math.exp(q(z)) : q]
    }),
  ) as Record<K, Draw>
const DRAW = drawsOf(PRIOR)
const AGAIN = drawsOf(RENEWED)
const PARTICLES = 700

/** A front as it stands for one particle, and what a turn of each screw moves, mm. */
export type FrontGuess = FrontBike & { perL: number; perH: number; perBarrel: number }

/** Which coordinates hold what, and what was turned since: read off the log, the same for every particle. */
type Slots = {
  at: Record<Unknown, number>
  /** `snugAt`: turns of L when the cable was last drawn snug, the cage on its inner stop; null when it was not so. */
  slack: { snugAt: number | null; net: number }
  stops: { L: number; H: number; movedFrom: Slots | null }
  /** What each coordinate means. */
  draws: readonly Draw[]
}

/** A stroke read off two pulls is known to about so much, as a logarithm. `model` */
const STROKE_READ_SD = 0.04
function atStart(g: FrontGeometry): Slots {
  const stroke = strokeKnown(g.parts)
  const drawOf = (k: Unknown): Draw =>
    k === 'lnStroke' && stroke !== null ? z => Math.exp(Math.log(stroke) + STROKE_READ_SD * z) : DRAW[k]
  return {
    at: Object.fromEntries(UNKNOWNS.map((k, i) => [k, i])) as Record<Unknown, number>,
    slack: { snugAt: null, net: 0 },
    stops: { L: 0, H: 0, movedFrom: null },
    draws: UNKNOWNS.map(drawOf),
  }
}

function slotsAfter(g: FrontGeometry, s: Slots, e: FrontSight): Slots {
  if (e.kind === 'frontTurn') {
    const turns = e.sixteenths / 16
    if (e.screw === 'barrel') return { ...s, slack: { ...s.slack, net: s.slack.net + turns } }
    return { ...s, stops: { ...s.stops, [e.screw]: s.stops[e.screw] + turns } }
  }
  const what = e.kind === 'frontUndone' ? 'clamp' : e.kind === 'frontSet' ? e.what : null
  if (!what) return s
  const draws = [...s.draws]
  const at = { ...s.at }
  const fresh = (name: Unknown, as: keyof typeof RENEWED) => {
    at[name] = draws.push(AGAIN[as]) - 1
  }
  if (what === 'position') {
    fresh('stopL', 'movedMm')
    fresh('stopH', 'movedMm')
    fresh('height', 'height')
    fresh('angle', 'angle')
  }
  if (what === 'stops') {
    fresh('stopL', 'stopMm')
    fresh('stopH', 'stopMm')
    return { ...s, at, draws, stops: { L: 0, H: 0, movedFrom: null } }
  }
  fresh('slack', 'clampMm') // a cage set anew is clamped anew
  if (what === 'cable') fresh('lnBacklash', 'lnBacklash')
  if (what === 'lever') fresh('lnStroke', 'lnStroke')
  const stops = what === 'position' ? { L: 0, H: 0, movedFrom: s } : s.stops
  // a rotating cage is clamped on the big ring, where its marks were set: the stop has no say in it
  return { at, draws, slack: { snugAt: g.parts.cage === 'rotating' ? null : stops.L, net: 0 }, stops }
}

/**
 * A particle in the terms of the response, at given screws. L in pushes the inner limit outboard, H in the outer one
 * inboard.
 */
function guessOf(s: Slots, x: Float64Array): FrontGuess {
  const { at, stops } = s
  const perL = Math.max(0.4, x[at.perL])
  const perH = Math.max(0.4, x[at.perH])
  const perBarrel = Math.max(0.3, x[at.perBarrel])
  const before = stops.movedFrom ? guessOf(stops.movedFrom, x) : null
  const unturnedL = (before ? before.stopLMm : 0) + x[at.stopL]
  return {
    perL,
    perH,
    perBarrel,
    stopLMm: unturnedL + perL * stops.L,
    stopHMm: (before ? before.stopHMm : 0) + x[at.stopH] - perH * stops.H,
    slackMm: (s.slack.snugAt === null ? 0 : unturnedL + perL * s.slack.snugAt) + x[at.slack] + perBarrel * s.slack.net,
    backlashMm: x[at.lnBacklash],
    heightMm: x[at.height],
    angleDeg: x[at.angle],
    stroke: x[at.lnStroke],
    sharpness: x[at.lnSharpness],
    middleMm: x[at.middle],
  }
}

/** A reading against its peak; `slips` is the share that is simply wrong, spread over `width`. */
const bell = (off: number, sd: number, width: number, slips: number): number =>
  (1 - slips) * Math.exp(-0.5 * (off / sd) ** 2) + slips / width

/**
 * Share of gaps read badly, and how much wider those scatter: so that a figure nobody expected pulls the belief, and is
 * not called a slip.
 */
const ROUGH = { share: 0.12, times: 4 }
/** A gap read as this or less touches: a plate that presses on the chain shows no more than that. */
const TOUCHES_MM = 0.05
/** How much wider a figure scatters that was judged at a glance. */
const BY_EYE_TIMES = 1.6
/** A gap as it was read, where it truly is `gapMm`: a density against its peak. */
export function gapChance(readMm: number, gapMm: number, byEye = false): number {
  const { slips } = FRONT_MEASURE
  const sd = FRONT_MEASURE.gapMm * (byEye ? BY_EYE_TIMES : 1)
  const touching = readMm >= 0 && readMm <= TOUCHES_MM
  const bellOf = (s: number) =>
    touching ? normalBelow((TOUCHES_MM + sd / 2 - gapMm) / s) : Math.exp(-0.5 * ((readMm - gapMm) / s) ** 2)
  return (
    (1 - slips) * ((1 - ROUGH.share) * bellOf(sd) + (ROUGH.share / ROUGH.times) * bellOf(ROUGH.times * sd)) + slips / 10
  )
}

/** Is it told of a shift that lies near a threshold, of so many in a hundred either side? */
const near = (chance: number): number => 4 * chance * (1 - chance)
/** With wrong reports: spread over the other answers of that direction, but never a fall. */
export function reported(chances: FrontChances, seen: FrontSeen): number {
  const { wrongReports } = FRONT
  const told = (chance: number) => (1 - wrongReports) * chance + wrongReports / 4
  switch (seen) {
    case 'falls-inboard':
    case 'falls-outboard':
      return chances[seen]
    case 'late-climb':
      return told(near(chances['no-climb']))
    case 'late-drop':
      return told(near(chances['no-drop']))
    case 'noisy':
      return told(near(chances['rubs-inner'] + chances['rubs-outer']))
    default:
      return told(chances[seen])
  }
}

export const handChances = (b: FrontBike): Record<'short' | 'there' | 'past', number> => {
  const short = logistic(-(b.stopHMm + 1) / FRONT_MEASURE.handMm)
  const past = logistic((b.stopHMm - 1.3) / FRONT_MEASURE.handMm)
  return { short, past, there: Math.max(0, 1 - short - past) }
}

/**
 * The gap a person would measure in an end pair, mm: inner plate in small and largest, outer in big and smallest.
 * @param byStop with the cable out of account: what the stop alone leaves
 */
export function endGapMm(g: FrontGeometry, b: FrontBike, plate: 'inner' | 'outer', byStop = false): number {
  const ring = plate === 'inner' ? 0 : g.rings - 1
  const offMm = byStop ? (plate === 'inner' ? b.stopLMm : b.stopHMm) : cageOffMm(g, b, ring, plate === 'outer')
  return clearMm(g, b, ring, g.judgedOn(ring), offMm)[plate]
}

/** Chance that a plate is said to rub in a pair (null: neither), however the chain came there, the best trim used. */
export function rubChance(g: FrontGeometry, b: FrontBike, e: Extract<FrontSight, { kind: 'frontRub' }>): number {
  const trims = e.ring === 0 ? [0, g.parts.trimMm] : e.ring === g.rings - 1 ? [0, -g.parts.trimMm] : [0]
  const ways = [...(e.ring > 0 ? [true] : []), ...(e.ring < g.rings - 1 ? [false] : [])]
  const told = ways.map(outward => {
    const at = cageOffMm(g, b, e.ring, outward)
    const best = trims
      .map(trim => clearMm(g, b, e.ring, e.sprocket, at + trim))
      .reduce((x, y) => (Math.min(y.inner, y.outer) > Math.min(x.inner, x.outer) ? y : x))
    const rubs = logistic(-Math.min(best.inner, best.outer) / FRONT.widthMm)
    if (e.plate === null) return 1 - rubs
    const other = e.plate === 'inner' ? best.outer : best.inner
    return rubs * logistic((other - best[e.plate]) / FRONT.widthMm)
  })
  const chance = told.reduce((s, x) => s + x, 0) / told.length
  return (1 - FRONT.wrongReports) * chance + FRONT.wrongReports / 3
}

export const angleSdDeg = (g: FrontGeometry): number =>
  g.parts.cage === 'rotating' ? FRONT_MEASURE.marksDeg : FRONT_MEASURE.angleDeg

/** Log of the chance (a density against its peak for what is measured) of an entry; null when it says nothing. */
function logChanceOf(g: FrontGeometry, s: Slots, e: FrontSight): Step<Float64Array>['logChance'] {
  const log = (f: (b: FrontGuess) => number) => (x: Float64Array) => Math.log(Math.max(1e-12, f(guessOf(s, x))))
  switch (e.kind) {
    case 'frontShift':
      return log(b => reported(shiftChances(g, b, e.from, e.to, e.sprocket), e.seen))
    case 'frontGap':
      return log(b => gapChance(e.gapMm, endGapMm(g, b, e.plate, e.byStop), e.byEye))
    case 'frontRub':
      return log(b => rubChance(g, b, e))
    case 'frontPosition': {
      const times = e.byEye ? BY_EYE_TIMES : 1
      const sd = times * angleSdDeg(g)
      // which way it is turned is not told by the model, only how far
      return log(
        b =>
          (e.heightMm === null
            ? 1
            : bell(e.heightMm - b.heightMm, times * FRONT_MEASURE.heightMm, 20, FRONT_MEASURE.plainSlips)) *
          (e.angleDeg === null ? 1 : bell(e.angleDeg - b.angleDeg, sd, 20, FRONT_MEASURE.plainSlips)),
      )
    }
    case 'frontHand':
      return log(b => (1 - FRONT.wrongReports) * handChances(b)[e.reach] + FRONT.wrongReports / 3)
    case 'frontUndone':
      return log(b => {
        const drops = dropsUndone(g, b)
        return (1 - FRONT.wrongReports) * (e.drops ? drops : 1 - drops) + FRONT.wrongReports / 2
      })
    default:
      return null
  }
}

/** What is believed of a front after its log: every guess with its weight. */
export type FrontBelief = {
  geometry: FrontGeometry
  guesses: readonly FrontGuess[]
  weights: Float64Array
  net: { barrel: number }
}

const KEPT = 40
const kept = new Map<string, Belief>()

/** Follows the log from the longest part of it still known. Same geometry, log and seed: same belief. */
export function believeFront(g: FrontGeometry, log: readonly FrontSight[], seed = 1): FrontBelief {
  const following = followFront(g, log, seed)
  for (;;) {
    const next = following.next()
    if (next.done) return next.value
  }
}

/** As `believeFront`, entry by entry, so that a server can go on answering between them. */
export function* followFront(g: FrontGeometry, log: readonly FrontSight[], seed = 1): Generator<void, FrontBelief> {
  const steps: Step<Float64Array>[] = []
  const keys = [JSON.stringify([g.parts, g.chainHalfMm, g.idealMm, g.sprockets, seed])]
  let slots = atStart(g)
  for (const e of log) {
    const after = slotsAfter(g, slots, e)
    // an undone wire says where the stop stood, before it was clamped again
    steps.push({ dims: after.draws.length, logChance: logChanceOf(g, slots, e) })
    slots = after
    keys.push(`${keys.at(-1)!}\n${JSON.stringify(e)}`)
  }
  const { draws } = slots
  const read = (u: Float64Array) => {
    const x = new Float64Array(u.length)
    for (let i = 0; i < u.length; i++) x[i] = draws[i](u[i])
    return x
  }
  let at = log.length
  while (at > 0 && !kept.has(keys[at])) at--
  let belief = kept.get(keys[at]) ?? believing(UNKNOWNS.length, PARTICLES, seed)
  for (let i = at; i < log.length; i++) {
    belief = afterNext(belief, steps, read, seed)
    kept.delete(keys[i + 1])
    kept.set(keys[i + 1], belief)
    if (kept.size > KEPT) kept.delete(kept.keys().next().value!)
    yield
  }
  return {
    geometry: g,
    guesses: belief.points.map(u => guessOf(slots, read(u))),
    weights: weightsOf(belief),
    net: { barrel: slots.slack.net },
  }
}

/** Forgets every kept belief: for measuring a cold call. */
export const forgetFront = (): void => kept.clear()
