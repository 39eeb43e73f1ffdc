import { checksum } from './crc'
import { SETUP_HEAD as HEAD, SETUP_VERSION } from './format'
import { Setup } from './setup'

export type ReadSetup =
  | { is: 'setup'; setup: Setup; /** Lines that this version does not know. */ unknown: string[] }
  /** One of two: the other is still to be read. */
  | { is: 'part'; part: 1 | 2 }
  | { is: 'wrong'; why: string }
const wrong = (why: string): ReadSetup => ({ is: 'wrong', why })

const PART = /^OCHO SETUP (\d+) part ([12]) of 2 ([0-9A-F]{4})$/
/** No code and no paste is longer than this; more is refused unread. */
const MOST_TEXT = 8_000

/** Reads what was scanned or pasted: one text, or both parts in any order. Never throws. */
export function readSetup(texts: readonly string[]): ReadSetup {
  const clean = texts.map(t => t.replace(/\r\n?/g, '\n').trim())
  if (clean.some(t => t.length > MOST_TEXT)) return wrong('That is far longer than a setup: paste its lines alone')
  const joined = joinParts(clean)
  if (typeof joined !== 'string') return joined
  const lines = joined.split('\n').map(l => l.trim())
  const [, version] = /^OCHO SETUP (\d+)$/.exec(lines[0] ?? '') ?? []
  if (version === undefined) return wrong('That is no setup of a bike: scan the square code on its sheet or card')
  if (Number(version) !== SETUP_VERSION)
    return wrong(`This was written by a later Ocho (format ${version}): update this one first`)
  const end = lines.at(-1) ?? ''
  const body = lines.slice(0, -1).join('\n')
  if (!/^end [0-9A-F]{4}$/.test(end)) return wrong('The end of it is missing: scan it again, or paste all of its lines')
  if (end !== `end ${checksum(body)}`) return wrong('Some of it was torn or changed on the way: scan it again')
  return understood(lines.slice(1, -1))
}

function joinParts(texts: readonly string[]): string | ReadSetup {
  const parts = texts.map(t => ({ text: t, head: PART.exec(t.split('\n')[0] ?? '') }))
  const halves = parts.filter(p => p.head !== null)
  if (halves.length === 0) return texts[0] ?? ''
  const later = halves.find(h => Number(h.head![1]) !== SETUP_VERSION)
  if (later) return wrong(`This was written by a later Ocho (format ${later.head![1]}): update this one first`)
  const end = halves[0]!.head![3]!
  const of = (n: '1' | '2') => halves.find(h => h.head![2] === n && h.head![3] === end)
  const [one, two] = [of('1'), of('2')]
  if (!one || !two) {
    if (new Set(halves.map(h => h.head![3])).size > 1)
      return wrong('These two codes are of different bikes: scan both of one')
    return { is: 'part', part: one ? 1 : 2 }
  }
  const rest = (t: string) => t.split('\n').slice(1)
  return [`${HEAD} ${SETUP_VERSION}`, ...rest(one.text), ...rest(two.text), `end ${end}`].join('\n')
}

const numbers = (text: string): number[] => text.split(' ').filter(Boolean).map(Number)
/** A list written once stands for as many as there are. */
const spread = (values: number[], n: number): number[] =>
  values.length === 1 && n > 1 ? Array<number>(n).fill(values[0]!) : values
const dash = (text: string | undefined): string | null => (text === undefined || text === '-' ? null : text)

const KNOWN = new Set([
  'bike',
  'left',
  'parts',
  'known',
  'teeth',
  'pitch',
  'clicks',
  'pull',
  'ratio',
  'sums',
  'along',
  'friction',
  'spring',
  'makergap',
  'anchor',
  'barrel',
  'turned',
  'gap',
  'housing',
  'hub',
  'ratios',
  'brake',
  'again',
  'rider',
])

