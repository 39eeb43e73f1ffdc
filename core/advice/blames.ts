import { NO_WINDOW_TURNS } from '../standards/model'

/** Faults that a part or a bend can cure; each particle is judged with every one of them cured. */
export const CURABLE = ['friction', 'hanger', 'mismatch'] as const
export type Curable = (typeof CURABLE)[number]

/**
 * Section 3 of the model: narrow now, and curing this one alone widens it, or it alone keeps it narrow. No window
 * counts as 0.
 */
export function blames(
  now: number,
  curedAlone: number,
  othersCured: number,
  allCured: number,
  narrow: number,
): boolean {
  if (now >= narrow) return false
  if (curedAlone - now >= NO_WINDOW_TURNS) return true
  return othersCured < narrow && allCured > othersCured
}
