import { z } from 'zod'
import { FRONT_SCREWS, FRONT_SEEN } from './moves'
import { FRONT_ORDERS } from '../procedure/frontOrders'
import { FRONT_STEP_WORDS } from './stepWords'
import { FrontParts } from './parts'

/** The wire pulled by hand, cranks still: where its stop lets the outer plate go. */
export const HAND_REACH = ['short', 'there', 'past'] as const
export type HandReach = (typeof HAND_REACH)[number]
/** Judged at a glance, in one touch: no figure was read, and none is kept for the next bike. */
const byEye = z.literal(true).optional()
/** What was set or renewed as a whole; each moves things by an unknown amount. */
export const FRONT_SET = ['position', 'clamp', 'cable', 'lever', 'stops'] as const
export type FrontSet = (typeof FRONT_SET)[number]

const Ring = z
  .int('ring must be a whole number')
  .min(0, 'ring counts from 0, the smallest')
  .max(2, 'at most three rings')
const Sixteenths = z
  .int('turns are whole sixteenths')
  .min(-16 * 12, 'more than 12 turns at once is not a turn')
  .max(16 * 12, 'more than 12 turns at once is not a turn')
  .refine(t => t !== 0, 'a turn of 0 is none')

/** The front's kinds of ledger entries; turns in sixteenths, barrel + out, H and L + in. */
export const FRONT_EVENTS = [
  z.strictObject({ kind: z.literal('frontParts'), parts: FrontParts }),
  z
    .strictObject({ kind: z.literal('frontStep'), order: z.enum(FRONT_ORDERS), step: z.string().max(20) })
    .refine(e => FRONT_STEP_WORDS[e.order].some(s => s.id === e.step), {
      path: ['step'],
      message: 'that step is not in the order',
    }),
  z
    .strictObject({
      kind: z.literal('frontShift'),
      from: Ring,
      to: Ring,
      seen: z.enum(FRONT_SEEN),
      sprocket: z.int().min(0).max(15).optional(),
    })
    .refine(e => e.from !== e.to, { path: ['to'], message: 'a front shift goes to another ring' }),
  z.strictObject({ kind: z.literal('frontTurn'), screw: z.enum(FRONT_SCREWS), sixteenths: Sixteenths }),
  z.strictObject({
    kind: z.literal('frontGap'),
    plate: z.enum(['inner', 'outer']),
    /** 0 where the plate touches; below 0 only in entries of earlier versions. */
    gapMm: z.number().min(-5, 'a gap below −5 mm is not one').max(20, 'a gap over 20 mm is not one'),
    /** The stop's own place: the cable slack for the inner plate, the wire drawn by hand for the outer. */
    byStop: z.literal(true).optional(),
    byEye,
  }),
  z
    .strictObject({
      kind: z.literal('frontPosition'),
      heightMm: z
        .number()
        .min(-5, 'a cage more than 5 mm below the teeth cannot turn over them')
        .max(25, 'more than 25 mm over the teeth is not a height')
        .nullable(),
      angleDeg: z
        .number()
        .min(-20, 'a cage turned more than 20° is not one')
        .max(20, 'a cage turned more than 20° is not one')
        .nullable(),
      byEye,
    })
    .refine(e => e.heightMm !== null || e.angleDeg !== null, {
      path: ['heightMm'],
      message: 'give the height, the angle or both',
    }),
  /** A pair ridden where the cage stands, trims used: which plate rubs, null when neither does. */
  z.strictObject({
    kind: z.literal('frontRub'),
    ring: Ring,
    sprocket: z.int().min(0).max(15),
    plate: z.enum(['inner', 'outer']).nullable(),
  }),
  z.strictObject({ kind: z.literal('frontHand'), reach: z.enum(HAND_REACH) }),
  z.strictObject({ kind: z.literal('frontUndone'), drops: z.boolean() }),
  z.strictObject({ kind: z.literal('frontSet'), what: z.enum(FRONT_SET) }),
] as const
export type FrontEvent = z.infer<(typeof FRONT_EVENTS)[number]>
/** What the belief reads of a job's log: all but what the parts are and which step of an order was done. */
export type FrontSight = Exclude<FrontEvent, { kind: 'frontParts' | 'frontStep' }>

/** How many sprockets the bike must have for this entry to be possible. */
export const sprocketsNeeded = (e: FrontEvent): number =>
  (e.kind === 'frontShift' || e.kind === 'frontRub') && e.sprocket !== undefined ? e.sprocket + 1 : 0
