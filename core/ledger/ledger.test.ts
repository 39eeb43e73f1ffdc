import { asItCameIn, barrelLeft } from '../rear/ofState'
import { sayNet } from '../chapter/screws'
import { EventId } from '../chapter/ids'
import { AT, PERSON, telling, uuid } from '../chapter/testTold'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { consider } from '../advice/advise'
import { stockParts } from '../rear/typedParts'
import { AppendRequest, Entry, KINDS, LedgerEvent, readStored, type LedgerKind } from './events'
import { whyStays } from './gates'
import { ledgerEventOf } from '../rear/fromBench'
import { templateRun } from '../cable/templates'
import { USUAL_FRONT } from '../front/parts'
import { usualHubs } from '../hub/kinds'
import { setupOf, sharedGears, type RearParts } from '../rear/parts'
import { unusedGears } from '../rear/partsInWords'
import { lastTaken, reduce, undoable, type Told } from './reduce'
import { sayEvent, sprocketsNeeded } from './say'
import { headOfSheet, Sheet, sheetOf, type Leaving } from './sheet'

const told = telling<LedgerEvent>()
const parts = stockParts('r14-10')
const arrived = told({ kind: 'arrived', parts })
const turn = (sixteenths: number, screw: 'barrel' | 'H' | 'L' | 'B' = 'barrel', extra: Partial<Told> = {}) =>
  told({ kind: 'turn', screw, sixteenths }, extra)

