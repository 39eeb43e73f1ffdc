import type { PracticeAsked } from './asked'
import { lessonOf } from './lessons'
import { rearBike, type RearBike } from './rearBike'

/** The rear bike that is asked for. */
export const askedRear = ({ bike, level, lesson }: PracticeAsked): RearBike =>
  rearBike(bike, level, lessonOf(lesson)?.rear)

/** The seed of what is measured and heard: of the bike, so that all meet the same. */
export const seedOf = ({ bike }: Pick<PracticeAsked, 'bike'>): number => bike
