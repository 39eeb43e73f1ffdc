/** So many characters a note on a job may have. */
export const NOTE_LENGTH = 400
