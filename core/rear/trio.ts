import type { CassettePart, DerailleurPart, PartsOfShop, ShifterPart } from '../standards/partsOfShop'
import { quickFit, type Fit, type Trio } from './fit'

export const trioOf = (
  s: Pick<ShifterPart, 'pullMm'>,
  d: Pick<DerailleurPart, 'ratio'>,
  c: Pick<CassettePart, 'pitchMm'>,
): Trio => ({ pullMm: s.pullMm, ratio: ratioAlong(d.ratio, s.pullMm.length), pitchMm: c.pitchMm })

/** A list of ratios serves shifters with more clicks than it has: the last goes on. */
const ratioAlong = (ratio: number | number[], clicks: number): number | number[] =>
  typeof ratio === 'number' ? ratio : Array.from({ length: clicks }, (_, k) => ratio[Math.min(k, ratio.length - 1)])

/** One cell of the matrix: what a shifter and a cassette do on this derailleur. */
export type Cell = Pick<Fit, 'verdict' | 'windowTurns' | 'worstMm' | 'gears'> & { shifter: string; cassette: string }

/** Every shifter with every cassette on one derailleur, row by row. */
export const matrixOf = (derailleur: DerailleurPart, parts: PartsOfShop): Cell[][] =>
  parts.shifters.map(s =>
    parts.cassettes.map(c => ({ shifter: s.id, cassette: c.id, ...quickFit(trioOf(s, derailleur, c)) })),
  )

/** Parts of the same numbers behave alike: one of them stands for all, in order of speeds and size. */
export function alike<P extends { id: string }>(
  parts: readonly P[],
  along: (part: P) => readonly number[],
): { part: P; ids: string[] }[] {
  const groups = new Map<string, { part: P; ids: string[] }>()
  for (const p of parts) {
    const key = along(p).join(' ')
    groups.set(key, { part: groups.get(key)?.part ?? p, ids: [...(groups.get(key)?.ids ?? []), p.id] })
  }
  const mean = (p: P) => along(p).reduce((s, v) => s + v, 0) / along(p).length
  return [...groups.values()].sort((a, b) => along(a.part).length - along(b.part).length || mean(b.part) - mean(a.part))
}
