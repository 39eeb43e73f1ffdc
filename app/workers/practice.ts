import { expose } from 'comlink'
import type { PracticeAsked } from '#core/practice/asked'
import { askedRear, seedOf } from '#core/practice/askedRear'
import type { Beside } from '#core/practice/beside'
import type { Help } from '#core/practice/helps'
import type { PracticeBench } from '#core/practice/levels'
import type { RearBike } from '#core/practice/rearBike'
import { rearRunningSound, rearShiftSound, rearShown, soundWords } from '#core/practice/rearShown'
import type { RearAct } from '#core/practice/rearStand'
import type { PracticeResult } from '#core/practice/results'
import type { Stand } from '#core/practice/stand'
import type { Believed } from '#core/practice/whatIf'
import type { Expected, WhatIf } from '#core/practice/whatIfs'

/** The bike that is practised on stays here: the page is told only what an eye and an ear find. */
let rear: { key: string; bike: RearBike } | null = null
function rearOf(asked: PracticeAsked): RearBike {
  const key = JSON.stringify(asked)
  if (rear?.key !== key) rear = { key, bike: askedRear(asked) }
  return rear.bike
}
let other: { key: string; of: (acts: readonly string[]) => Stand } | null = null
async function otherOf(asked: PracticeAsked): Promise<(acts: readonly string[]) => Stand> {
  const key = JSON.stringify(asked)
  if (other?.key === key) return other.of
  const { standFor } = await import('#core/practice/run')
  other = { key, of: standFor(asked)! }
  return other.of
}
// what a rear is not shown with comes when it is asked for: the advice, the rules of thumb, the other benches
const api = {
  rear: (asked: PracticeAsked, acts: readonly RearAct[]) => rearShown(rearOf(asked), seedOf(asked), acts),
  shiftSound: (asked: PracticeAsked, acts: readonly RearAct[]) => rearShiftSound(rearOf(asked), seedOf(asked), acts),
  runningSound: (asked: PracticeAsked, acts: readonly RearAct[]) =>
    rearRunningSound(rearOf(asked), seedOf(asked), acts),
  soundWords: (asked: PracticeAsked, acts: readonly RearAct[]) => soundWords(rearOf(asked), seedOf(asked), acts),
  help: async (asked: PracticeAsked, acts: readonly RearAct[], step: Help): Promise<string> =>
    (await import('#core/practice/rearHelp')).rearHelp(rearOf(asked), seedOf(asked), acts, step),
  beside: async (asked: PracticeAsked): Promise<Beside[]> =>
    (await import('#core/practice/beside')).besideRear(rearOf(asked), seedOf(asked)),
  chance: async (asked: PracticeAsked, acts: readonly RearAct[], after: number): Promise<number> =>
    (await import('#core/practice/beside')).chanceFrom(rearOf(asked), seedOf(asked), acts, after),
  stand: async (asked: PracticeAsked, acts: readonly string[]): Promise<Stand> => (await otherOf(asked))(acts),
  async besideStand(asked: PracticeAsked): Promise<Beside[]> {
    const { byAdvice } = await import('#core/practice/stand')
    const { stand } = byAdvice(await otherOf(asked))
    const thrown = { largest: stand.thrown, smallest: 0 }
    return [
      { id: 'Ocho', won: stand.won, touches: stand.touches, cost: stand.touches, needless: stand.needless, thrown },
    ]
  },
  whatIf: async (believed: Believed, what: WhatIf, bikes: number): Promise<Expected> =>
    (await import('#core/practice/whatIf')).expectedOf(believed, what, bikes),
  faults: async (asked: PracticeAsked): Promise<string[]> => (await import('#core/practice/run')).faultsOf(asked),
  next: async (results: readonly PracticeResult[], bench: PracticeBench, at: number): Promise<PracticeAsked> =>
    (await import('#core/practice/next')).practiseNext(results, bench, new Date(at)),
}
export type PracticeApi = typeof api
expose(api)
