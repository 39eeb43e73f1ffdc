import { DRIVETRAIN_STANDARDS, fittedRatio } from '../drivetrains'
import type { Entry } from '../entry'
import { M5_PITCH_MM } from './threads'

/** Thickness of a sprocket, mm. `memory` */
export const sprocketThicknessMm = (speeds: number): number => (speeds <= 8 ? 1.8 : speeds === 9 ? 1.75 : 1.6)
/**
 * Clearance between the chain and the next larger sprocket, mm: a bent tooth shows early where it is small. `memory`
 */
const chainClearanceMm = (speeds: number): number => (speeds <= 7 ? 0.55 : speeds === 8 ? 0.35 : 0.2)

const round = (x: number, to = 1000): number => Math.round(x * to) / to

/** The shifters, derailleurs and cassettes of the drivetrain table, each a record of its own. */
export const REAR_ENTRIES: readonly Entry[] = DRIVETRAIN_STANDARDS.flatMap(
  s =>
    [
      {
        kind: 'shifter',
        id: s.id,
        title: `${s.speeds}-speed, ${s.pullMm} mm a click`,
        figures: [
          { key: 'speeds', value: s.speeds, provenance: 'memory' },
          { key: 'pullMm', value: s.pullMm, provenance: 'memory' },
          {
            key: 'cableMm',
            value: round((s.speeds - 1) * s.pullMm, 10),
            provenance: 'memory',
            source: 'clicks × pull',
          },
        ],
      },
      {
        kind: 'derailleur',
        id: s.id,
        title: `Ratio ${s.listedRatio} listed, for ${s.speeds} at ${s.pitchMm} mm`,
        figures: [
          { key: 'listedRatio', value: s.listedRatio, provenance: 'memory', source: 'rounded, as people quote it' },
          { key: 'ratio', value: round(fittedRatio(s)), provenance: 'memory', source: 'pitch ÷ pull of its own trio' },
          { key: 'turnMm', value: M5_PITCH_MM, provenance: 'memory', source: 'M5, as most barrels' },
        ],
      },
      {
        kind: 'cassette',
        id: s.id,
        title: `${s.speeds} sprockets, ${s.pitchMm} mm apart`,
        figures: [
          { key: 'speeds', value: s.speeds, provenance: 'memory' },
          { key: 'pitchMm', value: s.pitchMm, provenance: 'memory' },
          { key: 'thicknessMm', value: sprocketThicknessMm(s.speeds), provenance: 'memory' },
          {
            key: 'stackMm',
            value: round((s.speeds - 1) * s.pitchMm + sprocketThicknessMm(s.speeds), 100),
            provenance: 'memory',
            source: 'gaps × pitch + a thickness',
          },
          { key: 'clearanceMm', value: chainClearanceMm(s.speeds), provenance: 'memory' },
        ],
      },
    ] satisfies Entry[],
)
