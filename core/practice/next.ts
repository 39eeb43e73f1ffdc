import { randomFrom } from '../quantity/random'
import type { PracticeAsked } from './asked'
import { MOST_NUMBER, PRACTICE_BENCHES, type PracticeBench } from './levels'
import { faultsMet, type PracticeResult } from './results'
import { faultsOf } from './run'

/** Bikes looked at for the one where most is to be learnt. */
const CANDIDATES = 40
const DAY_MS = 86_400_000
/** What was found lately is asked again after so many days for each time it was found running. `model` */
const SPACED_DAYS = 2

/**
 * What to practise next: of some bikes the one whose fault was missed most, or not met, or is due again; never met
 * counts as half missed. The same results on the same day give the same bike.
 */
export async function practiseNext(
  results: readonly PracticeResult[],
  bench: PracticeBench,
  now: Date,
): Promise<PracticeAsked> {
  const random = randomFrom(results.length, 1719, PRACTICE_BENCHES.indexOf(bench), Math.floor(now.getTime() / DAY_MS))
  const met = faultsMet(results.filter(r => r.bench === bench))
  const worth = (fault: string): number => {
    const m = met.find(x => x.fault === fault)
    if (!m) return 0.5
    const missed = (m.met - m.found + 0.5) / (m.met + 1)
    const days = (now.getTime() - Date.parse(m.last)) / DAY_MS
    return missed * Math.min(1, 0.2 + days / (SPACED_DAYS * (1 + m.found)))
  }
  const level =
    results.filter(r => r.bench === bench && r.won).length < 3 ? 'one' : random.next() < 0.5 ? 'alike' : 'two'
  const bikes = Array.from({ length: CANDIDATES }, (): PracticeAsked => ({
    bench,
    level,
    bike: 1 + random.below(MOST_NUMBER),
  }))
  const worthOf = new Map<string, number>()
  let best = bikes[0]!
  let most = -1
  for (const asked of bikes) {
    const faults = await faultsOf(asked)
    const key = faults.join()
    const value = worthOf.get(key) ?? faults.reduce((s, f) => s + worth(f), 0) / Math.max(1, faults.length)
    worthOf.set(key, value)
    if (value > most) [best, most] = [asked, value]
  }
  return best
}
