import { UNKNOWN } from '../chapter/looks'
import { z } from 'zod'
import { HUB_CHECK_NAMES } from './checkWords'
import { hubFaultWords } from './faultWords'
import { HubParts } from './kinds'
import { hubStepWords } from './stepWords'

const known = (e: { check: string; outcome: string }) =>
  HUB_CHECK_NAMES.some(c => c.id === e.check && (e.outcome === UNKNOWN || c.outcomes.some(o => o[0] === e.outcome)))
const Gear = z.int('gear: a whole number').min(1, 'gears count from 1').max(20, 'at most 20 gears')

/** The hub bench's kinds of ledger entries. Turns in sixteenths, + tighter. */
export const HUB_EVENTS = [
  z.strictObject({ kind: z.literal('hubParts'), parts: HubParts }),
  z
    .strictObject({ kind: z.literal('hubSeen'), check: z.string().max(20), outcome: z.string().max(20) })
    .refine(known, { path: ['outcome'], message: 'that check has no such outcome' }),
  z.strictObject({
    kind: z.literal('hubSounded'),
    /** How many times as likely what the microphone heard is from the highest gear as from any other. */
    tickOdds: z.number().min(0.01).max(100),
  }),
  z.strictObject({
    kind: z.literal('hubRead'),
    mm: z.number().min(-20, 'a reading below −20 mm is not one').max(40, 'a reading over 40 mm is not one'),
  }),
  z.strictObject({
    kind: z.literal('hubCount'),
    gear: Gear,
    crankTurns: z
      .int('count whole crank turns')
      .min(1, 'turn the cranks at least once')
      .max(50, 'at most 50 crank turns'),
    wheelTurns: z
      .number()
      .gt(0, 'the wheel must have turned: 0 turns is a slip, say so')
      .max(300, 'more than 300 wheel turns is not a count')
      .nullable(),
    /** No gear at all, the cranks turn free, where it did not slip under load. */
    neutral: z.literal(true).optional(),
  }),
  z.strictObject({
    kind: z.literal('hubTurn'),
    sixteenths: z
      .int('turns are whole sixteenths')
      .min(-16 * 20, 'more than 20 turns at once is not a turn')
      .max(16 * 20, 'more than 20 turns at once is not a turn')
      .refine(t => t !== 0, 'a turn of 0 is none'),
  }),
  z.strictObject({
    kind: z.literal('hubCured'),
    fault: z.string().refine(id => hubFaultWords(id) !== undefined, 'that fault is not in the list'),
  }),
  z.strictObject({
    kind: z.literal('hubStep'),
    step: z.string().refine(id => hubStepWords(id) !== undefined, 'that step is not in any order'),
  }),
  z.strictObject({ kind: z.literal('hubProof'), holds: z.boolean() }),
] as const
export type HubEvent = z.infer<(typeof HUB_EVENTS)[number]>
