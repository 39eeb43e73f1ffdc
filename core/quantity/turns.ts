/**
 * Turns of a screw. The ledger counts whole sixteenths, the mechanic hears eighths: an eighth of an M5 barrel is
 * 2–4 % of a pitch, and nothing finer is worth saying (`model`).
 */

/** Rounds turns to the nearest eighth. */
export const toEighth = (turns: number): number => Math.round(turns * 8) / 8

/** Rounds turns to whole sixteenths, the unit of the ledger. */
export const toSixteenths = (turns: number): number => Math.round(turns * 16)

/** Sixteenths of the ledger as turns. */
export const fromSixteenths = (sixteenths: number): number => sixteenths / 16

/** Amount of a turn as the trade says it, without direction: 0.375 → "3/8", 1.25 → "1 1/4", 0 → "0". */
export function sayTurns(turns: number): string {
  const sixteenths = Math.abs(toSixteenths(turns))
  const whole = Math.floor(sixteenths / 16)
  let top = sixteenths % 16
  let bottom = 16
  while (top > 0 && top % 2 === 0) {
    top /= 2
    bottom /= 2
  }
  if (top === 0) return String(whole)
  return whole === 0 ? `${top}/${bottom}` : `${whole} ${top}/${bottom}`
}

/** "1 turn", "3/8 turn", "1 1/4 turns". */
export const sayTurnsOf = (turns: number): string => `${sayTurns(turns)} ${Math.abs(turns) > 1 ? 'turns' : 'turn'}`
