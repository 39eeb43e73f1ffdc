import Papa from 'papaparse'
import type { FigureValue } from '../standards/entry'
import { KINDS, ruleOf } from '../standards/kinds'
import type { CatalogueRow, ExchangeFile, ValueRow } from './file'
import type { RecordRow } from './recordRow'

/** The columns of the three tables, in order. */
export const CSV_COLUMNS = {
  catalogue: ['kind', 'entry', 'title', 'figure', 'value', 'unit', 'provenance', 'source'],
  values: ['kind', 'entry', 'figure', 'value', 'note', 'at'],
  records: ['id', 'standard', 'figure', 'frame', 'value', 'unit', 'bike', 'at'],
} as const
type CsvTable = keyof typeof CSV_COLUMNS

const listed = (value: FigureValue | string | null): string =>
  value === null ? '' : typeof value === 'object' ? value.join(' ') : String(value)

/**
 * One table as CSV (RFC 4180: quotes doubled, lines ended by CR LF). A cell of text that a spreadsheet would take for a
 * formula gets an apostrophe before it; numbers stay numbers.
 */
export function writeCsv(table: CsvTable, file: Pick<ExchangeFile, CsvTable>): string {
  const rows = file[table].map((row: CatalogueRow | ValueRow | RecordRow) =>
    CSV_COLUMNS[table].map(column => {
      const value = (row as Record<string, unknown>)[column]
      return typeof value === 'number' ? String(value) : guarded(listed(value as FigureValue | string | null))
    }),
  )
  return Papa.unparse({ fields: [...CSV_COLUMNS[table]], data: rows }, { newline: '\r\n' }) + '\r\n'
}

/**
 * Where a spreadsheet would begin to run a text: at its start, or after what another country's settings take for the
 * end of a cell. Apostrophes that stand there already are counted with it, so that one more or one less is always the
 * same place.
 */
const FORMULA = /(^|[;,|\t\n])(\s*)('*)(?=[=+\-@\t\r])/g
const NUMBERS = /^-?\d+(\.\d+)?( -?\d+(\.\d+)?)*$/
const guarded = (cell: string): string => (NUMBERS.test(cell) ? cell : cell.replace(FORMULA, "$1$2'$3"))
const unguarded = (cell: string): string =>
  cell.replace(FORMULA, (_, before: string, room: string, marks: string) => before + room + marks.slice(1))

/** A row as it stands in the file: its line, counted from 1 with the header, and its cells by column. */
type CsvRow = { line: number; cells: Record<string, string> }
type ReadCsv =
  | { is: 'rows'; table: CsvTable; rows: CsvRow[]; troubles: { line: number; column: string; message: string }[] }
  | { is: 'refused'; message: string }

/** Reads a table, told from its header. Cells may hold quotes, commas and line ends. */
export function readCsv(text: string): ReadCsv {
  const starts: number[] = []
  const rows: string[][] = []
  const wrong: { line: number; column: string; message: string }[] = []
  let at = 0
  const clean = text.replace(/^\uFEFF/, '')
  const lineAt = lineCounter(clean)
  Papa.parse<string[]>(clean, {
    skipEmptyLines: false,
    delimiter: delimiterOf(clean),
    step({ data, meta, errors }) {
      if (data.length > 1 || data[0]?.trim()) {
        rows.push(data)
        starts.push(at)
      }
      for (const e of errors)
        if (e.type === 'Quotes')
          wrong.push({
            line: lineAt(at),
            column: '',
            message: 'a quote is not closed: put two quotes for one inside a cell',
          })
      at = meta.cursor
    },
  })
  const header = rows[0]?.map(c => c.trim())
  if (!header) return { is: 'refused', message: 'The file is empty: choose a file written by Ocho' }
  const table = tableOf(header)
  if (!table)
    return {
      is: 'refused',
      message: `The first line must name the columns ${CSV_COLUMNS.values.slice(0, 4).join(', ')} (values) or ${CSV_COLUMNS.records.slice(0, 5).join(', ')} (records)`,
    }
  const twice = header.find((h, i) => h && header.indexOf(h) !== i)
  if (twice) return { is: 'refused', message: `The column ${twice} is there twice: leave one` }
  const troubles = [...wrong]
  const out = rows.slice(1).map((cells, i): CsvRow => {
    const line = lineAt(starts[i + 1])
    if (cells.length > header.length)
      troubles.push({
        line,
        column: '',
        message: `${cells.length} cells for ${header.length} columns: put cells with commas in quotes`,
      })
    return { line, cells: Object.fromEntries(header.map((h, k) => [h, unguarded((cells[k] ?? '').trim())])) }
  })
  return { is: 'rows', table, rows: out, troubles }
}

/**
 * What ends a cell, told by the first line alone: names of columns hold none of these, and the texts below could
 * mislead.
 */
function delimiterOf(text: string): string {
  const first = text.trimStart().split(/[\r\n]/, 1)[0]!
  const count = (mark: string) => first.split(mark).length
  return [',', ';', '\t'].reduce((most, mark) => (count(mark) > count(most) ? mark : most))
}

const tableOf = (header: readonly string[]): CsvTable | null => {
  const has = (...columns: string[]) => columns.every(c => header.includes(c))
  if (has('kind', 'entry', 'figure', 'value')) return has('provenance') ? 'catalogue' : 'values'
  return has('id', 'standard', 'figure', 'value', 'at') ? 'records' : null
}

/** Line of a place in a text, asked for rising places. */
function lineCounter(text: string): (at: number) => number {
  let seen = 0
  let line = 1
  return at => {
    for (; seen < at && seen < text.length; seen++) if (text[seen] === '\n') line++
    return line
  }
}

/** Numbers of a cell: one, or a list with spaces between; text stays text. */
export function cellValue(kind: string, figure: string, cell: string): FigureValue | string | null {
  if (cell === '') return null
  const known = KINDS.find(k => k === kind)
  if (!known || !ruleOf(known, figure)) return cell
  const values = cell.split(/\s+/).map(Number)
  if (values.some(v => !Number.isFinite(v))) return cell
  return values.length === 1 ? values[0] : values
}
