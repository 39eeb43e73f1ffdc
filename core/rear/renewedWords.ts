import type { Part } from './benchEvents'

/** A part renewed, in words. */
export const RENEWED_WORDS: Record<Part, string> = {
  cable: 'New cable and housing',
  hanger: 'New hanger',
  shifter: 'New shifter',
  derailleur: 'New derailleur',
  cassette: 'New cassette',
}
