/**
 * Figures as people type them: a comma or a point, a true minus or a dash. Nonsense and nothing come back as NaN, which
 * every bound refuses.
 */

const one = (word: string): number => Number(word.replace(',', '.').replace('−', '-'))

/** One figure. @example typedNumber(' 2,78 ') // 2.78 */
export const typedNumber = (text: string): number => (text.trim() === '' ? NaN : one(text.trim()))

/**
 * Several, with spaces, semicolons, slashes or a comma and a space between. @example typedNumbers('17,4 17.6') //
 * [17.4, 17.6]
 */
export const typedNumbers = (text: string): number[] =>
  text
    .trim()
    .split(/[\s;/]+|,\s+/)
    .filter(Boolean)
    .map(one)
