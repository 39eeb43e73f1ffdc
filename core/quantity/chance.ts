const UNBROKEN_SPACE = '\u00a0'

/** A chance (0 to 1) in whole per cent: 0.84 → "84 %", with a space that no line breaks at. */
export const sayChance = (chance: number): string => `${Math.round(chance * 100)}${UNBROKEN_SPACE}%`
