import { readFileSync } from 'node:fs'
import Ajv2020 from 'ajv/dist/2020.js'
import addFormats from 'ajv-formats'
import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, test } from 'vitest'
import { catalogueInForce, type ShopValue } from '../standards/shopValues'
import { TABLE } from '../standards/catalogue'
import { CSV_COLUMNS, readCsv, writeCsv } from './csv'
import { EXCHANGE_VERSION } from './file'
import { planImport, type ImportPlan, type Planned } from './plan'
import type { RecordRow } from './recordRow'
import { exchangeSchema } from './schema'
import { exchangeFile } from './write'

const at = '2026-11-20T09:00:00.000Z'
const value = (
  kind: ShopValue['kind'],
  entry: string,
  figure: string,
  v: ShopValue['value'],
  note = '',
): ShopValue => ({ kind, entry, figure, value: v, note, at, by: 'Moss' })
const NASTY = '=HYPERLINK("x"), "quoted"\nsecond line, +1'
const VALUES = [
  value('shifter', 'r14-10', 'pullMm', 2.78, NASTY),
  value('shifter', 'r14-10', 'nickname', '@Sandpiper'),
  value('cassette', 'r14-10', 'pitchMm', [3.9, 3.95, 3.95, 3.95, 3.95, 4, 4, 3.95, 3.95]),
  value('torque', 'pinch-bolt', 'torqueNm', [5, 6]),
  value('derailleur', 'r14-10', 'ratio', 1.42),
  value('derailleur', 'r14-10', 'ratio', null, 'a slip'),
  value('shifter', 'own-oxbow', 'speeds', 8),
  value('shifter', 'own-oxbow', 'pullMm', [3.1, 2.9, 2.8, 2.8, 2.8, 2.8, 2.9]),
]
const record = (id: number, change: Partial<RecordRow> = {}): RecordRow => ({
  id: `00000000-0000-4000-8000-${String(id).padStart(12, '0')}`,
  standard: 'r14-10',
  figure: 'housing last loop',
  frame: 'open',
  value: 290,
  unit: 'mm',
  bike: '00000000-0000-4000-8000-00000000b1ce',
  at,
  ...change,
})
const RECORDS = [record(1), record(2, { figure: 'barrel', unit: 'turns', value: -0.25, frame: null, bike: null })]
const file = () => exchangeFile(VALUES, RECORDS, at)
const json = (change: (f: Record<string, unknown>) => void = () => undefined) => {
  const f = JSON.parse(JSON.stringify(file())) as Record<string, unknown>
  change(f)
  return JSON.stringify(f)
}
const fresh = catalogueInForce([])
const planned = (p: Planned): ImportPlan => {
  if (p.is === 'refused') throw new Error(p.message)
  return p
}
const refusal = (p: Planned): string => (p.is === 'refused' ? p.message : `planned ${p.rows}`)

describe('the published schema, judged by a general validator (Ajv)', () => {
  const ajv = new Ajv2020({ strict: false, allErrors: true })
  addFormats(ajv)
  const holds = ajv.compile(
    JSON.parse(readFileSync(new URL('../../docs/standards.schema.json', import.meta.url), 'utf8')) as object,
  )
  test('is the one the code makes', () => {
    expect(JSON.parse(readFileSync(new URL('../../docs/standards.schema.json', import.meta.url), 'utf8'))).toEqual(
      JSON.parse(JSON.stringify(exchangeSchema())),
    )
  })
  test('takes what is written, the whole table with it', () => {
    const out = JSON.parse(json()) as unknown
    expect(holds(out), JSON.stringify(holds.errors?.slice(0, 3))).toBe(true)
    expect((out as { catalogue: unknown[] }).catalogue.length).toBeGreaterThan(TABLE.length)
  })
  test.each([
    [
      'another version',
      (f: Record<string, unknown>) => {
        f.version = 2
      },
    ],
    [
      'a value that is no number',
      (f: Record<string, unknown>) => {
        ;(f.catalogue as { value: unknown }[])[0].value = 'much'
      },
    ],
    [
      'an unknown provenance',
      (f: Record<string, unknown>) => {
        ;(f.catalogue as { provenance: unknown }[])[0].provenance = 'heard'
      },
    ],
    [
      'a field too many',
      (f: Record<string, unknown>) => {
        f.people = []
      },
    ],
    [
      'a record without a unit',
      (f: Record<string, unknown>) => {
        delete (f.records as { unit?: string }[])[0].unit
      },
    ],
  ])('refuses %s', (_, change) => {
    expect(holds(JSON.parse(json(change)))).toBe(false)
  })
  test('no name of a person is in the file', () => {
    expect(json()).not.toContain('Moss')
  })
})

