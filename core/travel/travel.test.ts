import { readFileSync } from 'node:fs'
import { ANCHORS } from '../standards/anchor'
import { describe, expect, test } from 'vitest'
import { travelSchema } from './schema'
import { randomFrom } from '../quantity/random'
import { stockParts } from '../rear/typedParts'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import { usualHubs } from '../hub/kinds'
import { HOUSING_PLACES } from '../cable/places'
import { RUNS } from '../cable/housing'
import { reduce } from '../ledger/reduce'
import { NOTHING_BELIEVED, sheetOf } from '../ledger/sheet'
import type { LedgerEvent } from '../ledger/events'
import { telling } from '../chapter/testTold'
import { crc16 } from './crc'
import { setupOfSheet } from './ofSheet'
import { readSetup } from './read'
import { arrivesWith, noteOf, Setup } from './setup'
import { MOST_BYTES, writeSetup } from './write'

const plain: Setup = {
  bike: 'Petrel lane',
  left: '2026-11-25',
  rear: stockParts('r14-10'),
  turned: { barrel: 6, H: 0, L: -2, B: 16 },
  gapMm: 5.5,
  housing: [
    { run: 'rear', place: 'lever loop', lengthMm: 420 },
    { run: 'rear', place: 'last loop', lengthMm: 290 },
  ],
  hub: null,
  brakes: [
    { parts: { brake: 'front', kind: 'linear-pull', lever: 'long', leverSide: 'right' }, barrelSixteenthsOut: 24 },
  ],
  recallOn: '2026-12-09',
}

test('the schema in docs is the one that is read by', () => {
  expect(JSON.parse(readFileSync(new URL('../../docs/travel.schema.json', import.meta.url), 'utf8'))).toEqual(
    JSON.parse(JSON.stringify(travelSchema())),
  )
})

