/** Pieces of housing on a rear run as the records know them, lever first. */
export const HOUSING_PLACES = ['lever loop', 'along the frame', 'last loop', 'full length'] as const
export type HousingPlace = (typeof HOUSING_PLACES)[number]

/** What templates call a run in one piece. */
const WHOLE = 'whole length'

/** Under which place a run's piece is recorded, by its name; undefined where the records know none. */
export const placeOfPiece = (name: string): HousingPlace | undefined =>
  HOUSING_PLACES.find(h => h === name || (h === 'full length' && name === WHOLE))
