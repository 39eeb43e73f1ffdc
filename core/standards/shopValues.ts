import { z } from 'zod'
import type { Provenance } from '../quantity/provenance'
import { TABLE, tableEntry } from './catalogue'
import { FigureValue, figureOf, meanOf, spreadOver, type Entry, type Figure } from './entry'
import { FIGURES, isOwn, Kind, OWN_KINDS, ruleOf, type FigureRule } from './kinds'

/** The key under which a shop's own name of an entry is kept. */
export const NICKNAME = 'nickname'
/** Own parts are named by the shop: `own-` and a short word. */
const OWN_ID = /^own-[a-z0-9][a-z0-9-]{0,23}$/
/** The id of a part of the shop's own, by the name it is given: small letters and digits, dashes between. */
export const ownIdOf = (name: string): string => {
  const words = name.toLowerCase().match(/[a-z0-9]+/g) ?? []
  return `own-${words.join('-')}`
}

/** What a shop says of one figure of one entry: a measurement, a nickname, or null for "back to the table". */
export const ShopClaim = z
  .strictObject({
    kind: Kind,
    entry: z
      .string()
      .trim()
      .min(1, 'entry is empty: name the row of the catalogue')
      .max(40, 'entry is longer than 40 characters'),
    figure: z.string().trim().min(1, 'figure is empty: name the figure').max(40, 'figure is longer than 40 characters'),
    value: z
      .union(
        [
          FigureValue,
          z.string().trim().min(1, 'a nickname needs a letter').max(40, 'a nickname is at most 40 characters'),
        ],
        { error: 'value: a number, a list of numbers, or a nickname' },
      )
      .nullable(),
    /** How it was measured, in a few words. */
    note: z.string().trim().max(200, 'a note is at most 200 characters').default(''),
  })
  .superRefine((claim, ctx) => {
    const trouble = claimTrouble(claim)
    if (trouble) ctx.addIssue({ code: 'custom', path: [trouble.field], message: trouble.message })
  })
export type ShopClaim = z.infer<typeof ShopClaim>

/** A claim as it is kept: the latest of each figure is in force, the others are its history. */
export const ShopValue = z.strictObject({ ...ShopClaim.shape, at: z.string(), by: z.string() })
export type ShopValue = z.infer<typeof ShopValue>

type Bare = { kind: Kind; entry: string; figure: string; value: ShopClaim['value'] }

/**
 * What was typed of a figure, as it is kept: one number, or a list; from and to alike where one number stands for both.
 */
export function figureValueOf(rule: FigureRule, typed: readonly number[]): FigureValue | undefined {
  if (typed.length === 0) return undefined
  if (typed.length > 1) return [...typed]
  return rule.shape === 'range' ? [typed[0]!, typed[0]!] : typed[0]
}

/**
 * A list along the clicks or gaps of a part that says its speeds has one value for each; the first that does not, by
 * its place.
 */
export function listTrouble(claims: readonly Bare[]): { index: number; message: string } | null {
  for (const [index, { kind, entry, value }] of claims.entries()) {
    const speeds = claims.find(c => c.kind === kind && c.entry === entry && c.figure === 'speeds')?.value
    if (!isOwn(entry) || typeof speeds !== 'number' || !Array.isArray(value)) continue
    if (value.length !== speeds - 1) return { index, message: `One number, or ${speeds - 1} of them` }
  }
  return null
}

/** Why a claim cannot be kept, and in which field; null when it can. */
export function claimTrouble({
  kind,
  entry,
  figure,
  value,
}: Bare): { field: 'entry' | 'figure' | 'value'; message: string } | null {
  const table = tableEntry(kind, entry)
  if (!table) {
    if (!isOwn(entry))
      return {
        field: 'entry',
        message: `the catalogue has no ${kind} ${entry}: name one of its rows, or a part of your own as own-…`,
      }
    if (!OWN_ID.test(entry))
      return { field: 'entry', message: 'a part of your own is named own- and small letters, digits or dashes' }
    if (!OWN_KINDS.some(k => k === kind))
      return {
        field: 'kind' as 'entry',
        message: `parts of your own are shifters, derailleurs and cassettes, not ${kind}`,
      }
  }
  if (figure === NICKNAME)
    return value === null || typeof value === 'string' ? null : { field: 'value', message: 'a nickname is text' }
  const rule = ruleOf(kind, figure)
  if (!rule)
    return {
      field: 'figure',
      message: `a ${kind} has no figure ${figure}: use ${FIGURES[kind]
        .filter(f => !f.derived)
        .map(f => f.key)
        .join(', ')}`,
    }
  if (table && figureOf(table, figure)?.provenance === 'model')
    return {
      field: 'figure',
      message: `${rule.what} of ${entry} is a parameter of our own model: it is calibrated, not measured`,
    }
  if (rule.derived) return { field: 'figure', message: `${rule.what} follows from the other figures: measure those` }
  if (table && !figureOf(table, figure))
    return { field: 'figure', message: `${entry} has no ${rule.what.toLowerCase()} to measure` }
  if (table && figure === 'speeds')
    return { field: 'figure', message: 'how many speeds it has names the part: add one of your own instead' }
  if (value === null) return null
  if (typeof value === 'string') return { field: 'value', message: `${rule.what} is a number` }
  return valueTrouble(rule, value, table ? lengthOf(table, figure) : null)
}

