import type { PracticeAsked } from './asked'
import type { PracticeBench } from './levels'
import type { Stand } from './stand'

/** What a bench can say of the asked bike: where it stands after some acts, and what is wrong with it. */
export type BenchRun = {
  stand(asked: PracticeAsked): (acts: readonly string[]) => Stand
  /** By the bench's own names. */
  faults(asked: PracticeAsked): string[]
}
/** Each comes when it is asked for: who practises a brake waits for no front. */
const RUNS: Record<Exclude<PracticeBench, 'rear'>, () => Promise<BenchRun>> = {
  front: async () => (await import('./frontStand')).frontRun,
  brake: async () => (await import('./brakeStand')).brakeRun,
  hub: async () => (await import('./hubStand')).hubRun,
}

/** A stand of the asked bench that is no rear, by acts; null for a rear. */
export const standFor = async (asked: PracticeAsked): Promise<((acts: readonly string[]) => Stand) | null> =>
  asked.bench === 'rear' ? null : (await RUNS[asked.bench]()).stand(asked)

/** What is wrong with the asked bike, by the bench's own names. */
export const faultsOf = async (asked: PracticeAsked): Promise<string[]> =>
  asked.bench === 'rear'
    ? [...(await import('./askedRear')).askedRear(asked).faults]
    : (await RUNS[asked.bench]()).faults(asked)
