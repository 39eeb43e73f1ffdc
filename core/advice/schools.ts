import type { Schools } from '../procedure/schools'
import { lTargetMm } from '../rear/stops'
import { TABLE_ONLY, type Standards } from '../standards/inForce'
import type { AdviceOptions, AdviceOrder } from './contract'

/** Orders of the work by which the advice goes otherwise than stops first. */
const ORDER_OF: Readonly<Record<string, AdviceOrder>> = {
  'climb-then-l': 'climbThenL',
  'tension-first': 'tensionFirst',
}

/** How the schools in force want the advice: in which order, with passes, and where the stops are to stand. */
export const adviceBySchools = (
  schools: Pick<Schools, 'order' | 'placing'>,
  s: Standards = TABLE_ONLY,
): AdviceOptions => ({
  passes: true,
  order: ORDER_OF[schools.order.id] ?? 'stopsFirst',
  placing: { H: schools.placing.targetMm, L: lTargetMm(s) },
})
