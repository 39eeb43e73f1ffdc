import { z } from 'zod'
import { EventId } from '../chapter/ids'
import { SchoolChoice } from '../procedure/schools'
import { DECLINABLE_IDS } from './declined'
import { Seen } from './seen'

const WHEELS = ['front', 'rear'] as const
/**
 * Ways a job ends: the bike proven; rideable with a named fault that the customer declined; not to be ridden; fetched
 * by its customer with the work not done; or there was no job after all.
 */
export const LEAVES = ['proven', 'declined', 'unridable', 'unrepaired', 'cancelled'] as const
export type Leaves = (typeof LEAVES)[number]
export const LEFT_WORDS: Record<Leaves, string> = {
  proven: 'Handed back',
  declined: 'Left rideable, a repair declined',
  unridable: 'Left unridable',
  unrepaired: 'Fetched unrepaired',
  cancelled: 'Cancelled',
}
/**
 * Ways of leaving in which nobody has said that it may be ridden: no brake need be proven, and no rider is told of
 * riding.
 */
export const UNPROVEN: ReadonlySet<Leaves> = new Set<Leaves>(['unridable', 'unrepaired', 'cancelled'])

/** What a job can wait for, and how it is said. */
export const WAITS = ['parts', 'word', 'mechanic'] as const
export type WaitsFor = (typeof WAITS)[number]
export const WAITS_WORDS: Record<WaitsFor, string> = {
  parts: 'parts',
  word: 'the customer’s word',
  mechanic: 'a mechanic',
}

/**
 * What is written of a job at the door, and can be put right. The words themselves stand in its rows, never in the
 * ledger.
 */
export const DETAILS = ['customer', 'contact', 'bike', 'frameNumber', 'complaint', 'promisedAt', 'tag'] as const
export type Detail = (typeof DETAILS)[number]
export const DETAIL_WORDS: Record<Detail, string> = {
  customer: 'customer',
  contact: 'phone',
  bike: 'bike',
  frameNumber: 'frame number',
  complaint: 'complaint',
  promisedAt: 'promise',
  tag: 'tag',
}

/** What a rider tells of a bike that left here, when asked. */
export const RIDER_SAYS = ['well', 'slack', 'wrong'] as const
export type RiderSays = (typeof RIDER_SAYS)[number]
export const RIDER_WORDS: Record<RiderSays, string> = {
  well: 'runs well',
  slack: 'slow leaving the smallest sprocket',
  wrong: 'something is wrong',
}

/** The job's own kinds of ledger entries. */
export const JOB_EVENTS = [
  z.strictObject({
    kind: z.literal('placed'),
    where: z.enum(['rack', 'stand', 'door', 'gone']),
    stand: z.int().min(1).max(20).nullable(),
  }),
  z.strictObject({ kind: z.literal('schools'), choice: SchoolChoice }),
  /** A wheel was taken out, whatever for: its brake, and a hub in it, are proven anew. */
  z.strictObject({ kind: z.literal('wheelOut'), wheel: z.enum(WHEELS) }),
  z.strictObject({ kind: z.literal('undo'), undoes: EventId }),
  z
    .strictObject({
      kind: z.literal('handedBack'),
      how: z.enum(LEAVES),
      /** What the customer declined, where the bike leaves with it. */
      fault: z.enum(DECLINABLE_IDS).optional(),
    })
    .refine(e => (e.how === 'declined') === (e.fault !== undefined), {
      path: ['fault'],
      message: 'Name the fault the customer declined; a bike that leaves otherwise has none',
    }),
  z.strictObject({ kind: z.literal('reopened') }),
  /** Something written at the door was put right: which, and not the words. */
  z.strictObject({ kind: z.literal('edited'), fields: z.array(z.enum(DETAILS)).min(1).max(DETAILS.length) }),
  /** What the eye counted at the door, or was put right since. */
  z.strictObject({ kind: z.literal('seen'), seen: Seen }),
  z.strictObject({ kind: z.literal('waits'), for: z.enum(WAITS).nullable() }),
  /** What its rider told later: how it runs, and by how much they turned the barrel themselves, + out. */
  z.strictObject({
    kind: z.literal('riderSaid'),
    says: z.enum(RIDER_SAYS),
    sixteenths: z.int().min(-32).max(32).nullable(),
  }),
] as const
export type JobEvent = z.infer<(typeof JOB_EVENTS)[number]>
export type JobOf<K extends JobEvent['kind']> = Extract<JobEvent, { kind: K }>

/** Kinds that only their own requests write. */
export const BY_REQUEST: ReadonlySet<string> = new Set(['arrived', 'handedBack', 'reopened', 'edited', 'riderSaid'])
/** Kinds that stand for good: what is wrong with them is put right by another entry, never by taking them back. */
export const NEVER_UNDONE = BY_REQUEST
