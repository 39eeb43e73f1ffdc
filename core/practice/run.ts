import type { PracticeAsked } from './asked'
import { brakeBike, brakeStand } from './brakeStand'
import { frontBike, frontStand } from './frontStand'
import { hubBike, hubStand } from './hubStand'
import { lessonOf } from './lessons'
import { askedRear, seedOf } from './askedRear'
import type { Stand } from './stand'

/** A stand of the asked bench that is no rear, by acts; null for a rear. */
export function standFor(asked: PracticeAsked): ((acts: readonly string[]) => Stand) | null {
  const { bench, bike, level } = asked
  const lesson = lessonOf(asked.lesson)
  const seed = seedOf(asked)
  switch (bench) {
    case 'rear':
      return null
    case 'front': {
      const front = frontBike(bike, level, lesson?.front)
      return acts => frontStand(front, seed, acts)
    }
    case 'brake': {
      const brake = brakeBike(bike, level, lesson?.brake)
      return acts => brakeStand(brake, seed, acts)
    }
    case 'hub': {
      const hub = hubBike(bike, level, lesson?.hub)
      return acts => hubStand(hub, seed, acts)
    }
  }
}

/** What is wrong with the asked bike, by the bench's own names. */
export function faultsOf(asked: PracticeAsked): string[] {
  const lesson = lessonOf(asked.lesson)
  const { bench, bike, level } = asked
  switch (bench) {
    case 'rear':
      return [...askedRear(asked).faults]
    case 'front':
      return [...frontBike(bike, level, lesson?.front).faults]
    case 'brake':
      return brakeBike(bike, level, lesson?.brake).faults.map(f => f.id)
    case 'hub':
      return hubBike(bike, level, lesson?.hub).is.map(h => h.fault)
  }
}
