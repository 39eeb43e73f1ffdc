import { M10_PITCH_MM } from '../standards/tables/threads'

/** Travel of a brake's barrel from fully in, turns (`memory`), and its thread, mm a turn. */
export const BRAKE_BARREL = { turns: 8, threadMm: M10_PITCH_MM } as const

/** More cable than this let out, and the pads hang in the air, mm. `practice` */
export const MOST_LET_OUT_MM = 25
