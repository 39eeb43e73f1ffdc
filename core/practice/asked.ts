import { z } from 'zod'
import { HEARD } from '../response/heard'
import { LESSONS } from './lessons'
import { LEAST_NUMBER, LEVELS, MOST_NUMBER, PRACTICE_BENCHES, type PracticeBench } from './levels'

/** Which bike is practised on: the same for everybody who asks for it. */
export const PracticeAsked = z.object({
  bench: z.enum(PRACTICE_BENCHES, { error: 'Which bench: rear, front, brake or hub' }),
  level: z.enum(LEVELS, { error: 'Which level: one, alike, two or none' }),
  bike: z.coerce
    .number({ error: 'A practice bike has a whole number' })
    .int('A practice bike has a whole number')
    .min(LEAST_NUMBER, `Practice bikes are numbered from ${LEAST_NUMBER} to ${MOST_NUMBER}`)
    .max(MOST_NUMBER, `Practice bikes are numbered from ${LEAST_NUMBER} to ${MOST_NUMBER}`),
  lesson: z.enum(LESSONS.map(l => l.id) as [string, ...string[]], { error: 'There is no such lesson' }).optional(),
  /** A mechanic's test it is one of. */
  test: z.coerce.number({ error: 'A test has a whole number' }).int().min(1).max(9_999).optional(),
})
export type PracticeAsked = z.infer<typeof PracticeAsked>
/** The same, or one drawn from what is believed of a real bike: by the name it is kept under while its page is open. */
export type BikeAsked = PracticeAsked & { drawn?: string }

const Turns = z
  .number()
  .min(-4)
  .max(4)
  .refine(t => t !== 0)
/** An act at the rear, as a stopped run is kept and taken up again. */
export const RearActKept = z.discriminatedUnion('do', [
  z.object({ do: z.literal('shift'), to: z.int().min(0).max(15) }),
  z.object({ do: z.literal('turn'), screw: z.enum(['barrel', 'H', 'L']), turns: Turns }),
  z.object({ do: z.literal('turnB'), turns: Turns }),
  z.object({ do: z.literal('gap') }),
  z.object({ do: z.literal('sight'), at: z.enum(['H', 'L']) }),
  z.object({ do: z.literal('offset'), click: z.int().min(0).max(15) }),
  z.object({ do: z.literal('hanger') }),
  z.object({ do: z.literal('reclamp'), barrelTurnsOut: z.number().min(0).max(6) }),
  z.object({ do: z.literal('replace'), part: z.enum(['cable', 'hanger', 'shifter', 'derailleur', 'cassette']) }),
  z.object({ do: z.literal('said'), heard: z.enum(HEARD) }),
  z.object({ do: z.literal('done') }),
])

/** A run as it stands, on the tablet it is practised on: stopped in the middle it is taken up again. */
export const PracticeRun = z.object({
  asked: PracticeAsked,
  acts: z.array(RearActKept).max(400),
  others: z.array(z.string().max(40)).max(400),
  helps: z.array(z.enum(['check', 'tells', 'move', 'odds'])).max(400),
  /** Its result was kept. */
  kept: z.boolean(),
})
export type PracticeRun = z.infer<typeof PracticeRun>
export const newRun = (asked: PracticeAsked): PracticeRun => ({ asked, acts: [], others: [], helps: [], kept: false })

/** Ten bikes of a mechanic's test: benches and levels in turn, the same for all who take it. */
export function bikesOfTest(test: number): PracticeAsked[] {
  const benches: readonly PracticeBench[] = [
    'rear',
    'rear',
    'brake',
    'rear',
    'hub',
    'rear',
    'front',
    'rear',
    'brake',
    'hub',
  ]
  return benches.map((bench, i) => ({ bench, level: LEVELS[(i + test) % LEVELS.length]!, bike: test * 10 + i, test }))
}
