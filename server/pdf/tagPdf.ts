import { squareSvg } from '#core/paper/square'
import { inFonts } from './fonts'
import { makePdf } from './make'

/** A label to hang on the bike, mm. */
const LABEL_MM = { wide: 62, high: 40 } as const
const pt = (mm: number) => (mm * 72) / 25.4

export type TagOf = { tag: string; bike: string; url: string }
/** A tag's label: its number, the bike, and a code that opens the job on a phone. No name of a customer. */
export function drawTag(of: TagOf): Promise<Buffer> {
  return makePdf({
    pageSize: { width: pt(LABEL_MM.wide), height: pt(LABEL_MM.high) },
    pageMargins: [6, 6, 6, 6],
    info: { title: `Tag ${of.tag}` },
    defaultStyle: { font: 'Latin', fontSize: 9 },
    content: [
      {
        columns: [
          { svg: squareSvg(of.url), width: pt(34) },
          {
            stack: [
              { text: of.tag, fontSize: of.tag.length > 4 ? 16 : 28, bold: true },
              inFonts(of.bike.length > 60 ? `${of.bike.slice(0, 58)}…` : of.bike),
            ],
            margin: [4, 6, 0, 0],
          },
        ],
      },
    ],
  })
}
