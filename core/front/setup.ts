import { chainOuterMm } from '../standards/tables/chains'
import type { FrontParts } from './parts'

/** A front with what it meets behind: gaps between sprockets, smallest first, and the width over the chain's plates, mm. */
export type FrontSetup = { parts: FrontParts; pitchMm: readonly number[]; chainWidthMm: number }

/** Width of a chain for fewer speeds than the table knows, mm; `memory` */
const WIDEST_MM = 7.1

export const frontSetupOf = (
  parts: FrontParts,
  cassette: { teeth: readonly number[]; pitchMm: readonly number[] },
): FrontSetup => ({ parts, pitchMm: cassette.pitchMm, chainWidthMm: chainOuterMm(cassette.teeth.length) ?? WIDEST_MM })
