import { considerInSteps } from './advise'
import { prepareTables } from './hearingTable'
import { pictureOf } from './picture'
import type { BenchEvent } from '../rear/benchEvents'
import type { RearSetup } from '../response/setup'

/** A bench nobody has, with a log short enough to be thought through before the first real one is read. */
const SETUP: RearSetup = {
  teeth: [11, 12, 14, 16, 18, 21, 24, 28, 32],
  pitchMm: new Array<number>(8).fill(4.35),
  pullMm: new Array<number>(8).fill(2.5),
  pullRatio: 1.7,
  barrelPitchMm: 0.8,
  barrelTurnsOut: 2,
  barrelTurnsRange: 6,
}
const LOG: readonly BenchEvent[] = [
  { kind: 'sight', at: 'H', offsetMm: -0.4 },
  { kind: 'shift', from: 0, to: 1, heard: 'rubs-in' },
  { kind: 'turn', screw: 'barrel', turns: 0.25 },
  { kind: 'shift', from: 1, to: 2, heard: 'clean' },
  { kind: 'edge', click: 2, way: 'out', turns: 0.5, found: true },
  { kind: 'sight', at: 'L', offsetMm: 0.2 },
]

/**
 * Makes the tables that every bike asks for and thinks one bench through, so that the browser has compiled what the
 * first real question runs: from a fresh page that comes sooner by a fifth to two fifths (`npm run bench:page rear`).
 * @param pause between the steps; whoever is asked something meanwhile rejects it, which ends the rehearsal
 */
export async function rehearse(pause: () => Promise<void>): Promise<void> {
  prepareTables()
  await pause()
  pictureOf(await considerInSteps(SETUP, LOG, { passes: true }, pause))
}
