/** "Don't know", the answer to any look of any bench: it tells nothing, and takes nothing back that was seen. */
export const UNKNOWN = 'unknown'

/** A look; `at` where it keeps the bike. */
type Look = { check: string; at?: string }
/**
 * The looks that stand after something that was tapped at `at`: one that keeps the bike and was made since is not
 * answered by it, however late it comes. Clocks of tablets can be wrong, so that it stands so once: what answers it
 * next does.
 */
export function withSeenSince<L extends Look>(was: readonly L[], now: readonly L[], at: string): readonly L[] {
  const answered = (l: L) => !now.includes(l) || now.some(n => n.check === l.check && !was.includes(n))
  const since = was.filter(l => l.at !== undefined && l.at > at && answered(l))
  const others = now.filter(n => !since.some(l => l.check === n.check))
  return since.length ? [...others, ...since.map(({ at: _, ...l }) => l as L)] : now
}
