import { z } from 'zod'
import { BRAKE_CHECKS, BRAKE_FAULTS } from './checks'
import type { BrakeSeen } from './diagnose'
import { BrakeParts, BRAKES, type Brake, type BrakeKind } from './kinds'

const brake = z.enum(BRAKES)
const known = (e: { check: string; outcome: string }) => BRAKE_CHECKS.some(c => c.id === e.check && c.outcomes.some(o => o[0] === e.outcome))
const FAULTS = new Set(Object.values(BRAKE_FAULTS).flat().map(f => f.id))

/** The brake bench's kinds of ledger entries. */
export const BRAKE_EVENTS = [
  z.strictObject({ kind: z.literal('brakeParts'), parts: BrakeParts }),
  z.strictObject({ kind: z.literal('brakeSeen'), brake, check: z.string().max(20), outcome: z.string().max(20) }).refine(known, { path: ['outcome'], message: 'that check has no such outcome' }),
  z.strictObject({ kind: z.literal('brakeCured'), brake, fault: z.string().refine(id => FAULTS.has(id), 'that fault is not in the list') }),
] as const
export type BrakeEvent = z.infer<(typeof BRAKE_EVENTS)[number]>

/** Where one brake of a job stands after its log. */
export type BrakeState = { parts: BrakeParts | null; seen: readonly BrakeSeen[]; cured: readonly string[] }
export type BrakesState = Record<Brake, BrakeState>
const untouched: BrakeState = { parts: null, seen: [], cured: [] }
export const noBrakes: BrakesState = { front: untouched, rear: untouched }

/** The brakes after one more entry. A look at the same check replaces the one before; another kind of brake starts anew. */
export function brakesAfter(was: BrakesState, e: BrakeEvent): BrakesState {
  const brake = e.kind === 'brakeParts' ? e.parts.brake : e.brake
  const one = was[brake]
  const next = (): BrakeState => {
    switch (e.kind) {
      case 'brakeParts': return one.parts?.kind === e.parts.kind ? { ...one, parts: e.parts } : { ...untouched, parts: e.parts }
      case 'brakeSeen': return { ...one, seen: [...one.seen.filter(s => s.check !== e.check), { check: e.check, outcome: e.outcome }] }
      case 'brakeCured': return { ...one, seen: [], cured: [...one.cured, e.fault] }
    }
  }
  return { ...was, [brake]: next() }
}

/** Does this entry take a proof away? What was worked on, or looks wrong, is proven anew. */
export function unproves(e: BrakeEvent): Brake | null {
  if (e.kind === 'brakeParts') return null
  if (e.kind === 'brakeCured') return e.brake
  return BRAKE_CHECKS.find(c => c.id === e.check)?.outcomes[0]?.[0] === e.outcome ? null : e.brake
}

export const faultOf = (kind: BrakeKind | undefined, id: string) => (kind ? BRAKE_FAULTS[kind] : Object.values(BRAKE_FAULTS).flat()).find(f => f.id === id)
