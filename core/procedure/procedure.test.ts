import { telling } from '../chapter/testTold'
import { TABLE_ONLY } from '../standards/inForce'
import { CAUSES } from '../response/causes'
import { describe, expect, test } from 'vitest'
import { advise } from '../advice/advise'
import { reduce } from '../ledger/reduce'
import { priorFor } from '../ledger/belief'
import { LedgerEvent, schemaOf } from '../ledger/events'
import type { RearParts } from '../rear/parts'
import { stockParts } from '../rear/typedParts'
import { setupOfStandard } from '../response/testBikes'
import { howToAsk } from './asking'
import { causesLeft, leadsTo, oddsOf, REAR_COMPLAINTS } from './complaints'
import { headOfRear } from '../rear/heads'
import { stagesDone } from '../rear/progress'
import { OTHER_COMPLAINTS, otherCausesLeft } from './otherComplaints'
import { OTHER_IDS, otherSays, throwsChain } from './otherSays'
import { proposedBy } from './sentence'
import { whyOf } from './schoolWhys'
import { ORDERS, SchoolChoice, SCHOOL_KINDS, SCHOOLS, schoolsOf, stagesOf, USUAL_SCHOOLS } from './schools'
import { judgePeak, rearTorques } from './torques'
import { beforeAnyScrew, oddsOfSense, SENSE_CHECK, SENSE_IDS } from './senseCheck'
import { STAGES } from './stages'

const told = telling<LedgerEvent>()

const arrived = told({ kind: 'arrived', parts: stockParts('r14-11') })

describe('what the customer says', () => {
  // common practice, no source: the rows of complaints, commonest cause first, and the test that splits them
  test.each([
    ['slow-in', 'slack cable', 'cured', 'index', 'not', 'cable'],
    ['slow-out', 'cable too tight', 'cured', 'index', 'snaps', 'cable'],
    ['one-end', 'bent hanger', 'bent', 'hanger', 'true', 'sense'],
    ['not-largest', 'slack cable', 'goes', 'index', 'cannot', 'stops'],
    ['not-smallest', 'cable too tight', 'drops', 'index', 'stays', 'stops'],
    ['into-spokes', 'L too far out', 'past', 'stops', 'in-line', 'hanger'],
    ['jumps-under-load', 'worn chain or sprockets', 'worn', 'sense', 'everywhere', 'index'],
    ['noisy-largest', 'B gap', 'touch', 'gap', 'clear', 'stops'],
    ['since-cable', 'bedding in', 'gives', 'cable', 'firm', 'index'],
    ['all-chatter', 'slack cable', 'alike', 'index', 'unlike', 'hanger'],
  ])('%s: %s first; %s leads to %s, %s to %s', (id, first, a, toA, b, toB) => {
    const c = REAR_COMPLAINTS.find(x => x.id === id)!
    expect(c.causes[0].words).toBe(first)
    expect(leadsTo(c, a)).toBe(toA)
    expect(leadsTo(c, b)).toBe(toB)
  })
  test('every answer leaves a cause that is there, and every row can be answered', () => {
    for (const c of REAR_COMPLAINTS) {
      expect(c.test.answers.length).toBeGreaterThan(0)
      for (const a of c.test.answers) for (const left of causesLeft(c, a.id)) expect(c.causes).toContain(left)
      for (const cause of Object.keys(oddsOf(c.id, null))) expect(CAUSES).toContain(cause)
    }
    expect(oddsOf('no such', null)).toEqual({})
  })
  test('the answer raises what remains over what it leaves out', () => {
    expect(oddsOf('one-end', 'bent').hanger!).toBeGreaterThan(oddsOf('one-end', null).hanger!)
    expect(oddsOf('one-end', 'true').hanger!).toBeLessThan(oddsOf('one-end', null).hanger!)
  })
  test('it becomes a prior: the same log blames the hanger more after "fine at one end only"', () => {
    const setup = setupOfStandard('r14-11')
    const log = [
      { kind: 'sight', at: 'L', offsetMm: 0 },
      { kind: 'sight', at: 'H', offsetMm: -0.5 },
    ] as const
    const plain = advise(setup, [...log])
    const told_ = advise(setup, [...log], { prior: { odds: oddsOf('one-end', 'bent') } })
    expect(told_.causes.hanger).toBeGreaterThan(plain.causes.hanger + 0.1)
    const state = reduce([
      arrived,
      told({ kind: 'said', complaint: 'one-end', answer: 'bent' }),
      told({ kind: 'sensed', exceptions: ['cage', 'worn'], chainWearPercent: 0.9 }),
    ])
    expect(priorFor(state, null)?.odds).toMatchObject({ hanger: 6 * 3, wear: 6 })
  })
})

