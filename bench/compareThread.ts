import { seededBike } from '#core/bench/bench'
import { AS_MODELLED } from '#core/bench/physics'
import { adviceStrategy, play, type Played } from '#core/bench/play'
import { randomFrom } from '#core/quantity/random'
import { THREAD_TURNS } from '#core/rear/typedParts'
import { FEWEST_BIKES } from '#core/records/question'
import { threadHere } from '#core/records/threads'
import { percent, sum } from './figures'

/** A barrel that goes further in a turn than the usual one, mm: M6 in place of M5. `std` ISO 261, recalled */
const COARSE_MM = 1
/** A hand's caliper on a sleeve of four turns, mm. Ours: two readings apart by a tenth are common. */
const CALIPER_SD_MM = 0.1

/** One bike whose barrel is coarse: taken for a usual one, and as the shop's first five measured such bikes say. */
export type ThreadScore = { usual: Played; learnt: Played; learntMm: number | null }

/** Plays it both ways. `seed` is also for what five hands measured before. */
function scoreThread(seed: number): ThreadScore {
  const random = randomFrom(seed, 1617)
  const measured = Array.from(
    { length: FEWEST_BIKES },
    () => COARSE_MM + (CALIPER_SD_MM * random.normal()) / THREAD_TURNS,
  ).sort((a, b) => a - b)
  // of five the quartiles are the second, the third and the fourth
  const [least, quarter, median, threeQuarters, most] = measured as [number, number, number, number, number]
  const learntMm = threadHere({ bikes: measured.length, least, quarter, median, threeQuarters, most })
  const { setup, hidden } = seededBike(seed)
  const by = (turnMm: number) =>
    play(seed, adviceStrategy, AS_MODELLED, {
      passes: true,
      truePitchMm: COARSE_MM,
      bike: { setup: { ...setup, barrelPitchMm: turnMm }, hidden, before: [] },
    })
  return { usual: by(setup.barrelPitchMm), learnt: by(learntMm ?? setup.barrelPitchMm), learntMm }
}

/** Bikes with a coarse barrel, one after the other, by their seeds. */
export function threadPart(seeds: readonly number[]): void {
  for (const seed of seeds) console.log(JSON.stringify(scoreThread(seed)))
}

/** What it is worth to know a barrel's thread from five closed jobs. */
export function reportThread(scores: readonly ThreadScore[], first: number): void {
  const n = scores.length
  const learnt = sum(scores, s => s.learntMm !== null)
  console.log(
    `\nThread: ${n} bikes from seed ${first} whose barrel goes 1 mm a turn in place of 0.8, with passes, the same bikes in both rows; five measured bikes told it ${learnt} times.`,
  )
  console.table(
    (['usual', 'learnt'] as const).map(row => {
      const all = scores.map(s => s[row])
      const off = scores.map(s => s.usual.touches - s[row].touches)
      const mean = sum(off, v => v) / n
      const sd = Math.sqrt(sum(off, v => (v - mean) ** 2) / Math.max(1, n - 1))
      return {
        thread: row === 'usual' ? 'taken for the usual' : 'learnt from five',
        won: percent(
          sum(all, p => p.won),
          n,
        ),
        touches: (sum(all, p => p.touches) / n).toFixed(1),
        cost: (sum(all, p => p.cost) / n).toFixed(1),
        'needless per 100': ((100 * sum(all, p => p.needless)) / n).toFixed(1),
        'touches fewer': `${mean.toFixed(1)} ± ${(sd / Math.sqrt(n)).toFixed(1)}`,
      }
    }),
  )
}