/** One of each kind: a new kind must be added here, and so be thought about. */
const ONE_OF_EACH: { [K in LedgerKind]: Extract<LedgerEvent, { kind: K }> } = {
  arrived: { kind: 'arrived', parts },
  went: { kind: 'went', from: 0, to: 4, back: true, stop: { sprocket: 3, way: 'frame', heard: 'slow' } },
  frontParts: { kind: 'frontParts', parts: USUAL_FRONT.double },
  frontShift: { kind: 'frontShift', from: 0, to: 1, seen: 'no-climb' },
  frontTurn: { kind: 'frontTurn', screw: 'H', sixteenths: 2 },
  frontGap: { kind: 'frontGap', plate: 'outer', gapMm: 1.2 },
  brakeParts: { kind: 'brakeParts', parts: { brake: 'front', kind: 'linear-pull', lever: 'long', leverSide: 'right' } },
  brakeSeen: { kind: 'brakeSeen', brake: 'front', check: 'noodle', outcome: 'out' },
  brakeStep: { kind: 'brakeStep', brake: 'rear', step: 'clamped' },
  brakeNearer: { kind: 'brakeNearer', brake: 'rear', nearer: 'left' },
  brakeScrew: { kind: 'brakeScrew', brake: 'rear', side: 'left', sixteenths: 2 },
  brakeClose: { kind: 'brakeClose', brake: 'rear', barrelSixteenthsOut: 56, letOutMm: 5 },
  brakeCured: { kind: 'brakeCured', brake: 'front', fault: 'noodle-out' },
  hubParts: { kind: 'hubParts', parts: usualHubs()[0]!.parts },
  hubSounded: { kind: 'hubSounded', tickOdds: 8 },
  hubSeen: { kind: 'hubSeen', check: 'lock', outcome: 'loose' },
  hubRead: { kind: 'hubRead', mm: 1.2 },
  hubCount: { kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns: 11.7 },
  hubTurn: { kind: 'hubTurn', sixteenths: 8 },
  hubCured: { kind: 'hubCured', fault: 'slack' },
  hubStep: { kind: 'hubStep', step: 'window' },
  hubProof: { kind: 'hubProof', holds: true },
  frontPosition: { kind: 'frontPosition', heightMm: 2, angleDeg: null },
  frontHand: { kind: 'frontHand', reach: 'there' },
  frontRub: { kind: 'frontRub', ring: 0, sprocket: 1, plate: 'outer' },
  frontUndone: { kind: 'frontUndone', drops: true },
  frontSet: { kind: 'frontSet', what: 'clamp' },
  frontStep: { kind: 'frontStep', order: 'conventional', step: 'height' },
  run: { kind: 'run', run: templateRun('external', 'rear') },
  cabled: { kind: 'cabled', run: 'rear', step: 'clamped' },
  parts: { kind: 'parts', parts: { ...parts, shifter: { ...parts.shifter, known: 'measured' } } },
  placed: { kind: 'placed', where: 'stand', stand: 2 },
  shift: { kind: 'shift', from: 0, to: 1, heard: 'clean' },
  pass: { kind: 'pass', exceptions: [] },
  turn: { kind: 'turn', screw: 'barrel', sixteenths: 4 },
  edge: { kind: 'edge', click: 2, way: 'in', sixteenths: -6, found: true },
  sight: { kind: 'sight', at: 'L', offsetMm: 0.3 },
  offset: { kind: 'offset', click: 3, offsetMm: -0.2 },
  gauge: { kind: 'gauge', camberDeg: 1.2, toeDeg: -0.3, acrossMm: 12.6 },
  reclamp: { kind: 'reclamp', barrelSixteenthsOut: 32 },
  replace: { kind: 'replace', part: 'cable' },
  recount: { kind: 'recount', barrelSixteenthsOut: 40 },
  bend: { kind: 'bend', hour: 12, tipMm: 1.5 },
  said: { kind: 'said', complaint: 'slow-in', answer: 'cured' },
  sensed: { kind: 'sensed', exceptions: ['stiff-link'], chainWearPercent: 0.6 },
  housing: { kind: 'housing', place: 'last loop', lengthMm: 290, of: '4 mm', ends: 'metal' },
  eyed: { kind: 'eyed', hanger: 'leans-in' },
  waived: { kind: 'waived', what: 'parts' },
  declined: { kind: 'declined', what: 'turn L' },
  wrong: { kind: 'wrong', about: EventId.parse(uuid(8)) },
  inner: { kind: 'inner', lengthMm: 1980 },
  gap: { kind: 'gap', gapMm: 5.5, how: 'measured', at: 'stand' },
  proved: { kind: 'proved', what: 'several', ring: null, exceptions: [3] },
  felt: { kind: 'felt', what: 'quiet' },
  sounded: { kind: 'sounded', click: 2, rubOdds: 6.5 },
  ridden: { kind: 'ridden', how: 'weekly' },
  happened: { kind: 'happened', what: ['fell'] },
  gapSeen: { kind: 'gapSeen', look: 'close' },
  gapWanted: { kind: 'gapWanted', gapMm: 5.5 },
  torqued: { kind: 'torqued', exceptions: ['pinch-bolt'], peaksNm: { 'hanger-bolt': 9.2 } },
  cut: { kind: 'cut', tailMm: 40 },
  bedded: { kind: 'bedded', shifts: 30 },
  schools: { kind: 'schools', choice: { step: 'quarter' } },
  proof: { kind: 'proof', brake: 'front', holds: true },
  wheelOut: { kind: 'wheelOut', wheel: 'rear' },
  edited: { kind: 'edited', fields: ['promisedAt'] },
  waits: { kind: 'waits', for: 'parts' },
  seen: { kind: 'seen', seen: { sprockets: 10, rings: 2, lever: 'drop', front: 'dual-pivot', rear: null } },
  undo: { kind: 'undo', undoes: EventId.parse(uuid(7)) },
  handedBack: { kind: 'handedBack', how: 'proven' },
  reopened: { kind: 'reopened' },
  riderSaid: { kind: 'riderSaid', says: 'slack', sixteenths: 2 },
}

