/**
 * Parameters of the one response model. All `model` unless a line says otherwise; lengths in pitches of the sprocket
 * in question, places + inboard, multiplied by the bike's sharpness where HEARING_SCALED says so.
 */
export const HEARING = {
  /** Beyond this the chain chatters on a neighbour. */
  rub: 0.18,
  slowInward: 0.26,
  slowOutward: 0.28,
  noneInward: 0.42,
  noneOutward: 0.5,
  jumpsInward: 0.58,
  jumpsOutward: 0.5,
  /** The smallest sprocket has no neighbour outboard: rough only beyond this. */
  smallestRough: 0.45,
  /** The largest has none inboard: rough only beyond this. */
  largestRough: 0.32,
  /** Width of every threshold's logistic; not multiplied by sharpness. */
  width: 0.047,
} as const

/**
 * When the chain leaves the cassette: thrown as min(z + overswing, place of L) passes `overLargest`, likewise with H.
 */
export const THROWN = { overLargest: 0.45, overSmallest: 0.675, overswing: 0.225, width: 0.025 } as const

/** Every gear clean at least this often, from both sides, is what "right" means. */
export const RIGHT_CHANCE = 0.7

/** Share of reports that name another outcome than the true one; never `off`. */
export const WRONG_REPORTS = 0.05

/** A worn sprocket skips on this share of arrivals, whatever the setting. */
export const WORN_SKIPS = 2 / 3

/** Winding to an edge: noticed late by `lateTurns`; spread in turns and, of the hearing, in pitches. */
export const EDGE = { lateTurns: 1 / 16, sdTurns: 0.065, sdPitch: 0.0125, limitTurns: 2, slips: 0.025 } as const

/** Spread of a person's or a gauge's measurement, and the share of slips. */
export const MEASURE = { sightSdMm: 0.35, offsetSdMm: 0.3, hangerSdDeg: 0.08, slips: 0.02 } as const

/** Backlash of a run with new cable and housing, mm of pulley, and the share of it that falls on inward shifts. */
export const NEW_CABLE = { backlashMm: 0.28, inwardShare: 0.5 } as const

/** Pulley travel of one turn of a stop screw, mm, and its spread across bikes. */
export const STOP_SCREW = { mmPerTurn: 1.0, sd: 0.15 } as const