describe('the sense check', () => {
  test('every item is there once, and what must come first is named before any screw', () => {
    expect(SENSE_CHECK.map(i => i.id).sort()).toEqual([...SENSE_IDS].sort())
    expect(beforeAnyScrew(['spoke-guard', 'stiff-link', 'wire']).map(i => i.id)).toEqual(['stiff-link'])
    const state = reduce([arrived, told({ kind: 'sensed', exceptions: ['repeats'], chainWearPercent: null })])
    expect(headOfRear(state.rear)?.words).toContain('Loose or not home')
    expect(stagesDone(state.rear, false, schoolsOf(TABLE_ONLY), null).sense).toBe(false)
    expect(
      headOfRear(reduce([arrived, told({ kind: 'sensed', exceptions: [], chainWearPercent: 0.3 })]).rear),
    ).toBeNull()
  })
  test('odds multiply and never make anything certain', () => {
    expect(oddsOfSense(['wire', 'loops']).friction).toBe(12)
    const all = advise(setupOfStandard('r14-11'), [], { prior: { odds: oddsOfSense([...SENSE_IDS]) } })
    for (const cause of CAUSES) expect(all.causes[cause]).toBeLessThan(0.97)
  })
})

describe('schools', () => {
  test('thirteen kinds, each member with a line on why, and an id of its own', () => {
    expect(SCHOOL_KINDS).toHaveLength(13)
    for (const kind of SCHOOL_KINDS) {
      expect(new Set(SCHOOLS[kind].map(s => s.id)).size).toBe(SCHOOLS[kind].length)
      for (const s of SCHOOLS[kind]) expect(whyOf(kind, s.id).length).toBeGreaterThan(20)
    }
  })
  test('every order holds every stage of the middle once, between the same ends', () => {
    for (const order of ORDERS) {
      const stages = stagesOf(schoolsOf(TABLE_ONLY, { order: order.id }))
      expect([...stages].sort()).toEqual([...STAGES].sort())
      expect([stages[0], ...stages.slice(-2)]).toEqual(['said', 'prove', 'handBack'])
    }
  })
  test("a job's choice beats the person's, that the shop's, that the usual", () => {
    const inForce = schoolsOf(
      TABLE_ONLY,
      { step: 'half' },
      { step: 'full', gap: 'with-sag' },
      { gap: 'maker', placing: 'outboard' },
    )
    expect(inForce.ids).toEqual({ ...USUAL_SCHOOLS, step: 'half', gap: 'with-sag', placing: 'outboard' })
    expect(inForce.step.turns).toBe(0.5)
  })
  test('a school that is not there is refused with those that are', () => {
    const read = SchoolChoice.safeParse({ step: 'thumb' })
    expect(read.success).toBe(false)
    expect(read.error!.issues[0].message).toContain('eighth, quarter, half, full')
    expect(LedgerEvent.safeParse({ kind: 'schools', choice: { colour: 'red' } }).success).toBe(false)
  })
  test('they change how a check is asked, in gears that are there', () => {
    const teeth = [11, 13, 15, 17, 19, 21]
    expect(howToAsk(schoolsOf(TABLE_ONLY), teeth, 1, 2)).toBe('One click.')
    expect(howToAsk(schoolsOf(TABLE_ONLY), teeth, 0, 3)).toBe('Go to the 15, then one click.')
    expect(howToAsk(schoolsOf(TABLE_ONLY, { test: 'two-clicks' }), teeth, 1, 3)).toBe('Two clicks at once from the 13.')
    expect(howToAsk(schoolsOf(TABLE_ONLY, { test: 'two-clicks' }), teeth, 5, 2)).toBe(
      'Go to the 19, then two clicks at once.',
    )
    expect(howToAsk(schoolsOf(TABLE_ONLY, { test: 'two-clicks' }), teeth, 0, 1)).toBe('One click.')
    expect(howToAsk(schoolsOf(TABLE_ONLY), teeth, 2, 2)).toContain('the same way')
  })
})