describe('undo', () => {
  // what closes or opens a job stands for good
  const ANY = KINDS.filter(k => !['arrived', 'undo', 'wrong', 'handedBack', 'reopened'].includes(k))
  const what = (log: Told[]) => {
    const { inForce: _inForce, undone: _undone, ...state } = reduce(log)
    return { ...state, stays: whyStays(reduce(log)) }
  }
  test('of any entry leaves the job as if it had never been, whatever came before and after; undone again it is back', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...ANY), { maxLength: 6 }),
        fc.constantFrom(...ANY),
        fc.array(fc.constantFrom(...ANY), { maxLength: 3 }),
        (before, kind, after) => {
          const [a, e, b] = [
            before.map(k => told(ONE_OF_EACH[k])),
            told(ONE_OF_EACH[kind]),
            after.map(k => told(ONE_OF_EACH[k])),
          ]
          const undo = told({ kind: 'undo', undoes: e.id })
          expect(what([arrived, ...a, e, ...b, undo])).toEqual(what([arrived, ...a, ...b]))
          expect(what([arrived, ...a, e, ...b, undo, told({ kind: 'undo', undoes: undo.id })])).toEqual(
            what([arrived, ...a, e, ...b]),
          )
        },
      ),
      { numRuns: 120, seed: 8 },
    )
  })
  test('a bike without a derailleur takes every entry too, and none of them makes it a derailleur’s', () => {
    const bare = told({ kind: 'arrived', parts: null })
    for (const k of ANY) {
      const state = reduce([bare, told(ONE_OF_EACH[k])])
      // but for parts measured after all, which put the whole job right
      expect(state.rear.setup === null, k).toBe(k !== 'parts')
      expect(state.rear.bench, k).toEqual([])
    }
  })
})

describe('entries', () => {
  test('every kind passes its own schema and is taken by the reducer', () => {
    for (const event of Object.values(ONE_OF_EACH)) {
      expect(LedgerEvent.parse(JSON.parse(JSON.stringify(event)))).toEqual(event)
      expect(() => reduce([arrived, told(event)])).not.toThrow()
    }
    expect(Object.keys(ONE_OF_EACH).sort()).toEqual([...KINDS].sort())
  })
  test('no kind has room for a name or free text', () => {
    for (const event of Object.values(ONE_OF_EACH))
      expect(LedgerEvent.safeParse({ ...event, note: 'Marit rang' }).success).toBe(false)
  })
  test('an unknown kind or a later version is not read: "reload to update"', () => {
    const stored = { ...turn(2), v: 1, basedOn: 0, seq: 3, receivedAt: AT, verified: true, signedBy: null }
    expect(readStored(stored)).not.toBeNull()
    expect(readStored({ ...stored, event: { kind: 'teleport' } })).toBeNull()
    expect(readStored({ ...stored, v: 2 })).toBeNull()
  })
  test('a batch must hold something, and an entry must be whole', () => {
    expect(AppendRequest.safeParse({ entries: [] }).success).toBe(false)
    expect(Entry.safeParse({ ...turn(2), v: 1, basedOn: 0, person: PERSON }).success).toBe(false)
  })
  test('what an entry needs of the cassette follows from it', () => {
    expect(sprocketsNeeded({ kind: 'shift', from: 3, to: 9, heard: 'clean' })).toBe(10)
    expect(sprocketsNeeded({ kind: 'offset', click: 3, offsetMm: 0 })).toBe(4)
    expect(sprocketsNeeded({ kind: 'edge', click: 9, way: 'out', sixteenths: 2, found: true })).toBe(11)
    expect(sprocketsNeeded({ kind: 'edge', click: 0, way: 'out', sixteenths: 2, found: true })).toBeGreaterThan(14)
    expect(sprocketsNeeded({ kind: 'frontShift', from: 0, to: 1, seen: 'clean', sprocket: 10 })).toBe(11)
    expect(sprocketsNeeded({ kind: 'frontShift', from: 0, to: 1, seen: 'clean' })).toBe(0)
    expect(sprocketsNeeded({ kind: 'proved', what: 'road', ring: null, exceptions: [2, 7] })).toBe(8)
    expect(sprocketsNeeded({ kind: 'pass', exceptions: [{ sprocket: 5, way: null, heard: null }] })).toBe(6)
    expect(sprocketsNeeded({ kind: 'turn', screw: 'H', sixteenths: 2 })).toBe(0)
  })
})

