import { z } from 'zod'
import { Desk } from '../recall/desk'
import { RIDER_SAYS } from '../job/events'
import { line } from './words'

export const MESSAGE_STATES = ['queued', 'sending', 'sent', 'failed', 'answered', 'withdrawn'] as const
const MessageView = z.object({
  id: z.uuid(),
  way: z.string(),
  address: z.string(),
  body: z.string(),
  state: z.enum(MESSAGE_STATES),
  notBefore: z.string(),
  trouble: z.string(),
  answer: z.string(),
  at: z.string(),
})
export type MessageView = z.infer<typeof MessageView>

export const RECALL_STATES = ['due', 'came', 'done', 'notneeded'] as const
export const RecallView = z.object({
  id: z.uuid(),
  dueOn: z.string(),
  /** When it was first due, where it was put off since. */
  firstDueOn: z.string().nullable(),
  state: z.enum(RECALL_STATES),
  job: z.object({ number: z.int(), tag: z.string(), closedAt: z.string() }),
  bike: z.object({ id: z.uuid(), name: z.string() }),
  customer: z.object({ id: z.uuid(), name: z.string(), contact: z.string(), noMessages: z.boolean() }),
  /** What to say, in one sentence. */
  why: z.string(),
  /** What a message would say; null where it cannot be written to. */
  message: z.string().nullable(),
  report: z.string(),
  messages: z.array(MessageView),
})
export type RecallView = z.infer<typeof RecallView>

export const RecallDesk = z.object({
  today: z.string(),
  desk: Desk,
  /** What sends the messages, by name; a stand-in says so. */
  gateway: z.object({ name: z.string(), standIn: z.boolean() }),
  recalls: z.array(RecallView),
  /** How many are due each day from today on. */
  days: z.array(z.object({ day: z.string(), due: z.int() })),
  /** Links to the calendar that are in force. */
  calendars: z.array(z.object({ id: z.uuid(), by: z.string(), madeAt: z.string(), seenAt: z.string().nullable() })),
})
export type RecallDesk = z.infer<typeof RecallDesk>

const Day = z.iso.date({ error: 'Choose a day' })
/** What becomes of a recall. */
export const RecallAct = z.discriminatedUnion('do', [
  z.strictObject({ do: z.enum(['done', 'came', 'notneeded', 'due']) }),
  z.strictObject({ do: z.literal('postpone'), to: Day }),
  /** What the rider told: how it runs, and by how much they turned the barrel themselves. */
  z.strictObject({
    do: z.literal('reported'),
    id: z.uuid(),
    says: z.enum(RIDER_SAYS),
    sixteenths: z
      .int('Turns: whole sixteenths')
      .min(-32, 'More than two turns is not the rider’s barrel')
      .max(32, 'More than two turns is not the rider’s barrel')
      .nullable(),
  }),
  /** Written to, in these words. */
  z.strictObject({ do: z.literal('write'), id: z.uuid(), text: line('Message', 600) }),
])
export type RecallAct = z.infer<typeof RecallAct>

/** What became of a message: an answer came, or it is not to be sent after all, or once more. */
export const MessageAct = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('answered'), text: line('Answer', 600) }),
  z.strictObject({ do: z.enum(['withdraw', 'again']) }),
])
export type MessageAct = z.infer<typeof MessageAct>
export const LeaveAlone = z.strictObject({ noMessages: z.boolean() })
export const CalendarLink = z.object({ url: z.string() })
