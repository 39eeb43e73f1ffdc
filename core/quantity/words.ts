/** Words in a row inside a sentence: small letters, with commas. */
export const listed = (words: readonly string[]): string => words.join(', ').toLowerCase()

/** The first letter as a sentence begins with it. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

/** How many of what: `countOf(1, 'bike')` → "1 bike", `countOf(3, 'is', 'are')` → "3 are". */
export const countOf = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`