describe('reduce', () => {
  test('net turns, travel left and "as it came in"', () => {
    const state = reduce([arrived, turn(6), turn(-2), turn(4, 'H'), turn(-1, 'B')])
    expect(state.rear.net).toEqual({ barrel: 4, H: 4, L: 0, B: -1 })
    expect(barrelLeft(state.rear)).toEqual({ inTurns: 3.25, outTurns: 2.75 })
    expect(asItCameIn(state.rear)).toEqual({ barrel: -4, H: -4, B: 1 })
    expect([sayNet('barrel', 10), sayNet('H', 4), sayNet('L', -8), sayNet('B', 0)]).toEqual([
      '5/8 out',
      '1/4 in',
      '1/2 out',
      '0',
    ])
  })
  test('told twice counts once; an undo takes back, an undo of an undo brings back', () => {
    const t = turn(6)
    const undo = told({ kind: 'undo', undoes: t.id })
    expect(reduce([arrived, t, t]).rear.net.barrel).toBe(6)
    expect(reduce([arrived, t, undo]).rear.net.barrel).toBe(0)
    expect(reduce([arrived, t, undo, told({ kind: 'undo', undoes: undo.id })]).rear.net.barrel).toBe(6)
    expect(undoable(reduce([arrived, t, undo]))).toEqual([])
    expect(undoable(reduce([arrived, t]))).toEqual([t])
  })
  test('any mix of turns and undos nets to the turns in force, and any log reduces the same with every entry told twice', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ sixteenths: fc.integer({ min: -8, max: 8 }).filter(x => x !== 0), undo: fc.boolean() }), {
          maxLength: 25,
        }),
        steps => {
          const log: Told[] = [arrived]
          let net = 0
          for (const s of steps) {
            const t = turn(s.sixteenths, 'L')
            log.push(t)
            if (s.undo) log.push(told({ kind: 'undo', undoes: t.id }))
            else net += s.sixteenths
          }
          expect(reduce(log).rear.net.L).toBe(net)
          expect(reduce([...log, ...log])).toEqual(reduce(log))
        },
      ),
      { numRuns: 50, seed: 2 },
    )
  })
  test('a lever is taken from the log: after an undo `from` is derived anew', () => {
    const first = told({ kind: 'shift', from: 0, to: 4, heard: 'clean' })
    const second = told({ kind: 'shift', from: 4, to: 5, heard: 'slow' })
    const state = reduce([arrived, first, second, told({ kind: 'undo', undoes: first.id })])
    expect(state.rear.bench).toEqual([{ kind: 'shift', from: 0, to: 5, heard: 'slow' }])
  })
  test('a turn past the assumed thread is kept and flagged, never dropped or thrown', () => {
    const far = turn(16 * 4)
    const state = reduce([arrived, far, turn(2)])
    expect(state.rear.net.barrel).toBe(66)
    expect(state.flagged).toEqual([{ id: far.id, why: 'past the assumed thread: count the turns out again' }])
    expect(state.rear.bench).toHaveLength(1)
  })
  test('the same shift heard differently by two tablets is asked about; the same, or a later one, is not', () => {
    const shift = (heard: 'clean' | 'slow', seq: number, basedOn: number, to = 3) =>
      told({ kind: 'shift', from: 2, to, heard }, { seq, basedOn })
    const flags = (...log: ReturnType<typeof told>[]) => reduce([arrived, ...log]).flagged.map(f => f.why)
    expect(flags(shift('clean', 2, 1), shift('slow', 3, 1))[0]).toMatch(/Two tablets heard/)
    expect(flags(shift('clean', 2, 1), shift('clean', 3, 1))).toEqual([])
    expect(flags(shift('clean', 2, 1), shift('slow', 3, 2))).toEqual([])
    expect(flags(shift('clean', 2, 1), shift('slow', 3, 1, 4))).toEqual([])
  })
  test('the same advised turn from two tablets is asked about; a later one, or one not as advised, is not', () => {
    const advised = { move: 'turn barrel 0.25', right: 0.2, after: 0.7, cause: null, taken: true }
    const accept = (seq: number, basedOn: number, taken = true) =>
      told({ kind: 'turn', screw: 'barrel', sixteenths: 4, advised: { ...advised, taken } }, { seq, basedOn })
    expect(reduce([arrived, accept(2, 1), accept(3, 1)]).flagged).toHaveLength(1)
    expect(reduce([arrived, accept(2, 1), accept(3, 2)]).flagged).toHaveLength(0)
    expect(reduce([arrived, accept(2, 1), accept(3, 1, false)]).flagged).toHaveLength(0)
  })
  test("a re-clamp starts the barrel's count again, a new derailleur all screws", () => {
    const state = reduce([arrived, turn(6), turn(3, 'H'), told({ kind: 'reclamp', barrelSixteenthsOut: 24 })])
    expect([state.rear.net.barrel, state.rear.barrelSixteenths]).toEqual([0, 24])
    expect(asItCameIn(state.rear)).toEqual({ H: -3 })
    expect(reduce([arrived, turn(3, 'H'), told({ kind: 'replace', part: 'derailleur' })]).rear.net.H).toBe(0)
  })
})

