import { CHAIN_PITCH_MM } from '../../quantity/chainPitch'
import { ROLLER_MM } from '../sprockets'
import type { Entry } from '../entry'

const ISO = 'ISO 606 / ISO 9633, recalled'

/**
 * Outer width of a chain by speeds, mm (`memory`), and the elongation at which it is renewed, per cent (`practice`).
 */
const CHAINS: readonly { speeds: readonly number[]; outerMm: number; wearPercent: number }[] = [
  { speeds: [6, 7, 8], outerMm: 7.1, wearPercent: 0.75 },
  { speeds: [9], outerMm: 6.6, wearPercent: 0.75 },
  { speeds: [10], outerMm: 5.9, wearPercent: 0.75 },
  { speeds: [11], outerMm: 5.5, wearPercent: 0.5 },
  { speeds: [12], outerMm: 5.25, wearPercent: 0.5 },
]

/** Row of the chain that goes with so many sprockets; fewer or more than the table knows take its first or last. */
export const chainRow = (speeds: number): string =>
  `chain-${(CHAINS.find(c => speeds <= c.speeds.at(-1)!) ?? CHAINS.at(-1)!).speeds.at(-1)}`

export const CHAIN_ENTRIES: readonly Entry[] = [
  ...CHAINS.map(({ speeds, outerMm, wearPercent }): Entry => ({
    kind: 'chain',
    id: `chain-${speeds.at(-1)}`,
    title: speeds.length > 1 ? `${speeds[0]} to ${speeds.at(-1)} speeds` : `${speeds[0]} speeds`,
    figures: [
      { key: 'pitchMm', value: CHAIN_PITCH_MM, provenance: 'std', source: ISO },
      { key: 'rollerMm', value: ROLLER_MM, provenance: 'std', source: ISO },
      { key: 'outerMm', value: outerMm, provenance: 'memory' },
      { key: 'innerMm', value: [2.2, 2.4], provenance: 'memory' },
      { key: 'wearPercent', value: wearPercent, provenance: 'practice' },
    ],
  })),
  {
    kind: 'chain',
    id: 'chain-hub',
    title: 'Utility hub',
    figures: [
      { key: 'pitchMm', value: CHAIN_PITCH_MM, provenance: 'std', source: ISO },
      { key: 'rollerMm', value: ROLLER_MM, provenance: 'std', source: ISO },
      { key: 'innerMm', value: [3.3, 3.3], provenance: 'memory' },
    ],
  },
]
