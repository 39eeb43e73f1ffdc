import { UNKNOWN } from '../chapter/looks'
import { z } from 'zod'
import { SIDES } from './sides'
import { checkOf } from './checks'
import { faultWords } from './faultWords'
import { BRAKE_STEP_IDS } from './stepWords'
import { BrakeParts, BRAKES } from './kinds'
import { PROOF_TESTS } from './proof'
import { BRAKE_BARREL, MOST_LET_OUT_MM } from './barrel'

const brake = z.enum(BRAKES)
const known = (e: { check: string; outcome: string }) =>
  checkOf(e.check)?.outcomes.some(o => o[0] === e.outcome || e.outcome === UNKNOWN) ?? false

/** The brake bench's kinds of ledger entries. */
export const BRAKE_EVENTS = [
  z.strictObject({ kind: z.literal('brakeParts'), parts: BrakeParts }),
  z
    .strictObject({ kind: z.literal('brakeSeen'), brake, check: z.string().max(20), outcome: z.string().max(20) })
    .refine(known, { path: ['outcome'], message: 'that check has no such outcome' }),
  z.strictObject({
    kind: z.literal('brakeCured'),
    brake,
    fault: z.string().refine(id => faultWords(undefined, id) !== undefined, 'that fault is not in the list'),
  }),
  z.strictObject({
    kind: z.literal('brakeStep'),
    brake,
    step: z.string().refine(id => BRAKE_STEP_IDS.has(id), 'that step is in no order of fitting'),
  }),
  z.strictObject({
    kind: z.literal('brakeNearer'),
    brake,
    nearer: z.enum(['left', 'right', 'even']),
    /**
     * How it was seen, where it was not by the pads once let go: a pad that touches first pushes the rim away from
     * itself.
     */
    by: z.literal('rim').optional(),
  }),
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
      .max(16 * BRAKE_BARREL.turns, `a brake’s barrel goes from 0 to ${BRAKE_BARREL.turns} turns out`),
    letOutMm: z
      .number()
      .min(0, 'let out at least 0 mm')
      .max(MOST_LET_OUT_MM, `more than ${MOST_LET_OUT_MM} mm let out: the pads hang in the air, measure again`)
      .nullable(),
  }),
  z.strictObject({
    kind: z.literal('proof'),
    brake,
    holds: z.boolean(),
    /** One test of the proof; left out, all of them at once. */
    test: z.enum(PROOF_TESTS).optional(),
  }),
] as const
export type BrakeEvent = z.infer<(typeof BRAKE_EVENTS)[number]>
export type BrakeOf<K extends BrakeEvent['kind']> = Extract<BrakeEvent, { kind: K }>