describe('the projection to bench events', () => {
  test('a clean pass is every arrival in and back; exceptions with what was heard stand in it', () => {
    const n = 10
    const clean = reduce([arrived, told({ kind: 'pass', exceptions: [] })])
    expect(clean.rear.bench).toHaveLength(2 * (n - 1))
    expect(clean.rear.bench.every(e => e.kind === 'shift' && e.heard === 'clean')).toBe(true)
    expect(clean.rear.trace).toMatchObject({ lever: 0, lastInward: false })
    const slow = reduce([arrived, told({ kind: 'pass', exceptions: [{ sprocket: 4, way: 'spokes', heard: 'slow' }] })])
      .rear.bench
    expect(slow.filter(e => e.kind === 'shift' && e.heard === 'slow')).toEqual([
      { kind: 'shift', from: 3, to: 4, heard: 'slow' },
    ])
  })
  test('an exception without what was heard says "not clean", once for the gear', () => {
    const { bench } = reduce([
      arrived,
      told({
        kind: 'pass',
        exceptions: [
          { sprocket: 4, way: null, heard: null },
          { sprocket: 9, way: null, heard: null },
        ],
      }),
    ]).rear
    expect(bench.filter(e => e.kind === 'unclean')).toEqual([
      { kind: 'unclean', to: 4, ways: ['spokes', 'frame'] },
      { kind: 'unclean', to: 9, ways: ['spokes'] },
    ])
    const belief = consider(setupOf(parts), bench)
    expect(belief.advice.right).toBeLessThan(0.5)
  })
  test('what the bench tells goes into the ledger and comes back the same', () => {
    const events = [
      { kind: 'sight', at: 'L', offsetMm: 0.3 },
      { kind: 'sight', at: 'H', offsetMm: -0.4 },
      { kind: 'shift', from: 0, to: 3, heard: 'rubs-in' },
      { kind: 'turn', screw: 'barrel', turns: -0.375 },
      { kind: 'edge', click: 4, way: 'out', turns: 0.5625, found: true },
      { kind: 'offset', click: 2, offsetMm: 0.1 },
      { kind: 'hanger', camberDeg: 0.8, toeDeg: 0.1 },
      { kind: 'reclamp', barrelTurnsOut: 2 },
      { kind: 'replace', part: 'hanger' },
    ] as const
    expect(reduce([arrived, ...events.map(e => told(ledgerEventOf(e)))]).rear.bench).toEqual(events)
  })
  test('a shifter and a cassette that differ in gears are compared on what they share', () => {
    const mixed: RearParts = { ...parts, shifter: stockParts('r17-8').shifter }
    expect(sharedGears(mixed)).toBe(8)
    expect(setupOf(mixed).teeth).toHaveLength(8)
    expect(unusedGears(mixed)).toBe('The largest 2 sprockets cannot be reached by this shifter')
    expect(unusedGears(parts)).toBeNull()
  })
})

