/** About what is left between plate and chain in the end pairs when both stops stand right, mm. `practice` */
export const END_GAP_MM = 1
/** The gaps as measured or judged: inner plate in small–largest, outer plate in big–smallest, mm. */
export type EndGaps = { innerMm: number; outerMm: number }
