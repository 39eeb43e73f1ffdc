import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { TFontDictionary } from 'pdfmake/interfaces'

/** Files of the two fonts: static .woff, which pdfmake can take subsets of. */
export async function fontFiles(): Promise<TFontDictionary> {
  const require = createRequire(import.meta.url)
  const file = (family: 'next' | 'mono', weight: number) =>
    join(
      dirname(require.resolve(`@fontsource/atkinson-hyperlegible-${family}/package.json`)),
      'files',
      `atkinson-hyperlegible-${family}-latin-${weight}-normal.woff`,
    )
  return {
    Next: {
      normal: file('next', 400),
      bold: file('next', 700),
      italics: file('next', 400),
      bolditalics: file('next', 700),
    },
    Mono: {
      normal: file('mono', 400),
      bold: file('mono', 600),
      italics: file('mono', 400),
      bolditalics: file('mono', 600),
    },
  }
}