test('a sheet says found, done and left, and passes its schema', () => {
  const state = reduce([
    arrived,
    told({ kind: 'sight', at: 'L', offsetMm: 0 }),
    told({ kind: 'sight', at: 'H', offsetMm: -0.6 }),
    told({ kind: 'shift', from: 0, to: 3, heard: 'slow' }),
    turn(6),
    told({ kind: 'replace', part: 'cable' }),
    told({ kind: 'proof', brake: 'front', holds: true }),
  ])
  const considered = consider(state.rear.setup!, state.rear.bench)
  const sheet = Sheet.parse(
    JSON.parse(
      JSON.stringify(
        sheetOf(
          state,
          { first: considered, rear: considered, front: null },
          { at: AT, by: PERSON, how: 'unridable', fault: null, recallOn: null },
        ),
      ),
    ),
  )
  expect(sheet.found.map(f => f.figure)).toContain('in line')
  expect(sheet.done.map(f => f.what)).toContain('Cable and housing renewed')
  expect(sheet.left.at(-1)).toEqual({ what: 'Leaves unridable', figure: 'rear brake not proven' })
  expect(sheet.tell).toEqual([])
  expect(sheet.drivetrain).toBe('10-speed · 2.8 mm × 1.4 = 3.92 · pitch 3.95')
  expect(sheet.belief.cable?.sd).toBeGreaterThan(0)
})

