import type { Schools } from './schools'

/**
 * How a shift is asked for by the school of listening: what is inferred from the answer is the same in all, since only
 * the arrival is heard.
 */
export function howToAsk(schools: Schools, teeth: readonly number[], lever: number, to: number): string {
  const { id, clicks } = schools.test
  const inward = to > lever
  const start = inward ? to - clicks : to + clicks
  if (to === lever) return 'One back and in again, the same way.'
  const from = teeth[Math.min(teeth.length - 1, Math.max(0, start))]
  if (id === 'first-four' && to > 4) return 'The first four are done: this one proves the rest.'
  if (clicks === 2 && start >= 0 && start < teeth.length)
    return start === lever ? `Two clicks at once from the ${from}.` : `Go to the ${from}, then two clicks at once.`
  return Math.abs(to - lever) === 1 ? 'One click.' : `Go to the ${from}, then one click.`
}
