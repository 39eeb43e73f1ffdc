import { consider, type AdviseOptions } from '../advice/advise'
import type { AdviceOrder } from '../advice/contract'
import { simulatedBench, type HiddenBike } from '../bench/bench'
import { AS_MODELLED } from '../bench/physics'
import { adviceStrategy, play } from '../bench/play'
import { truthOf } from '../bench/truth'
import { backlashOfRun, oneBendLess } from '../cable/backlash'
import type { Run } from '../cable/run'
import { templateRun } from '../cable/templates'
import { systematic } from '../inference/sampling'
import { randomFrom } from '../quantity/random'
import type { BenchEvent, Part } from '../rear/benchEvents'
import { startOf, step } from '../rear/trace'
import { CAUSES } from '../response/causes'
import { geometryOf, type RearSetup } from '../response/setup'
import type { RearBike } from './rearBike'
import type { ByHand, Expected, WhatIf } from './whatIfs'

/** What is known of a bike on the stand: as the advice is asked, with its rear run where one was laid out. */
export type Believed = {
  setup: RearSetup
  log: readonly BenchEvent[]
  options: AdviseOptions
  run: Run | null
}

const RENEWS: Partial<Record<WhatIf, Part>> = { cable: 'cable', bend: 'cable', hanger: 'hanger' }
const ORDERS: Partial<Record<WhatIf, AdviceOrder>> = { climbThenL: 'climbThenL', tensionFirst: 'tensionFirst' }

/** Bikes that the one on the stand may be, by how likely each is; worn sprockets as likely as they are believed. */
export function believedBikes({ setup, log, options }: Believed, count: number, seed: number): HiddenBike[] {
  const { posterior, analysis } = consider(setup, log, options)
  const random = randomFrom(seed, 1731)
  return [...systematic(posterior.weights, count, random.next())].flatMap((times, i) =>
    Array.from({ length: times }, (): HiddenBike => {
      const worn = new Set<number>()
      analysis.wear.of.forEach((chance, k) => {
        if (random.next() < chance) worn.add(k)
      })
      return { ...posterior.belief(i), worn }
    }),
  )
}

/**
 * What is left of a run's backlash when its widest bend is laid straight, a share; by the capstan equation along the
 * run.
 */
export function withOneBendLess(run: Run): number {
  const less = oneBendLess(run)
  // the ratio cancels
  return less ? backlashOfRun(less.run, 1) / backlashOfRun(run, 1) : 1
}

/** Bike and log once what was to be tried is done, and whether that took a part. */
function begun({ setup, log, run }: Believed, hidden: HiddenBike, what: WhatIf, seed: number) {
  const part = RENEWS[what]
  if (part === undefined) return { hidden, log, parts: 0 }
  const bench = simulatedBench(setup, hidden, seed, AS_MODELLED, log)
  bench.perform({ do: 'replace', part, cause: 'friction' })
  const left = what === 'bend' ? withOneBendLess(run ?? templateRun('external', 'rear')) : 1
  const { backlashInMm, backlashOutMm } = bench.hidden
  const laid = { ...bench.hidden, backlashInMm: backlashInMm * left, backlashOutMm: backlashOutMm * left }
  return { hidden: laid, log: bench.log, parts: 1 }
}

/**
 * What is to be expected of a bike on the stand if something is done first, or another way: played on from where it
 * stands on bikes that the belief holds it to be, each heard with the usual share of wrong reports. Nothing is written
 * anywhere.
 * @param count how many bikes are played
 */
export function expectedOf(believed: Believed, what: WhatIf, count: number, seed = 1): Expected {
  const { setup, options } = believed
  const sum: Expected = { of: 0, right: 0, touches: 0, thrown: 0, parts: 0 }
  believedBikes(believed, count, seed).forEach((hidden, i) => {
    const from = begun(believed, hidden, what, seed + i)
    const { prior, ...advice } = options
    const played = play(seed + 101 * (i + 1), adviceStrategy, AS_MODELLED, {
      bike: { setup, hidden: from.hidden, before: from.log },
      prior,
      advice: { ...advice, order: ORDERS[what] ?? options.order },
      atEnd: end => {
        sum.parts += end.log.slice(from.log.length).filter(e => e.kind === 'replace').length
      },
    })
    sum.of++
    sum.right += played.right ? 1 : 0
    sum.touches += played.touches + from.parts
    sum.thrown += played.thrown.largest + played.thrown.smallest
    sum.parts += from.parts
  })
  const n = Math.max(1, sum.of)
  return { of: sum.of, right: sum.right / n, touches: sum.touches / n, thrown: sum.thrown / n, parts: sum.parts / n }
}

/** The pulley of a bike that is drawn stands well clear: the gap is not what is tried. Invented for Practice. */
const CLEAR_GAP_MM = 6

/**
 * One of the bikes that the one on the stand may be, to be worked on by hand: as it stands now, what is to be tried
 * done, the lever at its slackest click. What is wrong with it is judged as of any practice bike.
 */
export function bikeToWorkOn(believed: Believed, what: ByHand, seed: number): RearBike {
  const [drawn] = believedBikes(believed, 1, seed)
  const { hidden, log } = begun(believed, drawn!, what, seed)
  const now = log.reduce((t, e) => step(t, e, believed.setup), startOf(believed.setup))
  const setup = { ...believed.setup, barrelTurnsOut: now.barrelTurns }
  const { causes } = truthOf(geometryOf(setup), setup, hidden, AS_MODELLED)
  return { setup, hidden, faults: CAUSES.filter(c => causes[c]), gapMm: CLEAR_GAP_MM }
}
