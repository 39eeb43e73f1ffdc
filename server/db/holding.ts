/** A pattern of `like` that finds what holds these words, whatever stands in them. */
export const holding = (words: string): string => `%${words.replace(/[\\%_]/g, c => `\\${c}`)}%`
