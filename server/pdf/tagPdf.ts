import QRCode from 'qrcode'
import { inFonts } from './fonts'
import { makePdf } from './make'

/** A label to hang on the bike, mm. */
const LABEL_MM = { wide: 62, high: 40 } as const
const pt = (mm: number) => (mm * 72) / 25.4

/** The square code of a tag's address; error correction `M` reads through a smear. `std` ISO/IEC 18004 */
export const tagCode = (url: string): QRCode.QRCode => QRCode.create(url, { errorCorrectionLevel: 'M' })

/** The square code as a drawing: modules as unit squares, four of quiet around them, as ISO/IEC 18004 asks. */
export function codeSvg(url: string): string {
  const { modules } = tagCode(url)
  const { size } = modules
  let path = ''
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) if (modules.get(y, x)) path += `M${x + 4} ${y + 4}h1v1h-1z`
  const box = size + 8
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${box} ${box}"><rect width="${box}" height="${box}" fill="#fff"/><path d="${path}" fill="#000"/></svg>`
}

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
          { svg: codeSvg(of.url), width: pt(34) },
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
