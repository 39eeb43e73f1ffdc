/** Where this tablet keeps the practice run that is under way; apart, since signing out is on every page and Practice is not. */
export const PRACTICE_RUN_KEY = 'ocho-practice-run'

/** Whoever comes next begins anew. What was practised and waits to be sent stays with its person. */
export const dropPracticeRun = (): void =>
  (globalThis.localStorage as Storage | undefined)?.removeItem(PRACTICE_RUN_KEY)
