import { BRAKE_WORDS } from '../brake/chapter'
import { BRAKES } from '../brake/kinds'
import { DECLINABLE } from '../job/declined'
import { UNPROVEN } from '../job/events'
import { riderCard } from '../travel/card'
import { setupOfSheet } from '../travel/ofSheet'
import { writeSetup } from '../travel/write'
import { brakeOnSheet, headOfSheet, type Sheet } from '../ledger/sheet'

/** Papers of a job: the mechanic's sheet, the customer's, and the work list for the till. Each is one A4 page. */
export const PAPERS = ['setup', 'customer', 'work'] as const
export type PaperKind = (typeof PAPERS)[number]
export const PAPER_WORDS: Record<PaperKind, string> = {
  setup: 'Setup sheet',
  customer: 'For the customer',
  work: 'Work list',
}

/**
 * A line of a paper: what stands at its left, and the figure or words at its right; `what` empty: words over the whole
 * width.
 */
export type PaperRow = { what: string; figure: string }
export type PaperSection = { title: string; rows: PaperRow[]; /** Lines that had no room. */ more: number }
/** What stands on a paper, cut to one page. The same is printed and made into a PDF. */
export type Paper = {
  kind: PaperKind
  title: string
  warning: { title: string; words: string } | null
  head: PaperRow[]
  sections: PaperSection[]
  /** Brakes, by whom; always whole. */
  brakes: PaperRow[]
  foot: string[]
  /** What its rider may do themselves, beside the code; always whole. */
  card: string[]
  /** The setup as the square codes carry it; none on the till's list, nor where nothing of it travels. */
  codes: string[]
  /** Who answers for it, and when; always whole. */
  signed: string
}

/** Of a job, what a paper says. */
export type OnPaper = {
  number: number
  customer: { name: string; contact: string }
  bike: { name: string; frameNumber: string }
  complaint: string
  notes: readonly { text: string; by: string }[]
  people: Readonly<Record<string, string>>
}
/** How days and times are said: by the page or the server, each in the shop's zone. */
export type SayDates = { time: (iso: string) => string; day: (date: string) => string }

/**
 * Lines of 10 pt on an A4 page within its margins, and how many letters go in one: kept a little under what fits, since
 * letters differ in width. ISO 216: 297 mm high.
 */
const PAGE = { lines: 50, whole: 88, figure: 58, beside: 34, what: 24 } as const
/** Room a letter takes, in middling letters. */
const WIDE = /[MW@%—…ЖМШЩЫЮΩ]/
const BROAD = /[A-ZÀ-ÞА-ЯΑ-Ωmwжмшщыю]/
const room = (text: string): number =>
  [...text].reduce((sum, l) => sum + (WIDE.test(l) ? 1.75 : BROAD.test(l) ? 1.3 : 1), 0)
const lines = (text: string, letters: number) => Math.max(1, Math.ceil(room(text) / letters))
const linesOf = ({ what, figure }: PaperRow, letters: number = PAGE.figure): number =>
  what === '' ? lines(figure, PAGE.whole) : Math.max(lines(what, PAGE.what), lines(figure, letters))

/** A text cut to so many lines, said so where it was. */
function clipped(text: string, most: number, letters: number): string {
  if (lines(text, letters) <= most) return text
  let taken = ''
  let left = most * letters - room(CUT)
  for (const letter of text) {
    left -= room(letter)
    if (left < 0) break
    taken += letter
  }
  return `${taken.trimEnd()}${CUT}`
}
const CUT = ' … the rest in Ocho'

export function paperOf(kind: PaperKind, job: OnPaper, sheet: Sheet, draft: boolean, say: SayDates): Paper {
  const name = (id: string) => job.people[id] ?? 'someone'
  const brakes = BRAKES.map(b => {
    const told = brakeOnSheet(sheet, b)
    const plain = kind === 'customer' ? plainBrake(told.words) : told.words
    return {
      what: BRAKE_WORDS[b],
      figure: [plain, told.by && name(told.by), told.at && say.time(told.at)].filter(Boolean).join(', '),
    }
  })
  const paper: Paper = {
    kind,
    title: PAPER_WORDS[kind],
    warning: headOfSheet(sheet),
    head: headOf(kind, job, sheet),
    sections: [],
    brakes: kind === 'work' ? [] : brakes,
    foot: kind === 'work' ? [] : footOf(kind, sheet, say),
    card: kind !== 'customer' || draft ? [] : riderCard(sheet),
    codes: kind === 'work' || draft || !travels(sheet) ? [] : writeSetup(setupOfSheet(sheet, job.bike.name)),
    signed: `${draft ? 'Would be signed' : 'Handed back'} by ${name(sheet.by)}, ${say.time(sheet.closedAt)}. The maker’s instructions and local law win over this sheet.`,
  }
  return { ...paper, sections: fitted(sectionsOf(kind, job, sheet), PAGE.lines - fixedLines(paper)) }
}

/** Has a bike anything that another shop would start from? */
const travels = (sheet: Sheet): boolean =>
  sheet.how !== 'cancelled' && (sheet.parts !== null || sheet.hub !== null || sheet.brakes.length > 0)

/** Lines that codes of 45 mm take, and letters in a line of the words beside one or two of them. */
const CODE_LINES = 12
export const besideLetters = (codes: number): number => (codes === 2 ? 42 : 64)

/** One code on the mechanic's sheet stands beside its head; else codes stand at the foot. */
export const codeAtHead = (p: Pick<Paper, 'kind' | 'codes'>): boolean => p.kind === 'setup' && p.codes.length === 1

