import { z } from 'zod'
import type { Tell } from '../http/progress'
import { issuesOf } from '../http/words'
import { sayFigure, type FigureValue } from '../standards/entry'
import { isOwn, KINDS, ruleOf, type Kind } from '../standards/kinds'
import { NICKNAME, ownTrouble, ShopClaim, type EntryInForce } from '../standards/shopValues'
import { cellValue, readCsv } from './csv'
import { EXCHANGE_FORMAT, EXCHANGE_VERSION } from './file'
import { RecordRow } from './recordRow'

/** Where a row stands, why it is refused, and in which column. */
export type RowTrouble = { where: string; column: string; message: string }
/** A value as it would change: what counts now and what would. */
export type ValueChange = { where: string; claim: ShopClaim; from: string; to: string }
export type ImportPlan = {
  is: 'plan'
  /** Rows read, good and bad. */
  rows: number
  values: ValueChange[]
  records: RecordRow[]
  /** Rows that say what counts already, and earlier rows of a figure that a later row replaces. */
  same: number
  refused: RowTrouble[]
}
export type Planned = ImportPlan | { is: 'refused'; message: string }

/** Most rows taken from one file. */
const MAX_ROWS = 20_000
/** So many rows take a fraction of a second. */
const TELL_EVERY_ROWS = 500

type ReadRow = { where: string; raw: Record<string, unknown>; what: 'value' | 'record' }

/**
 * What a file would change, row by row, before anything is taken.
 * @param text the file; JSON of the open format, or one of the three CSV tables
 * @param catalogue as it counts in the shop now
 * @param known ids of records the shop already has
 * @param tell hears how many of the rows are judged
 */
export function planImport(
  text: string,
  kind: 'json' | 'csv',
  catalogue: readonly EntryInForce[],
  known: ReadonlySet<string>,
  tell: Tell = () => {},
): Planned {
  const read = kind === 'json' ? readJson(text) : rowsOfCsv(text)
  if ('is' in read) return read
  if (read.rows.length > MAX_ROWS)
    return {
      is: 'refused',
      message: `The file has ${read.rows.length} rows, at most ${MAX_ROWS} are taken at once: split it`,
    }
  const plan: ImportPlan = {
    is: 'plan',
    rows: read.rows.length,
    values: [],
    records: [],
    same: 0,
    refused: read.troubles,
  }
  const now = new Map<string, FigureValue | string | null>(
    catalogue.flatMap((e): [string, FigureValue | string | null][] => [
      ...e.figures.map(f => [`${e.kind}/${e.id}/${f.key}`, f.value] as [string, FigureValue]),
      [`${e.kind}/${e.id}/${NICKNAME}`, e.nickname],
    ]),
  )
  const measured = new Set(
    catalogue.flatMap(e => e.figures.filter(f => f.provenance === 'shop').map(f => `${e.kind}/${e.id}/${f.key}`)),
  )
  const latest = new Map<string, ValueChange>()
  const seen = new Set<string>()
  const bad = new Set(read.troubles.map(t => t.where))
  for (const [i, row] of read.rows.entries()) {
    if (i % TELL_EVERY_ROWS === 0) tell(i / read.rows.length)
    if (bad.has(row.where)) continue
    if (row.what === 'record') takeRecord(row, plan, known, seen)
    else takeValue(row, plan, now, measured, latest)
  }
  const changes = [...latest.values()]
  const held = changes.filter(v => {
    const trouble = isOwn(v.claim.entry)
      ? ownTrouble(
          [
            ...changes
              .filter(c => c.claim.entry === v.claim.entry && c.claim.kind === v.claim.kind && c !== v)
              .map(c => c.claim),
            v.claim,
          ],
          catalogue,
        )
      : null
    if (trouble?.claim === v.claim || (trouble && v.claim.figure !== 'speeds'))
      plan.refused.push({ where: v.where, column: 'value', message: trouble.message })
    return !trouble
  })
  plan.values = held.filter(v => v.from !== v.to)
  plan.same += held.length - plan.values.length
  return plan
}

function takeRecord(row: ReadRow, plan: ImportPlan, known: ReadonlySet<string>, seen: Set<string>): void {
  const parsed = RecordRow.safeParse(row.raw)
  if (!parsed.success) return refuse(plan, row, parsed.error)
  if (known.has(parsed.data.id) || seen.has(parsed.data.id)) return void plan.same++
  seen.add(parsed.data.id)
  plan.records.push(parsed.data)
}

