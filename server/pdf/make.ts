import pdfmake from 'pdfmake'
import type { TDocumentDefinitions } from 'pdfmake/interfaces'
import { fontFiles } from './fonts'

/** A PDF of what is described; nothing is fetched, and no file but the fonts is read. */
export function makePdf(described: TDocumentDefinitions): Promise<Buffer> {
  pdfmake.setFonts(fontFiles())
  pdfmake.setUrlAccessPolicy(() => false)
  pdfmake.setLocalAccessPolicy(path => path.endsWith('.woff'))
  return pdfmake.createPdf(described).getBuffer()
}
