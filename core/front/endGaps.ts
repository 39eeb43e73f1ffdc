import type { FrontParts } from './parts'

/** About what is left between plate and chain in the end pairs when both stops stand right, mm. `practice` */
export const END_GAP_MM = 1
/** Narrowest chain over its plates that any front moves, mm. `memory` */
const NARROWEST_CHAIN_MM = 5
/** The most a gap can be with the chain in the cage, mm. */
export const mostGapMm = (p: Pick<FrontParts, 'cageWidthMm'>): number => p.cageWidthMm - NARROWEST_CHAIN_MM
/** The gaps as measured or judged: inner plate in small–largest, outer plate in big–smallest, mm. */
export type EndGaps = { innerMm: number; outerMm: number }
