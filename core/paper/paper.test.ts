import { describe, expect, test } from 'vitest'
import { PAPERS, moreWords, paperOf, type OnPaper } from './paper'
import type { Sheet } from '../ledger/sheet'
import { TEST_SHEET as SHEET } from '../ledger/testSheet'

const JOB: OnPaper = {
  number: 12,
  customer: { name: 'Brid Harrow', contact: '085 555 0188' },
  bike: { name: 'Gannet tourer', frameNumber: 'GT-1' },
  complaint: 'slow going easier',
  notes: [{ text: 'Wants a quote first', by: 'Moss' }],
  people: { p1: 'Moss' },
}
const SAY = { time: (iso: string) => iso.slice(0, 16), day: (d: string) => d }
const of = (kind: (typeof PAPERS)[number], sheet: Partial<Sheet> = {}, job: Partial<OnPaper> = {}) =>
  paperOf(kind, { ...JOB, ...job }, { ...SHEET, ...sheet }, false, SAY)
const words = (p: ReturnType<typeof of>) => JSON.stringify(p)

describe('the customer’s sheet', () => {
  const paper = of('customer')
  test('says what was wrong and what was done in plain words, each once', () => {
    expect(paper.sections.map(s => [s.title, s.rows.map(r => r.figure)])).toEqual([
      ['What was wrong', ['You said: “slow going easier”', 'The gear cable was out of adjustment.']],
      ['What we did', ['Gear cable adjusted.', 'Limit of the derailleur’s travel set.', 'Cassette renewed.']],
    ])
  })
  test('no ratios, no odds, no turns', () => {
    expect(words(paper)).not.toMatch(/%|, net|1\/2|1\/8|speeds/)
  })
  test('which brake was checked by whom, when to come back, what to watch', () => {
    expect(paper.brakes).toEqual([
      { what: 'Front brake', figure: 'checked, it holds, Moss, 2026-11-20T14:00' },
      { what: 'Rear brake', figure: 'not checked' },
    ])
    expect(paper.foot[0]).toContain('Please come back on 2026-12-04')
    expect(paper.foot.at(-1)).toContain('stop riding')
    expect(paper.signed).toContain('Handed back by Moss')
  })
  test('a failed brake and a bike not to be ridden say so first; nothing is told of riding it', () => {
    const failed = of('customer', {
      how: 'unridable',
      recallOn: null,
      tell: [],
      proofs: { ...SHEET.proofs, rear: { holds: false, by: 'p1', at: '2026-11-20T14:00:00.000Z', failed: null } },
    })
    expect(failed.warning?.title).toBe('Not to be ridden')
    expect(failed.brakes[1]!.figure).toContain('FAILED, do not ride')
    expect(failed.foot).toEqual([])
  })
  test('what the customer declined is named', () => {
    const left = of('customer', { how: 'declined', fault: 'wear' })
    expect(left.sections.map(s => s.title)).toContain('Left as it is, as you wished')
  })
})

test('the work list has parts for the till, and neither prices nor brakes', () => {
  const paper = of('work')
  expect(paper.sections.map(s => s.title)).toEqual(['Work done', 'Parts used', 'In words'])
  expect(paper.sections[1]!.rows.map(r => r.figure)).toEqual(['Cassette'])
  expect(paper.brakes).toEqual([])
})

describe('more than a page holds', () => {
  const many = (n: number) => Array.from({ length: n }, (_, i) => ({ what: `Thing ${i}`, figure: `figure ${i}` }))
  const long = { found: many(60), done: many(80), left: many(5) }
  const notes = Array.from({ length: 50 }, () => ({ text: 'x'.repeat(400), by: 'Moss' }))
  test.each(PAPERS)('%s: what had no room is counted, nothing is silently cut', kind => {
    const plain = long.done.map((f, i) => ({ ...f, plain: `Done ${i}.`, used: [`Part ${i}`] }))
    const paper = of(kind, { ...long, done: plain }, { notes, complaint: 'y'.repeat(400) })
    const rows = { setup: [60, 80, 5, 50], customer: [1, 80], work: [80, 80, 50] }[kind]
    expect(paper.sections.map(s => s.rows.length + s.more)).toEqual(rows)
    expect(paper.sections.some(s => s.more > 0)).toBe(true)
    expect(paper.signed).toContain('Moss')
  })
  test('each section gets its share: a short one is whole beside a long one', () => {
    const paper = of('setup', long)
    expect(paper.sections.map(s => s.rows.length > 0)).toEqual([true, true, true, true])
    expect(paper.sections[2]).toMatchObject({ title: 'Left', more: 0 })
  })
  test('a text too long for its lines says where the rest is', () => {
    const paper = of('setup', {}, { complaint: 'z'.repeat(400) })
    expect(paper.head.find(r => r.what === 'Said')!.figure).toMatch(/… the rest in Ocho$/)
    expect(of('setup').head.find(r => r.what === 'Said')!.figure).toBe('“slow going easier”')
  })
  test('in words', () => expect(moreWords(4)).toBe('and 4 more in Ocho'))
})
