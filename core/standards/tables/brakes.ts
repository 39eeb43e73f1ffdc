import type { Entry } from '../entry'

/** Levers by pull class and the brakes they must match. All `memory`. */
export const BRAKE_ENTRIES: readonly Entry[] = [
  {
    kind: 'lever',
    id: 'short',
    title: 'Short pull',
    figures: [
      { key: 'pullMm', value: [13, 16], provenance: 'memory' },
      { key: 'gain', value: 4, provenance: 'memory' },
    ],
  },
  {
    kind: 'lever',
    id: 'short-late',
    title: 'Short pull, later: a tenth more',
    figures: [{ key: 'pullMm', value: [14.3, 17.6], provenance: 'memory', source: 'short pull + 10 %' }],
  },
  {
    kind: 'lever',
    id: 'long',
    title: 'Long pull',
    figures: [
      { key: 'pullMm', value: [24, 30], provenance: 'memory' },
      { key: 'gain', value: 2.2, provenance: 'memory' },
    ],
  },
  {
    kind: 'brake',
    id: 'linear-pull',
    title: 'Linear-pull, for long levers',
    figures: [
      { key: 'armRatio', value: 3.6, provenance: 'memory' },
      {
        key: 'gapMm',
        value: [0.7, 1.4],
        provenance: 'memory',
        source: '5 to 10 mm of cable let out after the pads touch',
      },
    ],
  },
  {
    kind: 'brake',
    id: 'dual-pivot',
    title: 'Dual-pivot, for short levers',
    figures: [
      { key: 'armRatio', value: 1.35, provenance: 'memory' },
      { key: 'gapMm', value: [1, 1.5], provenance: 'memory' },
    ],
  },
  {
    kind: 'brake',
    id: 'cantilever',
    title: 'Cantilever with straddle, for short levers',
    figures: [
      { key: 'armRatio', value: 1.4, provenance: 'memory', source: 'changes with its straddle' },
      { key: 'straddleDeg', value: 90, provenance: 'memory' },
      { key: 'yokeMm', value: [20, 40], provenance: 'memory' },
    ],
  },
  {
    kind: 'brake',
    id: 'cable-disc',
    title: 'Cable disc',
    figures: [
      { key: 'gapMm', value: [0.2, 0.4], provenance: 'memory' },
      { key: 'rotorMm', value: [1.5, 1.8], provenance: 'memory' },
      { key: 'padMm', value: [0.5, 1], provenance: 'memory' },
    ],
  },
]
