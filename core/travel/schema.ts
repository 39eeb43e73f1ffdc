import { z } from 'zod'
import { Setup } from './setup'

/**
 * The published JSON Schema (draft 2020-12) of a setup once read, as docs/travel.schema.json holds it: npm run schema.
 */
export const travelSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(Setup),
  title: 'A bike’s setup, format 1',
  description:
    'What the square code of a setup sheet holds, once read. Lengths in mm, turns in sixteenths where it says so.',
})
