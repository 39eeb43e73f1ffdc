import { CHAIN_PITCH_MM, ROLLER_MM } from '../../rear/gap'
import { chainWearLimitPercent } from '../../rear/chain'
import type { Entry } from '../entry'

const ISO = 'ISO 606 / ISO 9633, recalled'

/** Outer width of a chain by speeds, mm. `memory` */
export const CHAIN_OUTER_MM: readonly { speeds: readonly number[]; outerMm: number }[] = [
  { speeds: [6, 7, 8], outerMm: 7.1 },
  { speeds: [9], outerMm: 6.6 },
  { speeds: [10], outerMm: 5.9 },
  { speeds: [11], outerMm: 5.5 },
  { speeds: [12], outerMm: 5.25 },
]

/** The outer width that goes with so many sprockets, mm; null outside the table. */
export const chainOuterMm = (speeds: number): number | null =>
  CHAIN_OUTER_MM.find(c => c.speeds.includes(speeds))?.outerMm ?? null

export const CHAIN_ENTRIES: readonly Entry[] = [
  ...CHAIN_OUTER_MM.map(({ speeds, outerMm }): Entry => ({
    kind: 'chain',
    id: `chain-${speeds.at(-1)}`,
    title: speeds.length > 1 ? `${speeds[0]} to ${speeds.at(-1)} speeds` : `${speeds[0]} speeds`,
    figures: [
      { key: 'pitchMm', value: CHAIN_PITCH_MM, provenance: 'std', source: ISO },
      { key: 'rollerMm', value: ROLLER_MM, provenance: 'std', source: ISO },
      { key: 'outerMm', value: outerMm, provenance: 'memory' },
      { key: 'innerMm', value: [2.2, 2.4], provenance: 'memory' },
      { key: 'wearPercent', value: chainWearLimitPercent(speeds.at(-1)!), provenance: 'practice' },
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
