import { z } from 'zod'
import { ExchangeFile } from './file'

/**
 * The published JSON Schema (draft 2020-12) of the open format, as docs/standards.schema.json holds it: npm run schema.
 */
export function exchangeSchema(): Record<string, unknown> {
  return {
    ...z.toJSONSchema(ExchangeFile),
    title: 'Ocho standards',
    description:
      'Catalogue, shop values and records of an Ocho shop. Lengths in mm, turns in turns, torques in N·m; lists run from the smallest sprocket.',
  }
}
