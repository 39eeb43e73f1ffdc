import { meanOf, spreadOver } from './entry'
import { quickFit, type Fit, type Trio } from './fit'
import { inForceFigure, nameOf, type EntryInForce } from './shopValues'
import { sprocketThicknessMm } from './tables/rear'

/** Parts as the explorer needs them: numbers and a name. Plain data, so that it crosses into a worker. */
export type ShifterPart = { id: string; name: string; pullMm: number[] }
export type DerailleurPart = { id: string; name: string; ratio: number | number[] }
export type CassettePart = { id: string; name: string; pitchMm: number[]; thicknessMm: number }
export type PartsOfShop = { shifters: ShifterPart[]; derailleurs: DerailleurPart[]; cassettes: CassettePart[] }

/** A cassette of the shop's own may not have had its thickness measured: then that of its number of sprockets counts. */
const thickness = (e: EntryInForce): number => {
  const own = inForceFigure(e, 'thicknessMm')
  return own ? meanOf(own.value) : sprocketThicknessMm(meanOf(inForceFigure(e, 'speeds')!.value))
}

/** The rear parts of a catalogue, lists spread over their clicks and gaps. */
export function partsOf(catalogue: readonly EntryInForce[]): PartsOfShop {
  const of = (kind: EntryInForce['kind']) => catalogue.filter(e => e.kind === kind)
  const along = (e: EntryInForce, key: string) =>
    spreadOver(inForceFigure(e, key)!.value, meanOf(inForceFigure(e, 'speeds')!.value) - 1)
  return {
    shifters: of('shifter').map(e => ({ id: e.id, name: nameOf(e), pullMm: along(e, 'pullMm') })),
    derailleurs: of('derailleur').map(e => ({ id: e.id, name: nameOf(e), ratio: inForceFigure(e, 'ratio')!.value })),
    cassettes: of('cassette').map(e => ({
      id: e.id,
      name: nameOf(e),
      pitchMm: along(e, 'pitchMm'),
      thicknessMm: thickness(e),
    })),
  }
}

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
