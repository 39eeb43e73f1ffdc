/**
 * How a gap at the pads is set: as the kind is usually done, by letting wire out, or by winding the barrel in after the
 * clamp.
 */
export type PadGap = 'usual' | 'let-out' | 'wind-in'
