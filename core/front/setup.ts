import { numberIn, TABLE_ONLY, type Standards } from '../standards/inForce'
import { chainRow } from '../standards/tables/chains'
import type { FrontParts } from './parts'

/**
 * A front with what it meets behind: gaps between sprockets, smallest first, and the width over the chain's plates, mm.
 */
export type FrontSetup = { parts: FrontParts; pitchMm: readonly number[]; chainWidthMm: number }

export const frontSetupOf = (
  parts: FrontParts,
  cassette: { teeth: readonly number[]; pitchMm: readonly number[] },
  s: Standards = TABLE_ONLY,
): FrontSetup => ({
  parts,
  pitchMm: cassette.pitchMm,
  chainWidthMm: numberIn(s, 'chain', chainRow(cassette.teeth.length), 'outerMm'),
})
