import { END_GAP_MM } from '../front/endGaps'
import { atAGlance } from '../front/glance'
import { END_GAPS, HEIGHTS } from '../procedure/schools'
import type { FrontFault } from '../front/causes'
import { adviseFront } from '../front/advise'
import type { FrontMoveTo } from '../front/contract'
import { frontCost, stopSeen } from '../front/looks'
import type { FrontSet, FrontSight } from '../front/events'
import { frontMove, onRing, type FrontSeen } from '../front/moves'
import { FRONT, frontGeometry } from '../front/response'
import { FRONT_AS_MODELLED, faultyFront, seededFront, simulatedFront, type FrontIll, type FrontPhysics } from './front'

/** The usual schools of the cage's height and of gaps at the stops. */
const SCHOOLS_HERE = { height: HEIGHTS[0]!, endGap: END_GAPS[0]! }
/** The mechanic's patience at the front, in units of a shift looked at. */
const FRONT_PATIENCE = 60
/** With this in place of the usual narrow window a part renewed without blame was renewed needlessly. */
const NEEDED_MM = 0.4

export type FrontPlayed = {
  seed: number
  won: boolean
  saidDone: boolean
  right: boolean
  shiftsClean: boolean
  stated: number | null
  cost: number
  needless: number
  thrown: { inboard: number; outboard: number }
  calls: [number, boolean][]
  /** What was wrong with it, where the bench knows. */
  faults: readonly FrontIll[]
  rings: number
  /** Entries written until the end: each a touch, a figure or both. */
  entries: number
  /** Touches they take: a shift and its way back, both clean, are one. */
  touches: number
}
/**
 * `glance`: Ocho's advice, both stops told in one touch where they look right, as its page offers it. The written
 * orders read a stop's gap as the cage stands; `alone` is the conventional one with each stop seen by itself, as Ocho
 * asks it.
 */
export type FrontStrategy = 'Ocho' | 'glance' | 'conventional' | 'rotating' | 'alone'
export const FRONT_STRATEGIES: readonly FrontStrategy[] = ['Ocho', 'glance', 'conventional', 'rotating', 'alone']

const NEEDS: Partial<Record<FrontSet, FrontFault>> = { cable: 'friction', lever: 'pull' }

/**
 * Plays one seeded front to the end. Won: said done, truly right, nothing renewed needlessly; thrown chains are counted
 * apart.
 */
export function playFront(
  seed: number,
  strategy: FrontStrategy,
  physics: FrontPhysics = FRONT_AS_MODELLED,
): FrontPlayed {
  const { setup, hidden, faults } = physics.own ? faultyFront(seed) : { ...seededFront(seed), faults: [] }
  const bench = simulatedFront(setup, hidden, seed, physics)
  const { judgedOn } = frontGeometry(setup)
  const out: FrontPlayed = {
    seed,
    won: false,
    saidDone: false,
    right: false,
    shiftsClean: false,
    stated: null,
    cost: 0,
    needless: 0,
    thrown: bench.thrown,
    calls: [],
    faults,
    rings: setup.parts.rings.length,
    entries: 0,
    touches: 0,
  }
  const perform = (move: FrontMoveTo): FrontSight => {
    const needs = move.do === 'set' ? NEEDS[move.what] : undefined
    if (needs && !bench.faults(NEEDED_MM)[needs]) out.needless++
    out.cost += frontCost(move)
    out.entries++
    out.touches++
    return bench.perform(move)!
  }
  if (strategy === 'Ocho' || strategy === 'glance')
    while (out.cost < FRONT_PATIENCE) {
      const { move, right } = adviseFront(setup, bench.log, { endGapMm: SCHOOLS_HERE.endGap.targetMm })
      out.calls.push([right, bench.isRight()])
      if (move.do === 'done') {
        out.saidDone = right >= 0.5
        out.stated = right
        break
      }
      const neitherStop = !stopSeen(bench.log, 'L') && !stopSeen(bench.log, 'H')
      const both = move.do === 'gap' && strategy === 'glance' ? atAGlance(move, SCHOOLS_HERE, neitherStop) : null
      if (both && bench.tellsAtAGlance(both.entries)) {
        out.cost += both.entries.length * frontCost(move)
        out.entries += both.entries.length
        out.touches++
        continue
      }
      if (move.do !== 'shift' || !move.back) {
        perform(move)
        continue
      }
      const { from, to, sprocket, times = 1 } = move
      const told = bench.thereAndBack(
        [
          { from, to, sprocket },
          { from: to, to: from, sprocket: judgedOn(from) },
        ],
        times,
      )
      out.cost += told.shifts
      out.entries += told.entries
      // clean each time is one touch; what was not is told by its key, after the way it was
      out.touches += told.badWay === 'back' ? 2 : 1
    }
  else {
    const hands = byOrder(strategy, setup.parts.rings.length)
    let next = hands.next()
    while (!next.done && out.cost < FRONT_PATIENCE) next = hands.next(perform(next.value))
    out.saidDone = next.done === true && next.value
  }
  out.right = bench.isRight()
  out.shiftsClean = bench.shiftsClean()
  out.won = out.saidDone && out.right && out.needless === 0
  return out
}

