import { z } from 'zod'

/** Ways a message can go, by what stands in a customer's contact. */
export type Way = 'mail' | 'text'
const MAIL = /[^\s@,;<>]+@[^\s@,;<>]+\.[^\s@,;<>]+/
/** Fewer digits than this are no phone number. */
const LEAST_DIGITS = 6

/** Where a message to a customer can go; null where the contact is neither an address nor a number. */
export function addressOf(contact: string): { way: Way; address: string } | null {
  const mail = MAIL.exec(contact)?.[0]
  if (mail) return { way: 'mail', address: mail }
  const number = /\+?[\d ()/.-]+/.exec(contact)?.[0].replace(/[^\d+]/g, '') ?? ''
  return number.replace(/\D/g, '').length >= LEAST_DIGITS ? { way: 'text', address: number } : null
}

const Hour = z.int('Quiet hours are whole hours').min(0, 'Hours go from 0 to 23').max(23, 'Hours go from 0 to 23')
/** How a shop tells its recalls: when nobody is written to, and how many bikes it takes a day. */
export const Desk = z.strictObject({
  quietFrom: Hour.default(20),
  quietTo: Hour.default(8),
  placesADay: z
    .int('Places a day: a whole number')
    .min(1, 'At least one place a day')
    .max(50, 'At most 50 places a day')
    .default(4),
})
export type Desk = z.infer<typeof Desk>
export const USUAL_DESK: Desk = Desk.parse({})

/** Whether nobody is to be written to in that hour of the shop's day; the same hour at both ends means never quiet. */
export const isQuiet = ({ quietFrom, quietTo }: Pick<Desk, 'quietFrom' | 'quietTo'>, hour: number): boolean =>
  quietFrom <= quietTo ? hour >= quietFrom && hour < quietTo : hour >= quietFrom || hour < quietTo

/** Why a bike is asked back, in one sentence that can be said on the phone or written. */
export function sayWhy(recall: { bike: string; settle: { bedded: boolean } | null; daysSince: number }): string {
  const since = recall.daysSince < 10 ? `${recall.daysSince} days` : `${Math.round(recall.daysSince / 7)} weeks`
  return recall.settle
    ? `${recall.bike} had a new gear cable ${since} ago: by now it has bedded in, and the barrel wants a touch before a gear goes.`
    : `${recall.bike} was set up here ${since} ago: we look once more that everything holds.`
}

/** What a customer is written. The last line is how they are left alone. */
export const sayMessage = (m: { shop: string; why: string; day: string }): string =>
  `${m.shop}: ${m.why} Ten minutes, best around ${m.day}. Answer with a day that suits you, or STOP to get no more of these.`

/** What an answer asks for: to be left alone, or something a person must read. */
export const asksToStop = (answer: string): boolean => /^\s*(stop|unsubscribe|no more)\b/i.test(answer)

/** How often a message is tried, and after how many minutes again. `practice` */
export const RETRY_MINUTES = [1, 10, 60] as const
