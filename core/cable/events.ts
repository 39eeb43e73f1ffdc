import { z } from 'zod'
import { RunName } from './housing'
import { Run } from './run'
import { CABLE_STEPS } from './stepNames'

/** The cable bench's kinds of ledger entries: a run as it was planned or measured, and the steps of fitting it. */
export const CABLE_EVENTS = [
  z.strictObject({ kind: z.literal('run'), run: Run }),
  z.strictObject({ kind: z.literal('cabled'), run: RunName, step: z.enum(CABLE_STEPS) }),
] as const
export type CableEvent = z.infer<(typeof CABLE_EVENTS)[number]>
/** A step of fitting, as the benches of what hangs on that cable follow it. */
export type Cabled = Extract<CableEvent, { kind: 'cabled' }>
