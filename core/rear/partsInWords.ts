import { ANCHOR_WORDS, anchorFactor } from '../standards/anchor'
import { knownBy, trim, type KnownBy, type RearParts } from './parts'

/* The numbers of a drivetrain in words, each with how it is known: for its form and its sheet. */

const KNOWN_BY_WORDS: Record<KnownBy, string> = {
  measured: 'measured on this bike',
  shop: 'as measured in this shop',
  table: 'assumed from the table',
  typed: 'as typed in',
}

/** How the three numbers are known, in a line: once where it is the same for all. */
export function sayKnown(parts: RearParts): string {
  const [pull, ratio, pitch] = [parts.shifter, parts.derailleur, parts.cassette].map(p => KNOWN_BY_WORDS[knownBy(p)])
  const three =
    pull === ratio && ratio === pitch ? `Pull, ratio and pitch ${pull}` : `Pull ${pull}, ratio ${ratio}, pitch ${pitch}`
  return parts.barrel.known ? `${three}; a turn of the barrel ${sayThread(parts)}` : three
}

const sayThread = ({ barrel }: RearParts): string =>
  `${trim(barrel.threadMm)} mm${barrel.known ? `, ${KNOWN_BY_WORDS[barrel.known]}` : ''}`

/** Pull, ratio and pitch of a drivetrain, each with how it is known, and its barrel's thread: for the sheet. */
export function sayNumbers(parts: RearParts): { what: string; figure: string }[] {
  const uneven = (values: readonly number[]) =>
    values.every(v => v === values[0])
      ? trim(values[0])
      : `${trim(Math.min(...values))} to ${trim(Math.max(...values))}`
  const factor = anchorFactor(parts.derailleur)
  const ratio = [parts.derailleur.ratio ?? parts.derailleur.pullRatio].flat().map(r => r * factor)
  const place = parts.derailleur.anchor ? `, ${ANCHOR_WORDS[parts.derailleur.anchor]}` : ''
  return [
    { what: 'Pull per click', figure: `${uneven(parts.shifter.pullMm)} mm, ${KNOWN_BY_WORDS[knownBy(parts.shifter)]}` },
    { what: 'Pull ratio', figure: `${uneven(ratio)}${place}, ${KNOWN_BY_WORDS[knownBy(parts.derailleur)]}` },
    {
      what: 'Sprocket pitch',
      figure: `${uneven(parts.cassette.pitchMm)} mm, ${KNOWN_BY_WORDS[knownBy(parts.cassette)]}`,
    },
    ...(parts.barrel.known ? [{ what: 'A turn of the barrel', figure: sayThread(parts) }] : []),
  ]
}

/** What shifter and cassette leave unused of each other, in words; null when they have the same number of gears. */
export function unusedGears(parts: RearParts): string | null {
  const clicks = parts.shifter.pullMm.length + 1
  const sprockets = parts.cassette.teeth.length
  if (clicks > sprockets) return `The shifter's last ${count(clicks - sprockets, 'click')} find no sprocket`
  if (sprockets > clicks)
    return `The largest ${count(sprockets - clicks, 'sprocket')} cannot be reached by this shifter`
  return null
}

const count = (n: number, what: string): string => (n === 1 ? what : `${n} ${what}s`)
