import { z } from 'zod'
import type { Provenance } from '../quantity/provenance'
import { tableEntry } from './catalogue'
import { FigureValue, figureOf, meanOf } from './entry'
import { Kind, ruleOf } from './kinds'
import type { Settled } from './settled'
import type { ShopValue } from './shopValues'

/** A figure that this shop measured itself, the latest of it. */
export const OwnFigure = z.object({ kind: Kind, entry: z.string(), figure: z.string(), value: FigureValue })
export type OwnFigure = z.infer<typeof OwnFigure>

/**
 * The figures that count in a shop: what it measured itself, else the table's. Sums ask here, never the table alone.
 */
export type Standards = {
  readonly own: ReadonlyMap<string, FigureValue>
  /** How renewed runs had settled when they came back here. */
  readonly settled: readonly Settled[]
}

const keyOf = (kind: Kind, entry: string, figure: string): string => `${kind}/${entry}/${figure}`

/**
 * The figures of a shop that are in force, out of all it ever said: nicknames and what went back to the table left out.
 */
export function ownFigures(values: readonly ShopValue[]): OwnFigure[] {
  const latest = new Map<string, ShopValue>()
  for (const v of values) latest.set(keyOf(v.kind, v.entry, v.figure), v)
  return [...latest.values()].flatMap(({ kind, entry, figure, value }) =>
    value === null || typeof value === 'string' ? [] : [{ kind, entry, figure, value }],
  )
}

export const standardsWith = (own: readonly OwnFigure[], settled: readonly Settled[] = []): Standards => ({
  settled,
  own: new Map(own.map(o => [keyOf(o.kind, o.entry, o.figure), o.value])),
})

/** The table as it is, for tests and for whom nothing was measured. */
export const TABLE_ONLY: Standards = standardsWith([])

/**
 * What counts for one figure of one row. @throws RangeError when the table has no such figure and the shop measured
 * none
 */
function valueIn(s: Standards, kind: Kind, entry: string, figure: string): FigureValue {
  const row = tableEntry(kind, entry)
  const value = s.own.get(keyOf(kind, entry, figure)) ?? (row && figureOf(row, figure)?.value)
  if (value === undefined) throw new RangeError(`the standards have no ${figure} of ${kind} ${entry}`)
  return value
}

/** Where a figure that counts comes from. @throws RangeError as `valueIn` */
export function provenanceIn(s: Standards, kind: Kind, entry: string, figure: string): Provenance {
  if (s.own.has(keyOf(kind, entry, figure))) return 'shop'
  const row = tableEntry(kind, entry)
  const found = row && figureOf(row, figure)
  if (!found) throw new RangeError(`the standards have no ${figure} of ${kind} ${entry}`)
  return found.provenance
}

/** The same where the table may have none: null then. */
export function valueOrNull(s: Standards, kind: Kind, entry: string, figure: string): FigureValue | null {
  const row = tableEntry(kind, entry)
  return s.own.get(keyOf(kind, entry, figure)) ?? (row && figureOf(row, figure)?.value) ?? null
}

/** One number; the mean where there is a list. @throws RangeError as `valueIn` */
export const numberIn = (s: Standards, kind: Kind, entry: string, figure: string): number =>
  meanOf(valueIn(s, kind, entry, figure))

/** From and to. @throws RangeError as `valueIn` */
export function rangeIn(s: Standards, kind: Kind, entry: string, figure: string): { from: number; to: number } {
  const value = valueIn(s, kind, entry, figure)
  return typeof value === 'number' ? { from: value, to: value } : { from: value[0], to: value.at(-1)! }
}

/** A target of the table in its own unit: mm, turns, pitches, per cent or a factor. @throws RangeError as `valueIn` */
export function targetIn(s: Standards, id: string): { from: number; to: number } {
  const key = tableEntry('target', id)?.figures[0]?.key
  if (!key || !ruleOf('target', key)) throw new RangeError(`the standards have no target ${id}`)
  return rangeIn(s, 'target', id, key)
}