function takeValue(
  row: ReadRow,
  plan: ImportPlan,
  now: ReadonlyMap<string, FigureValue | string | null>,
  measured: ReadonlySet<string>,
  latest: Map<string, ValueChange>,
): void {
  const { kind, entry, figure, value, note, unit, provenance } = row.raw
  const key = `${String(kind)}/${String(entry)}/${String(figure)}`
  const counts = now.get(key)
  // rows that say what counts already need not be measurable: a catalogue holds computed figures too
  if (counts !== undefined && counts !== null && equal(counts, value)) {
    latest.delete(key)
    return void plan.same++
  }
  const rule = KINDS.some(k => k === kind) ? ruleOf(kind as Kind, String(figure)) : undefined
  if (rule && typeof unit === 'string' && unit !== rule.unit)
    return void plan.refused.push({
      where: row.where,
      column: 'unit',
      message: `${rule.what} is in ${rule.unit || 'no unit'}, not ${unit || 'none'}`,
    })
  // what follows from other figures is never taken, nor what a catalogue holds without having been measured there
  if (rule?.derived || (provenance !== undefined && provenance !== 'shop')) return void plan.same++
  const parsed = ShopClaim.safeParse({ kind, entry, figure, value, note: note ?? '' })
  if (!parsed.success) return refuse(plan, row, parsed.error)
  const claim = parsed.data
  const say = (v: FigureValue | string | null | undefined) =>
    v === null || v === undefined
      ? claim.figure === NICKNAME
        ? 'none'
        : 'not here'
      : typeof v === 'string'
        ? v
        : sayFigure(claim.kind, { key: claim.figure, value: v })
  if (latest.has(key)) plan.same++
  const back = claim.value === null
  latest.set(key, {
    where: row.where,
    claim,
    from: say(counts),
    to: back
      ? claim.figure === NICKNAME
        ? 'none'
        : measured.has(key)
          ? 'back to the table'
          : say(counts)
      : say(claim.value),
  })
}

const equal = (a: FigureValue | string, b: unknown): boolean =>
  JSON.stringify([a].flat()) === JSON.stringify([b].flat())

function refuse(plan: ImportPlan, row: ReadRow, error: z.ZodError): void {
  const [issue] = issuesOf(error)
  plan.refused.push({ where: row.where, column: issue.field.split('.')[0], message: issue.message })
}

type ReadFile = { rows: ReadRow[]; troubles: RowTrouble[] } | { is: 'refused'; message: string }

function rowsOfCsv(text: string): ReadFile {
  const read = readCsv(text)
  if (read.is === 'refused') return read
  const at = (line: number) => `line ${line}`
  const rows = read.rows.map(({ line, cells }): ReadRow => {
    if (read.table === 'records')
      return {
        where: at(line),
        what: 'record',
        raw: {
          ...only(cells, ['id', 'standard', 'figure', 'at']),
          unit: cells.unit ?? '',
          frame: cells.frame || null,
          bike: cells.bike || null,
          value: cells.value === '' ? null : Number(cells.value),
        },
      }
    return {
      where: at(line),
      what: 'value',
      raw: {
        ...only(cells, ['kind', 'entry', 'figure']),
        note: cells.note ?? '',
        ...(cells.unit === undefined ? {} : { unit: cells.unit }),
        ...(cells.provenance === undefined ? {} : { provenance: cells.provenance }),
        value: cellValue(cells.kind, cells.figure, cells.value),
      },
    }
  })
  return { rows, troubles: read.troubles.map(t => ({ where: at(t.line), column: t.column, message: t.message })) }
}

const only = (cells: Record<string, string>, columns: readonly string[]): Record<string, string> =>
  Object.fromEntries(columns.map(c => [c, cells[c]]))

/** Only the frame of the file; each row is judged by itself. */
const Frame = z.object({
  format: z.unknown().optional(),
  version: z.unknown().optional(),
  catalogue: z.array(z.record(z.string(), z.unknown())).default([]),
  values: z.array(z.record(z.string(), z.unknown())).default([]),
  records: z.array(z.record(z.string(), z.unknown())).default([]),
})

function readJson(text: string): ReadFile {
  let value: unknown
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch (error) {
    return {
      is: 'refused',
      message: `The file is not valid JSON (${(error as Error).message.slice(0, 80)}): write it again from Ocho`,
    }
  }
  const frame = Frame.safeParse(value)
  if (!frame.success || frame.data.format !== EXCHANGE_FORMAT)
    return { is: 'refused', message: `This is not a file of standards: its format must be ${EXCHANGE_FORMAT}` }
  if (frame.data.version !== EXCHANGE_VERSION)
    return {
      is: 'refused',
      message: `The file is of version ${String(frame.data.version).slice(0, 20)}, this Ocho reads version ${EXCHANGE_VERSION}: write it again there as version ${EXCHANGE_VERSION}, or bring this Ocho up to date`,
    }
  const { catalogue, values, records } = frame.data
  const rows = (what: ReadRow['what'], name: string, list: Record<string, unknown>[]): ReadRow[] =>
    list.map((raw, i) => ({ where: `${name} ${i + 1}`, what, raw }))
  return {
    rows: [
      ...rows('value', 'catalogue', catalogue),
      ...rows('value', 'values', values),
      ...rows('record', 'records', records),
    ],
    troubles: [],
  }
}
