import type { BenchEvent } from './benchEvents'

/** An advice that was left: its key, and how many bench events there were before. */
export type Decline = { what: string; after: number }

/** After so many things heard a part that was left is spoken of again: much more is known by then. `model` */
const PART_HEARD_AGAIN = 5

const isNewsOfShifting = (e: BenchEvent): boolean => e.kind !== 'sight' && !(e.kind === 'turn' && e.screw !== 'barrel')
const renews = (e: BenchEvent, ...parts: string[]): boolean => e.kind === 'replace' && parts.includes(e.part)

/** Is this event news about what was left? @param largest the largest sprocket, counted from 0 */
function isNews(what: string, e: BenchEvent, largest: number): boolean {
  const [verb, of] = what.split(' ')
  if (of === 'H' || of === 'L') {
    if ((e.kind === 'sight' && e.at === of) || (e.kind === 'turn' && e.screw === of)) return true
    if (e.kind === 'bend' || renews(e, 'hanger', 'derailleur', 'cassette')) return true
    // something at its own end gear
    return (
      (e.kind === 'shift' && e.heard !== 'clean' ? e.to : e.kind === 'unclean' ? e.to : -1) ===
      (of === 'H' ? 0 : largest)
    )
  }
  if (verb === 'hanger' || verb === 'replace' || verb === 'reclamp')
    return e.kind === 'hanger' || e.kind === 'replace' || e.kind === 'reclamp' || e.kind === 'bend'
  return isNewsOfShifting(e)
}

/**
 * Which advice stays left: what a mechanic waved off counts as sure, and is not said again before there is news about
 * it.
 * @param n sprockets of the cassette
 */
export function standingDeclines(declines: readonly Decline[], log: readonly BenchEvent[], n: number): string[] {
  return declines
    .filter(({ what, after }) => {
      const since = log.slice(after)
      const part = /^(hanger|replace|reclamp)/.test(what)
      return (
        !since.some(e => isNews(what, e, n - 1)) && !(part && since.filter(isNewsOfShifting).length >= PART_HEARD_AGAIN)
      )
    })
    .map(d => d.what)
}
