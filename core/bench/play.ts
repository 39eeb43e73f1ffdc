import { PASS_CLICK } from '../advice/checks'
import { costOf, PATIENCE, type BenchEvent } from '../rear/benchEvents'
import { CAUSES, type Cause } from '../response/causes'
import { advise } from '../advice/advise'
import type { Advice, AdviceOptions, Move } from '../advice/contract'
import { asSensed } from '../advice/asSensed'
import type { Senses } from '../advice/learnt'
import type { KnownPrior } from '../advice/prior'
import { geometryOf, type RearSetup } from '../response/setup'
import { seededBike, simulatedBench, type HiddenBike, type Population, type SimulatedBench, passClicks } from './bench'
import type { Physics } from './physics'
import { byThumb, type Thumb } from './thumb'
import { needless, truthOf } from './truth'

/** What came of one bike under one strategy. */
export type Played = {
  seed: number
  won: boolean
  saidDone: boolean
  right: boolean
  cost: number
  /** Touches of the mechanic: one a move, two for a pass that ends early. */
  touches: number
  needless: number
  thrown: { largest: number; smallest: number }
  /** Barrel turns after which the bike was further from its window. */
  worse: number
  /** Chance of right as stated when it said done; null for a rule of thumb. */
  stated: number | null
  /** Every call's stated chances with what was true then, for calibration. */
  calls: { right: [number, boolean]; causes: Record<Cause, [number, boolean]> }[]
}

export type Strategy = { id: string; is: 'advice' } | { id: string; is: 'thumb'; rule: Thumb }
export const adviceStrategy: Strategy = { id: 'Ocho', is: 'advice' }

/** A stop both wound out by a turn and a half more: the bench on which the cautions matter most. */
export const woundOut = (bike: HiddenBike): HiddenBike => ({
  ...bike,
  stopHMm: bike.stopHMm - 1.5,
  stopLMm: bike.stopLMm + 1.5,
})

export type PlayOptions = {
  woundOut?: boolean
  calibrate?: boolean
  passes?: boolean
  /** Whose bikes it is one of; default: the usual ones. */
  population?: Population
  /**
   * The bike itself, as it stands after what was done before, in place of the seed’s own; `seed` is then for what is
   * heard.
   */
  bike?: { setup: RearSetup; hidden: HiddenBike; before: readonly BenchEvent[] }
  /** How far a turn of its barrel truly goes, mm, where that is not what the advice takes it for. */
  truePitchMm?: number
  /** What the advice starts from, and the ear it takes the reports by; default: nothing known. */
  prior?: KnownPrior
  senses?: Pick<Senses, 'wrongReports'>
  /** How the advice is asked besides; default: as usual. */
  advice?: AdviceOptions
  /** Told the bench at the end, with the belief it ended in. */
  atEnd?: (bench: SimulatedBench, asked: { log: readonly BenchEvent[]; prior: KnownPrior | undefined }) => void
}

/** Plays one seeded bike to the end: "done", given up, or patience spent. */
export function play(seed: number, strategy: Strategy, physics: Physics, options: PlayOptions = {}): Played {
  const { setup, hidden, before } = options.bike ?? { ...seededBike(seed, options.population), before: [] }
  const bike = { ...setup, barrelPitchMm: options.truePitchMm ?? setup.barrelPitchMm }
  const bench = simulatedBench(bike, options.woundOut ? woundOut(hidden) : hidden, seed, physics, before)
  const g = geometryOf(setup)
  const out: Played = {
    seed,
    won: false,
    saidDone: false,
    right: false,
    cost: 0,
    touches: 0,
    needless: 0,
    thrown: { largest: 0, smallest: 0 },
    worse: 0,
    stated: null,
    calls: [],
  }
  const asReported = () =>
    asSensed(
      bench.log,
      bench.log.map(() => 'hands'),
      'hands',
      options.senses ?? null,
    )
  const perform = (move: Move): BenchEvent => {
    out.touches++
    if (move.do === 'pass') {
      const heard = passClicks(bench, move)
      const last = heard.at(-1)!
      if (last.kind === 'shift' && last.heard !== 'clean') out.touches++
      if (last.kind === 'shift' && last.heard === 'off') out.thrown[last.to === 0 ? 'smallest' : 'largest']++
      out.cost += 1 + PASS_CLICK * (heard.length - 1)
      return last
    }
    if (move.do === 'replace' && needless(g, setup, bench.hidden, move.part, physics)) out.needless++
    const before = move.do === 'turn' && move.screw === 'barrel' ? farFromMiddle(bench.hidden) : null
    const event = bench.perform(move)!
    if (before !== null && farFromMiddle(bench.hidden) > before + 1e-9) out.worse++
    if (event.kind === 'shift' && event.heard === 'off') out.thrown[event.to === 0 ? 'smallest' : 'largest']++
    out.cost += costOf(event)
    return event
  }
  const farFromMiddle = (bike: HiddenBike): number =>
    Math.abs(bike.ratio * (bike.cableMm + g.cableMm[g.n - 1] / 2) - g.placeMm[g.n - 1] / 2)

  if (strategy.is === 'advice') {
    while (out.cost < PATIENCE) {
      const how = { ...options.advice, passes: options.passes ?? options.advice?.passes, prior: options.prior }
      const advice: Advice = advise(setup, asReported(), how)
      if (options.calibrate) {
        const truth = truthOf(g, setup, bench.hidden, physics)
        out.calls.push({
          right: [advice.right, bench.isRight()],
          causes: Object.fromEntries(CAUSES.map(c => [c, [advice.causes[c], truth.causes[c]]])) as Record<
            Cause,
            [number, boolean]
          >,
        })
      }
      if (advice.move.do === 'done') {
        out.saidDone = advice.right >= 0.5
        out.stated = advice.right
        out.touches++
        break
      }
      perform(advice.move)
    }
  } else {
    const hands = byThumb(setup, strategy.rule)
    let next = hands.next()
    while (!next.done && out.cost < PATIENCE) next = hands.next(perform(next.value))
    out.saidDone = next.done === true && next.value
  }
  options.atEnd?.(bench, { log: asReported(), prior: options.prior })
  out.right = bench.isRight()
  out.won = out.saidDone && out.right && !bench.chainOff() && out.needless === 0
  return out
}
