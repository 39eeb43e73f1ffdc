import type { Entry, Figure } from '../entry'

const thread = (diameterMm: number, pitchMm: number, title: string, more: Figure[] = []): Entry => ({
  kind: 'thread',
  id: `m${diameterMm}`,
  title: `M${diameterMm}×${pitchMm.toFixed(1)}${title}`,
  figures: [
    { key: 'diameterMm', value: diameterMm, provenance: 'std', source: 'ISO 261/262, recalled' },
    { key: 'pitchMm', value: pitchMm, provenance: 'std', source: 'ISO 261/262, recalled' },
    ...more,
  ],
})

/** Threads met on adjusters: one turn moves the cable by the pitch. Which adjuster has which is `memory`. */
export const THREAD_ENTRIES: readonly Entry[] = [
  thread(4, 0.7, ', small screws'),
  thread(5, 0.8, ', rear and inline barrels', [
    { key: 'travelTurns', value: [5, 8], provenance: 'memory', source: 'four threads left in' },
  ]),
  thread(6, 1.0, ', some rear barrels, brakes'),
  thread(7, 1.0, ', brake barrels'),
  thread(10, 1.0, ', brake levers'),
]
