/** Help in steps, the least first; each is counted. */
export const HELPS = ['check', 'tells', 'move', 'odds'] as const
export type Help = (typeof HELPS)[number]
export const HELP_WORDS: Record<Help, string> = {
  check: 'Which kind of step?',
  tells: 'What would it tell?',
  move: 'Which move exactly?',
  odds: 'What is it likely to be?',
}
