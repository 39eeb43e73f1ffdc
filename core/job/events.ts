import { z } from 'zod'
import { EventId } from '../chapter/ids'
import { SchoolChoice } from '../procedure/schools'
import { DECLINABLE_IDS } from './declined'

const WHEELS = ['front', 'rear'] as const
/** Ways a bike leaves: proven, rideable with a named fault that the customer declined, or not to be ridden. */
export const LEAVES = ['proven', 'declined', 'unridable'] as const
export type Leaves = (typeof LEAVES)[number]
export const LEFT_WORDS: Record<Leaves, string> = {
  proven: 'Handed back',
  declined: 'Left rideable, a repair declined',
  unridable: 'Left unridable',
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
] as const
export type JobEvent = z.infer<(typeof JOB_EVENTS)[number]>
export type JobOf<K extends JobEvent['kind']> = Extract<JobEvent, { kind: K }>

/** Kinds that only their own requests write. */
export const BY_REQUEST: ReadonlySet<string> = new Set(['arrived', 'handedBack', 'reopened'])
/** Kinds that stand for good: what is wrong with them is put right by another entry, never by taking them back. */
export const NEVER_UNDONE = BY_REQUEST
