import { expose } from 'comlink'
import type { BikeAsked, PracticeAsked } from '#core/practice/asked'
import type { Beside } from '#core/practice/beside'
import type { Help } from '#core/practice/helps'
import type { PracticeBench } from '#core/practice/levels'
import type { RearBike } from '#core/practice/rearBike'
import type { RearAct } from '#core/practice/rearStand'
import type { PracticeResult } from '#core/practice/results'
import { seedOf } from '#core/practice/seed'
import type { Stand } from '#core/practice/stand'
import type { Believed } from '#core/practice/whatIf'
import type { ByHand, Expected, WhatIf } from '#core/practice/whatIfs'

/** The bike that is practised on stays here: the page is told only what an eye and an ear find. */
let rear: { key: string; bike: RearBike } | null = null
/** Those drawn from what is believed of a real bike, by name. */
const drawn = new Map<string, RearBike>()
async function rearOf(asked: BikeAsked): Promise<RearBike> {
  if (asked.drawn !== undefined) return drawn.get(asked.drawn)!
  const key = JSON.stringify(asked)
  if (rear?.key !== key) rear = { key, bike: (await import('#core/practice/askedRear')).askedRear(asked) }
  return rear.bike
}
const shown = () => import('#core/practice/rearShown')
let other: { key: string; of: (acts: readonly string[]) => Stand } | null = null
async function otherOf(asked: PracticeAsked): Promise<(acts: readonly string[]) => Stand> {
  const key = JSON.stringify(asked)
  if (other?.key === key) return other.of
  const { standFor } = await import('#core/practice/run')
  other = { key, of: (await standFor(asked))! }
  return other.of
}
// each bench comes when it is asked for, and so does what it is not shown with: the advice, the rules of thumb
const api = {
  rear: async (asked: BikeAsked, acts: readonly RearAct[]) =>
    (await shown()).rearShown(await rearOf(asked), seedOf(asked), acts),
  shiftSound: async (asked: BikeAsked, acts: readonly RearAct[]) =>
    (await shown()).rearShiftSound(await rearOf(asked), seedOf(asked), acts),
  leverSound: async () => (await import('#core/sound/chain')).leverSound(1),
  runningSound: async (asked: BikeAsked, acts: readonly RearAct[]) =>
    (await shown()).rearRunningSound(await rearOf(asked), seedOf(asked), acts),
  soundWords: async (asked: BikeAsked, acts: readonly RearAct[]) =>
    (await shown()).soundWords(await rearOf(asked), seedOf(asked), acts),
  help: async (asked: BikeAsked, acts: readonly RearAct[], step: Help): Promise<string> =>
    (await import('#core/practice/rearHelp')).rearHelp(await rearOf(asked), seedOf(asked), acts, step),
  beside: async (asked: BikeAsked): Promise<Beside[]> =>
    (await import('#core/practice/beside')).besideRear(await rearOf(asked), seedOf(asked)),
  chance: async (asked: BikeAsked, acts: readonly RearAct[], after: number): Promise<number> =>
    (await import('#core/practice/beside')).chanceFrom(await rearOf(asked), seedOf(asked), acts, after),
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
  draw: async (name: string, believed: Believed, what: ByHand, seed: number): Promise<void> =>
    void drawn.set(name, (await import('#core/practice/whatIf')).bikeToWorkOn(believed, what, seed)),
  faults: async (asked: PracticeAsked): Promise<string[]> => (await import('#core/practice/run')).faultsOf(asked),
  next: async (results: readonly PracticeResult[], bench: PracticeBench, at: number): Promise<PracticeAsked> =>
    (await import('#core/practice/next')).practiseNext(results, bench, new Date(at)),
}
export type PracticeApi = typeof api
expose(api)
