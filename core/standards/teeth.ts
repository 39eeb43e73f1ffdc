import { MAX_SPROCKETS, USUAL_TEETH } from './drivetrains'

/**
 * What was read of typed teeth: each sprocket, or what to do. `assumed`: only the ends were typed, the rest is usual.
 */
export type ReadTeeth = { teeth: number[]; assumed: boolean } | { wrong: string }

const HOW = 'Teeth: type each sprocket, smallest first, or the ends and how many, as 11-34 9s'
const MOST_TEETH = 60

/**
 * Reads a cassette as people write it: `11,13,15`, `11 13 15`, `11-13-15`, `34/30/26…`, lines of a pasted table, or its
 * ends and how many sprockets, `11-34 9s`, `9 speed 11–34`. Largest first is turned round.
 * @param speeds sprockets where they are known already, for ends typed without
 */
export function readTeeth(typed: string, speeds: number | null = null): ReadTeeth {
  const text = typed.toLowerCase().replace(/(\d)\s*t\b/g, '$1')
  const said = /(\d{1,2})\s*-?\s*(?:speeds?|sp|s|fach|x)\b/.exec(text)
  const rest = said ? text.replace(said[0], ' ') : text
  if (/[a-z]/.test(rest) || /[.]\d/.test(rest)) return { wrong: HOW }
  if (/(^|[\s,;(])-\s*\d/.test(rest)) return { wrong: 'Teeth are counted: no figure is below zero' }
  const found = (rest.match(/\d+/g) ?? []).map(Number)
  if (found.length < 2) return { wrong: HOW }
  if (found.length > MAX_SPROCKETS) return { wrong: `A cassette has at most ${MAX_SPROCKETS} sprockets` }
  if (found.some(t => t < 1 || t > MOST_TEETH)) return { wrong: `Teeth: a sprocket has at most ${MOST_TEETH}` }
  const teeth = found[0]! > found.at(-1)! ? found.reverse() : found
  const many = said ? Number(said[1]) : speeds
  if (said && teeth.length > 2 && teeth.length !== many)
    return { wrong: `${teeth.length} sprockets are typed, and ${many} speeds: which is it?` }
  if (teeth.length > 2 || many === null || many === 2) return { teeth, assumed: false }
  if (many < 2 || many > MAX_SPROCKETS) return { wrong: `A cassette has 2 to at most ${MAX_SPROCKETS} sprockets` }
  return { teeth: between(teeth[0]!, teeth[1]!, many), assumed: true }
}

/**
 * A usual spread from the smallest to the largest: the usual one where its ends are these, else in even steps of ratio.
 */
function between(smallest: number, largest: number, many: number): number[] {
  const usual = USUAL_TEETH[many]
  if (usual?.[0] === smallest && usual.at(-1) === largest) return [...usual]
  const out: number[] = []
  for (let k = 0; k < many; k++) {
    const even = Math.round(smallest * (largest / smallest) ** (k / (many - 1)))
    out.push(k === 0 ? smallest : Math.max(out[k - 1]! + 1, even))
  }
  out[many - 1] = Math.max(largest, out[many - 1]!)
  return out
}
