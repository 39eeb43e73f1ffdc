import { TABLE_ONLY, targetIn, type Standards } from '../standards/inForce'

/** Difference across a 622 mm rim that a hanger may show, mm, by speeds; as it counts in this shop. */
export const acrossTolerance = (speeds: number, s: Standards = TABLE_ONLY): number =>
  targetIn(s, speeds <= 8 ? 'hanger-8' : speeds <= 10 ? 'hanger-10' : 'hanger-12').to

/** What hangs the derailleur decides between bending, renewing and refusing. */
export const HANGER_KINDS = ['steel', 'replaceable', 'direct', 'titanium', 'carbon'] as const
export type HangerKind = (typeof HANGER_KINDS)[number]
export const HANGER_KIND_WORDS: Record<HangerKind, string> = {
  steel: 'Steel dropout',
  replaceable: 'Replaceable hanger',
  direct: 'Universal direct hanger',
  titanium: 'Titanium',
  carbon: 'Carbon or cast',
}
