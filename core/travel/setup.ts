import { z } from 'zod'
import { BRAKES, BrakeParts } from '../brake/kinds'
import { HOUSING_PLACES } from '../cable/places'
import { RUNS } from '../cable/housing'
import { HubParts } from '../hub/kinds'
import { NOTE_LENGTH } from '../job/note'
import { RearParts } from '../rear/parts'

const Sixteenths = z
  .int('Turns: whole sixteenths')
  .min(-16 * 12, 'More than 12 turns')
  .max(16 * 12, 'More than 12 turns')
const lengthMm = z.number('Housing: millimetres').min(1, 'Housing: at least 1 mm').max(3500, 'Housing: at most 3500 mm')

/**
 * A bike's setup as it travels with the bike: parts and figures, nobody's name. The open format's meaning; `write.ts`
 * is how it is written.
 */
export const Setup = z.strictObject({
  /** What the bike is called in the shop it comes from. */
  bike: z.string().trim().min(1, 'The bike has no name').max(80, 'The bike’s name is longer than 80 characters'),
  /** The day it left, yyyy-mm-dd. */
  left: z.iso.date('The day it left is no day'),
  /** Null on a bike without a derailleur. */
  rear: RearParts.nullable(),
  /** Net turns of the last visit in sixteenths: barrel + out, the others + in. */
  turned: z.strictObject({ barrel: Sixteenths, H: Sixteenths, L: Sixteenths, B: Sixteenths }),
  gapMm: z.number().min(-20, 'The gap is no gap').max(60, 'The gap is no gap').nullable(),
  /** Lengths of housing, each by its run and place, lever first. */
  housing: z
    .array(z.strictObject({ run: z.enum(RUNS), place: z.enum(HOUSING_PLACES), lengthMm }))
    .max(RUNS.length * HOUSING_PLACES.length),
  hub: HubParts.nullable(),
  brakes: z
    .array(
      z.strictObject({
        parts: BrakeParts,
        barrelSixteenthsOut: z
          .int()
          .min(0)
          .max(16 * 12)
          .nullable(),
      }),
    )
    .max(BRAKES.length),
  /** When it is to be looked at again, yyyy-mm-dd. */
  recallOn: z.iso.date('The recall is no day').nullable(),
})
export type Setup = z.infer<typeof Setup>

/** What a bike arrives with, apart from its rear: entries for its job's log. */
export const arrivesWith = ({ hub, brakes }: Setup) => [
  ...brakes.map(b => ({ kind: 'brakeParts' as const, parts: b.parts })),
  ...(hub ? [{ kind: 'hubParts' as const, parts: hub }] : []),
]

/**
 * What the shop it goes to should know and no entry says: lengths to measure against, and how it stood. One line of a
 * note.
 */
export function noteOf(setup: Setup): string {
  const lengths = setup.housing.map(h => `${h.run} ${h.place} ${h.lengthMm}`)
  const words = [
    `From its code, left ${setup.left}`,
    ...(setup.gapMm === null ? [] : [`B gap ${setup.gapMm} mm`]),
    ...(lengths.length ? [`housing mm: ${lengths.join(', ')}`] : []),
  ].join('; ')
  return words.length > NOTE_LENGTH ? `${words.slice(0, NOTE_LENGTH - 1)}…` : words
}