function understood(lines: readonly string[]): ReadSetup {
  const all = new Map<string, string[]>()
  const unknown: string[] = []
  for (const line of lines) {
    const [key] = line.split(' ', 1)
    if (!KNOWN.has(key!)) unknown.push(line)
    else all.set(key!, [...(all.get(key!) ?? []), line.slice(key!.length + 1)])
  }
  const one = (key: string): string | undefined => all.get(key)?.[0]
  const [barrel, H, L, B] = numbers(one('turned') ?? '0 0 0 0')
  const read = Setup.safeParse({
    bike: one('bike'),
    left: one('left'),
    rear: one('teeth') === undefined ? null : rearOf(one),
    turned: { barrel, H, L, B },
    gapMm: one('gap') === undefined ? null : Number(one('gap')),
    housing: (all.get('housing') ?? []).map(text => {
      const [run, mm, ...place] = text.split(' ')
      return { run, lengthMm: Number(mm), place: place.join(' ') }
    }),
    hub: hubOf(one('hub'), one('ratios')),
    brakes: (all.get('brake') ?? []).map(text => {
      const [brake, kind, lever, leverSide, none, out] = text.split(' ')
      return {
        parts: {
          brake,
          kind,
          lever: dash(lever),
          leverSide: dash(leverSide),
          ...(dash(none) === null ? {} : { none }),
        },
        barrelSixteenthsOut: dash(out) === null ? null : Number(out),
      }
    }),
    recallOn: one('again') ?? null,
  })
  if (!read.success) {
    const [issue] = read.error.issues
    return wrong(
      `It holds a figure no bike has (${issue!.path.join(' ') || 'setup'}: ${issue!.message}): measure that bike instead`,
    )
  }
  return { is: 'setup', setup: read.data, unknown }
}

function rearOf(one: (key: string) => string | undefined): unknown {
  const teeth = numbers(one('teeth')!)
  const [shifter, derailleur, cassette] = (one('parts') ?? '').split(' ')
  const known = (one('known') ?? '').split(' ').map(k => (k === '-' || k === '' ? {} : { known: k }))
  const clicks = Number(one('clicks'))
  const [along, isList] = (one('along') ?? '').split(' ')
  const sums = one('sums') === undefined ? undefined : numbers(one('sums')!)
  const barrel = /^(\S+) of (\S+) thread (\S+)( assumed)?$/.exec(one('barrel') ?? '')
  const sane = Number.isInteger(clicks) && clicks >= 0 && clicks <= 20
  return {
    shifter: {
      standard: dash(shifter),
      ...known[0],
      ...(one('friction') === 'lever' ? { friction: true } : {}),
      pullMm: spread(numbers(one('pull') ?? ''), sane ? clicks : 1),
    },
    derailleur: {
      standard: dash(derailleur),
      ...known[1],
      pullRatio: Number(one('ratio')),
      ...(sums === undefined
        ? {}
        : { ratio: isList === 'list' ? spread(sums, Math.min(20, Number(along) || 1)) : sums[0] }),
      ...(one('spring') === undefined ? {} : { spring: one('spring') }),
      ...(one('anchor') === undefined ? {} : { anchor: one('anchor') }),
      ...(one('makergap') === undefined ? {} : { makerGapMm: Number(one('makergap')) }),
    },
    cassette: {
      standard: dash(cassette),
      ...known[2],
      teeth,
      pitchMm: spread(numbers(one('pitch') ?? ''), Math.max(1, Math.min(20, teeth.length - 1))),
    },
    barrel: {
      turnsOut: Number(barrel?.[1]),
      rangeTurns: Number(barrel?.[2]),
      threadMm: Number(barrel?.[3]),
      ...known[3],
      assumed: barrel?.[4] !== undefined,
    },
  }
}

function hubOf(text: string | undefined, ratios: string | undefined): unknown {
  if (text === undefined) return null
  const m = /^(\S+) (\S+) ring (\S+) sprocket (\S+) set (\S+) (\S+)( derailleur)?$/.exec(text)
  return {
    standard: dash(m?.[1]),
    way: m?.[2],
    ratios: numbers(ratios ?? ''),
    ringTeeth: Number(m?.[3]),
    sprocketTeeth: Number(m?.[4]),
    referenceGear: Number(m?.[5]),
    slackest: m?.[6],
    derailleur: m?.[7] !== undefined,
  }
}