describe('what is noted beside the screws', () => {
  const clamped = { kind: 'reclamp', barrelSixteenthsOut: 32 } as const
  test('a count taken anew corrects where the barrel began, and the turns noted stay', () => {
    const before = reduce([arrived, turn(8), turn(-4)])
    const after = reduce([
      arrived,
      turn(8),
      turn(-4),
      told({ kind: 'recount', barrelSixteenthsOut: before.rear.barrelSixteenths + 12 }),
    ])
    expect(after.rear.barrelSixteenths).toBe(before.rear.barrelSixteenths + 12)
    expect(after.rear.net).toEqual(before.rear.net)
    expect(after.rear.bench).toEqual(before.rear.bench)
    expect(after.rear.setup!.barrelTurnsOut - before.rear.setup!.barrelTurnsOut).toBeCloseTo(0.75, 9)
    // after a clamp it is the clamp's own count that was wrong
    const later = reduce([arrived, told(clamped), turn(4), told({ kind: 'recount', barrelSixteenthsOut: 44 })])
    expect(later.rear.barrelSixteenths).toBe(44)
    expect(later.rear.bench[0]).toEqual({ kind: 'reclamp', barrelTurnsOut: 2.5 })
  })
  test('a count that cannot be, with the turns noted since, is asked about and changes nothing', () => {
    const state = reduce([arrived, turn(40), told({ kind: 'recount', barrelSixteenthsOut: 8 })])
    expect(state.flagged.at(-1)!.why).toContain('1/2 turns out does not go with the turns noted since')
    expect(state.rear.barrelSixteenths).toBe(reduce([arrived, turn(40)]).rear.barrelSixteenths)
  })
  test('a bend moves the stops: both are to be seen again, and the gauging before it no longer holds', () => {
    const sights = [told({ kind: 'sight', at: 'L', offsetMm: 0 }), told({ kind: 'sight', at: 'H', offsetMm: 0 })]
    const gauge = told({
      kind: 'gauge',
      camberDeg: 1,
      toeDeg: 0,
      acrossMm: 10.9,
      readings: [
        { hour: 12, gapMm: 60 },
        { hour: 4, gapMm: 55 },
        { hour: 8, gapMm: 55 },
      ],
      radiusMm: 311,
      hanger: 'steel',
    })
    const state = reduce([arrived, ...sights, gauge, told({ kind: 'bend', hour: 12, tipMm: 1.5 })])
    expect(state.rear.trace).toMatchObject({ seenL: false, seenH: false })
    expect(state.rear.gauges[0].bentBefore).toMatchObject({ tipMm: 1.5 })
    expect(state.rear.sights).toHaveLength(0)
    expect(consider(state.rear.setup!, state.rear.bench).advice.move).toEqual({ do: 'sight', at: 'L' })
  })
  test('the barrel is counted from the last clamp, by turns and by edges', () => {
    expect(reduce([arrived, turn(4)]).rear.sinceClamp).toBeNull()
    expect(
      reduce([
        arrived,
        told(clamped),
        turn(4),
        told({ kind: 'edge', click: 2, way: 'in', sixteenths: -6, found: true }),
        turn(3, 'L'),
      ]).rear.sinceClamp,
    ).toBe(-2)
    expect(reduce([arrived, told(clamped), turn(9), told({ kind: 'replace', part: 'cable' })]).rear.sinceClamp).toBe(0)
  })
  test('the latest word counts, and an undo takes it back', () => {
    const sensed = told({ kind: 'sensed', exceptions: ['worn'], chainWearPercent: null })
    const fine = told({ kind: 'sensed', exceptions: [], chainWearPercent: 0.3 })
    expect(reduce([arrived, sensed, fine]).rear.sensed?.exceptions).toEqual([])
    expect(reduce([arrived, sensed, fine, told({ kind: 'undo', undoes: fine.id })]).rear.sensed?.exceptions).toEqual([
      'worn',
    ])
    const loop = (lengthMm: number) =>
      told({ kind: 'housing', place: 'last loop', lengthMm, of: '4 mm', ends: 'metal' })
    expect(reduce([arrived, loop(280), loop(300)]).rear.housing).toEqual([expect.objectContaining({ lengthMm: 300 })])
  })
  test.each<[string, unknown]>([
    [
      'two readings are too few',
      {
        kind: 'gauge',
        camberDeg: 1,
        toeDeg: 0,
        acrossMm: 3,
        readings: [
          { hour: 12, gapMm: 60 },
          { hour: 6, gapMm: 60 },
        ],
      },
    ],
    [
      'a reading of 300 mm',
      {
        kind: 'gauge',
        camberDeg: 1,
        toeDeg: 0,
        acrossMm: 3,
        readings: [
          { hour: 12, gapMm: 300 },
          { hour: 6, gapMm: 60 },
          { hour: 3, gapMm: 60 },
        ],
      },
    ],
    ['a gap of 90 mm', { kind: 'gap', gapMm: 90, how: 'measured', at: 'stand' }],
    ['a bend of nothing', { kind: 'bend', hour: 12, tipMm: 0 }],
    ['a complaint not in the list', { kind: 'said', complaint: 'it sings', answer: null }],
    ['a chain of 9 %', { kind: 'sensed', exceptions: [], chainWearPercent: 9 }],
    ['housing of 5 mm', { kind: 'housing', place: 'last loop', lengthMm: 5, of: '4 mm', ends: 'metal' }],
    ['a barrel 20 turns out', { kind: 'recount', barrelSixteenthsOut: 320 }],
  ])('%s is refused', (_, event) => {
    expect(LedgerEvent.safeParse(event).success).toBe(false)
  })
  test('advice that was taken can be said to have been wrong, once, and an undo takes that back', () => {
    const taken = told({
      kind: 'turn',
      screw: 'barrel',
      sixteenths: 4,
      advised: { move: 'turn barrel 0.25', right: 0.2, after: 0.8, cause: 'tension', taken: true },
    })
    expect(lastTaken(reduce([arrived, taken]))?.id).toBe(taken.id)
    const wrong = told({ kind: 'wrong', about: taken.id })
    expect(lastTaken(reduce([arrived, taken, wrong]))).toBeNull()
    expect(reduce([arrived, taken, wrong]).rear.wrong).toEqual([taken.id])
    expect(lastTaken(reduce([arrived, taken, wrong, told({ kind: 'undo', undoes: wrong.id })]))?.id).toBe(taken.id)
    expect(lastTaken(reduce([arrived, taken, turn(2)]))).toBeNull()
  })
  test('every entry can be said in a line', () => {
    for (const event of Object.values(ONE_OF_EACH)) expect(sayEvent(event, parts.cassette.teeth)).toMatch(/^[A-Z].{4,}/)
  })
})