type Hands = Generator<FrontMoveTo, boolean, FrontSight>
const POSITION_DEG = 1.5
/** A gap this near its millimetre is left alone. */
const NEAR_ENOUGH_MM = 0.35

/**
 * The written orders played straight, with the trade's usual patience: a second round, then the cable, then no more.
 */
function* byOrder(order: Exclude<FrontStrategy, 'Ocho'>, rings: number): Hands {
  const alone = order === 'alone'
  const look = yield { do: 'position' }
  if (look.kind === 'frontPosition' && (outsideHeight(look.heightMm) || Math.abs(look.angleDeg ?? 0) > POSITION_DEG))
    yield { do: 'set', what: 'position' }
  if (order === 'rotating') {
    // H first, the wire drawn by hand; clamped; then L until it drops
    yield* setGap('outer', true)
    yield { do: 'set', what: 'clamp' }
    yield* untilItDrops()
  } else {
    // gross at the pinch bolt, fine at the barrel
    yield { do: 'set', what: 'clamp' }
    yield* shiftBoth(rings, ['barrel'])
  }
  yield* setGap('inner', alone)
  yield* setGap('outer', alone)
  for (const renew of [false, true]) {
    if (renew) yield { do: 'set', what: 'cable' }
    for (let round = 0; round < 2; round++) {
      if (yield* shiftBoth(rings, ['barrel', 'L', 'H'])) {
        const inner = yield* gapOff('inner', alone)
        const outer = yield* gapOff('outer', alone)
        if (Math.max(Math.abs(inner), Math.abs(outer)) <= 2 * NEAR_ENOUGH_MM) return true
      }
      yield* setGap('inner', alone)
      yield* setGap('outer', alone)
    }
  }
  return false
}

const outsideHeight = (mm: number | null) => mm !== null && (mm < FRONT.heightMm.from || mm > FRONT.heightMm.to)

function* untilItDrops(): Generator<FrontMoveTo, void, FrontSight> {
  for (let i = 0; i < 6; i++) {
    const e = yield { do: 'shift', from: 1, to: 0, sprocket: 0 }
    if (e.kind !== 'frontShift' || e.seen !== 'no-drop') return
    yield { do: 'turn', screw: 'L', sixteenths: -8 }
  }
}

function* gapOff(plate: 'inner' | 'outer', alone: boolean): Generator<FrontMoveTo, number, FrontSight> {
  const e = yield { do: 'gap', plate, ...(alone ? { byStop: true } : {}) }
  return e.kind === 'frontGap' ? e.gapMm - END_GAP_MM : 0
}

/**
 * A stop by its gap: turned by what is missing, a millimetre a turn, at most four times. One that changes nothing is
 * not touched by the cage: then the cable holds it, and the barrel is turned instead.
 * @param alone read with the cable out of account
 */
function* setGap(plate: 'inner' | 'outer', alone: boolean): Generator<FrontMoveTo, void, FrontSight> {
  let before: number | null = null
  for (let i = 0; i < 4; i++) {
    const off = yield* gapOff(plate, alone)
    if (Math.abs(off) <= NEAR_ENOUGH_MM) return
    const dead = !alone && before !== null && Math.abs(before - off) < Math.abs(before) / 3
    // a wide inner gap: the cage stands too far inboard; a wide outer one: too far outboard
    const barrel = plate === 'inner' ? off : -off
    const sixteenths = Math.max(-32, Math.min(32, 2 * Math.round((dead ? barrel : off) * 8)))
    yield { do: 'turn', screw: dead ? 'barrel' : plate === 'inner' ? 'L' : 'H', sixteenths }
    before = off
  }
}

/** Every shift both ways, each answered by the written moves of these screws. @returns were all clean at once? */
function* shiftBoth(rings: number, screws: readonly string[]): Generator<FrontMoveTo, boolean, FrontSight> {
  let clean = true
  for (let ring = 0; ring + 1 < rings; ring++)
    for (const [from, to] of [
      [ring, ring + 1],
      [ring + 1, ring],
    ]) {
      const answered = new Map<FrontSeen, number>()
      for (;;) {
        const e = yield { do: 'shift', from: from!, to: to!, sprocket: 0 }
        if (e.kind !== 'frontShift' || e.seen === 'clean') break
        clean = false
        const move = frontMove(e.seen, answered.get(e.seen) ?? 0, onRing(to!, rings))
        answered.set(e.seen, (answered.get(e.seen) ?? 0) + 1)
        if (!move || !screws.includes(move.screw)) break
        yield {
          do: 'turn',
          screw: move.screw,
          sixteenths: 2 * move.eighths * ((move.screw === 'barrel') === (move.way === 'out') ? 1 : -1),
        }
      }
    }
  return clean
}
