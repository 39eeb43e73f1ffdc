import type { PracticeAsked } from './asked'
import { lessonOf } from './lessons'
import { rearBike, type RearBike } from './rearBike'

/** The rear bike that is asked for. */
export const askedRear = ({ bike, level, lesson }: PracticeAsked): RearBike =>
  rearBike(bike, level, lessonOf(lesson)?.rear)
