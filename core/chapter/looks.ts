/** "Don't know", the answer to any look of any bench: it tells nothing, and takes nothing back that was seen. */
export const UNKNOWN = 'unknown'

/** A look; `at` where it is one with which nobody rides. */
type Look = { check: string; at?: string }
/**
 * The looks that stand after something that was tapped at `at`: what nobody rides with and was seen since is not
 * answered by it, however late it comes.
 */
export function withSeenSince<L extends Look>(was: readonly L[], now: readonly L[], at: string): readonly L[] {
  const since = was.filter(l => l.at !== undefined && l.at > at)
  return since.length ? [...now.filter(n => !since.some(l => l.check === n.check)), ...since] : now
}
