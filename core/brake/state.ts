import { z } from 'zod'
import { SIDES, type Centring } from './centring'
import type { BrakeSeen } from './diagnose'
import { BRAKE_CHECK_OUTCOMES, BRAKE_FAULT_IDS, BRAKE_STEP_IDS } from './ids'
import { BrakeParts, BRAKES, type Brake } from './kinds'

const brake = z.enum(BRAKES)
const known = (e: { check: string; outcome: string }) => BRAKE_CHECK_OUTCOMES[e.check]?.includes(e.outcome) ?? false

/** The brake bench's kinds of ledger entries. */
export const BRAKE_EVENTS = [
  z.strictObject({ kind: z.literal('brakeParts'), parts: BrakeParts }),
  z
    .strictObject({ kind: z.literal('brakeSeen'), brake, check: z.string().max(20), outcome: z.string().max(20) })
    .refine(known, { path: ['outcome'], message: 'that check has no such outcome' }),
  z.strictObject({
    kind: z.literal('brakeCured'),
    brake,
    fault: z.string().refine(id => BRAKE_FAULT_IDS.has(id), 'that fault is not in the list'),
  }),
  z.strictObject({
    kind: z.literal('brakeStep'),
    brake,
    step: z.string().refine(id => BRAKE_STEP_IDS.has(id), 'that step is in no order of fitting'),
  }),
  z.strictObject({ kind: z.literal('brakeNearer'), brake, nearer: z.enum(['left', 'right', 'even']) }),
  z.strictObject({
    kind: z.literal('brakeScrew'),
    brake,
    side: z.enum(SIDES),
    sixteenths: z
      .int('turns are whole sixteenths')
      .min(-64, 'more than 4 turns of a small screw at once is not a turn')
      .max(64, 'more than 4 turns of a small screw at once is not a turn')
      .refine(t => t !== 0, 'a turn of 0 is none'),
  }),
  z.strictObject({
    kind: z.literal('brakeClose'),
    brake,
    barrelSixteenthsOut: z
      .int('turns are whole sixteenths')
      .min(0, 'a barrel is not out by less than nothing')
      .max(16 * 15, 'a barrel is at most 15 turns out'),
    letOutMm: z
      .number()
      .min(0, 'let out at least 0 mm')
      .max(25, 'more than 25 mm let out: the pads hang in the air, measure again')
      .nullable(),
  }),
] as const
export type BrakeEvent = z.infer<(typeof BRAKE_EVENTS)[number]>

/** Where one brake of a job stands after its log. */
export type BrakeState = {
  parts: BrakeParts | null
  seen: readonly BrakeSeen[]
  cured: readonly string[]
  /** Steps of its order of fitting that are done. */
  steps: readonly string[]
  centring: Centring
  /** How close the rider likes it: barrel turns out, and what was let out. */
  close: { barrelSixteenthsOut: number; letOutMm: number | null } | null
}
export type BrakesState = Record<Brake, BrakeState>
const untouched: BrakeState = { parts: null, seen: [], cured: [], steps: [], centring: [], close: null }
export const noBrakes: BrakesState = { front: untouched, rear: untouched }

/** The brakes after one more entry. A look at the same check replaces the one before; another kind of brake starts anew. */
export function brakesAfter(was: BrakesState, e: BrakeEvent): BrakesState {
  const brake = e.kind === 'brakeParts' ? e.parts.brake : e.brake
  const one = was[brake]
  const next = (): BrakeState => {
    switch (e.kind) {
      case 'brakeParts':
        return one.parts?.kind === e.parts.kind ? { ...one, parts: e.parts } : { ...untouched, parts: e.parts }
      case 'brakeSeen':
        return { ...one, seen: [...one.seen.filter(s => s.check !== e.check), { check: e.check, outcome: e.outcome }] }
      case 'brakeStep':
        return { ...one, steps: [...new Set([...one.steps, e.step])] }
      case 'brakeNearer':
        return { ...one, centring: [...one.centring, { kind: 'seen', nearer: e.nearer }] }
      case 'brakeScrew':
        return { ...one, centring: [...one.centring, { kind: 'turned', side: e.side, sixteenths: e.sixteenths }] }
      case 'brakeClose':
        return { ...one, close: { barrelSixteenthsOut: e.barrelSixteenthsOut, letOutMm: e.letOutMm } }
      case 'brakeCured':
        return { ...one, seen: [], cured: [...one.cured, e.fault] }
    }
  }
  return { ...was, [brake]: next() }
}

/** Does this entry take a proof away? What was worked on, or looks wrong, is proven anew. */
export function unproves(e: BrakeEvent): Brake | null {
  if (e.kind === 'brakeParts') return null
  if (e.kind === 'brakeNearer') return null
  // whatever was turned, clamped or fitted is proven anew
  if (e.kind !== 'brakeSeen') return e.brake
  return BRAKE_CHECK_OUTCOMES[e.check]?.[0] === e.outcome ? null : e.brake
}
