import type { Entry } from '../entry'

/**
 * Front shifters and derailleurs by family; families are not interchangeable. All `memory` but the gaps and heights,
 * `practice`.
 */
export const FRONT_ENTRIES: readonly Entry[] = [
  {
    kind: 'front-shifter',
    id: 'f-low',
    title: 'Low-pull family',
    figures: [
      { key: 'ringPullMm', value: [6, 9], provenance: 'memory' },
      { key: 'clicks', value: [3, 4], provenance: 'memory' },
      { key: 'trimMm', value: [1, 1.5], provenance: 'memory' },
    ],
  },
  {
    kind: 'front-shifter',
    id: 'f-high',
    title: 'High-pull family',
    figures: [
      { key: 'ringPullMm', value: [9, 12], provenance: 'memory' },
      { key: 'clicks', value: [3, 4], provenance: 'memory' },
      { key: 'trimMm', value: [1, 1.5], provenance: 'memory' },
    ],
  },
  {
    kind: 'front-derailleur',
    id: 'conventional',
    title: 'Conventional cage',
    figures: [
      { key: 'heightMm', value: [1, 3], provenance: 'practice' },
      { key: 'gapMm', value: [1, 1], provenance: 'practice' },
      { key: 'travelMm', value: [8, 10], provenance: 'memory' },
      { key: 'ringSpacingMm', value: [7, 8.5], provenance: 'memory' },
      { key: 'capacityTeeth', value: [14, 22], provenance: 'memory' },
    ],
  },
  {
    kind: 'front-derailleur',
    id: 'rotating',
    title: 'Rotating cage, no trim needed',
    figures: [
      { key: 'heightMm', value: [1, 3], provenance: 'practice' },
      { key: 'gapMm', value: [1, 1], provenance: 'practice' },
      { key: 'travelMm', value: [8, 10], provenance: 'memory' },
      { key: 'ringSpacingMm', value: [7, 8.5], provenance: 'memory' },
      { key: 'capacityTeeth', value: [14, 22], provenance: 'memory' },
    ],
  },
]
