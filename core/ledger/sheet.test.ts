import { describe, expect, test } from 'vitest'
import { consider } from '../advice/advise'
import type { BrakeParts } from '../brake/kinds'
import { chapter } from '../chapter/chapter'
import { EventId, PersonId } from '../chapter/ids'
import { AT, PERSON, telling, uuid } from '../chapter/testTold'
import { USUAL_FRONT } from '../front/parts'
import { usualHubs } from '../hub/kinds'
import { DECLINABLE, DECLINABLE_IDS } from '../job/declined'
import { GET_HOME } from '../job/getHome'
import { LEAVES } from '../job/events'
import { stockParts } from '../rear/typedParts'
import { oddsOf } from '../procedure/complaints'
import { oddsOfSense } from '../procedure/senseCheck'
import { chainWearLimitPercent } from '../rear/chain'
import { templateRun } from '../cable/templates'
import { priorFor } from './belief'
import type { LedgerEvent } from './events'
import { declinableOn, mayLeave, mayUndo, signsFor } from './gates'
import { lastTaken, reduce, takenBackAtAll, undoable, type Told } from './reduce'
import { sayEvent, sprocketsNeeded } from './say'
import { briefOf, brakeOnSheet, headOfSheet, NOTHING_BELIEVED, sheetOf, type Leaving, type Sheet } from './sheet'

const told = telling<LedgerEvent>()
const parts = stockParts('r14-10')
const arrived = told({ kind: 'arrived', parts })
const bare = told({ kind: 'arrived', parts: null })
const turn = (sixteenths: number, screw: 'barrel' | 'H' | 'L' | 'B' = 'barrel') =>
  told({ kind: 'turn', screw, sixteenths })
const proof = (brake: 'front' | 'rear', holds = true, test?: 'squeeze' | 'roll' | 'ride') =>
  told({ kind: 'proof', brake, holds, ...(test ? { test } : {}) })
const undo = (t: Told) => told({ kind: 'undo', undoes: t.id })
const leaving = (more: Partial<Leaving> = {}): Leaving => ({
  at: AT,
  by: PERSON,
  how: 'proven',
  fault: null,
  recallOn: null,
  ...more,
})
const sheet = (log: Told[], more: Partial<Leaving> = {}, believed = NOTHING_BELIEVED): Sheet =>
  sheetOf(reduce(log), believed, leaving(more))

