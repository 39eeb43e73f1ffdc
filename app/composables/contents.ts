/**
 * Runs when something changes in what it says. News of anything else in the job makes new objects that say the same:
 * they must not take away what a hand has just chosen.
 */
export const watchContents = (source: () => unknown, changed: () => void) =>
  watch(() => JSON.stringify(source()), changed)
