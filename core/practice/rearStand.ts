import type { Move } from '../advice/contract'
import { simulatedBench, type HiddenBike, type SimulatedBench } from '../bench/bench'
import { AS_MODELLED, type Physics } from '../bench/physics'
import { needless } from '../bench/truth'
import { costOf, type BenchEvent, type Part } from '../rear/benchEvents'
import { B_SCREW } from '../rear/gap'
import { mayReachLargest } from '../rear/gates'
import { startOf, step, type Trace } from '../rear/trace'
import type { Heard } from '../response/heard'
import { freePlaceMm, restPlaceMm } from '../response/pulley'
import { geometryOf, type Geometry } from '../response/setup'
import type { RearBike } from './rearBike'

/** What one does at the stand, or says of what was heard. */
export type RearAct =
  | Extract<Move, { do: 'shift' | 'turn' | 'sight' | 'offset' | 'hanger' | 'reclamp' | 'done' }>
  | { do: 'replace'; part: Part }
  | { do: 'said'; heard: Heard }
  /** The B screw, + in: the gap grows. */
  | { do: 'turnB'; turns: number }
  | { do: 'gap' }

/** Ears of one's own: what happens is heard as it is, and may be misheard all the same. */
export const OWN_EARS: Physics = { ...AS_MODELLED, wrongReports: 0 }

/** A bike at the stand after some acts: what an eye and an ear find, and what is hidden. */
export type RearStand = {
  readonly g: Geometry
  readonly hidden: HiddenBike
  readonly log: readonly BenchEvent[]
  readonly trace: Trace
  /** Where the guide pulley stands, mm from the smallest sprocket, + inboard. */
  readonly pulleyMm: number
  /** What came of each act that shows something, by its place among the acts. */
  readonly shown: ReadonlyMap<number, BenchEvent>
  /** B gap as it stands, and as it was measured by each act that did, mm. */
  readonly gapMm: number
  readonly gaps: ReadonlyMap<number, number>
  /** What was said of what was heard, beside what it was; the latest word on each shift. */
  readonly said: readonly { at: number; said: Heard; was: Heard }[]
  readonly thrown: { largest: number; smallest: number }
  readonly needless: readonly Part[]
  readonly cost: number
  readonly touches: number
  readonly over: boolean
  readonly right: boolean
}

/** Why an act is not possible now, in words; null where it is. Nobody reaches the largest before L was seen. */
export function whyNot(stand: RearStand, act: RearAct, setup: RearBike['setup']): string | null {
  if (stand.over) return 'This run is over: look at what it was'
  const n = setup.teeth.length
  if ((act.do === 'shift' && act.to === n - 1) || (act.do === 'offset' && act.click === n - 1))
    if (!mayReachLargest(stand.trace)) return 'See L by hand first: the largest sprocket is next to the spokes'
  if (act.do === 'said' && !lastHeard(stand)) return 'Shift first, then say what you heard'
  if (act.do === 'turn' && act.screw === 'barrel') {
    const to = stand.trace.barrelTurns + act.turns
    if (to < 0) return 'The barrel is all the way in: clamp again'
    if (to > setup.barrelTurnsRange) return 'The barrel would come out of its thread: clamp again'
  }
  return null
}

const lastHeard = (s: RearStand): Extract<BenchEvent, { kind: 'shift' }> | null => {
  const last = s.log.findLast(e => e.kind === 'shift')
  return last?.kind === 'shift' ? last : null
}

/**
 * A practice run so far, always the same for the same bike and acts: the published bench under the bike's own seed,
 * with ears that mishear nothing. An act that is not possible is left out.
 */
export function rearStand(bike: RearBike, seed: number, acts: readonly RearAct[]): RearStand {
  const bench = simulatedBench(bike.setup, bike.hidden, seed, OWN_EARS)
  const g = geometryOf(bike.setup)
  const shown = new Map<number, BenchEvent>()
  const said: RearStand['said'][number][] = []
  const thrown = { largest: 0, smallest: 0 }
  const wasted: Part[] = []
  const gaps = new Map<number, number>()
  let gapMm = bike.gapMm
  let [pulleyMm, touches, over] = [restPlaceMm(g, bike.hidden, 0, false), 0, false]
  const stand = (): RearStand => ({
    g,
    hidden: bench.hidden,
    log: bench.log,
    trace: bench.log.reduce((t, e) => step(t, e, bike.setup), startOf(bike.setup)),
    pulleyMm,
    gapMm,
    gaps,
    shown,
    said,
    thrown,
    needless: wasted,
    cost: bench.log.reduce((s, e) => s + costOf(e), 0),
    touches,
    over,
    right: bench.isRight(),
  })
  acts.forEach((act, at) => {
    if (whyNot(stand(), act, bike.setup)) return
    touches++
    if (act.do === 'done') return void (over = true)
    if (act.do === 'turnB') return void (gapMm = Math.max(0, gapMm + act.turns * B_SCREW.mmPerTurn))
    if (act.do === 'gap') return void gaps.set(at, Math.round(2 * gapMm) / 2)
    if (act.do === 'said') {
      // a word on what was heard is no touch at the bike
      touches--
      const was = lastHeard(stand())!
      const place = bench.log.lastIndexOf(was)
      const before = said.findIndex(s => s.at === place)
      if (before >= 0) said.splice(before, 1)
      return void said.push({ at: place, said: act.heard, was: was.heard })
    }
    if (act.do === 'replace' && needless(g, bike.setup, bench.hidden, act.part, OWN_EARS)) wasted.push(act.part)
    const event = bench.perform(act.do === 'replace' ? { ...act, cause: 'friction' } : act)!
    shown.set(at, event)
    if (event.kind === 'shift' && event.heard === 'off') thrown[event.to === 0 ? 'smallest' : 'largest']++
    pulleyMm = pulleyAfter(g, bench, pulleyMm, event)
  })
  return stand()
}

/**
 * Where the pulley stands after an event: brought there by the lever, else dragged along by the cable within its
 * friction.
 */
function pulleyAfter(g: Geometry, bench: SimulatedBench, was: number, event: BenchEvent): number {
  const bike = bench.hidden
  const trace = bench.log.reduce((t, e) => step(t, e, bench.setup), startOf(bench.setup))
  if (event.kind === 'shift') return restPlaceMm(g, bike, event.to, trace.lastInward)
  if (event.kind === 'offset') return restPlaceMm(g, bike, event.click, event.click > 0)
  if (event.kind === 'reclamp' || event.kind === 'replace') return restPlaceMm(g, bike, 0, false)
  const free = freePlaceMm(g, bike, trace.lever)
  const held = Math.min(Math.max(was, free - bike.backlashInMm), free + bike.backlashOutMm)
  return Math.min(Math.max(held, bike.stopHMm), bike.stopLMm)
}

/** Reports as the trainee gave them, in place of what was there: what the advice is asked with. */
export function asSaid(stand: RearStand): BenchEvent[] {
  const words = new Map(stand.said.map(s => [s.at, s.said]))
  return stand.log.map((e, i): BenchEvent => {
    const heard = words.get(i)
    if (e.kind !== 'shift' || !heard || e.heard === 'off') return e
    return { ...e, heard }
  })
}