describe('what the job’s own entries do', () => {
  const jobOf = (...log: Told[]) => reduce(log).job
  test('arriving is dated; it stands on the rail until it is put somewhere', () => {
    expect(jobOf()).toMatchObject({ arrived: null, place: { where: 'rack', stand: null }, schools: {} })
    expect(jobOf(arrived)).toMatchObject({ arrived: { at: AT }, place: { where: 'rack', stand: null } })
    expect(jobOf(turn(2)).arrived).toBeNull()
  })
  test('put on a stand, and its schools chosen, the latest choice whole', () => {
    const put = told({ kind: 'placed', where: 'stand', stand: 3 })
    const schools = [
      told({ kind: 'schools', choice: { step: 'quarter', gap: 'close' } }),
      told({ kind: 'schools', choice: { step: 'half' } }),
    ]
    expect(jobOf(arrived, put, ...schools)).toMatchObject({
      arrived: { at: AT },
      place: { where: 'stand', stand: 3 },
      schools: { step: 'half' },
    })
  })
  test('handed back it is by the door, with how, why, when and who answers; reopened it is on the rail', () => {
    const put = told({ kind: 'placed', where: 'stand', stand: 3 })
    const other = PersonId.parse(uuid(7))
    const out = told({ kind: 'handedBack', how: 'declined', fault: 'wear' }, { signedBy: other })
    expect(jobOf(arrived, put, out)).toMatchObject({
      arrived: { at: AT },
      place: { where: 'door', stand: null },
      handedBack: { how: 'declined', fault: 'wear', by: other, at: AT },
    })
    expect(jobOf(arrived, told({ kind: 'handedBack', how: 'proven' })).handedBack).toEqual({
      how: 'proven',
      fault: null,
      by: PERSON,
      at: AT,
    })
    expect(jobOf(arrived, put, out, told({ kind: 'reopened' }))).toMatchObject({
      arrived: { at: AT },
      place: { where: 'rack', stand: null },
      handedBack: null,
    })
  })
  test.each<[LedgerEvent, string]>([
    [{ kind: 'placed', where: 'stand', stand: 2 }, 'On stand 2'],
    [{ kind: 'placed', where: 'rack', stand: null }, 'On the rail'],
    [{ kind: 'placed', where: 'door', stand: null }, 'By the door'],
    [{ kind: 'placed', where: 'gone', stand: null }, 'Collected'],
    [{ kind: 'wheelOut', wheel: 'front' }, 'Front wheel was out'],
    [{ kind: 'wheelOut', wheel: 'rear' }, 'Rear wheel was out'],
    [{ kind: 'undo', undoes: EventId.parse(uuid(8)) }, 'Took back an entry'],
    [{ kind: 'handedBack', how: 'proven' }, 'Handed back'],
    [{ kind: 'handedBack', how: 'unridable' }, 'Left unridable'],
    [{ kind: 'handedBack', how: 'declined', fault: 'hanger' }, 'Left rideable, a repair declined: bent hanger'],
    [{ kind: 'reopened' }, 'Reopened'],
    [{ kind: 'handedBack', how: 'unrepaired' }, 'Fetched unrepaired'],
    [{ kind: 'handedBack', how: 'cancelled' }, 'Cancelled'],
    [{ kind: 'edited', fields: ['promisedAt', 'contact'] }, 'Put right: promise, phone'],
    [{ kind: 'waits', for: 'parts' }, 'Waits for parts'],
    [{ kind: 'waits', for: null }, 'Waits for nothing any more'],
    [{ kind: 'schools', choice: { step: 'quarter', gap: 'close' } }, 'Schools: 1/4 turn, 3 to 6 mm'],
    [{ kind: 'schools', choice: { step: 'of-next-year' as never } }, 'Schools: of-next-year'],
  ])('%o is said "%s"', (event, words) => {
    expect(sayEvent(event, [])).toBe(words)
  })
})

