import type { RearParts } from '../rear/parts'
import { checksum } from './crc'
import { SETUP_HEAD as HEAD, SETUP_VERSION } from './format'
import type { Setup } from './setup'

/*
 * How a setup is written: lines of plain words that a person can read too. `docs/travel.md` describes it for others.
 *
 *   OCHO SETUP 1
 *   bike Petrel lane
 *   left 2026-11-25
 *   teeth 11 13 15 …
 *   pull 2.8
 *   …
 *   end 3F2A
 *
 * A list whose numbers are all alike is written once. The last line is a checksum over all before it.
 */

/** More than this is split over two codes, bytes: a code of so many is read by a phone from 45 mm of paper. */
export const MOST_BYTES = 420
/** The rider’s card in a line (`card.ts` says it in full). */
const RIDER =
  'rider Slow to climb: barrel anticlockwise 1/8 at a time, 1/2 at most, then come back. Jumps, or brakes: stop.'

const utf8 = new TextEncoder()
const num = (v: number): string => String(Math.round(v * 1e4) / 1e4)
const list = (values: readonly number[]): string =>
  values.every(v => v === values[0]) ? num(values[0]!) : values.map(num).join(' ')

/** An id is one word of its line. */
const id = (standard: string | null): string => standard?.replace(/\s+/g, '_') ?? '-'
const barrelLine = ({ turnsOut, rangeTurns, threadMm, assumed }: RearParts['barrel']): string =>
  `barrel ${num(turnsOut)} of ${num(rangeTurns)} thread ${num(threadMm)}${assumed ? ' assumed' : ''}`

function hubLines(h: NonNullable<Setup['hub']>): string[] {
  const setting = `set ${h.referenceGear} ${h.slackest}${h.derailleur ? ' derailleur' : ''}`
  return [
    `hub ${id(h.standard)} ${h.way} ring ${h.ringTeeth} sprocket ${h.sprocketTeeth} ${setting}`,
    `ratios ${h.ratios.map(num).join(' ')}`,
  ]
}

function rearLines(p: RearParts): string[] {
  const three = [p.shifter, p.derailleur, p.cassette]
  // readers that know of three leave the fourth alone
  const known = p.barrel.known ? [...three, p.barrel] : three
  const { ratio } = p.derailleur
  return [
    `parts ${three.map(k => id(k.standard)).join(' ')}`,
    `known ${known.map(k => k.known ?? '-').join(' ')}`,
    `teeth ${p.cassette.teeth.join(' ')}`,
    `pitch ${list(p.cassette.pitchMm)}`,
    `clicks ${p.shifter.pullMm.length}`,
    `pull ${list(p.shifter.pullMm)}`,
    `ratio ${num(p.derailleur.pullRatio)}`,
    ...(ratio === undefined
      ? []
      : [`sums ${list([ratio].flat())}`, `along ${[ratio].flat().length}${Array.isArray(ratio) ? ' list' : ''}`]),
    ...(p.shifter.friction ? ['friction lever'] : []),
    ...(p.derailleur.spring ? [`spring ${p.derailleur.spring}`] : []),
    ...(p.derailleur.anchor ? [`anchor ${p.derailleur.anchor}`] : []),
    ...(p.derailleur.makerGapMm === undefined ? [] : [`makergap ${num(p.derailleur.makerGapMm)}`]),
    barrelLine(p.barrel),
  ]
}

/** A setup in words, without its checksum. */
function bodyOf(s: Setup): string {
  const { barrel, H, L, B } = s.turned
  return [
    `${HEAD} ${SETUP_VERSION}`,
    `bike ${s.bike.replace(/\s+/g, ' ')}`,
    `left ${s.left}`,
    ...(s.rear ? rearLines(s.rear) : []),
    ...(barrel || H || L || B ? [`turned ${barrel} ${H} ${L} ${B}`] : []),
    ...(s.gapMm === null ? [] : [`gap ${num(s.gapMm)}`]),
    ...s.housing.map(h => `housing ${h.run} ${num(h.lengthMm)} ${h.place}`),
    ...(s.hub ? hubLines(s.hub) : []),
    ...s.brakes.map(
      ({ parts: p, barrelSixteenthsOut: out }) =>
        `brake ${p.brake} ${p.kind} ${p.lever ?? '-'} ${p.leverSide ?? '-'} ${p.none ?? '-'} ${out ?? '-'}`,
    ),
    ...(s.recallOn ? [`again ${s.recallOn}`] : []),
    RIDER,
  ].join('\n')
}

/** A setup as the text of one code, or of two where it is long. */
export function writeSetup(setup: Setup): string[] {
  const body = bodyOf(setup)
  const end = checksum(body)
  const whole = `${body}\nend ${end}`
  if (utf8.encode(whole).length <= MOST_BYTES) return [whole]
  const lines = body.split('\n').slice(1)
  const half: string[][] = [[], []]
  const total = utf8.encode(body).length
  let filled = 0
  for (const line of lines) {
    half[filled < total / 2 ? 0 : 1]!.push(line)
    filled += utf8.encode(line).length + 1
  }
  return half.map((some, i) => [`${HEAD} ${SETUP_VERSION} part ${i + 1} of 2 ${end}`, ...some].join('\n'))
}
