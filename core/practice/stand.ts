import type { Sight } from './sight'

/** One thing that can be done at a practice stand. Ids are what a run keeps: the same acts give the same run. */
export type Choice = { id: string; group: 'look' | 'turn' | 'renew'; words: string }
/** Asked and found, the latest last. `drawn`: the picture shows it, and words are for who asks for them. */
export type Found = { asked: string; is: string; drawn?: true }
/** Saying that it is right: the proof. */
export const DONE = 'done'

/**
 * A front, a brake or a hub at the practice stand after some acts. What is hidden is told only when it is over; an act
 * that is not on the list is left out.
 */
export type Stand = {
  /** What is on the stand, in words. */
  bike: string
  /** What the customer noticed, if anything: known before the first look. */
  says: string | null
  /** The usual caution of the work. */
  caution: string
  choices: readonly Choice[]
  /** What is done by the choices of the group `turn`. */
  turnTitle: string
  found: readonly Found[]
  /** What an eye finds now, drawn. */
  sight: Sight
  touches: number
  over: boolean
  won: boolean
  because: readonly string[]
  truth: readonly { what: string; figure: string }[]
  /** What the advice would do next by what was found here, and why. */
  advised: { id: string; words: string; why: string }
  /** Needless parts and thrown chains. */
  needless: number
  thrown: number
}

/** How often the advice goes on before it is given up. */
const MOST_ACTS = 40
/** The advice on the same bike, act by act. */
export function byAdvice(standOf: (acts: readonly string[]) => Stand): { acts: string[]; stand: Stand } {
  const acts: string[] = []
  let stand = standOf(acts)
  while (!stand.over && acts.length < MOST_ACTS) {
    acts.push(stand.advised.id)
    stand = standOf(acts)
  }
  return { acts, stand }
}

export const upper = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1)
export const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`)