describe('the fold', () => {
  test('an undo of something that is not there, or told before it, changes nothing else', () => {
    const [a, b] = [turn(2), turn(4)]
    expect(reduce([arrived, a, told({ kind: 'undo', undoes: EventId.parse(uuid(9)) }), b]).rear.net.barrel).toBe(6)
    expect(reduce([arrived, undo(a), a, b]).rear.net.barrel).toBe(4)
    const first = undo(a)
    expect(reduce([arrived, a, first]).undone).toEqual(new Set([a.id]))
    expect([...reduce([arrived, a, first, undo(first)]).inForce.map(t => t.event.kind)]).toEqual(['arrived', 'turn'])
  })
  test('an undo that was itself taken back no longer takes back, however deep', () => {
    const t = turn(2)
    const chain: Told[] = [arrived, t]
    for (let n = 1; n <= 5; n++) {
      chain.push(undo(chain.at(-1)!))
      expect(reduce(chain).rear.net.barrel).toBe(n % 2 ? 0 : 2)
    }
  })
  test('what is asked about stands in the order of the log, whichever chapter asks', () => {
    const late = turn(200) // past its thread, and after hand-back: two chapters ask
    const later = told({ kind: 'brakeStep', brake: 'front', step: 'pads' })
    const { flagged } = reduce([arrived, turn(200), told({ kind: 'handedBack', how: 'unridable' }), later, late])
    const order = flagged.map(f => f.id)
    expect(order.indexOf(later.id)).toBeGreaterThan(0)
    expect(order.indexOf(later.id)).toBeLessThan(order.indexOf(late.id))
    expect(order.at(-1)).toBe(late.id)
  })
  test('the last thing taken as advised is found past where the bike was put, and only when it was taken', () => {
    const advised = (taken: boolean) =>
      told({
        kind: 'turn',
        screw: 'barrel',
        sixteenths: 2,
        advised: { move: 'turn barrel 0.125', right: 0.2, after: 0.8, cause: 'tension', taken },
      })
    const yes = advised(true)
    const put = told({ kind: 'placed', where: 'stand', stand: 1 })
    expect(lastTaken(reduce([]))).toBeNull()
    expect(lastTaken(reduce([arrived, advised(false)]))).toBeNull()
    expect(lastTaken(reduce([arrived, turn(2)]))).toBeNull()
    expect(lastTaken(reduce([arrived, proof('front')]))).toBeNull()
    expect(lastTaken(reduce([arrived, yes, put]))?.id).toBe(yes.id)
    const wrong = told({ kind: 'wrong', about: yes.id })
    expect(lastTaken(reduce([arrived, yes, wrong, put]))).toBeNull()
    const again = advised(true)
    expect(lastTaken(reduce([arrived, yes, wrong, again]))?.id).toBe(again.id)
    expect(lastTaken(reduce([arrived, yes, proof('front')]))).toBeNull()
  })
  test('Take back means the last thing done at a bench', () => {
    const t = turn(2)
    const put = told({ kind: 'placed', where: 'stand', stand: 1 })
    expect(undoable(reduce([arrived]))).toEqual([])
    expect(undoable(reduce([arrived, put]))).toEqual([])
    expect(undoable(reduce([arrived, t, put]))).toEqual([t])
    expect(undoable(reduce([arrived, t, undo(t)]))).toEqual([])
    expect(
      undoable(reduce([arrived, t, told({ kind: 'handedBack', how: 'unridable' }), told({ kind: 'reopened' })])),
    ).toEqual([t])
  })
  test('what one touch noted is taken back by one: all of its moment by its person, whatever came between', () => {
    const other = PersonId.parse(uuid(7))
    const at = '2026-11-25T10:00:00.000Z'
    const before = told({ kind: 'turn', screw: 'barrel', sixteenths: 2 }, { at: '2026-11-25T09:59:59.999Z' })
    const there = told({ kind: 'frontShift', from: 0, to: 1, sprocket: 0, seen: 'clean' }, { at })
    const theirs = told({ kind: 'turn', screw: 'H', sixteenths: 2 }, { at, by: other })
    const back = told({ kind: 'frontShift', from: 1, to: 0, sprocket: 0, seen: 'clean' }, { at })
    const log = [arrived, before, there, theirs, back]
    const mine = { chapters: null, since: at, by: PERSON }
    expect(undoable(reduce(log), mine)).toEqual([back, there])
    expect(undoable(reduce([...log, undo(back)]), mine)).toEqual([there])
    expect(undoable(reduce([...log, undo(back), undo(there)]), { ...mine, since: before.at })).toEqual([before])
    expect(undoable(reduce([...log, undo(back), undo(there)]), mine)).toEqual([])
    // what this bench does not take back stays, though it was noted in the same moment
    const turned = told({ kind: 'turn', screw: 'H', sixteenths: 2 }, { at })
    expect(undoable(reduce([...log, turned]), { ...mine, chapters: ['rear'] })).toEqual([turned])
  })
  test('a bench’s key takes back what this person did there lately, and nothing else', () => {
    const other = PersonId.parse(uuid(7))
    const at = (time: string) => `2026-11-25T${time}:00.000Z`
    const mine = told({ kind: 'turn', screw: 'barrel', sixteenths: 2 }, { at: at('10:00') })
    const theirs = told({ kind: 'turn', screw: 'H', sixteenths: 2 }, { at: at('10:01'), by: other })
    const brake = told({ kind: 'brakeStep', brake: 'front', step: 'pads' }, { at: at('10:02') })
    const state = reduce([arrived, mine, theirs, brake])
    const key = (chapters: readonly ('rear' | 'brake')[] | null, since = at('09:50'), by: string = PERSON) =>
      undoable(state, { chapters, since, by })[0]?.id ?? null
    expect(key(['rear'])).toBe(mine.id)
    expect(key(['brake'])).toBe(brake.id)
    expect(key(null)).toBe(brake.id)
    expect(key(['rear'], at('09:50'), other)).toBe(theirs.id)
    expect(key(['rear'], at('10:00'))).toBe(mine.id)
    expect(key(['rear'], at('10:01'))).toBeNull() // too long ago: from the ledger's list
    expect(takenBackAtAll(arrived)).toBe(false)
    expect(takenBackAtAll(mine)).toBe(true)
  })
  test('an entry that names no sprocket needs none', () => {
    expect(sprocketsNeeded({ kind: 'reopened' })).toBe(0)
  })
})

