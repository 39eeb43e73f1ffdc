import { z } from 'zod'

/** Where a figure comes from; a shop's own measurement beats all others. */
export const Provenance = z.enum(['std', 'practice', 'memory', 'model', 'shop'])
export type Provenance = z.infer<typeof Provenance>

/** How a provenance is said on screen. */
export const PROVENANCE_WORDS: Record<Provenance, string> = {
  std: 'published standard',
  practice: 'common practice',
  memory: 'from memory',
  model: 'our model',
  shop: 'measured here',
}
