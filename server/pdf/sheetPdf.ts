import { BRAKE_WORDS } from '#core/brake/chapter'
import { BRAKES, type Brake } from '#core/brake/kinds'
import type { Fact } from '#core/chapter/chapter'
import { TZDate } from '@date-fns/tz'
import { format } from 'date-fns'
import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { JobView } from '#core/http/job'
import { brakeOnSheet, headOfSheet, type Sheet } from '#core/ledger/sheet'
import { fontFiles } from './fonts'

type Paper = { job: JobView; sheet: Sheet; shop: { name: string; zone: string }; draft: boolean }

const STOP = '#a2281d'
const RULE = '#12181a'

/** The setup sheet on one A4 page. */
export async function sheetPdf(paper: Paper): Promise<Buffer> {
  pdfmake.setFonts(await fontFiles())
  // nothing is fetched, and no file but the fonts is read
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy(path => path.endsWith('.woff'))
  return pdfmake.createPdf(definition(paper)).getBuffer()
}

/** Characters the fonts lack are said another way; a missing one would print as a box. */
const printable = (text: string): string =>
  text
    .replaceAll('−', '-')
    .replaceAll('≈', '~')
    .replaceAll('→', 'to')
    .replaceAll('′', "'")
    .replaceAll('″', '"')
    // eslint-disable-next-line no-control-regex -- keeps what the Latin file of the font holds
    .replace(/[^\u0009\u000a\u0020-\u017f\u2013\u2014\u2018\u2019\u201c\u201d\u2022\u2026\u20ac\u2212]/g, '?')

function definition({ job, sheet, shop, draft }: Paper): TDocumentDefinitions {
  const at = (iso: string) => format(new TZDate(iso, shop.zone), 'd MMM yyyy, HH:mm')
  const name = (id: string) => job.people[id] ?? 'someone'
  const proof = (brake: Brake) => {
    const told = brakeOnSheet(sheet, brake)
    return [told.words, told.by && name(told.by), told.at && at(told.at)].filter(Boolean).join(', ')
  }
  const warning = headOfSheet(sheet)
  const head: Content[] = [
    {
      columns: [
        { text: 'Setup sheet', style: 'title' },
        { text: `Tag ${job.tag}`, style: 'title', alignment: 'right' },
      ],
    },
    {
      columns: [
        { text: printable(shop.name) },
        { text: `Job ${job.number}${draft ? ', draft' : ''}`, alignment: 'right' },
      ],
    },
    line(1.5),
  ]
  return {
    pageSize: 'A4',
    pageMargins: [42, 40, 42, 40],
    info: { title: `Setup sheet ${job.number}` },
    defaultStyle: { font: 'Next', fontSize: 10, lineHeight: 1.2 },
    styles: {
      title: { fontSize: 20, bold: true },
      heading: { bold: true, fontSize: 11, margin: [0, 10, 0, 0] },
      figure: { font: 'Mono' },
    },
    content: [
      ...(warning
        ? [
            {
              table: {
                widths: ['*'],
                body: [
                  [
                    {
                      stack: [
                        { text: printable(warning.title.toUpperCase()), bold: true, fontSize: 14 },
                        { text: printable(warning.words) },
                      ],
                      color: STOP,
                      margin: [4, 4, 4, 4],
                    },
                  ],
                ],
              },
              layout: { hLineColor: () => STOP, vLineColor: () => STOP },
              margin: [0, 0, 0, 10],
            } satisfies Content,
          ]
        : []),
      ...head,
      pairs([
        ['Customer', [job.customer.name, job.customer.contact].filter(Boolean).join(', ')],
        ['Bike', job.bike.frameNumber ? `${job.bike.name}, frame ${job.bike.frameNumber}` : job.bike.name],
        ['Said', `“${job.complaint}”`],
        ['Drivetrain', sheet.drivetrain],
        ...(sheet.parts ? [['Sprockets', sheet.parts.cassette.teeth.join(' ')] as [string, string]] : []),
        ...sheet.numbers.map((n): [string, string] => [n.what, n.figure]),
      ]),
      ...facts('Found', sheet.found),
      ...facts('Done', sheet.done),
      ...facts('Left', sheet.left),
      { text: 'Brakes', style: 'heading' },
      line(0.5),
      pairs(BRAKES.map(b => [BRAKE_WORDS[b], proof(b)])),
      ...(job.notes.length
        ? ([
            { text: 'In words', style: 'heading' },
            line(0.5),
            { ul: job.notes.slice(0, 12).map(n => printable(`${n.text} (${n.by})`)) },
          ] satisfies Content[])
        : []),
      { text: '', margin: [0, 6, 0, 0] },
      line(1.5),
      ...(sheet.recallOn
        ? [{ text: `Settle-in recall ${format(new Date(`${sheet.recallOn}T12:00:00`), 'd MMMM yyyy')}.`, bold: true }]
        : []),
      ...sheet.tell.map(t => ({ text: printable(t) })),
      {
        text: printable(
          `${draft ? 'Would be signed' : 'Handed back'} by ${name(sheet.by)}, ${at(sheet.closedAt)}. The maker’s instructions and local law win over this sheet.`,
        ),
      },
    ],
  }
}

const line = (width: number): Content => ({
  canvas: [{ type: 'line', x1: 0, y1: 2, x2: 511, y2: 2, lineWidth: width, lineColor: RULE }],
  margin: [0, 0, 0, 4],
})

const pairs = (rows: [string, string][]): Content => ({
  table: {
    widths: [90, '*'],
    body: rows.map(([what, figure]) => [{ text: printable(what) }, { text: printable(figure), style: 'figure' }]),
  },
  layout: 'noBorders',
})

const facts = (title: string, list: readonly Fact[]): Content[] => [
  { text: title, style: 'heading' },
  line(0.5),
  list.length
    ? {
        table: {
          widths: [150, '*'],
          body: list
            .slice(0, 14)
            .map(f => [{ text: printable(f.what) }, { text: printable(f.figure), style: 'figure' }]),
        },
        layout: 'noBorders',
      }
    : { text: 'nothing noted' },
]
