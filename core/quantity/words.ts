/** Words in a row inside a sentence: small letters, with commas. */
export const listed = (words: readonly string[]): string => words.join(', ').toLowerCase()

/** The first letter as a sentence begins with it. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)
