import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import type { Content, TFontDictionary } from 'pdfmake/interfaces'

/** Fonts of a PDF: a file holds one script only, so that a text is printed in runs. */
export type Script = 'Latin' | 'LatinExt' | 'Greek' | 'GreekExt' | 'Cyrillic' | 'CyrillicExt'
/** Which letters each file holds, as its package says; what is in none prints as a mark. */
const HOLDS: readonly [Script, RegExp][] = [
  [
    'Latin',
    /[\t\n\u0020-\u007e\u00a0-\u00ff\u0131\u0152\u0153\u02c6\u02da\u02dc\u2013\u2014\u2018\u2019\u201a\u201c\u201d\u201e\u2022\u2026\u2039\u203a\u20ac\u2122]/,
  ],
  ['LatinExt', /[\u0100-\u024f\u1e80-\u1e85\u1e9e\u1ef2\u1ef3]/],
  ['Greek', /[\u0370-\u03ff]/],
  ['GreekExt', /[\u1f00-\u1fff]/],
  ['Cyrillic', /[\u0400-\u045f\u0490\u0491\u04b0\u04b1\u2116]/],
  ['CyrillicExt', /[\u0460-\u048f\u0492-\u04af\u04b2-\u052f]/],
]
/** Letters that no font here has are printed so. */
export const NOT_SHOWN = '[?]'

/** Characters the fonts lack, said another way where there is one. */
const OTHERWISE: Readonly<Record<string, string>> = {
  '−': '-',
  '≈': '~',
  '→': 'to',
  '′': "'",
  '″': '"',
  '≤': 'at most ',
  '≥': 'at least ',
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
}

/** A text as runs of one font each; letters that no font has become one mark for each row of them. */
export function runsOf(text: string): { text: string; script: Script }[] {
  const runs: { text: string; script: Script }[] = []
  const push = (letters: string, script: Script) => {
    const last = runs.at(-1)
    if (last?.script === script) last.text += letters
    else runs.push({ text: letters, script })
  }
  let unknown = false
  for (const letter of text.normalize('NFC')) {
    const said = OTHERWISE[letter]
    const script = said === undefined ? HOLDS.find(([, has]) => has.test(letter))?.[0] : 'Latin'
    if (script) push(said ?? letter, script)
    // joiners and variation marks belong to what stands before them
    else if (!unknown && !/\p{Mn}|\p{Me}|\p{Cf}/u.test(letter)) push(NOT_SHOWN, 'Latin')
    unknown = !script
  }
  return runs
}

/** Words in their own fonts; a figure's Latin letters stand in the font of figures. */
export const inFonts = (text: string, figure = false): Content => ({
  text: runsOf(text).map(r => ({ text: r.text, font: figure && r.script === 'Latin' ? 'Mono' : r.script })),
})

/** Files of the fonts: static .woff, which pdfmake can take subsets of. */
export function fontFiles(): TFontDictionary {
  const require = createRequire(import.meta.url)
  const file = (pack: string, subset: string, weight: number) =>
    join(
      dirname(require.resolve(`@fontsource/${pack}/package.json`)),
      'files',
      `${pack}-${subset}-${weight}-normal.woff`,
    )
  const family = (pack: string, subset: string, bold = 700) => ({
    normal: file(pack, subset, 400),
    bold: file(pack, subset, bold),
    italics: file(pack, subset, 400),
    bolditalics: file(pack, subset, bold),
  })
  const NEXT = 'atkinson-hyperlegible-next'
  return {
    Latin: family(NEXT, 'latin'),
    LatinExt: family(NEXT, 'latin-ext'),
    Greek: family('noto-sans', 'greek'),
    GreekExt: family('noto-sans', 'greek-ext'),
    Cyrillic: family('noto-sans', 'cyrillic'),
    CyrillicExt: family('noto-sans', 'cyrillic-ext'),
    Mono: family('atkinson-hyperlegible-mono', 'latin', 600),
  }
}
