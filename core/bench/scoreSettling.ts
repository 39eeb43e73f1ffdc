import { hiddenRun, hiddenShop, returned } from './settling'
import { learnSettling, recallAfterDays, settleForecast, usualSettling, type SettleBelief } from '../rear/settle'
import type { Settled } from '../standards/settled'

/**
 * A day ridden out of tune costs one, a day that a bike came before it had to half of that: so a bike is asked back at
 * a third.
 */
const TOO_SOON = 0.5
const LONGEST = 60
export const SHOPS = 200
export const HELD_OUT = 40
const FORTNIGHT = 14

/** First day on which a run has left its window; the longest where it never does. */
function leavesOn(run: ReturnType<typeof hiddenRun>): number {
  for (let day = 1; day < LONGEST; day++) if (run.slackAt(day) > run.marginTurns) return day
  return LONGEST
}
const costOf = (recall: number, leaves: number): number =>
  leaves < recall ? recall - leaves : TOO_SOON * (leaves - recall)

/** `unasked`: the same without what riders say of how much they ride. */
export type SettlingScore = { returns: number; forecast: number; unasked: number; fortnight: number; within: number }

/** Days lost a bike by when it is asked back, on runs the forecast never saw, after so many returns of their shop. */
export function scoreSettling(returns: number, seed: number, shops = SHOPS): SettlingScore {
  const sum = { forecast: 0, unasked: 0, fortnight: 0, within: 0 }
  for (let k = 0; k < shops; k++) {
    const shop = hiddenShop(seed + k)
    const seen: Settled[] = Array.from({ length: returns }, () =>
      returned(shop, hiddenRun(shop), 7 + 21 * shop.random.next()),
    )
    const belief: SettleBelief = learnSettling(usualSettling(), seen)
    const unasked = learnSettling(
      usualSettling(),
      seen.map(r => ({ ...r, riding: null })),
    )
    for (let i = 0; i < HELD_OUT; i++) {
      const run = hiddenRun(shop)
      const leaves = leavesOn(run)
      sum.forecast += costOf(recallAfterDays(run.marginTurns, run, belief), leaves)
      sum.unasked += costOf(recallAfterDays(run.marginTurns, { ...run, riding: null }, unasked), leaves)
      sum.fortnight += costOf(FORTNIGHT, leaves)
      const { fromTurns, toTurns } = settleForecast(run, belief)
      const slack = run.slackAt(17)
      if (slack >= fromTurns && slack <= toTurns) sum.within++
    }
  }
  const n = shops * HELD_OUT
  return {
    returns,
    forecast: sum.forecast / n,
    unasked: sum.unasked / n,
    fortnight: sum.fortnight / n,
    within: sum.within / n,
  }
}
