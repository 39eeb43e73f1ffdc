import type { BenchEvent } from '../rear/benchEvents'
import type { Move } from '../advice/contract'
import { camberTolerance } from '../rear/hanger'
import type { RearSetup } from '../response/setup'
import { safeStopMm } from '../response/safe'
import { geometryOf } from '../response/setup'

/** Rules of thumb, played fairly with the trade's usual order of suspicion behind them (model, section 5). */
export type Thumb = { id: string; stepTurns: number; clicks: 1 | 2; edge: 'none' | 'back-a-quarter' | 'middle' }

export const THUMBS: readonly Thumb[] = [
  { id: 'eighth steps', stepTurns: 1 / 8, clicks: 1, edge: 'none' },
  { id: 'quarter steps', stepTurns: 1 / 4, clicks: 1, edge: 'none' },
  { id: 'half steps', stepTurns: 1 / 2, clicks: 1, edge: 'none' },
  { id: 'full turns', stepTurns: 1, clicks: 1, edge: 'none' },
  { id: 'two clicks', stepTurns: 1 / 4, clicks: 2, edge: 'none' },
  { id: 'find the edge', stepTurns: 1 / 4, clicks: 1, edge: 'back-a-quarter' },
  { id: 'middle of the rub', stepTurns: 1 / 4, clicks: 1, edge: 'middle' },
]

type Hands = Generator<Move, boolean, BenchEvent>

/**
 * A mechanic who goes by one rule: yields moves, is told what came of each, and returns whether they think it right.
 */
export function* byThumb(setup: RearSetup, rule: Thumb): Hands {
  const g = geometryOf(setup)
  const last = g.n - 1
  const state = { barrel: setup.barrelTurnsOut, skips: new Array<number>(g.n).fill(0), lever: 0, cassette: false }

  function* seeStop(at: 'L' | 'H'): Generator<Move, void, BenchEvent> {
    for (let tries = 0; tries < 4; tries++) {
      const seen = (yield { do: 'sight', at }) as Extract<BenchEvent, { kind: 'sight' }>
      const safe = safeStopMm(g, at)
      const place = seen.offsetMm + (at === 'L' ? g.placeMm[last] : 0)
      if (place >= safe.from && place <= safe.to) return
      const off = place - (safe.from + safe.to) / 2
      const turns = Math.round((at === 'H' ? -off : off) * 8) / 8
      if (turns === 0) return
      yield { do: 'turn', screw: at, turns }
    }
  }
  function* turn(turns: number): Generator<Move, boolean, BenchEvent> {
    const to = state.barrel + turns
    if (to < 0 || to > setup.barrelTurnsRange) {
      yield { do: 'reclamp', barrelTurnsOut: 2 }
      state.barrel = 2
      state.lever = 0
      return false
    }
    yield { do: 'turn', screw: 'barrel', turns }
    state.barrel = to
    return true
  }
  function* listen(to: number): Generator<Move, 'clean' | 'out' | 'in' | 'worn', BenchEvent> {
    for (let tries = 0; ; tries++) {
      const inward = to > state.lever || (to === state.lever && to !== 0 && wasInward)
      const { heard } = (yield { do: 'shift', to }) as Extract<BenchEvent, { kind: 'shift' }>
      wasInward = inward
      state.lever = to
      if (heard === 'clean') return 'clean'
      if (heard === 'skips') {
        if (++state.skips[to] >= 2 && !state.cassette) return 'worn'
        continue
      }
      if (tries === 0) continue // once more before anything is turned
      const tooSlack = inward ? heard !== 'jumps' && heard !== 'rubs-in' : heard === 'jumps' || heard === 'rubs-out'
      return heard === 'off' ? 'clean' : tooSlack ? 'out' : 'in'
    }
  }
  let wasInward = true

  function* edges(): Generator<Move, void, BenchEvent> {
    if (rule.edge === 'none') return
    const click = Math.floor(last / 2)
    const out = (yield { do: 'edge', click, way: 'out' }) as Extract<BenchEvent, { kind: 'edge' }>
    state.barrel += out.turns
    state.lever = click
    if (rule.edge === 'back-a-quarter') return void (yield* turn(-0.25))
    const back = (yield { do: 'edge', click, way: 'in' }) as Extract<BenchEvent, { kind: 'edge' }>
    state.barrel += back.turns
    const half = Math.round((-back.turns / 2) * 8) / 8
    if (half > 0) yield* turn(half)
  }

  /** Indexes until a whole pass is clean, or the turns are used up. */
  function* index(): Generator<Move, 'right' | 'used up' | 'worn', BenchEvent> {
    yield* edges()
    let turns = 0
    let reversals = 0
    let before: 'out' | 'in' | null = null
    for (;;) {
      let wrong: 'out' | 'in' | null = null
      const stops: number[] = []
      for (let k = rule.clicks; k < last; k += rule.clicks) stops.push(k)
      stops.push(last)
      for (const to of [...stops, ...[...stops].reverse().slice(1), 0]) {
        const found = yield* listen(to)
        if (found === 'worn') return 'worn'
        if (found === 'clean') continue
        wrong = found
        break
      }
      if (!wrong) return 'right'
      if (before && wrong !== before) reversals++
      if (reversals >= 4 || ++turns > 14) return 'used up'
      before = wrong
      yield* turn((wrong === 'out' ? 1 : -1) * (reversals >= 2 ? Math.min(rule.stepTurns, 1 / 8) : rule.stepTurns))
    }
  }

  yield* seeStop('L')
  yield* seeStop('H')
  for (let gauged = false, cable = false; ;) {
    const ended = yield* index()
    if (ended === 'right') return true
    if (ended === 'worn') {
      yield { do: 'replace', part: 'cassette', cause: 'wear' }
      state.cassette = true
      state.lever = 0
      yield* seeStop('L')
      yield* seeStop('H')
    } else if (!gauged) {
      gauged = true
      const { camberDeg } = (yield { do: 'hanger' }) as Extract<BenchEvent, { kind: 'hanger' }>
      if (Math.abs(camberDeg) <= camberTolerance(g.n)) continue
      yield { do: 'replace', part: 'hanger', cause: 'hanger' }
      state.lever = 0
      yield* seeStop('L')
      yield* seeStop('H')
    } else if (!cable) {
      cable = true
      yield { do: 'replace', part: 'cable', cause: 'friction' }
      state.lever = 0
    } else return false
  }
}
