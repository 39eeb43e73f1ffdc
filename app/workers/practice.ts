import { expose } from 'comlink'
import { besideRear, chanceFrom, type Beside } from '#core/practice/aftermath'
import type { PracticeBench } from '#core/practice/levels'
import type { PracticeAsked } from '#core/practice/asked'
import type { Help } from '#core/practice/helps'
import { practiseNext } from '#core/practice/next'
import type { PracticeResult } from '#core/practice/results'
import { rearHelp, rearShown, rearSounds, soundWords } from '#core/practice/rearShown'
import type { RearBike } from '#core/practice/rearBike'
import type { RearAct } from '#core/practice/rearStand'
import { askedRear, faultsOf, seedOf, standFor } from '#core/practice/run'
import { byAdvice, type Stand } from '#core/practice/stand'

/** The bike that is practised on stays here: the page is told only what an eye and an ear find. */
let rear: { key: string; bike: RearBike } | null = null
function rearOf(asked: PracticeAsked): RearBike {
  const key = JSON.stringify(asked)
  if (rear?.key !== key) rear = { key, bike: askedRear(asked) }
  return rear.bike
}
let other: { key: string; of: (acts: readonly string[]) => Stand } | null = null
function otherOf(asked: PracticeAsked): (acts: readonly string[]) => Stand {
  const key = JSON.stringify(asked)
  if (other?.key !== key) other = { key, of: standFor(asked)! }
  return other.of
}

const api = {
  rear: (asked: PracticeAsked, acts: readonly RearAct[]) => rearShown(rearOf(asked), seedOf(asked), acts),
  sounds: (asked: PracticeAsked, acts: readonly RearAct[]) => rearSounds(rearOf(asked), seedOf(asked), acts),
  soundWords: (asked: PracticeAsked, acts: readonly RearAct[]) => soundWords(rearOf(asked), seedOf(asked), acts),
  help: (asked: PracticeAsked, acts: readonly RearAct[], step: Help) =>
    rearHelp(rearOf(asked), seedOf(asked), acts, step),
  beside: (asked: PracticeAsked): Beside[] => besideRear(rearOf(asked), seedOf(asked)),
  chance: (asked: PracticeAsked, acts: readonly RearAct[], after: number) =>
    chanceFrom(rearOf(asked), seedOf(asked), acts, after),
  stand: (asked: PracticeAsked, acts: readonly string[]) => otherOf(asked)(acts),
  besideStand(asked: PracticeAsked): Beside[] {
    const { stand } = byAdvice(otherOf(asked))
    const thrown = { largest: stand.thrown, smallest: 0 }
    return [
      { id: 'Ocho', won: stand.won, touches: stand.touches, cost: stand.touches, needless: stand.needless, thrown },
    ]
  },
  faults: (asked: PracticeAsked) => faultsOf(asked),
  next: (results: readonly PracticeResult[], bench: PracticeBench, at: number) =>
    practiseNext(results, bench, new Date(at)),
}
export type PracticeApi = typeof api
expose(api)