/** How many values a list of this figure has along an entry, or null when it is not known. */
function lengthOf(entry: Entry, figure: string): number | null {
  if (figure === 'ratios') return spreadOver(figureOf(entry, 'ratios')!.value, 20).length
  const speeds = figureOf(entry, 'speeds')
  return speeds ? meanOf(speeds.value) - 1 : null
}

function valueTrouble(
  rule: FigureRule,
  value: FigureValue,
  length: number | null,
): { field: 'value'; message: string } | null {
  const say = (message: string) => ({ field: 'value' as const, message })
  const list = typeof value === 'number' ? [value] : value
  if (rule.shape === 'one' && typeof value !== 'number') return say(`${rule.what} is one number, not a list`)
  if (rule.shape === 'range' && (typeof value === 'number' || value.length !== 2 || value[0] > value[1]))
    return say(`${rule.what} is from and to, the smaller first`)
  if (rule.shape === 'each' && typeof value !== 'number' && length !== null && value.length !== length)
    return say(`${rule.what}: one number, or ${length} of them, not ${value.length}`)
  if (rule.key === 'speeds' && !list.every(Number.isInteger)) return say(`${rule.what} is a whole number`)
  const bad = list.find(v => !Number.isFinite(v) || v < rule.least || v > rule.most)
  return bad === undefined
    ? null
    : say(`${rule.what} must be from ${rule.least} to ${rule.most}${rule.unit ? ` ${rule.unit}` : ''}, not ${bad}`)
}

/**
 * A list of a part of the shop's own must be as long as its speeds say; a part of the table knows its own length.
 * @param claims what is to be kept, @param catalogue as it counts now
 * @returns the first claim that does not go with its part's speeds, and why
 */
export function ownTrouble(
  claims: readonly ShopClaim[],
  catalogue: readonly EntryInForce[],
): { claim: ShopClaim; message: string } | null {
  for (const claim of claims) {
    if (!isOwn(claim.entry) || claim.kind === 'derailleur') continue
    const of = (key: string): ShopClaim['value'] =>
      claims.findLast(c => c.kind === claim.kind && c.entry === claim.entry && c.figure === key)?.value ??
      catalogue.find(e => e.kind === claim.kind && e.id === claim.entry)?.figures.find(f => f.key === key)?.value ??
      null
    const speeds = of('speeds')
    const list = of(claim.kind === 'shifter' ? 'pullMm' : 'pitchMm')
    if (typeof speeds === 'number' && typeof list === 'object' && list !== null && list.length !== speeds - 1)
      return {
        claim,
        message: `${claim.entry} has ${speeds} speeds: one number, or ${speeds - 1} of them, not ${list.length}`,
      }
  }
  return null
}

/** A figure as it counts here, beside what the table says. */
export type FigureInForce = Figure & { rule: FigureRule; table: Figure | null; history: ShopValue[] }
export type EntryInForce = {
  kind: Kind
  id: string
  title: string
  nickname: string | null
  own: boolean
  figures: FigureInForce[]
}

const keyOf = (v: { kind: string; entry: string; figure: string }): string => `${v.kind}/${v.entry}/${v.figure}`

/**
 * The catalogue as it counts in a shop: its own measurement beats the table, what follows from it is computed anew, and
 * nothing of the table is lost. Parts of its own come after the table's.
 * @param values every claim of the shop, oldest first
 */
export function catalogueInForce(values: readonly ShopValue[]): EntryInForce[] {
  const history = new Map<string, ShopValue[]>()
  for (const v of values) history.set(keyOf(v), [...(history.get(keyOf(v)) ?? []), v])
  const entries = [...TABLE.map(e => inForce(e, history)), ...ownEntries(values, history)]
  return entries.map(e => (e.kind === 'derailleur' && !e.own ? withFittedRatio(e, entries) : e))
}

function inForce(entry: Entry, history: Map<string, ShopValue[]>): EntryInForce {
  const own = isOwn(entry.id)
  const figures = entry.figures.flatMap((figure): FigureInForce[] => {
    const rule = ruleOf(entry.kind, figure.key)!
    const past = history.get(keyOf({ kind: entry.kind, entry: entry.id, figure: figure.key })) ?? []
    const last = past.at(-1)
    const table = own ? null : figure
    if (last && last.value !== null && typeof last.value !== 'string')
      return [
        {
          key: figure.key,
          value: last.value,
          provenance: 'shop',
          rule,
          table,
          history: past,
          ...(last.note ? { source: last.note } : {}),
        },
      ]
    return [{ ...figure, rule, table, history: past }]
  })
  const nickname = history.get(keyOf({ kind: entry.kind, entry: entry.id, figure: NICKNAME }))?.at(-1)?.value ?? null
  return {
    kind: entry.kind,
    id: entry.id,
    title: entry.title,
    nickname: typeof nickname === 'string' ? nickname : null,
    own,
    figures: withDerived(entry.kind, figures),
  }
}