describe('CSV, judged by a general parser (Papa Parse)', () => {
  test.each(['catalogue', 'values', 'records'] as const)('%s: every row and cell comes back', table => {
    const text = writeCsv(table, file())
    const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true })
    expect(errors).toEqual([])
    expect(data).toHaveLength(file()[table].length)
    expect(Object.keys(data[0])).toEqual([...CSV_COLUMNS[table]])
    const read = readCsv(text)
    if (read.is === 'refused') throw new Error(read.message)
    expect(read.table).toBe(table)
    expect(read.rows).toHaveLength(data.length)
  })
  test('no cell of text can run as a formula, numbers stay numbers, and both come back as they were', () => {
    const text = writeCsv('values', file())
    const cells = Papa.parse<string[]>(text).data.flat()
    expect(cells.filter(c => /^[=+\-@\t\r]/.test(c))).toEqual([])
    expect(cells.some(c => c.startsWith("'=HYPERLINK"))).toBe(true)
    expect(writeCsv('records', file())).toContain(',-0.25,')
    const read = readCsv(text)
    expect(read.is === 'rows' && read.rows[0].cells.note).toBe(NASTY)
    expect(read.is === 'rows' && read.rows[1].cells.value).toBe('@Sandpiper')
  })
  test.each([
    ['a;=1+1', "a;'=1+1"],
    ['a, =1+1', "a, '=1+1"],
    ['a|@x', "a|'@x"],
    ["'=1", "''=1"],
    ['=1;=2', "'=1;'=2"],
    ['first\n=second', "first\n'=second"],
    ['mail me at a@b', 'mail me at a@b'],
    ['x = 3; y-2', 'x = 3; y-2'],
  ])('%j is written %j, also for a country whose cells end elsewhere, and comes back', (note, written) => {
    const [row] = file().values
    const text = writeCsv('values', { ...file(), values: [{ ...row!, note }] })
    expect(Papa.parse<string[]>(text).data[1]).toContain(written)
    const read = readCsv(text)
    expect(read.is === 'rows' && read.rows[0]!.cells.note).toBe(note)
  })
  test('whatever a text is, it comes back as it was', () => {
    const [row] = file().values
    const letters = fc.constantFrom(...";,|\t\n'=+-@ ab")
    fc.assert(
      fc.property(fc.array(letters, { maxLength: 12 }), parts => {
        const note = parts.join('').trim()
        const read = readCsv(writeCsv('values', { ...file(), values: [{ ...row!, note }] }))
        expect(read.is === 'rows' && read.rows[0]!.cells.note).toBe(note)
      }),
      { seed: 5, numRuns: 500 },
    )
  })
  test.each([';', '\t'])('a table saved with %j between its cells is read the same', mark => {
    const text = Papa.unparse(
      {
        fields: ['kind', 'entry', 'figure', 'value', 'note', 'at'],
        data: [['shifter', 'r14-10', 'pullMm', '2.8', 'a, b, c, d, e, f, g', '']],
      },
      { delimiter: mark },
    )
    const read = readCsv(text)
    expect(read.is === 'rows' && read.rows[0]!.cells).toMatchObject({ value: '2.8', note: 'a, b, c, d, e, f, g' })
  })
  test('a line is counted as an editor counts it, line ends inside cells too', () => {
    const read = readCsv(
      'kind,entry,figure,value,note,at\r\nshifter,r14-10,pullMm,2.8,"two\nlines",\r\n\r\nshifter,r14-11,pullMm,2.7,,\r\n',
    )
    expect(read.is === 'rows' && read.rows.map(r => r.line)).toEqual([2, 5])
  })
  test.each([
    ['', 'empty'],
    ['a,b\n1,2', 'must name the columns'],
    ['kind,entry,figure,value,value\n', 'twice'],
  ])('a file that is none is refused: %j', (text, words) => {
    const read = readCsv(text)
    expect(read.is === 'refused' && read.message).toContain(words)
  })
})