describe('a chapter that has little to say', () => {
  const quiet = chapter<{ kind: 'x' }, never, number, unknown>({
    events: [],
    hears: [],
    start: () => 0,
    after: n => n + 1,
    say: () => 'X',
  })
  test('needs no sprockets, keeps no bike, signs nothing, records nothing', () => {
    const e = { kind: 'x' } as const
    expect(quiet.sprockets(e)).toBe(0)
    expect(quiet.facts({}, null, {} as never)).toEqual({ found: [], done: [], left: [], tell: [] })
    expect(quiet.stays({})).toEqual([])
    expect([quiet.gates.signs(e), quiet.gates.refuses(e, {}), quiet.gates.open({}), quiet.gates.fails(e)]).toEqual([
      null,
      null,
      [],
      null,
    ])
    const { rules, standards, figures, typed, faults, named } = quiet.records
    expect([rules, standards({}), figures({}, true), typed(e, {}), faults({}), named('r14-10')]).toEqual([
      [],
      [],
      [],
      [],
      [],
      null,
    ])
  })
})

describe('what the sheet says of a brake', () => {
  const none: BrakeParts = { brake: 'front', kind: 'none', lever: null, leverSide: null, none: 'fixed' }
  const drum: BrakeParts = { brake: 'rear', kind: 'drum', lever: null, leverSide: null }
  test('that there is none and why; that nobody proved it; by whom it holds; what it failed', () => {
    const other = PersonId.parse(uuid(7))
    const log = [bare, told({ kind: 'brakeParts', parts: none }), told({ kind: 'brakeParts', parts: drum })]
    expect(brakeOnSheet(sheet(log), 'front')).toEqual({ words: expect.stringMatching(/^none: /), by: null, at: null })
    expect(brakeOnSheet(sheet(log), 'rear')).toEqual({ words: 'not proven', by: null, at: null })
    const held = told({ kind: 'proof', brake: 'rear', holds: true }, { signedBy: other })
    expect(brakeOnSheet(sheet([...log, held]), 'rear')).toEqual({ words: 'holds', by: other, at: AT })
    expect(brakeOnSheet(sheet([...log, proof('rear', false)]), 'rear')).toEqual({ words: 'FAILED', by: PERSON, at: AT })
    expect(brakeOnSheet(sheet([...log, proof('rear', false, 'roll')]), 'rear').words).toMatch(/^FAILED the /)
    expect(brakeOnSheet(sheet([bare]), 'front')).toEqual({ words: 'not proven', by: null, at: null })
  })
  test('how close each was left stands with its parts', () => {
    const close = told({ kind: 'brakeClose', brake: 'rear', barrelSixteenthsOut: 24, letOutMm: 5 })
    expect(sheet([bare]).brakes).toEqual([])
    expect(sheet([bare, told({ kind: 'brakeParts', parts: drum })]).brakes).toEqual([
      { parts: drum, barrelSixteenthsOut: null },
    ])
    expect(sheet([bare, told({ kind: 'brakeParts', parts: drum }), close]).brakes).toEqual([
      { parts: drum, barrelSixteenthsOut: 24 },
    ])
  })
})

