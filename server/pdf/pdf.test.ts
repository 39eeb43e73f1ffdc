import { describe, expect, test } from 'vitest'
import jsQR from 'jsqr'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import type { JobView } from '#core/http/job'
import { PAPERS, type PaperKind } from '#core/paper/paper'
import type { Sheet } from '#core/ledger/sheet'
import { TEST_SHEET } from '#core/ledger/testSheet'
import { NOT_SHOWN, runsOf } from './fonts'
import { drawSheet } from './sheetPdf'
import { squareOf, squareSvg } from '#core/paper/square'
import { drawTag } from './tagPdf'

const fact = (i: number, letters = 20) => ({
  what: `Thing ${i}`,
  figure: 'w'.repeat(letters),
  plain: `Done ${i}.`,
  used: [`Part ${i}`],
})
const many = (n: number, letters?: number) => Array.from({ length: n }, (_, i) => fact(i, letters))
const sheet = (change: Partial<Sheet> = {}): Sheet => ({
  ...TEST_SHEET,
  found: many(2),
  done: many(3),
  left: many(1),
  tell: [],
  ...change,
})
const job = (change: Partial<JobView> = {}): JobView =>
  ({
    number: 12,
    tag: '54',
    complaint: 'slow going easier',
    customer: { name: 'Brid Harrow', contact: '085 555 0188' },
    bike: { id: 'b', name: 'Gannet tourer', frameNumber: 'GT-1', frameKind: null },
    notes: [],
    people: { p1: 'Moss' },
    ...change,
  }) as JobView

async function read(pdf: Buffer) {
  const document = await getDocument({ data: new Uint8Array(pdf), useSystemFonts: true }).promise
  const items: string[] = []
  for (let i = 1; i <= document.numPages; i++)
    items.push(...(await (await document.getPage(i)).getTextContent()).items.map(t => ('str' in t ? t.str : '')))
  return { pages: document.numPages, words: items.join(' ').replace(/\s+/g, ' ') }
}
const made = async (kind: PaperKind, s: Partial<Sheet> = {}, j: Partial<JobView> = {}) =>
  read(
    await drawSheet({
      kind: kind,
      job: job(j),
      sheet: sheet(s),
      shop: { name: 'Bench', zone: 'Europe/Dublin' },
      draft: false,
    }),
  )

describe('each paper is one A4 page', () => {
  const wide = 'W'.repeat(400) // the widest letter
  const full: [string, Partial<Sheet>, Partial<JobView>][] = [
    ['a short job', {}, {}],
    ['a job of everything', { found: many(40), done: many(60), left: many(12) }, { notes: notes(30) }],
    [
      'long figures',
      { found: many(20, 300), done: many(20, 300), left: many(4, 300) },
      { complaint: wide, notes: notes(9, wide) },
    ],
    [
      'a warning, long names and long words for the rider',
      { how: 'unridable', tell: [wide, wide, wide, wide], done: many(60) },
      { customer: { name: 'N'.repeat(80), contact: '9'.repeat(120) }, complaint: wide },
    ],
  ]
  for (const kind of PAPERS)
    test.each(full)(`${kind}, %s`, async (_name, s, j) => {
      const { pages, words } = await made(kind, s, j)
      expect(pages).toBe(1)
      expect(words).toContain('by Moss')
      if (kind !== 'work') expect(words).toMatch(/Front brake (checked, it )?holds/)
      if ((s.done?.length ?? 0) > 50) expect(words).toMatch(/and \d+ more in Ocho/)
    })
})

function notes(n: number, text = 'a line of words'): JobView['notes'] {
  return Array.from({ length: n }, (_, i) => ({ id: String(i), text, by: 'Moss', at: '2026-11-20T14:00:00.000Z' }))
}

test('names in Latin, Greek and Cyrillic are printed as written; what no font has is marked', async () => {
  const { words } = await made(
    'setup',
    {},
    {
      customer: { name: 'Zoë Łuczak Ğ', contact: '' },
      bike: { id: 'b', name: 'Ποδήλατο Ώρα', frameNumber: 'Ж', frameKind: null },
      complaint: 'Скрипит ночью 🚲 漢字',
    },
  )
  for (const name of ['Zoë', 'Łuczak', 'Ποδήλατο', 'Скрипит', 'ночью', NOT_SHOWN])
    expect(words.replaceAll(' ', '')).toContain(name)
})

test('every letter of the three scripts has a font, and a row of unknown ones is one mark', () => {
  for (const [from, to] of [
    [0x21, 0x7e],
    [0xa1, 0x17f],
    [0x3b1, 0x3c9],
    [0x391, 0x3a1],
    [0x400, 0x45f],
  ] as const)
    for (let code = from; code <= to; code++)
      expect(
        runsOf(String.fromCodePoint(code))
          .map(r => r.text)
          .join(''),
        code.toString(16),
      ).not.toContain(NOT_SHOWN)
  expect(runsOf('a漢字b')).toEqual([{ text: `a${NOT_SHOWN}b`, script: 'Latin' }])
  expect(runsOf('≥ 3 → ½')).toEqual([{ text: 'at least  3 to 1/2', script: 'Latin' }])
  expect(runsOf('')).toEqual([])
})

test('a tag’s code is read back by a general reader as its address', async () => {
  const url = 'https://bench.test:8443/t/54'
  const { modules } = squareOf(url)
  const scale = 4
  const side = (modules.size + 8) * scale
  const pixels = new Uint8ClampedArray(side * side * 4).fill(255)
  for (let y = 0; y < modules.size * scale; y++)
    for (let x = 0; x < modules.size * scale; x++)
      if (modules.get(Math.floor(y / scale), Math.floor(x / scale)))
        pixels.fill(0, ((y + 4 * scale) * side + x + 4 * scale) * 4, ((y + 4 * scale) * side + x + 4 * scale) * 4 + 3)
  const reader = (jsQR as unknown as { default?: typeof jsQR }).default ?? jsQR
  expect(reader(pixels, side, side)?.data).toBe(url)
  expect(squareSvg(url).match(/M\d+ \d+h1v1h-1z/g)?.length).toBe([...modules.data].filter(Boolean).length)
})

test('a tag’s label is one small page with its number and its bike, and no customer', async () => {
  const label = await read(await drawTag({ tag: '54', bike: 'Gannet tourer', url: 'https://bench.test/t/54' }))
  expect(label.pages).toBe(1)
  expect(label.words).toContain('54')
  expect(label.words).toContain('Gannet tourer')
  const long = await read(
    await drawTag({ tag: 'WWWWWWWW', bike: 'W'.repeat(80), url: 'https://bench.test/t/WWWWWWWW' }),
  )
  expect(long.pages).toBe(1)
})
