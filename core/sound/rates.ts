import { CHAIN_PITCH_MM } from '../quantity/chainPitch'

/** What turns at the stand: crank rpm, and the teeth the chain runs on. */
export type Turning = { cadenceRpm: number; ringTeeth: number; sprocketTeeth: number }

/** Links that pass a point in a second: a tooth of the ring each (model, section 7). */
export const linksPerSecond = ({ cadenceRpm, ringTeeth }: Turning): number => (cadenceRpm * ringTeeth) / 60
/** Turns of the sprocket, so of the wheel, in a second. */
export const sprocketTurnsPerSecond = (t: Turning): number => linksPerSecond(t) / t.sprocketTeeth
export const chainSpeedMmPerSecond = (t: Turning): number => linksPerSecond(t) * CHAIN_PITCH_MM
