import type { Entry, Figure } from '../entry'

const hub = (id: string, title: string, ratios: number[], more: Figure[] = []): Entry => ({
  kind: 'hub',
  id,
  title,
  figures: [
    { key: 'speeds', value: ratios.length, provenance: 'memory' },
    { key: 'ratios', value: ratios, provenance: 'memory' },
    ...more,
  ],
})
const gear = (value: number): Figure => ({ key: 'referenceGear', value, provenance: 'memory' })
const rod = (from: number, to: number): Figure => ({ key: 'rodMm', value: [from, to], provenance: 'practice' })

/** Hub gears by their ratios, slackest cable noted at the bench: it differs by hub. */
export const HUB_ENTRIES: readonly Entry[] = [
  hub(
    'rod-3',
    'Indicator rod, 3-speed',
    [0.75, 1, 1.333],
    [{ key: 'referenceGear', value: 2, provenance: 'practice' }, rod(1, 1)],
  ),
  hub(
    'rod-3b',
    'Indicator rod, 3-speed, other ratios',
    [0.733, 1, 1.364],
    [{ key: 'referenceGear', value: 2, provenance: 'practice' }, rod(1, 1)],
  ),
  hub(
    'rod-3w',
    'Indicator rod, wide 3-speed',
    [0.64, 1, 1.57],
    [{ key: 'referenceGear', value: 2, provenance: 'practice' }, rod(1, 1)],
  ),
  hub(
    'rod-5',
    'Indicator rod, 5-speed',
    [0.667, 0.789, 1, 1.267, 1.5],
    [gear(2), { key: 'rodMm', value: [0, 2.5], provenance: 'memory' }],
  ),
  hub(
    'rod-5w',
    'Indicator rod, wide 5-speed',
    [0.625, 0.75, 1, 1.333, 1.6],
    [gear(2), { key: 'rodMm', value: [0, 2.5], provenance: 'memory' }],
  ),
  hub('marks-7', 'Alignment marks, 7-speed', [0.632, 0.741, 0.843, 0.989, 1.145, 1.335, 1.545], [gear(4)]),
  hub('marks-8', 'Alignment marks, 8-speed', [0.527, 0.644, 0.748, 0.851, 1, 1.223, 1.419, 1.615], [gear(4)]),
  hub(
    'marks-11',
    'Alignment marks, 11-speed',
    [0.527, 0.681, 0.77, 0.878, 0.995, 1.134, 1.292, 1.462, 1.667, 1.888, 2.153],
    [gear(6)],
  ),
  hub(
    'twin-14',
    'Twin cable, 14-speed',
    [0.279, 0.316, 0.36, 0.409, 0.464, 0.528, 0.6, 0.682, 0.774, 0.881, 1, 1.135, 1.292, 1.467],
    [{ key: 'playMm', value: 2, provenance: 'practice' }],
  ),
]
