import { askedBy, isLate, type Since, type When } from './late'

/** "Don't know", the answer to any look of any bench: it tells nothing, and takes nothing back that was seen. */
export const UNKNOWN = 'unknown'

/** A look; `since` where it keeps the bike. */
type Look = { check: string; since?: Since }
/**
 * The looks that stand after a tap: one that keeps the bike and was made since is not answered by it, however late it
 * comes.
 */
export function withSeenSince<L extends Look>(was: readonly L[], now: readonly L[], told: When): readonly L[] {
  const answered = (l: L) => !now.includes(l) || now.some(n => n.check === l.check && !was.includes(n))
  const since = was.flatMap(l =>
    isLate(told, l.since) && answered(l) ? [{ ...l, since: askedBy(l.since, told) }] : [],
  )
  const others = now.filter(n => !since.some(l => l.check === n.check))
  return since.length ? [...others, ...since] : now
}
