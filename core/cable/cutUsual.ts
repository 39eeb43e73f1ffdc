/** What a cut loses, and what is too short to go back on the wall, mm. */
export type CutOptions = { kerfMm: number; leastOffcutMm: number }

/** Each cut loses its kerf, and squaring the end as much again. `model` */
export const USUAL_CUT: CutOptions = { kerfMm: 2, leastOffcutMm: 150 }
/** A millimetre of offcut is worth so much of one on the roll: used first where it makes little scrap. `model` */
export const OFFCUT_WORTH = 0.5
