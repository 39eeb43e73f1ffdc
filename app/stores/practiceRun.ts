/** Where this tablet keeps the practice run that is under way. Apart: every page signs out, few practise. */
export const PRACTICE_RUN_KEY = 'ocho-practice-run'

/** Whoever comes next begins anew. What was practised and waits to be sent stays with its person. */
export const dropPracticeRun = (): void =>
  (globalThis.localStorage as Storage | undefined)?.removeItem(PRACTICE_RUN_KEY)
