import type { Run } from './run'

/** Pieces of housing on a run as the records know them, lever first. */
export const HOUSING_PLACES = ['lever loop', 'along the frame', 'last loop', 'full length'] as const
export type HousingPlace = (typeof HOUSING_PLACES)[number]

/** What templates and hands call the same places. `practice` */
const NAMED: Readonly<Record<string, HousingPlace>> = {
  'whole length': 'full length',
  'lever to brake': 'full length',
  'bar to headset': 'lever loop',
  'to the brake': 'last loop',
  'to the hub': 'last loop',
}

/**
 * Under which place each housing of a run is recorded: by its name, or, where somebody called it their own way, by how
 * it lies from the lever. Two in one place are one figure too many: only the first is kept.
 * @returns piece's name and its place, lever first
 */
export function placesOf(run: Pick<Run, 'pieces'>): { piece: string; place: HousingPlace; lengthMm: number }[] {
  const housing = run.pieces.filter(p => p.kind === 'housing')
  const taken = new Set<HousingPlace>()
  return housing.flatMap(({ name, lengthMm }, i) => {
    const lies =
      housing.length === 1
        ? 'full length'
        : i === 0
          ? 'lever loop'
          : i === housing.length - 1
            ? 'last loop'
            : 'along the frame'
    const place = HOUSING_PLACES.find(p => p === name) ?? NAMED[name] ?? lies
    if (taken.has(place)) return []
    taken.add(place)
    return [{ piece: name, place, lengthMm }]
  })
}