test('stages count as done by what the ledger says', () => {
  const schools = schoolsOf(TABLE_ONLY)
  const doneWhen = (right: number | null, parts: RearParts, ...events: LedgerEvent[]) => {
    const { rear, job } = reduce([told({ kind: 'arrived', parts }), ...events.map(e => told(e))])
    return stagesDone(rear, job.handedBack !== null, schools, right)
  }
  const stock = stockParts('r14-11')
  const done = (...events: LedgerEvent[]) => doneWhen(null, stock, ...events)
  expect(Object.values(done()).some(Boolean)).toBe(false)
  // the index: by what is believed once something was heard; a lever without clicks has none
  const clean: LedgerEvent = { kind: 'shift', from: 0, to: 1, heard: 'clean' }
  expect([0.95, 0.8].map(right => doneWhen(right, stock, clean).index)).toEqual([true, false])
  expect(doneWhen(0.95, stock).index).toBe(false)
  expect(doneWhen(null, { ...stock, shifter: { ...stock.shifter, friction: true } }).index).toBe(true)
  const gauge = { kind: 'gauge', camberDeg: 0.05, toeDeg: 0, acrossMm: 0.6 } as const
  expect(done(gauge).hanger).toBe(true)
  expect(done({ ...gauge, acrossMm: 3 }).hanger).toBe(false)
  expect(done(gauge, { kind: 'bend', hour: 12, tipMm: 1 }).hanger).toBe(false) // to be gauged again
  const seen: LedgerEvent[] = [
    { kind: 'sight', at: 'L', offsetMm: 0 },
    { kind: 'sight', at: 'H', offsetMm: 0 },
  ]
  expect(done(...seen).stops).toBe(true)
  expect(done(...seen, { kind: 'bend', hour: 12, tipMm: 1 }).stops).toBe(false) // stops after any bend
  expect(done({ kind: 'gap', gapMm: 5, how: 'measured', at: 'stand' }).gap).toBe(true)
  expect(done({ kind: 'gap', gapMm: 9, how: 'measured', at: 'stand' }).gap).toBe(false)
  expect(
    done({ kind: 'proved', what: 'road', ring: null, exceptions: [] }, { kind: 'torqued', exceptions: [] }).prove,
  ).toBe(true)
  expect(
    done({ kind: 'proved', what: 'road', ring: null, exceptions: [2] }, { kind: 'torqued', exceptions: [] }).prove,
  ).toBe(false)
})

describe('what is said of front, brakes and hub', () => {
  test('every one has words, causes, a test whose answers leave some of them, and is known to the ledger', () => {
    expect(OTHER_COMPLAINTS.map(c => c.id).sort()).toEqual([...OTHER_IDS].sort())
    for (const c of OTHER_COMPLAINTS) {
      expect(otherSays(c.id)!.length).toBeGreaterThan(8)
      expect(REAR_COMPLAINTS.some(r => r.id === c.id)).toBe(false)
      for (const a of c.test.answers) {
        const left = otherCausesLeft(c, a.id)
        expect(left.length).toBeGreaterThan(0)
        expect(left.every(x => c.causes.includes(x))).toBe(true)
      }
      // the answers split: no two leave the same, and no cause is left by none
      expect(new Set(c.test.answers.map(a => a.leaves[0])).size).toBe(c.test.answers.length)
      expect(new Set(c.test.answers.flatMap(a => a.leaves)).size).toBe(c.causes.length)
      expect(otherCausesLeft(c, null)).toEqual(c.causes)
      expect(schemaOf('said').safeParse({ kind: 'said', complaint: c.id, answer: null }).success).toBe(true)
      // it says nothing of the rear's causes
      expect(oddsOf(c.id, null)).toEqual({})
    }
    expect(schemaOf('said').safeParse({ kind: 'said', complaint: 'brake-odd', answer: null }).success).toBe(false)
  })
  test('a customer’s sentence proposes them; a chain thrown in front is known to the front bench', () => {
    expect(proposedBy('Brakes squeal and the front one rubs').complaints).toEqual(
      expect.arrayContaining(['brake-noise', 'brake-rubs']),
    )
    expect(proposedBy('it won’t go on the big ring'.replace('’', "'")).complaints).toContain('front-no-climb')
    expect(throwsChain([{ complaint: 'front-off-inside' }])).toEqual(['inboard'])
    expect(throwsChain([{ complaint: 'front-off-outside' }, { complaint: 'front-off-inside' }])).toEqual([
      'inboard',
      'outboard',
    ])
    expect(throwsChain([{ complaint: 'brake-rubs' }])).toEqual([])
  })
})

test('a wrench’s peak is judged by the bolt’s own range, both ends right', () => {
  const [hanger] = rearTorques(TABLE_ONLY)
  const { fromNm, toNm } = hanger!
  expect([fromNm - 0.1, fromNm, toNm, toNm + 0.1].map(nm => judgePeak(hanger!, nm))).toEqual([
    'under',
    'right',
    'right',
    'over',
  ])
})