describe('a setup that travels', () => {
  test('its checksum is the CRC-16 of the catalogue (CCITT-FALSE, check value 29B1 of "123456789")', () => {
    expect(crc16(new TextEncoder().encode('123456789'))).toBe(0x29b1)
  })
  test('is plain words, and reads back as it was', () => {
    const texts = writeSetup(plain)
    expect(texts.join('\n')).toContain('bike Petrel lane\nleft 2026-11-25')
    expect(texts.join('\n')).toContain('housing rear 290 last loop')
    expect(texts.join('\n')).toContain('1/8 at a time')
    expect(readSetup(texts)).toEqual({ is: 'setup', setup: plain, unknown: [] })
    expect(readSetup([...texts].reverse())).toMatchObject({ is: 'setup' })
    // pasted with a phone's line ends and blanks
    expect(readSetup(texts.map(t => `\n  ${t.replaceAll('\n', '\r\n')}  \n`))).toMatchObject({ is: 'setup' })
  })
  test('a barrel’s thread goes along with how it is known; an earlier reader’s three are left as they were', () => {
    for (const known of ['measured', 'shop'] as const) {
      const rear = { ...plain.rear!, barrel: { ...plain.rear!.barrel, threadMm: 1, known } }
      const texts = writeSetup({ ...plain, rear })
      expect(texts.join('\n')).toContain(`\nknown - - - ${known}\n`)
      expect(readSetup(texts)).toMatchObject({ is: 'setup', setup: { rear }, unknown: [] })
    }
    expect(writeSetup(plain).join('\n')).toContain('\nknown - - -\n')
  })
  test('every drivetrain and hub of the tables, with any figures, reads back as it was written', () => {
    const random = randomFrom(1612, 7)
    const pick = <T>(from: readonly T[]): T => from[Math.floor(random.next() * from.length)]!
    for (let k = 0; k < 400; k++) {
      const stock = stockParts(pick(DRIVETRAIN_STANDARDS).id)
      const uneven = random.next() < 0.3
      const round = (v: number) => Math.round(v * 1000) / 1000
      const setup: Setup = Setup.parse({
        ...plain,
        bike: pick(['Marram', 'Gannet, „große“ 3', 'Petrel 北', 'a  b']).replace(/\s+/g, ' '),
        rear:
          random.next() < 0.15
            ? null
            : {
                ...stock,
                shifter: {
                  ...stock.shifter,
                  pullMm: stock.shifter.pullMm.map(p => round(uneven ? p * (0.97 + 0.06 * random.next()) : p)),
                  ...(random.next() < 0.1 ? { friction: true } : {}),
                  known: pick(['measured', 'typed', 'table'] as const),
                },
                derailleur: {
                  ...stock.derailleur,
                  standard: random.next() < 0.2 ? null : stock.derailleur.standard,
                  ...(random.next() < 0.3
                    ? { ratio: uneven ? stock.shifter.pullMm.map(() => round(1.3 + 0.2 * random.next())) : 1.41 }
                    : {}),
                  ...(random.next() < 0.2 ? { spring: 'low' } : {}),
                  ...(random.next() < 0.2 ? { makerGapMm: 5.5 } : {}),
                  ...(random.next() < 0.2 ? { anchor: pick(ANCHORS) } : {}),
                },
                barrel: {
                  ...stock.barrel,
                  turnsOut: Math.floor(96 * random.next()) / 16,
                  assumed: random.next() < 0.5,
                },
              },
        turned: { barrel: Math.round(10 * random.normal()) || 0, H: 0, L: Math.round(3 * random.normal()) || 0, B: 0 },
        gapMm: random.next() < 0.5 ? null : round(3 + 5 * random.next()),
        housing: RUNS.flatMap(run =>
          HOUSING_PLACES.filter(() => random.next() < 0.3).map(place => ({
            run,
            place,
            lengthMm: Math.round(200 + 1500 * random.next()),
          })),
        ),
        hub: random.next() < 0.3 ? pick(usualHubs()).parts : null,
        brakes: random.next() < 0.3 ? [] : plain.brakes,
        recallOn: random.next() < 0.5 ? null : '2027-01-31',
      })
      const texts = writeSetup(setup)
      expect(readSetup(texts)).toEqual({ is: 'setup', setup, unknown: [] })
      expect(texts.length).toBeLessThanOrEqual(2)
    }
  })
  test('one code where it is short, two where it is long, none too large to be read from paper', () => {
    const bytes = (t: string) => new TextEncoder().encode(t).length
    const short = writeSetup({ ...plain, rear: null, housing: [], brakes: [] })
    expect(short).toHaveLength(1)
    const long = writeSetup(plain)
    for (const t of [...short, ...long]) expect(bytes(t)).toBeLessThanOrEqual(MOST_BYTES + 40)
    expect(readSetup([long[1]!])).toEqual({ is: 'part', part: 2 })
  })
  test.each([
    ['nothing', ['']],
    ['a web address', ['https://ocho.example/t/41']],
    ['a later version', ['OCHO SETUP 2\nbike x\nend 0000']],
    ['a later version’s part', ['OCHO SETUP 2 part 1 of 2 ABCD\nbike x']],
    ['a torn end', [writeSetup({ ...plain, rear: null })[0]!.slice(0, -6)]],
    ['a changed figure', [writeSetup({ ...plain, rear: null, housing: [] })[0]!.replace('gap 5.5', 'gap 9.5')]],
    ['far too long', ['OCHO SETUP 1\n'.padEnd(9000, 'x')]],
  ])('%s is refused in words', (_, texts) => {
    const read = readSetup(texts)
    expect(read.is).toBe('wrong')
    if (read.is === 'wrong') expect(read.why).toMatch(/scan|update|paste|measure/)
  })
  test('two codes of different bikes are not put together, and nonsense under a right checksum is no bike', () => {
    const [a] = writeSetup(plain)
    const [, b] = writeSetup({ ...plain, bike: 'Marram' })
    expect(readSetup([a!, b!])).toMatchObject({
      is: 'wrong',
      why: expect.stringContaining('different bikes') as string,
    })
    const signed = (body: string) =>
      readSetup([`${body}\nend ${crc16(new TextEncoder().encode(body)).toString(16).toUpperCase().padStart(4, '0')}`])
    expect(signed('OCHO SETUP 1\nbike x\nleft 2026-13-45')).toMatchObject({ is: 'wrong' })
    expect(signed('OCHO SETUP 1\nbike x\nleft 2026-11-25\nteeth 1 2 9999\npull NaN')).toMatchObject({ is: 'wrong' })
    expect(signed('OCHO SETUP 1\nbike x\nleft 2026-11-25\nhousing rear 1e9 last loop')).toMatchObject({ is: 'wrong' })
    // a line that this version does not know is told, and the rest is taken
    expect(signed('OCHO SETUP 1\nbike x\nleft 2026-11-25\nsag 15')).toMatchObject({ is: 'setup', unknown: ['sag 15'] })
  })
  test('a sheet’s own figures travel, and start the next job', () => {
    const told = telling<LedgerEvent>()
    const state = reduce(
      [
        { kind: 'arrived', parts: stockParts('r14-10') } as LedgerEvent,
        { kind: 'turn', screw: 'barrel', sixteenths: 6 } as LedgerEvent,
        { kind: 'gap', gapMm: 5.2, how: 'measured', at: 'stand' } as LedgerEvent,
        { kind: 'hubParts', parts: usualHubs()[0]!.parts } as LedgerEvent,
      ].map(e => told(e)),
    )
    const sheet = sheetOf(state, NOTHING_BELIEVED, {
      at: '2026-11-25T12:00:00.000Z',
      by: 'p',
      how: 'proven',
      fault: null,
      recallOn: '2026-12-09',
    })
    const setup = setupOfSheet(sheet, 'Petrel lane')
    expect(setup).toMatchObject({ gapMm: 5.2, turned: { barrel: 6 }, recallOn: '2026-12-09' })
    expect(readSetup(writeSetup(setup))).toEqual({ is: 'setup', setup, unknown: [] })
    expect(arrivesWith(setup).map(e => e.kind)).toEqual(['hubParts'])
    expect(noteOf(plain)).toBe(
      'From its code, left 2026-11-25; B gap 5.5 mm; housing mm: rear lever loop 420, rear last loop 290',
    )
  })
})
