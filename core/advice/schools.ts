import type { Schools } from '../procedure/schools'
import { lTargetMm } from '../rear/stops'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import type { AdviceOptions, AdviceOrder, Listening } from './contract'

/** Orders of the work by which the advice goes otherwise than stops first. */
const ORDER_OF: Readonly<Record<string, AdviceOrder>> = {
  'climb-then-l': 'climbThenL',
  'tension-first': 'tensionFirst',
}

/** Which checks a school of listening prefers; those that only differ in how they are asked prefer none. */
const LISTENING_OF: Readonly<Record<string, Listening>> = {
  'two-clicks': 'twoClicks',
  'find-the-edge': 'findTheEdge',
  'while-pedalling': 'findTheEdge',
  'middle-of-the-rub': 'middleOfTheRub',
  'first-four': 'firstFour',
}

/** How the schools in force want the advice: in which order, with passes, and where the stops are to stand. */
export const adviceBySchools = (
  schools: Pick<Schools, 'order' | 'placing' | 'test' | 'barrel'>,
  s: Standards = TABLE_ONLY,
): AdviceOptions => ({
  passes: true,
  order: ORDER_OF[schools.order.id] ?? 'stopsFirst',
  listening: LISTENING_OF[schools.test.id] ?? 'oneClick',
  startTurnsOut: schools.barrel.turnsOut.to,
  placing: { H: schools.placing.targetMm, L: lTargetMm(s) },
})
