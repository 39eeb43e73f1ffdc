import { randomFrom } from '../quantity/random'
import { threadHere } from '../records/threads'
import { FEWEST_BIKES } from '../records/question'
import { THREAD_TURNS } from '../rear/typedParts'
import { seededBike } from './bench'
import { AS_MODELLED } from './physics'
import { adviceStrategy, play, type Played } from './play'

/** A barrel that goes further in a turn than the usual one, mm: M6 in place of M5. `std` ISO 261, recalled */
const COARSE_MM = 1
/** A hand's caliper on a sleeve of four turns, mm. Ours: two readings apart by a tenth are common. */
const CALIPER_SD_MM = 0.1

/** One bike whose barrel is coarse: taken for a usual one, and as the shop's first five measured such bikes say. */
export type ThreadScore = { usual: Played; learnt: Played; learntMm: number | null }

/** Plays it both ways. `seed` is also for what five hands measured before. */
export function scoreThread(seed: number): ThreadScore {
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