describe('what an import would change', () => {
  test('a fresh shop would take what another measured, and nothing that follows from it', () => {
    const plan = planned(planImport(json(), 'json', fresh, new Set()))
    expect(plan.refused).toEqual([])
    expect(
      plan.values.map(v => `${v.claim.kind} ${v.claim.entry} ${v.claim.figure} ${v.from} → ${v.to}`).sort(),
    ).toEqual(
      [
        'cassette r14-10 pitchMm 3.95 mm → 3.9 3.95 3.95 3.95 3.95 4 4 3.95 3.95 mm',
        'shifter own-oxbow pullMm not here → 3.1 2.9 2.8 2.8 2.8 2.8 2.9 mm',
        'shifter own-oxbow speeds not here → 8',
        'shifter r14-10 nickname none → @Sandpiper',
        'shifter r14-10 pullMm 2.8 mm → 2.78 mm',
        'torque pinch-bolt torqueNm 4 to 7 N·m → 5 to 6 N·m',
      ].sort(),
    )
    expect(plan.records).toHaveLength(2)
    // the fitted ratio follows from pull and pitch, as in the shop that wrote it
    const after = catalogueInForce(plan.values.map(v => ({ ...v.claim, at, by: 'x' })))
    expect(
      after.find(e => e.kind === 'shifter' && e.id === 'own-oxbow')?.figures.find(f => f.key === 'pullMm')?.value,
    ).toHaveLength(7)
  })
  test('how far it is, is told as it is read, never backwards', () => {
    const shares: number[] = []
    const many = Array.from({ length: 4_000 }, (_, i) => record(i))
    const text = writeCsv('records', { ...file(), records: many })
    expect(planned(planImport(text, 'csv', fresh, new Set(), share => shares.push(share))).records).toHaveLength(4_000)
    expect(shares.length).toBeGreaterThan(4)
    expect(shares[0]).toBe(0)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    expect(shares.at(-1)).toBeLessThan(1)
  })

  test('the shop that wrote it would take nothing', () => {
    const plan = planned(planImport(json(), 'json', catalogueInForce(VALUES), new Set(RECORDS.map(r => r.id))))
    expect({ values: plan.values, records: plan.records, refused: plan.refused }).toEqual({
      values: [],
      records: [],
      refused: [],
    })
    expect(plan.same).toBe(plan.rows)
  })
  test('each CSV table comes in the same way', () => {
    expect(planned(planImport(writeCsv('values', file()), 'csv', fresh, new Set())).values).toHaveLength(6)
    expect(planned(planImport(writeCsv('records', file()), 'csv', fresh, new Set())).records).toEqual(RECORDS)
    expect(planned(planImport(writeCsv('catalogue', exchangeFile([], [], at)), 'csv', fresh, new Set()))).toMatchObject(
      { values: [], refused: [] },
    )
  })
  test('bad rows are named by line and column, the good ones are still planned', () => {
    const text = [
      'kind,entry,figure,value,note,at',
      'shifter,r14-10,pullMm,2.79,,',
      'shifter,r14-10,pullMm,0,,',
      'shifter,r99,pullMm,2.8,,',
      'wheel,r14-10,pullMm,2.8,,',
      'shifter,r14-11,sizeMm,2.8,,',
      'cassette,r14-10,pitchMm,3.9 4,,',
      'derailleur,r14-10,ratio,fast,,',
      'shifter,r14-10,pullMm,-2,,',
      'torque,pinch-bolt,torqueNm,7 5,,',
      'cassette,own-one,speeds,1,,',
      'hub,own-hub,speeds,3,,',
      'shifter,r14-11,nickname,,,',
      'shifter,r17-8,pullMm,2.8,,,,extra',
    ].join('\n')
    const plan = planned(planImport(text, 'csv', fresh, new Set()))
    expect(plan.values.map(v => v.where)).toEqual(['line 2'])
    expect(plan.refused.map(r => `${r.where} ${r.column}`).sort()).toEqual(
      [
        'line 10 value',
        'line 11 value',
        'line 12 kind',
        'line 14 ',
        'line 3 value',
        'line 4 entry',
        'line 5 kind',
        'line 6 figure',
        'line 7 value',
        'line 8 value',
        'line 9 value',
      ].sort(),
    )
    for (const r of plan.refused) expect(r.message.length, r.where).toBeGreaterThan(10)
  })
  test('a list of an own part must go with its speeds', () => {
    const plan = planned(
      planImport(
        'kind,entry,figure,value\nshifter,own-x,speeds,8\nshifter,own-x,pullMm,2.8 2.8\n',
        'csv',
        fresh,
        new Set(),
      ),
    )
    expect(plan.refused).toMatchObject([
      { where: 'line 3', column: 'value', message: expect.stringContaining('or 7 of them') },
    ])
  })
  test("a unit that is not the figure's is refused, not converted", () => {
    expect(
      planned(
        planImport(
          'kind,entry,title,figure,value,unit,provenance,source\nshifter,r14-10,,pullMm,0.11,in,shop,\n',
          'csv',
          fresh,
          new Set(),
        ),
      ).refused,
    ).toMatchObject([{ where: 'line 2', column: 'unit' }])
    expect(
      planned(
        planImport(
          json(f => {
            ;(f.records as RecordRow[])[0].unit = 'cm'
          }),
          'json',
          fresh,
          new Set(),
        ),
      ).refused,
    ).toMatchObject([{ where: 'records 1', column: 'unit' }])
  })
  test('ten thousand rows are judged one by one', () => {
    const rows = Array.from(
      { length: 10_000 },
      (_, i) => `shifter,r14-10,pullMm,${i % 100 === 7 ? 'x' : '2.7'},row ${i},`,
    )
    const plan = planned(planImport(['kind,entry,figure,value,note,at', ...rows].join('\n'), 'csv', fresh, new Set()))
    expect(plan.rows).toBe(10_000)
    expect(plan.refused).toHaveLength(100)
    expect(plan.values).toHaveLength(1)
    expect(plan.same).toBe(9_899)
    expect(plan.refused[0].where).toBe('line 9')
  })
  test('too many rows are refused whole, and with pauses the answer is the same', async () => {
    const many = ['kind,entry,figure,value', ...Array.from({ length: 20_001 }, () => 'shifter,r14-10,pullMm,2.7')].join(
      '\n',
    )
    expect(refusal(planImport(many, 'csv', fresh, new Set()))).toContain('at most 20000')
  })
  test.each([
    ['not JSON', '{', 'not valid JSON'],
    ['another format', '{"format":"bikes","version":1}', 'not a file of standards'],
    [
      'another version',
      json(f => {
        f.version = EXCHANGE_VERSION + 1
      }),
      'reads version 1',
    ],
    [
      'no version',
      json(f => {
        delete f.version
      }),
      'reads version 1',
    ],
    ['a list', '[]', 'not a file of standards'],
    ['null', 'null', 'not a file of standards'],
  ])('%s is refused whole', (_, text, words) => {
    expect(refusal(planImport(text, 'json', fresh, new Set()))).toContain(words)
  })
})