/** What follows from measured figures is computed from them: cable over all clicks, the stack. */
function withDerived(kind: Kind, figures: FigureInForce[]): FigureInForce[] {
  const of = (key: string) => figures.find(f => f.key === key)
  const compute = (key: string, from: readonly string[], value: () => number): FigureInForce[] =>
    figures.map(f => {
      if (f.key !== key || !from.some(k => of(k)?.provenance === 'shop')) return f
      return {
        ...f,
        value: Math.round(value() * 100) / 100,
        provenance: 'shop' as Provenance,
        source: 'computed from what was measured',
      }
    })
  const gaps = () => meanOf(of('speeds')!.value) - 1
  const sum = (key: string) => spreadOver(of(key)!.value, gaps()).reduce((s, v) => s + v, 0)
  if (kind === 'shifter') return compute('cableMm', ['pullMm'], () => sum('pullMm'))
  if (kind === 'cassette')
    return compute('stackMm', ['pitchMm', 'thicknessMm'], () => sum('pitchMm') + meanOf(of('thicknessMm')!.value))
  return figures
}

/**
 * Until a derailleur is measured, its fitted ratio is what makes its own trio meet: measured pull and pitch move it.
 */
function withFittedRatio(entry: EntryInForce, all: readonly EntryInForce[]): EntryInForce {
  const figure = (kind: Kind, key: string) =>
    all.find(e => e.kind === kind && e.id === entry.id)?.figures.find(f => f.key === key)
  const pull = figure('shifter', 'pullMm')
  const pitch = figure('cassette', 'pitchMm')
  if (!pull || !pitch || (pull.provenance !== 'shop' && pitch.provenance !== 'shop')) return entry
  return {
    ...entry,
    figures: entry.figures.map(f =>
      f.key === 'ratio' && f.provenance !== 'shop'
        ? {
            ...f,
            value: Math.round((meanOf(pitch.value) / meanOf(pull.value)) * 1000) / 1000,
            source: 'pitch ÷ pull of its own trio, as measured here',
          }
        : f,
    ),
  }
}

/** Parts a shop added: the entries that are not in the table and have the figure that names them. */
function ownEntries(values: readonly ShopValue[], history: Map<string, ShopValue[]>): EntryInForce[] {
  const ids = new Map<string, { kind: Kind; id: string }>()
  for (const v of values) if (isOwn(v.entry)) ids.set(`${v.kind}/${v.entry}`, { kind: v.kind, id: v.entry })
  return [...ids.values()].flatMap(({ kind, id }) => {
    const last = (key: string): FigureValue | null => {
      const value = history.get(keyOf({ kind, entry: id, figure: key }))?.at(-1)?.value
      return value === undefined || value === null || typeof value === 'string' ? null : value
    }
    const figures = FIGURES[kind].flatMap((rule): Figure[] => {
      const value = last(rule.key)
      return value === null || rule.derived ? [] : [{ key: rule.key, value, provenance: 'shop' }]
    })
    const speeds = last('speeds')
    const needed = kind === 'derailleur' ? last('ratio') : speeds && last(kind === 'shifter' ? 'pullMm' : 'pitchMm')
    if (needed === null) return []
    const gaps = speeds === null ? 0 : meanOf(speeds) - 1
    if (kind === 'shifter')
      figures.push({
        key: 'cableMm',
        value: round(spreadOver(needed, gaps).reduce((s, v) => s + v, 0)),
        provenance: 'shop',
        source: 'clicks × pull',
      })
    const thickness = last('thicknessMm')
    if (kind === 'cassette' && thickness !== null)
      figures.push({
        key: 'stackMm',
        value: round(spreadOver(needed, gaps).reduce((s, v) => s + v, 0) + meanOf(thickness)),
        provenance: 'shop',
        source: 'gaps × pitch + a thickness',
      })
    const title =
      kind === 'shifter'
        ? `${meanOf(speeds!)}-speed, ${round(meanOf(needed))} mm a click`
        : kind === 'cassette'
          ? `${meanOf(speeds!)} sprockets, ${round(meanOf(needed))} mm apart`
          : `Ratio ${round(meanOf(needed))}`
    return [inForce({ kind, id, title, figures }, history)]
  })
}

const round = (x: number): number => Math.round(x * 1000) / 1000

/** How an entry is called here: its nickname beside its numbers. */
export const nameOf = (entry: EntryInForce): string => (entry.nickname ? `${entry.id} ${entry.nickname}` : entry.id)
export const inForceFigure = (entry: EntryInForce, key: string): FigureInForce | undefined =>
  entry.figures.find(f => f.key === key)