describe('what the sheet keeps', () => {
  test('of a bike without a derailleur: no numbers, no belief; of one with: its numbers, runs and hub', () => {
    const plain = sheet([bare])
    expect([plain.parts, plain.numbers, plain.belief, plain.right, plain.runs, plain.hub]).toEqual([
      null,
      [],
      {},
      null,
      [],
      null,
    ])
    const run = templateRun('external', 'rear')
    const hub = usualHubs()[0]!.parts
    const full = sheet([arrived, told({ kind: 'run', run }), told({ kind: 'hubParts', parts: hub })])
    expect(full.numbers.length).toBeGreaterThan(2)
    expect([full.runs, full.hub, full.recallOn, full.by, full.closedAt]).toEqual([[run], hub, null, PERSON, AT])
    expect(sheet([arrived], { recallOn: '2026-12-09' }).recallOn).toBe('2026-12-09')
  })
  test('what was believed before the first turn is as found; at the end is as left', () => {
    const log = [arrived, told({ kind: 'shift', from: 0, to: 3, heard: 'slow' }), turn(8)]
    const state = reduce(log)
    const [first, rear] = [1, 2].map(n => consider(state.rear.setup!, state.rear.bench.slice(0, n)))
    const believed = sheet(log, {}, { first, rear, front: null })
    expect(believed.right).toBe(rear.advice.right)
    expect(Object.keys(believed.belief).length).toBeGreaterThan(3)
    const cause = (s: Sheet) => s.found.find(f => /%/.test(f.figure))?.figure
    const later = sheet(log, {}, { first: rear, rear: first, front: null })
    expect(sheet(log, {}, { first: null, rear, front: null }).found).toEqual(later.found)
    expect(cause(believed) ?? believed.found).toBeTruthy()
    expect(JSON.stringify(sheet(log).found)).not.toBe(JSON.stringify(believed.found))
  })
  test('as left ends with how it leaves, only where it leaves otherwise than proven', () => {
    expect(sheet([bare]).left.map(f => f.what)).not.toContain('Leaves unridable')
    expect(sheet([bare], { how: 'unridable' }).left.at(-1)).toEqual({
      what: 'Leaves unridable',
      figure: 'front brake not proven, rear brake not proven',
    })
    expect(sheet([bare, proof('front'), proof('rear')], { how: 'unridable' }).left.at(-1)!.figure).toBe(
      'the customer was told',
    )
    for (const fault of DECLINABLE_IDS) {
      const s = sheet([arrived], { how: 'declined', fault })
      expect(s.left.at(-1)).toEqual({
        what: 'Left as it is, the customer declined',
        figure: DECLINABLE[fault].words.toLowerCase(),
      })
      expect(s.tell[0]).toBe(GET_HOME[fault])
    }
  })
  test('its head is brick when it leaves otherwise than proven, whatever stands in it', () => {
    expect(headOfSheet({ how: 'unridable', fault: null })!.title).toBe('Not to be ridden')
    expect(headOfSheet({ how: 'declined', fault: 'front' })!.title).toBe('Rideable, but: front derailleur not right')
    expect(headOfSheet({ how: 'declined', fault: null })).toBeNull()
    expect(headOfSheet({ how: 'proven', fault: 'front' })).toBeNull()
  })
  test('in a line: the first two things done and how many more', () => {
    const fact = (what: string, figure: string, brief?: string) => ({ what, figure, ...(brief ? { brief } : {}) })
    const three = [fact('Barrel', '1/8 turn out', '1/8 out'), fact('H screw', '1/4 in'), fact('Chain', 'new')]
    expect(briefOf({ done: [] })).toBe('nothing turned')
    expect(briefOf({ done: three.slice(0, 1) })).toBe('Barrel 1/8 out')
    expect(briefOf({ done: three.slice(0, 2) })).toBe('Barrel 1/8 out, H screw 1/4 in')
    expect(briefOf({ done: three })).toBe('Barrel 1/8 out, H screw 1/4 in and 1 more')
    expect(briefOf({ done: [fact('Bedded in', '')] })).toBe('Bedded in')
  })
})

