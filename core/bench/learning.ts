import { consider } from '../advice/advise'
import { keptBelief } from '../advice/know'
import type { Learnt, Senses } from '../advice/learnt'
import type { Habit } from '../habits/habit'
import { learntFor } from '../habits/learn'
import { sensedBy, sensesFrom, type Sensed } from '../habits/senses'
import { stopTold } from '../habits/stopTold'
import { randomFrom } from '../quantity/random'
import { toSixteenths } from '../quantity/turns'
import { curesOf } from '../rear/faultsFound'
import type { BenchEvent, Part } from '../rear/benchEvents'
import { CAUSES } from '../response/causes'
import { USUAL_POPULATION, type Population, type SimulatedBench } from './bench'
import { AS_MODELLED, UNLIKE, type Physics } from './physics'
import { adviceStrategy, play, type Played } from './play'

/**
 * Shops with habits that nobody told the advice: how often their bikes have each fault, how far their stop screws go,
 * and how the one who works there hears and sees; and on two shops of three a physics that is not the advice's.
 */
export type HiddenShop = { population: Population; physics: Physics }

const PHYSICS = [AS_MODELLED, UNLIKE.thresholds, UNLIKE.friction] as const
/** A habit makes a fault several times as likely, or hardly ever met; half of a shop's are as usual. */
export function hiddenShop(seed: number): HiddenShop {
  const random = randomFrom(seed, 1616)
  const between = (from: number, to: number) => from + (to - from) * random.next()
  const often = (usual: number) => usual * (random.next() < 0.5 ? 1 : random.next() < 0.6 ? between(2.2, 3.2) : 0.25)
  const stop = between(0.75, 1.3)
  return {
    population: {
      mismatch: often(0.05),
      friction: often(0.2),
      hanger: often(0.15),
      stops: often(0.15),
      wear: often(0.08),
      mmPerTurn: { from: stop - 0.12, to: stop + 0.12 },
    },
    physics: {
      ...PHYSICS[seed % PHYSICS.length]!,
      wrongReports: between(0.01, 0.2),
      eye: between(0.8, 1.9),
    },
  }
}

/** What a job of the bench leaves behind, as the server would keep it. */
type Kept = { habit: Habit; sensed: Sensed | null; played: Played }

const HANDS = 'hands'

function keptOf(bench: SimulatedBench, log: readonly BenchEvent[]): Omit<Kept, 'played'> {
  const { posterior, analysis } = consider(bench.setup, log)
  const belief = keptBelief(posterior, analysis)
  const cured = curesOf(workOf(log))
  const firstTurn = log.findIndex(e => e.kind === 'turn' && e.screw === 'barrel')
  const asFound = firstTurn > 0 ? consider(bench.setup, log.slice(0, firstTurn)) : null
  return {
    habit: {
      frame: null,
      cableDays: null,
      back: false,
      found: CAUSES.filter(c => cured.has(c)),
      frictionMm: asFound && Math.exp(keptBelief(asFound.posterior, asFound.analysis).lnBacklash!.mean),
      stop: stopTold([belief.mmPerTurnH, belief.mmPerTurnL]),
    },
    sensed:
      sensedBy(
        posterior,
        log.map(() => HANDS),
      ).get(HANDS) ?? null,
  }
}

/** Net turns and renewed parts of a log, as a job's state counts them. */
function workOf(log: readonly BenchEvent[]) {
  const net = { barrel: 0, H: 0, L: 0 }
  const renewed: Part[] = []
  const clamps: BenchEvent[] = []
  for (const e of log) {
    if (e.kind === 'turn') net[e.screw] += toSixteenths(e.turns)
    if (e.kind === 'edge') net.barrel += toSixteenths(e.turns)
    if (e.kind === 'reclamp') clamps.push(e)
    if (e.kind === 'replace') renewed.push(e.part)
    const afresh = e.kind === 'reclamp' || (e.kind === 'replace' && (e.part === 'cable' || e.part === 'shifter'))
    if (afresh) net.barrel = 0
    if (e.kind === 'replace' && e.part === 'derailleur') net.barrel = net.H = net.L = 0
  }
  return { net, renewed, clamps, bends: [] }
}

/** One of a shop's bikes by the usual advice, and what its job leaves. */
function jobOf(shop: HiddenShop, seed: number): Kept {
  let kept: Omit<Kept, 'played'> | undefined
  const played = play(seed, adviceStrategy, shop.physics, {
    population: shop.population,
    atEnd: (bench, { log }) => {
      kept = keptOf(bench, log)
    },
  })
  return { ...kept!, played }
}

export const LEARNT_AFTER = [10, 50] as const
/** Bikes of a shop that no lesson came from. */
export const HELD_OUT = 20

/** By the usual advice, by what was learnt from so many jobs, and told the true habits: what there is to learn. */
export const LEARNING_ROWS = ['cold', ...LEARNT_AFTER, 'told'] as const
export type LearningScore = Record<
  (typeof LEARNING_ROWS)[number],
  Pick<Played, 'won' | 'touches' | 'cost' | 'needless'>[]
>

const oddsOf = (share: number): number => share / (1 - share)

/** A hidden shop's habits as they are, in the terms of what is learnt. */
function habitsOf({ population, physics }: HiddenShop) {
  const odds = Object.fromEntries(
    (['mismatch', 'friction', 'hanger', 'wear'] as const).map(cause => [
      cause,
      oddsOf(population[cause]) / oddsOf(USUAL_POPULATION[cause]),
    ]),
  )
  const stop = (population.mmPerTurn.from + population.mmPerTurn.to) / 2
  return {
    learnt: { jobs: Infinity, odds, usual: { mmPerTurnH: stop, mmPerTurnL: stop } },
    senses: { wrongReports: physics.wrongReports },
  }
}

/** Held-out bikes of one hidden shop, by the usual advice and by what it learnt from so many of its own jobs. */
export function scoreLearning(shopSeed: number, heldOut = HELD_OUT): LearningScore {
  const shop = hiddenShop(shopSeed)
  const most = Math.max(...LEARNT_AFTER)
  const jobs = Array.from({ length: most }, (_, i) => jobOf(shop, 1000 * shopSeed + i))
  const bikes = Array.from({ length: heldOut }, (_, i) => 1000 * shopSeed + most + i)
  const run = (learnt: Learnt | null, senses: Pick<Senses, 'wrongReports'> | null) =>
    bikes.map(seed => {
      const { won, touches, cost, needless } = play(seed, adviceStrategy, shop.physics, {
        population: shop.population,
        ...(learnt && { prior: { odds: learnt.odds, usual: learnt.usual } }),
        ...(senses && { senses }),
      })
      return { won, touches, cost, needless }
    })
  const after = (n: number) => {
    const seen = jobs.slice(0, n)
    return run(
      learntFor(
        seen.map(j => j.habit),
        { frame: null, cableDays: null, back: false },
      ),
      sensesFrom(seen.flatMap(j => j.sensed ?? [])),
    )
  }
  const { learnt, senses } = habitsOf(shop)
  return { cold: run(null, null), 10: after(10), 50: after(50), told: run(learnt, senses) }
}
