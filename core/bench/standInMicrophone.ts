import type { Recording } from '../hearing/bands'
import type { HeardAt } from '../hearing/wound'
import { COAST_S } from '../hearing/coasting'
import { coastingSound } from './coastingSounds'
import { otherSound } from './otherSounds'

/** A bike of its own before the stand-in: quiet from 3 eighths in to 2 out, an eighth of slack in its run. */
const QUIET = { from: -3, to: 2, slack: 1 } as const

/** What the stand-in microphone hears with the barrel wound so far: another synthesiser than Practice's, a workshop. */
export function standInSound(
  turning: { ringTeeth: number; sprocketTeeth: number },
  { eighths, way }: Pick<HeardAt, 'eighths' | 'way'>,
): Recording {
  const place = eighths + (way === 'in' ? QUIET.slack : 0)
  // from just before the edge it begins to scrape
  const rub = Math.min(3, Math.max(0, 0.3 + 1.2 * Math.max(QUIET.from - place, place - QUIET.to)))
  return otherSound({ cadenceRpm: 68, ...turning, rub }, { snrDb: 12, seconds: 6 }, 100 + eighths)
}

/** What it hears of a hub in its highest gear, the wheel let go: it ticks, and runs on for 25 s. */
export const standInCoast = (): Recording =>
  coastingSound({ is: 'free', turnsPerS: 1.7, ticksATurn: 18, stopsInS: 25 }, { snrDb: 12, seconds: COAST_S }, 5)