const plainBrake = (words: string): string =>
  words === 'holds'
    ? 'checked, it holds'
    : words === 'not proven'
      ? 'not checked'
      : words.startsWith('FAILED')
        ? 'FAILED, do not ride'
        : words

function headOf(kind: PaperKind, job: OnPaper, sheet: Sheet): PaperRow[] {
  const row = (what: string, figure: string, lines = 1): PaperRow => ({
    what,
    figure: clipped(figure, lines, PAGE.figure),
  })
  const who = [
    row('Customer', [job.customer.name, job.customer.contact].filter(Boolean).join(', '), 2),
    row('Bike', job.bike.frameNumber ? `${job.bike.name}, frame ${job.bike.frameNumber}` : job.bike.name, 2),
  ]
  if (kind !== 'setup') return who
  return [
    ...who,
    row('Said', `“${job.complaint}”`, 3),
    row('Drivetrain', sheet.drivetrain, 2),
    ...(sheet.parts ? [row('Sprockets', sheet.parts.cassette.teeth.join(' '))] : []),
    ...sheet.numbers.slice(0, 4).map(n => row(n.what, n.figure, 2)),
  ]
}

const whole = (text: string): PaperRow => ({ what: '', figure: text })
const once = (texts: readonly string[]): PaperRow[] => [...new Set(texts)].map(whole)

function sectionsOf(kind: PaperKind, job: OnPaper, sheet: Sheet): { title: string; rows: PaperRow[] }[] {
  const plain = (facts: Sheet['done']) => facts.flatMap(f => (f.plain ? [f.plain] : []))
  const rows = (facts: Sheet['done']): PaperRow[] =>
    facts.map(f => ({ what: f.what, figure: clipped(f.figure, 4, PAGE.figure) }))
  const notes = job.notes.map(n => whole(clipped(`${n.text} (${n.by})`, 3, PAGE.whole)))
  if (kind === 'customer')
    return [
      {
        title: 'What was wrong',
        rows: [whole(clipped(`You said: “${job.complaint}”`, 3, PAGE.whole)), ...once(plain(sheet.found))],
      },
      { title: 'What we did', rows: once(plain(sheet.done)) },
      ...(sheet.fault
        ? [{ title: 'Left as it is, as you wished', rows: once([`${DECLINABLE[sheet.fault].words}.`]) }]
        : []),
    ]
  if (kind === 'work')
    return [
      { title: 'Work done', rows: rows(sheet.done) },
      { title: 'Parts used', rows: once(sheet.done.flatMap(f => f.used ?? [])) },
      { title: 'In words', rows: notes },
    ]
  return [
    { title: 'Found', rows: rows(sheet.found) },
    { title: 'Done', rows: rows(sheet.done) },
    { title: 'Left', rows: rows(sheet.left) },
    ...(notes.length ? [{ title: 'In words', rows: notes }] : []),
  ]
}

function footOf(kind: PaperKind, sheet: Sheet, say: SayDates): string[] {
  const tell = sheet.tell.slice(0, 4).map(t => clipped(t, 3, PAGE.whole))
  const back = sheet.recallOn
    ? [
        kind === 'customer'
          ? `Please come back on ${say.day(sheet.recallOn)}: cables settle, and we look once more.`
          : `Settle-in recall ${say.day(sheet.recallOn)}.`,
      ]
    : []
  const stop =
    kind === 'customer' && !UNPROVEN.has(sheet.how)
      ? ['If a brake lever reaches the bar, or anything catches or slips: stop riding, and come by.']
      : []
  return [...back, ...tell, ...stop]
}

/** Lines that always stand: title, warning, head, headings of sections, brakes, foot and signature. */
function fixedLines(p: Paper): number {
  const warning = p.warning ? 3 + lines(p.warning.words, PAGE.whole) : 0
  const text = [...p.foot, p.signed].reduce((sum, t) => sum + linesOf(whole(t)), 0)
  const linesOfAll = (rows: readonly PaperRow[], figure: number) => rows.reduce((sum, r) => sum + linesOf(r, figure), 0)
  // the mechanic's sheet has its code beside the head, which is as high
  const head = codeAtHead(p) ? Math.max(CODE_LINES, linesOfAll(p.head, PAGE.beside)) : linesOfAll(p.head, PAGE.figure)
  const rows = head + linesOfAll(p.brakes, PAGE.figure)
  const card = p.card.reduce((sum, t) => sum + lines(t, besideLetters(p.codes.length)), p.card.length ? 1 : 0)
  const code = p.codes.length && !codeAtHead(p) ? Math.max(CODE_LINES, card) + 1 : card
  return 3 + warning + rows + (p.brakes.length ? 2 : 0) + text + code + 1
}

/**
 * Sections with as many rows as there is room for, shared fairly: each gets one after the other until the page is full.
 */
function fitted(sections: readonly { title: string; rows: PaperRow[] }[], room: number): PaperSection[] {
  // a heading takes two lines, and one is kept for "and n more"
  let left = room - sections.length * 3
  const taken = sections.map(() => 0)
  const full = sections.map(s => s.rows.length === 0)
  while (full.some(f => !f))
    sections.forEach((s, i) => {
      if (full[i]) return
      const next = s.rows[taken[i]!]
      const need = next ? linesOf(next) : 0
      if (!next || need > left) full[i] = true
      else {
        left -= need
        taken[i]!++
      }
    })
  return sections.map((s, i) => ({
    title: s.title,
    rows: s.rows.slice(0, taken[i]),
    more: s.rows.length - taken[i]!,
  }))
}

/** What stands under a section whose rows had no room. */
export const moreWords = (more: number): string => `and ${more} more in Ocho`
