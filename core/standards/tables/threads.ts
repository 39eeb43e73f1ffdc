import type { Entry, Figure } from '../entry'

/**
 * One turn of an M5 screw, mm: rear, inline and hub barrels. `std` ISO 261/262, recalled; that barrels have it is
 * `memory`
 */
export const M5_PITCH_MM = 0.8
/**
 * One turn of an M7 or M10 barrel at a brake or its lever, mm. `std` ISO 261/262, recalled; that they have it is
 * `memory`
 */
export const M10_PITCH_MM = 1.0

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
  thread(5, M5_PITCH_MM, ', rear and inline barrels', [
    { key: 'travelTurns', value: [5, 8], provenance: 'memory', source: 'four threads left in' },
  ]),
  thread(6, 1.0, ', some rear barrels, brakes'),
  thread(7, M10_PITCH_MM, ', brake barrels'),
  thread(10, M10_PITCH_MM, ', brake levers'),
]