describe('what the rider is told', () => {
  const sheetFor = (leaving: Partial<Leaving>, ...events: LedgerEvent[]) => {
    const state = reduce([arrived, ...events.map(e => told(e))])
    const considered = consider(state.rear.setup!, state.rear.bench)
    return sheetOf(
      state,
      { first: considered, rear: considered, front: null },
      { at: AT, by: PERSON, how: 'proven', fault: null, recallOn: null, ...leaving },
    )
  }
  test('a new run settles, less after bedding; an old one does not', () => {
    expect(sheetFor({}).tell.join(' ')).not.toContain('beds in')
    expect(sheetFor({}, { kind: 'replace', part: 'cable' }).tell[0]).toContain('1/4 to 5/8 turn out')
    expect(sheetFor({}, { kind: 'replace', part: 'cable' }, { kind: 'bedded', shifts: 30 }).tell[0]).toContain(
      '1/8 to 3/8 turn out',
    )
  })
  test('a fault the customer declined heads it, with how to get home; what must not be ridden is told nothing of riding', () => {
    const declined = sheetFor({ how: 'declined', fault: 'hanger' })
    expect(declined.tell[0]).toContain('stops are to be wound in')
    expect(declined.left.at(-1)).toEqual({ what: 'Left as it is, the customer declined', figure: 'bent hanger' })
    expect(headOfSheet(declined)!.title).toBe('Rideable, but: bent hanger')
    const unridable = sheetFor({ how: 'unridable' }, { kind: 'replace', part: 'cable' })
    expect(unridable.tell).toEqual([])
    expect(headOfSheet(unridable)!.title).toBe('Not to be ridden')
    expect(headOfSheet(sheetFor({}))).toBeNull()
  })
  test('a gap with sag is not told as one in the stand', () => {
    const words = sheetFor(
      {},
      { kind: 'gap', gapMm: 5, how: 'measured', at: 'stand' },
      { kind: 'gap', gapMm: 15.5, how: 'measured', at: 'sagged' },
    ).left.map(f => `${f.what} ${f.figure}`)
    expect(words).toContain('B gap 5.0 mm')
    expect(words).toContain('B gap with sag 15.5 mm')
  })
  test('pieces, gap, proofs and torques stand on it', () => {
    const sheet = sheetFor(
      {},
      { kind: 'housing', place: 'last loop', lengthMm: 290, of: '4 mm', ends: 'metal' },
      { kind: 'gap', gapMm: 8, how: 'measured', at: 'stand' },
      { kind: 'turn', screw: 'B', sixteenths: -32 },
      { kind: 'proved', what: 'road', ring: null, exceptions: [] },
      { kind: 'torqued', exceptions: [] },
    )
    const words = [...sheet.found, ...sheet.done, ...sheet.left].map(f => `${f.what} ${f.figure}`).join('; ')
    expect(words).toContain('Housing, last loop 290 mm of 4 mm, metal')
    expect(words).toContain('B gap as found 8.0 mm')
    expect(words).toContain('B gap 5.5 mm') // two turns out of 1.25 mm each
    expect(words).toContain('Proven on the road clean')
    expect(words).toContain('Torques all to sheet')
  })
})
