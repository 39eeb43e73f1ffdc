import { z } from 'zod'
import { Provenance } from '../quantity/provenance'
import { Kind, ruleOf, type FigureRule } from './kinds'

/** A number, a list along clicks, gaps or gears, or from and to. */
export const FigureValue = z.union([z.number(), z.array(z.number()).min(1).max(20)])
export type FigureValue = z.infer<typeof FigureValue>

/** One figure of an entry and where it comes from; `source` names the standard or how it was computed. */
export const Figure = z.strictObject({
  key: z.string(),
  value: FigureValue,
  provenance: Provenance,
  source: z.string().optional(),
})
export type Figure = z.infer<typeof Figure>

/** One row of the catalogue, named by its numbers. */
export const Entry = z.strictObject({ kind: Kind, id: z.string(), title: z.string(), figures: z.array(Figure) })
export type Entry = z.infer<typeof Entry>

export const figureOf = (entry: Entry, key: string): Figure | undefined => entry.figures.find(f => f.key === key)

const trim = (value: number): string => String(Math.round(value * 1000) / 1000)

/** A value as a mechanic reads it, without unit: "2.8", "3 to 6", "2.8 2.8 2.9". */
export function sayValue(value: FigureValue, rule: FigureRule): string {
  if (typeof value === 'number') return trim(value)
  if (rule.shape !== 'range') return value.map(trim).join(' ')
  return value[0] === value[1] ? trim(value[0]) : `${trim(value[0])} to ${trim(value[1])}`
}

/** The same with its unit. */
export function sayFigure(kind: Kind, figure: Pick<Figure, 'key' | 'value'>): string {
  const rule = ruleOf(kind, figure.key)
  return rule ? `${sayValue(figure.value, rule)}${rule.unit ? ` ${rule.unit}` : ''}` : String(figure.value)
}

/** What a figure is sorted and compared by: its mean. */
export const meanOf = (value: FigureValue): number =>
  typeof value === 'number' ? value : value.reduce((s, v) => s + v, 0) / value.length

/**
 * A value as so many along the clicks or gaps; a list of other length is cut or refused by its owner, never stretched.
 */
export const spreadOver = (value: FigureValue, count: number): number[] =>
  typeof value === 'number' ? new Array<number>(count).fill(value) : value.slice(0, count)
