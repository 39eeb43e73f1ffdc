import { z } from 'zod'
import { isBrake, type RunName } from './housing'

/** Heads of inners: small cylinder on shift, one family's smaller; pear or large barrel on brake. `practice` */
export const HEADS = ['small cylinder', 'smaller cylinder', 'large barrel', 'pear'] as const
export const Head = z.enum(HEADS)
export type Head = (typeof HEADS)[number]
export const headsOf = (run: RunName): readonly Head[] =>
  isBrake(run) ? ['large barrel', 'pear'] : ['small cylinder', 'smaller cylinder']
/** The head that was said; of a brake's two nobody can tell which without looking. */
export const headOf = (run: { run: RunName; head?: Head | undefined }): Head | null =>
  run.head ?? (isBrake(run.run) ? null : 'small cylinder')
