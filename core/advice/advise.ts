import type { BenchEvent } from '../rear/benchEvents'
import { finite, notNegative } from '../quantity/check'
import { checkSetup, type RearSetup } from '../response/setup'
import { analyse, type Analysis } from './analysis'
import { ADVICE_ORDERS, LISTENINGS, type Advice, type AdviceOptions } from './contract'
import { decide, type Decision } from './decide'
import { effectOf, explain } from './explain'
import { barsBarrel, STOP_TURNING } from './moveWords'
import { posteriorAtStart, type Posterior } from './posterior'
import type { KnownPrior } from './prior'
import type { Placing } from '../rear/asSeen'
import { startOf, step } from '../rear/trace'

export type AdviseOptions = AdviceOptions & {
  /** Same input and seed, same answer. Default 1. */
  seed?: number
  /** What the shop already believes of this bike; default: nothing, as the contract says. */
  prior?: KnownPrior
}

/** The whole answer, of which `advise` is the contract's narrow view. */
export type Consideration = {
  advice: Advice
  effect: string | null
  because: string
  posterior: Posterior
  analysis: Analysis
  decision: Decision
}

/** Beliefs after the latest logs: the next call mostly asks for one event more, or one fewer. */
const KEPT = 24
const kept = new Map<string, Posterior>()

/**
 * What is wrong with a rear derailleur, how sure that is, and the one best next move.
 * Pure in what it answers: the same setup, log and seed give the same advice (beliefs are cached by what led to them).
 * @param setup the drivetrain by its numbers, as the log starts
 * @param log what was done and seen since, oldest first
 * @throws RangeError naming the argument that makes no sense
 */
export function advise(setup: RearSetup, log: readonly BenchEvent[], options: AdviseOptions = {}): Advice {
  return consider(setup, log, options).advice
}

/** As `advise`, with the belief behind it. @throws RangeError naming the argument */
export function consider(setup: RearSetup, log: readonly BenchEvent[], options: AdviseOptions = {}): Consideration {
  const steps = believing(setup, log, options)
  for (;;) {
    const next = steps.next()
    if (next.done) return judged(next.value, log, options)
  }
}

/** As `consider`, pausing after each event, so that a server goes on answering. */
export async function considerInSteps(
  setup: RearSetup,
  log: readonly BenchEvent[],
  options: AdviseOptions,
  pause: () => Promise<void>,
): Promise<Consideration> {
  const steps = believing(setup, log, options)
  for (;;) {
    const next = steps.next()
    if (next.done) return judged(next.value, log, options)
    await pause()
  }
}

/** What was made of the latest belief: advice that is left, or asked by another school, chooses from the same. */
let latest: { posterior: Posterior; analysis: Analysis } | null = null
function analysisOf(posterior: Posterior, log: readonly BenchEvent[]): Analysis {
  if (latest?.posterior !== posterior) {
    const cassetteRenewed = log.some(e => e.kind === 'replace' && e.part === 'cassette')
    latest = { posterior, analysis: analyse(posterior, cassetteRenewed) }
  }
  return latest.analysis
}

function judged(posterior: Posterior, log: readonly BenchEvent[], options: AdviceOptions): Consideration {
  const analysis = analysisOf(posterior, log)
  const decision = decide(posterior, analysis, log, options)
  const { right, causes, offsetMm, windowTurns } = analysis
  const effect = effectOf(posterior, analysis, decision.move)
  const because = explain(posterior, analysis, decision)
  const first = barsBarrel(decision.move) ? STOP_TURNING : effect
  const why = first ? `${first}. ${because}` : because
  return {
    posterior,
    analysis,
    decision,
    effect,
    because,
    advice: { move: decision.move, why, right, causes, offsetMm, windowTurns },
  }
}

/** Follows the log event by event, from the longest part of it that is still known. */
function* believing(setup: RearSetup, log: readonly BenchEvent[], options: AdviseOptions): Generator<void, Posterior> {
  const { seed = 1, prior } = options
  checkSetup(setup)
  checkOptions(options)
  if (!Array.isArray(log)) throw new RangeError('log must be a list of bench events')
  finite('seed', seed)
  // nonsense anywhere is refused before anything is computed
  log.reduce((trace, event) => step(trace, event, setup), startOf(setup))
  let key = JSON.stringify([setup, seed, prior])
  const keys = [key, ...log.map(event => (key = `${key}\n${JSON.stringify(event)}`))]
  let at = keys.length - 1
  while (at >= 0 && !kept.has(keys[at])) at--
  let posterior = at >= 0 ? kept.get(keys[at])! : posteriorAtStart(setup, seed, prior)
  for (let i = Math.max(0, at); i < log.length; i++) {
    posterior = posterior.after(log[i])
    if (i >= log.length - 4) keep(keys[i + 1], posterior)
    yield
  }
  return posterior
}

/** @throws RangeError naming the option that makes no sense */
function checkOptions({ passes, order, placing, listening, startTurnsOut, declined }: AdviceOptions): void {
  if (passes !== undefined && typeof passes !== 'boolean') throw new RangeError('passes must be true or false')
  if (order !== undefined && !ADVICE_ORDERS.includes(order))
    throw new RangeError(`order must be one of ${ADVICE_ORDERS.join(', ')}, it is ${String(order)}`)
  if (listening !== undefined && !LISTENINGS.includes(listening))
    throw new RangeError(`listening must be one of ${LISTENINGS.join(', ')}, it is ${String(listening)}`)
  if (startTurnsOut !== undefined) notNegative('startTurnsOut', startTurnsOut)
  if (declined !== undefined && !(Array.isArray(declined) && declined.every(d => typeof d === 'string')))
    throw new RangeError('declined must be a list of what was left')
  if (placing === undefined) return
  for (const at of ['H', 'L'] as const) {
    const between = (placing as Partial<Placing> | null)?.[at]
    if (!between) throw new RangeError(`placing.${at} must say between which offsets ${at} is to stand`)
    finite(`placing.${at}.from`, between.from)
    finite(`placing.${at}.to`, between.to)
    if (between.from > between.to) throw new RangeError(`placing.${at} must go from the smaller offset to the larger`)
  }
}

function keep(key: string, posterior: Posterior): void {
  kept.delete(key)
  kept.set(key, posterior)
  if (kept.size > KEPT) kept.delete(kept.keys().next().value!)
}

/** Forgets every kept belief: for measuring a cold call. */
export function forgetBeliefs(): void {
  kept.clear()
  latest = null
}
