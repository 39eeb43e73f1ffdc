import { HEARD } from '../response/heard'
import { WORN_SKIPS, WRONG_REPORTS } from '../response/parameters'

/** Belief about worn sprockets: the chance that any is, and each sprocket's own. */
export type Wear = { any: number; of: number[] }

const WRONG = WRONG_REPORTS / (HEARD.length - 2)
/** Skip and no skip, worn over sound: a sound sprocket is said to skip only by mistake. */
const SKIPPED = Math.log(((1 - WRONG_REPORTS) * WORN_SKIPS + WRONG * (1 - WORN_SKIPS)) / WRONG)
const HELD = Math.log(1 - WORN_SKIPS)

/**
 * Sums over every run of one to three neighbouring sprockets (model, section 3). Whether a sprocket skips does not
 * depend on the setting, so wear is apart from everything else that is believed.
 * @param arrivals how often each sprocket skipped and held, smallest first
 * @param wornRate chance that any is worn, before one was heard
 */
export function wearFrom(
  arrivals: readonly { skipped: number; held: number }[],
  wornRate: number,
  renewed = false,
): Wear {
  const n = arrivals.length
  const of = new Array<number>(n).fill(0)
  if (renewed) return { any: 0, of }
  const told = arrivals.map(a => a.skipped * SKIPPED + a.held * HELD)
  const runs: { from: number; to: number; odds: number }[] = []
  for (let length = 1; length <= Math.min(3, n); length++)
    for (let from = 0; from + length <= n; from++) {
      let log = 0
      for (let k = from; k < from + length; k++) log += told[k]
      runs.push({ from, to: from + length, odds: Math.exp(log) })
    }
  const each = wornRate / runs.length
  const total = 1 - wornRate + runs.reduce((sum, r) => sum + each * r.odds, 0)
  let any = 0
  for (const r of runs) {
    const chance = (each * r.odds) / total
    any += chance
    for (let k = r.from; k < r.to; k++) of[k] += chance
  }
  return { any, of }
}
