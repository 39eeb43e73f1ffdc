import type { PracticeAsked } from './asked'

/** The seed of what is measured and heard: of the bike, so that all meet the same. */
export const seedOf = ({ bike }: Pick<PracticeAsked, 'bike'>): number => bike
