import { TZDate } from '@date-fns/tz'
import { format } from 'date-fns'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { JobView } from '#core/http/job'
import { squareSvg } from '#core/paper/square'
import { codeAtHead, moreWords, paperOf, type Paper, type PaperKind, type PaperRow } from '#core/paper/paper'
import type { Sheet } from '#core/ledger/sheet'
import { inFonts } from './fonts'
import { makePdf } from './make'

const STOP = '#a2281d'
const RULE = '#12181a'

/** A job's paper, and what is drawn on it; all of it plain, so that it can go to another thread. */
export type SheetOf = {
  kind: PaperKind
  job: JobView
  sheet: Sheet
  shop: { name: string; zone: string }
  draft: boolean
}

/** A job's paper on one A4 page. */
export function drawSheet({ kind, job, sheet, shop, draft }: SheetOf): Promise<Buffer> {
  const paper = paperOf(kind, job, sheet, draft, {
    time: iso => format(new TZDate(iso, shop.zone), 'd MMM yyyy, HH:mm'),
    day: date => format(new Date(`${date}T12:00:00`), 'd MMMM yyyy'),
  })
  return makePdf(described(paper, { ...job, shop: shop.name, draft }))
}

type Of = { number: number; tag: string; shop: string; draft: boolean }
function described(paper: Paper, of: Of): TDocumentDefinitions {
  const rows = (list: readonly PaperRow[]) => rowsOf(list, paper.kind === 'setup')
  const heading = (title: string): Content[] => [
    { ...(inFonts(title) as object), style: 'heading' } as Content,
    line(0.5),
  ]
  return {
    pageSize: 'A4',
    pageMargins: [42, 40, 42, 36],
    info: { title: `${paper.title} ${of.number}` },
    defaultStyle: { font: 'Latin', fontSize: 10, lineHeight: 1.15 },
    styles: { title: { fontSize: 18, bold: true }, heading: { bold: true, fontSize: 11, margin: [0, 7, 0, 0] } },
    content: [
      ...(paper.warning ? [warned(paper.warning)] : []),
      {
        columns: [
          { text: paper.title, style: 'title' },
          { text: `Tag ${of.tag}`, style: 'title', alignment: 'right' },
        ],
      },
      {
        columns: [
          inFonts(of.shop) as Content & object,
          { text: `Job ${of.number}${of.draft ? ', draft' : ''}`, alignment: 'right' },
        ],
      },
      line(1.5),
      codeAtHead(paper)
        ? { columns: [{ ...(rows(paper.head) as object), width: '*' } as Content & object, squareOn(paper.codes[0]!)] }
        : rows(paper.head),
      ...paper.sections.flatMap(s => [
        ...heading(s.title),
        ...(s.rows.length || s.more ? [rows(s.rows)] : [{ text: 'nothing noted' }]),
        ...(s.more ? [{ text: moreWords(s.more), bold: true }] : []),
      ]),
      ...(paper.brakes.length ? [...heading('Brakes'), rows(paper.brakes)] : []),
      ...(codeAtHead(paper) ? [] : coded(paper)),
      { text: '', margin: [0, 4, 0, 0] },
      line(1.5),
      ...paper.foot.map(t => inFonts(t)),
      inFonts(paper.signed),
    ],
  }
}

/** The square codes, and beside them what its rider may do: 45 mm, so that a phone reads them from paper. */
function coded({ codes, card }: Paper): Content[] {
  if (!codes.length && !card.length) return []
  const words: Content = {
    stack: [{ text: card.length ? 'On the road' : '', bold: true }, ...card.map(t => inFonts(t))],
    margin: [8, 2, 0, 0],
  }
  const squares = codes.map(squareOn)
  return [
    { text: '', margin: [0, 5, 0, 0] },
    {
      // the words between them, so that a phone sees one of two at a time
      columns: [...squares.slice(0, 1), { ...words, width: '*' }, ...squares.slice(1)],
      columnGap: CODE_GAP_PT,
    },
  ]
}
const squareOn = (text: string): Content & object => ({ svg: squareSvg(text, 'Q'), width: CODE_PT })
const CODE_PT = (45 / 25.4) * 72
const CODE_GAP_PT = 10

const warned = (w: { title: string; words: string }): Content => ({
  table: {
    widths: ['*'],
    body: [
      [
        {
          stack: [
            { ...(inFonts(w.title.toUpperCase()) as object), bold: true, fontSize: 14 } as Content,
            inFonts(w.words),
          ],
          color: STOP,
          margin: [4, 2, 4, 2],
        },
      ],
    ],
  },
  layout: { hLineColor: () => STOP, vLineColor: () => STOP },
  margin: [0, 0, 0, 8],
})

const line = (width: number): Content => ({
  canvas: [{ type: 'line', x1: 0, y1: 1, x2: 511, y2: 1, lineWidth: width, lineColor: RULE }],
  margin: [0, 0, 0, 3],
})

/** Two columns, or words over the whole width; no room between rows, so that lines can be counted. */
const rowsOf = (list: readonly PaperRow[], figures: boolean): Content =>
  list.length === 0
    ? { text: '' }
    : {
        table: {
          widths: [136, '*'],
          body: list.map(r =>
            r.what === ''
              ? [{ ...(inFonts(r.figure) as object), colSpan: 2 } as never, {}]
              : [inFonts(r.what) as never, inFonts(r.figure, figures) as never],
          ),
        },
        layout: {
          hLineWidth: () => 0,
          vLineWidth: () => 0,
          paddingTop: () => 0,
          paddingBottom: () => 0,
          paddingLeft: () => 0,
          paddingRight: () => 4,
        },
      }