describe('where the belief starts', () => {
  const prior = (log: Told[], known: Parameters<typeof priorFor>[1] = null) => priorFor(reduce(log), known)
  const sensed = (chainWearPercent: number | null, exceptions: 'stiff-link'[] = []) =>
    told({ kind: 'sensed', exceptions, chainWearPercent })
  test('from nothing where nothing is known; nor on a bike without a derailleur', () => {
    expect(prior([arrived])?.odds).toBeUndefined()
    expect(prior([bare])).toBeUndefined()
    expect(prior([bare, told({ kind: 'said', complaint: 'slow-in', answer: null })])).toBeUndefined()
  })
  test('from the complaint and the sense check together, each odds times the other', () => {
    const said = told({ kind: 'said', complaint: 'slow-in', answer: null })
    const complaint = oddsOf('slow-in', null)
    expect(prior([arrived, said])!.odds).toEqual(complaint)
    const both = prior([arrived, said, sensed(null, ['stiff-link'])])!.odds!
    for (const [cause, times] of Object.entries(oddsOfSense(['stiff-link'])))
      expect(both[cause as keyof typeof both]).toBeCloseTo(
        (complaint[cause as keyof typeof complaint] ?? 1) * times,
        12,
      )
  })
  test('a chain past its limit makes worn sprockets likely; at its limit it does not', () => {
    const limit = chainWearLimitPercent(10)
    expect(prior([arrived, sensed(limit + 0.1)])!.odds).toEqual({ wear: 4 })
    expect(prior([arrived, sensed(limit)])?.odds).toBeUndefined()
    expect(prior([arrived, sensed(null)])?.odds).toBeUndefined()
    expect(prior([bare, sensed(limit + 0.5)])).toBeUndefined()
  })
  test('from the last sheet while the parts are those, with what is said now', () => {
    const known = { belief: { cable: { mean: 0.2, sd: 0.1 } }, parts }
    const said = told({ kind: 'said', complaint: 'slow-in', answer: null })
    const from = prior([arrived, said], known)!
    expect(from.odds).toEqual(oddsOf('slow-in', null))
    expect(Object.keys(from).length).toBeGreaterThan(1)
    expect(prior([arrived], { ...known, parts: stockParts('r14-11') })).toEqual(prior([arrived]))
    expect(prior([arrived], { ...known, parts: null })).toEqual(prior([arrived]))
    expect(prior([bare], known)).toBeUndefined()
  })
})

describe('gates to the letter', () => {
  test('a front can be declined where there is one', () => {
    const front = told({ kind: 'frontParts', parts: USUAL_FRONT.double })
    expect(declinableOn(reduce([arrived, front]))).toEqual([...DECLINABLE_IDS])
    expect(declinableOn(reduce([bare, front]))).toEqual(['front'])
  })
  test('a bike that leaves with a fault must name it, before that fault is judged', () => {
    const state = reduce([arrived, proof('front'), proof('rear')])
    expect(mayLeave(state, 'declined')).toEqual({ field: 'fault', message: 'Name the fault the customer declined' })
    for (const how of LEAVES) expect(mayLeave(state, how, 'hanger')).toBeNull()
  })
  test('an undo is looked for past entries that cannot be read, and names what it takes back by its teeth', () => {
    const t = told({ kind: 'sight', at: 'L', offsetMm: 0 })
    const log = [arrived, null, t]
    expect(mayUndo(log, t.id)).toBeNull()
    expect(signsFor(log, reduce(log), undo(t))).toMatch(/^Taken back: /)
    expect(signsFor([bare], reduce([bare]), undo(bare))).toBeNull()
  })
})
