import { sayRecord } from '../chapter/records'
import { TYPED, standardOf } from '../rear/records'
import {
  RECORD_RULES,
  faultsOf,
  figuresOfEvent,
  recordRule,
  sayFault,
  recordsOf,
  sayStandard,
  standardsOf,
} from './chapters'
import { telling } from '../chapter/testTold'
import { describe, expect, test } from 'vitest'
import type { CableStep } from '../cable/stepNames'
import { asRead } from '../cable/run'
import { templateRun } from '../cable/templates'
import type { LedgerEvent } from '../ledger/events'
import { reduce } from '../ledger/reduce'
import {
  readTypedParts,
  stockParts,
  typedFromEntry,
  typedFromStandard,
  standardById,
  matchOfParts,
  ratioForSums,
} from '../rear/typedParts'
import type { RearParts } from '../rear/parts'
import { sayNumbers } from '../rear/partsInWords'
import { priorFor } from '../ledger/belief'
import { catalogueInForce } from '../standards/shopValues'
import { barrelAssumed } from '../rear/facts'
import { USUAL_FRONT } from '../front/parts'
import { usualHubs } from '../hub/kinds'
import { closestOf, likesOf, questionOfLikes, sayLike } from './like'
import { questionFor, type Seen } from './question'

const told = telling<LedgerEvent>()

const parts = stockParts('r14-10')
const visit = (events: LedgerEvent[], of: RearParts = parts, comesBack = false) =>
  Object.fromEntries(
    recordsOf(reduce([{ kind: 'arrived', parts: of } as LedgerEvent, ...events].map(e => told(e))), comesBack).map(
      r => [r.figure, r],
    ),
  )

describe('what a visit leaves for the records', () => {
  test('what was set and measured, and nothing that was not', () => {
    expect(visit([])).toEqual({})
    const kept = visit([
      { kind: 'housing', place: 'last loop', lengthMm: 295, of: '4 mm', ends: 'metal' },
      { kind: 'inner', lengthMm: 2050 },
      { kind: 'turn', screw: 'barrel', sixteenths: 6 },
      { kind: 'turn', screw: 'L', sixteenths: -2 },
      { kind: 'gap', gapMm: 5, how: 'measured', at: 'stand' },
      { kind: 'turn', screw: 'B', sixteenths: 16 },
      { kind: 'gauge', camberDeg: 0.2, toeDeg: 0, acrossMm: 2.2 },
      { kind: 'gauge', camberDeg: 0, toeDeg: 0, acrossMm: 0.4 },
    ])
    expect(Object.fromEntries(Object.values(kept).map(r => [r.figure, r.value]))).toEqual({
      'housing last loop': 295,
      inner: 2050,
      barrel: 6 / 16,
      L: -2 / 16,
      B: 1,
      gap: 5 + 1.25,
      hanger: 2.2,
    })
    expect(new Set(Object.values(kept).map(r => r.standard))).toEqual(new Set(['r14-10']))
    for (const figure of Object.keys(kept)) expect(recordRule(figure), figure).toBeDefined()
  })
  test('a run fitted on the cable bench leaves its pieces, one that was only planned does not', () => {
    const usual = templateRun('external', 'rear')
    const run: LedgerEvent = { kind: 'run', run: asRead(usual, 'old', '') }
    const clamped: LedgerEvent = { kind: 'cabled', run: 'rear', step: 'clamped' }
    expect(visit([run])).toEqual({})
    // a usual length and a guess are nobody's figure, until they were cut so
    for (const by of ['template', 'guess'] as const)
      expect(visit([{ kind: 'run', run: asRead(usual, by, '') }, clamped])).toEqual({})
    expect(
      Object.keys(visit([{ kind: 'run', run: usual }, { kind: 'cabled', run: 'rear', step: 'cut' }, clamped])),
    ).toEqual(['housing lever loop', 'housing last loop'])
    expect(
      Object.values(visit([run, { kind: 'cabled', run: 'rear', step: 'clamped' }])).map(r => [r.figure, r.value]),
    ).toEqual([
      ['housing lever loop', 420],
      ['housing last loop', 290],
    ])
    expect(
      visit([
        { kind: 'run', run: asRead(templateRun('full-length', 'rear'), 'bike', '') },
        { kind: 'cabled', run: 'rear', step: 'clamped' },
      ])['housing full length'].value,
    ).toBe(1720)
  })
  test('a front that was worked on is kept under its own numbers, and only what was measured or turned', () => {
    const front: LedgerEvent = { kind: 'frontParts', parts: USUAL_FRONT.double }
    expect(visit([front])).toEqual({})
    const kept = visit([
      front,
      { kind: 'frontPosition', heightMm: 2, angleDeg: null },
      { kind: 'frontTurn', screw: 'H', sixteenths: -4 },
      { kind: 'frontGap', plate: 'inner', gapMm: 1.2 },
    ])
    expect(kept).toEqual(
      Object.fromEntries(
        [
          ['front-height', 2],
          ['front-inner', 1.2],
          ['front-H', -0.25],
        ].map(([figure, value]) => [figure, { standard: 'front 50-34 43.5 conventional', figure, value }]),
      ),
    )
    expect(
      standardsOf(
        reduce([told({ kind: 'arrived', parts }), told(front), told({ kind: 'frontTurn', screw: 'L', sixteenths: 2 })]),
      ),
    ).toEqual(['r14-10', 'front 50-34 43.5 conventional'])
    expect(standardsOf(reduce([told({ kind: 'arrived', parts }), told(front)]))).toEqual(['r14-10'])
    expect(
      ['front 50-34 43.5 conventional', 'front 48-36-26 47.5 rotating', 'front 2 conventional', 'mixed', 'own-7'].map(
        sayStandard,
      ),
    ).toEqual([
      'double 50/34, chain line 43.5 mm, conventional cage',
      'triple 48/36/26, chain line 47.5 mm, rotating cage',
      'double, conventional cage',
      'parts of different standards',
      null,
    ])
  })
  test('brakes by how close they left, a hub by what was read in its setting gear; also on a bike without a derailleur', () => {
    const bare = (events: LedgerEvent[]) =>
      reduce([{ kind: 'arrived', parts: null } as LedgerEvent, ...events].map(e => told(e)))
    const events: LedgerEvent[] = [
      { kind: 'brakeParts', parts: { brake: 'front', kind: 'dual-pivot', lever: 'short', leverSide: null } },
      { kind: 'brakeClose', brake: 'front', barrelSixteenthsOut: 56, letOutMm: null },
      { kind: 'hubParts', parts: usualHubs()[0]!.parts },
      { kind: 'hubRead', mm: -0.6 },
      { kind: 'hubTurn', sixteenths: 32 },
      { kind: 'hubRead', mm: 1 },
    ]
    const state = bare(events)
    expect(recordsOf(state, false)).toEqual([
      { standard: 'brake dual-pivot', figure: 'brake-barrel front', value: 3.5 },
      { standard: 'hub rod-3', figure: 'hub-rod', value: 1 },
      { standard: 'hub rod-3', figure: 'hub-turns', value: 2 },
    ])
    expect(standardsOf(state)).toEqual(['brake dual-pivot', 'hub rod-3'])
    expect(standardsOf(bare([]))).toEqual([])
    expect([sayStandard('brake dual-pivot'), sayStandard('hub rod-3')]).toEqual([
      'dual-pivot calliper',
      'Indicator rod, 3-speed',
    ])
    for (const r of recordsOf(state, false)) expect(recordRule(r.figure), r.figure).toBeDefined()
  })
  test('a barrel that was counted says how far out it left; a clamp makes the count known', () => {
    expect(visit([], { ...parts, barrel: { ...parts.barrel, turnsOut: 2, assumed: false } })['barrel-out'].value).toBe(
      2,
    )
    expect(
      visit([
        { kind: 'reclamp', barrelSixteenthsOut: 32 },
        { kind: 'turn', screw: 'barrel', sixteenths: 4 },
      ])['barrel-out'].value,
    ).toBe(2.25)
  })
  test('slack is what the barrel took on a bike that came back with the same parts, unless the run was renewed', () => {
    const turn: LedgerEvent = { kind: 'turn', screw: 'barrel', sixteenths: 5 }
    expect(visit([turn], parts, true).slack.value).toBe(5 / 16)
    expect(visit([turn], parts, false).slack).toBeUndefined()
    expect(visit([{ kind: 'replace', part: 'cable' }, turn], parts, true).slack).toBeUndefined()
  })
  test("numbers measured on the bike are kept under their own part's standard", () => {
    const measured: RearParts = {
      ...parts,
      shifter: { ...parts.shifter, known: 'measured', pullMm: new Array<number>(9).fill(2.77) },
      derailleur: { standard: 'r14-11', known: 'measured', pullRatio: 1.4, ratio: 1.39 },
      cassette: { ...parts.cassette, known: 'measured' },
    }
    const kept = visit([], measured)
    const elsewhere = visit([], { ...measured, derailleur: { ...measured.derailleur, anchor: 'farther' } })
    const { ratio: ofTheUsualPlace, ...others } = kept
    expect(ofTheUsualPlace).toBeDefined()
    expect(elsewhere).toEqual(others)
    expect(kept.pull).toMatchObject({ standard: 'r14-10', value: expect.closeTo(2.77, 9) as number })
    expect(kept.cable.value).toBeCloseTo(24.93, 9)
    expect(kept.ratio).toEqual({ standard: 'r14-11', figure: 'ratio', value: 1.39 })
    expect(kept.pitch.value).toBeCloseTo(3.95, 9)
    expect(standardOf(measured)).toBe('r14-10+r14-11+r14-10')
    expect(sayStandard('r14-10+r14-11+r14-10')).toBe('shifter r14-10, derailleur r14-11, cassette r14-10')
    expect(standardOf({ ...parts, cassette: { ...parts.cassette, standard: null } })).toBe('r14-10+r14-10+typed')
    const typed = { standard: null } as const
    expect(
      standardOf({
        ...parts,
        shifter: { ...parts.shifter, ...typed },
        derailleur: { ...parts.derailleur, ...typed },
        cassette: { ...parts.cassette, ...typed },
      }),
    ).toBe(TYPED)
  })
})

describe('a figure far outside is questioned', () => {
  const seen: Seen = { bikes: 12, least: 270, quarter: 285, median: 290, threeQuarters: 300, most: 320 }
  test('and says by how much it passes all others', () => {
    expect(questionFor('housing last loop', 360, seen)).toBe(
      '40 mm longer than any such bike here (12 bikes): keep it?',
    )
    expect(questionFor('housing last loop', 200, seen)).toBe(
      '70 mm shorter than any such bike here (12 bikes): keep it?',
    )
  })
  test.each([[290], [321], [345], [250]])('%f is like the others', value => {
    expect(questionFor('housing last loop', value, seen)).toBeNull()
  })
  test('a few bikes say nothing, nor does a figure of which there is no rule', () => {
    expect(questionFor('housing last loop', 900, { ...seen, bikes: 4 })).toBeNull()
    expect(questionFor('housing last loop', 900, undefined)).toBeNull()
    expect(questionFor('weight', 900, seen)).toBeNull()
    expect(questionFor('housing last loop', NaN, seen)).toBeNull()
  })
  test("bikes that are all alike still leave room for a hand's width", () => {
    const same: Seen = { bikes: 9, least: 290, quarter: 290, median: 290, threeQuarters: 290, most: 290 }
    expect(questionFor('housing last loop', 310, same)).toBeNull()
    expect(questionFor('housing last loop', 330, same)).not.toBeNull()
  })
  test('what is typed at a bench has its figure', () => {
    const on = (event: LedgerEvent, ...before: LedgerEvent[]) =>
      figuresOfEvent(event, reduce([{ kind: 'arrived', parts } as LedgerEvent, ...before].map(e => told(e))))
    expect(on({ kind: 'inner', lengthMm: 2000 })).toEqual([{ standard: 'r14-10', figure: 'inner', value: 2000 }])
    expect(on({ kind: 'gap', gapMm: 15, how: 'measured', at: 'sagged' })[0]).toMatchObject({
      figure: 'gap-sagged',
      value: 15,
    })
    expect(on({ kind: 'reclamp', barrelSixteenthsOut: 24 })[0]).toMatchObject({ figure: 'barrel-out', value: 1.5 })
    expect(on({ kind: 'turn', screw: 'L', sixteenths: 2 })).toEqual([])
    // a hub and a brake are asked under their own standards; where nobody said what hangs there, not at all
    expect(on({ kind: 'hubRead', mm: 1 })).toEqual([])
    expect(on({ kind: 'hubRead', mm: 1 }, { kind: 'hubParts', parts: usualHubs()[0]!.parts })).toEqual([
      { standard: 'hub rod-3', figure: 'hub-rod', value: 1 },
    ])
    // of a run, pieces that were typed anew; usual lengths ask nothing
    const usual = templateRun('external', 'rear-brake')
    expect(on({ kind: 'run', run: usual })).toEqual([])
    const typed = { ...asRead(usual, 'bike', ''), pieces: asRead(usual, 'bike', '').pieces }
    expect(on({ kind: 'run', run: typed }).map(f => [f.standard, f.figure, f.value])).toEqual([
      ['run rear-brake', 'housing rear-brake lever loop', 430],
      ['run rear-brake', 'housing rear-brake last loop', 260],
    ])
    expect(on({ kind: 'run', run: typed }, { kind: 'run', run: typed })).toEqual([])
  })
  test('a whole re-cable leaves the lengths of every run, under what hangs on each', () => {
    const runs = (['rear', 'front', 'front-brake', 'rear-brake', 'hub'] as const).map(r => templateRun('external', r))
    const own = { ...runs[3]!, pieces: runs[3]!.pieces.map((p, i) => ({ ...p, name: `my piece ${i}` })) }
    const kept = recordsOf(
      reduce(
        [
          { kind: 'arrived', parts } as LedgerEvent,
          { kind: 'frontParts', parts: USUAL_FRONT.double } as LedgerEvent,
          {
            kind: 'brakeParts',
            parts: { brake: 'front', kind: 'linear-pull', lever: 'long', leverSide: null },
          } as LedgerEvent,
          ...[...runs.filter(r => r.run !== 'rear-brake'), own].flatMap((run): LedgerEvent[] => [
            { kind: 'run', run },
            { kind: 'cabled', run: run.run, step: 'cut' },
          ]),
        ].map(e => told(e)),
      ),
      false,
    )
    expect(kept.map(r => `${r.standard}: ${r.figure} ${r.value}`)).toEqual([
      'r14-10: housing lever loop 420',
      'r14-10: housing last loop 290',
      'front 50-34 43.5 conventional: housing front lever loop 420',
      'brake linear-pull: housing front-brake full length 520',
      'run hub: housing hub lever loop 420',
      'run hub: housing hub last loop 250',
      // called by nobody's names, they are told by how they lie
      'run rear-brake: housing rear-brake lever loop 430',
      'run rear-brake: housing rear-brake last loop 260',
    ])
    for (const r of kept) expect(recordRule(r.figure), r.figure).toBeDefined()
    expect(sayStandard('run hub')).toBe('Hub gear, its part not named')
  })
  test('faults are what was put right, or left by name; each in words', () => {
    const found = (...events: LedgerEvent[]) =>
      faultsOf(reduce([{ kind: 'arrived', parts } as LedgerEvent, ...events].map(e => told(e)))).map(
        f => `${sayFault(f.standard, `fault ${f.fault}`)}${f.cured ? '' : ', left'}`,
      )
    expect(found()).toEqual([])
    expect(found({ kind: 'turn', screw: 'barrel', sixteenths: 1 })).toEqual([])
    expect(found({ kind: 'turn', screw: 'barrel', sixteenths: 6 })).toEqual(['Tension'])
    // a new run is wound in: that is no fault of tension
    const slow: LedgerEvent = { kind: 'shift', from: 0, to: 1, heard: 'slow' }
    const renewed: LedgerEvent = { kind: 'replace', part: 'cable' }
    const wound: LedgerEvent = { kind: 'turn', screw: 'barrel', sixteenths: 6 }
    expect(found(slow, renewed, wound)).toEqual(['Friction'])
    // renewed before anything was heard it was asked for
    expect(found(renewed, wound, slow)).toEqual([])
    expect(found({ kind: 'waived', what: 'hanger' })).toEqual(['Hanger, left'])
    expect(
      found(
        { kind: 'brakeParts', parts: { brake: 'rear', kind: 'dual-pivot', lever: 'short', leverSide: null } },
        { kind: 'brakeCured', brake: 'rear', fault: 'pivot-tight' },
        { kind: 'frontParts', parts: USUAL_FRONT.double },
        { kind: 'frontTurn', screw: 'H', sixteenths: 4 },
      ),
    ).toEqual(['H stop', 'Pivot gummed'])
  })
})

test('figures are said as the trade says them', () => {
  expect(sayRecord(recordRule('L')!, -0.125)).toBe('1/8 turn out')
  expect(sayRecord(recordRule('barrel')!, 0.375)).toBe('3/8 turn out')
  expect(sayRecord(recordRule('slack')!, 0)).toBe('none')
  expect(sayRecord(recordRule('ratio')!, 1.4114)).toBe('1.411')
  expect(new Set(RECORD_RULES.map(r => r.key)).size).toBe(RECORD_RULES.length)
})

describe('a step on the cable bench means what the rear stages mean', () => {
  const at = (...steps: CableStep[]) =>
    reduce([
      told({ kind: 'arrived', parts }),
      told({ kind: 'run', run: templateRun('external', 'rear') }),
      ...steps.map(step => told({ kind: 'cabled', run: 'rear', step })),
    ])
  test('where the barrel stands is no fact for a new cable drawn where it stood; a clamp with its figure makes it one', () => {
    const assumed = { ...parts, barrel: { ...parts.barrel, assumed: true } }
    const after = (...events: LedgerEvent[]) => {
      const job = reduce([{ kind: 'arrived', parts: assumed } as const, ...events].map(e => told(e)))
      return { assumed: barrelAssumed(job.rear), kept: recordsOf(job, false).some(r => r.figure === 'barrel-out') }
    }
    const cabled = (step: CableStep): LedgerEvent => ({ kind: 'cabled', run: 'rear', step })
    expect(after(cabled('fed'), cabled('clamped'))).toEqual({ assumed: true, kept: false })
    expect(after({ kind: 'replace', part: 'shifter' })).toEqual({ assumed: true, kept: false })
    expect(after({ kind: 'reclamp', barrelSixteenthsOut: 24 })).toEqual({ assumed: false, kept: true })
    expect(after({ kind: 'recount', barrelSixteenthsOut: 24 })).toEqual({ assumed: false, kept: true })
    expect(after({ kind: 'reclamp', barrelSixteenthsOut: 24 }, { kind: 'replace', part: 'shifter' }).assumed).toBe(true)
    expect(after({ kind: 'reclamp', barrelSixteenthsOut: 24 }, { kind: 'replace', part: 'cable' }).assumed).toBe(false)
  })
  test('fed and clamped is a new cable; clamped alone is not', () => {
    expect(at('fed', 'clamped').rear.renewed).toEqual(['cable'])
    expect(at('fed', 'clamped').rear.bench).toEqual([{ kind: 'replace', part: 'cable' }])
    expect(at('clamped').rear.bench).toEqual([])
  })
  test('bedded counts for the forecast, capped is the cut; a brake means neither', () => {
    expect(at('fed', 'clamped', 'bedded', 'capped').rear).toMatchObject({ beddedShifts: 30, cut: { tailMm: 40 } })
    expect(
      reduce([told({ kind: 'arrived', parts }), told({ kind: 'cabled', run: 'front-brake', step: 'bedded' })]).rear
        .beddedShifts,
    ).toBe(0)
  })
  test('one touch is one entry and one undo', () => {
    const clamped = told({ kind: 'cabled', run: 'rear', step: 'clamped' })
    const log = [told({ kind: 'arrived', parts }), told({ kind: 'cabled', run: 'rear', step: 'fed' }), clamped]
    expect(reduce(log).inForce).toHaveLength(3)
    expect(reduce([...log, told({ kind: 'undo', undoes: clamped.id })]).rear.bench).toEqual([])
  })
})

describe('a drivetrain put right on the job', () => {
  const typedWith = (values: Parameters<typeof catalogueInForce>[0], ids: [string, string, string]) => {
    const catalogue = catalogueInForce(values)
    const fill = (kind: 'shifter' | 'derailleur' | 'cassette', i: string) =>
      typedFromEntry(catalogue.find(e => e.kind === kind && e.id === i)!)
    const read = readTypedParts({
      ...typedFromStandard(standardById('r14-10')!),
      ...fill('shifter', ids[0]),
      ...fill('derailleur', ids[1]),
      ...fill('cassette', ids[2]),
    })
    if (read.is === 'wrong') throw new Error(JSON.stringify(read.fields))
    return read.parts
  }
  const claim = (kind: 'shifter' | 'derailleur', entry: string, figure: string, value: number | number[]) => ({
    kind,
    entry,
    figure,
    value,
    note: '',
    at: '2026-11-01T00:00:00.000Z',
    by: 'Moss',
  })
  test("the shop's own numbers fill in before the table's, and are said to be so", () => {
    const table = typedWith([], ['r14-10', 'r14-10', 'r14-10'])
    expect([table.shifter.known, table.derailleur.known, table.cassette.known]).toEqual(['table', 'table', 'table'])
    expect(ratioForSums(table)).toBeCloseTo(3.95 / 2.8, 9)
    const shop = typedWith(
      [claim('derailleur', 'r14-10', 'ratio', 1.3), claim('shifter', 'r14-10', 'pullMm', 2.78)],
      ['r14-10', 'r14-10', 'r14-10'],
    )
    expect(shop).toMatchObject({
      shifter: { known: 'shop', pullMm: new Array<number>(9).fill(2.78) },
      derailleur: { known: 'shop', pullRatio: 1.4, ratio: 1.3 },
    })
    expect(ratioForSums(shop)).toBe(1.3)
    expect(matchOfParts(shop).verdict).toBe('will-not-index')
    expect(sayNumbers(shop).map(f => f.figure)).toEqual([
      '2.78 mm, as measured in this shop',
      '1.3, as measured in this shop',
      '3.95 mm, assumed from the table',
    ])
    // an uneven ratio runs along the travel
    const uneven = typedWith(
      [claim('derailleur', 'r14-10', 'ratio', [1.36, 1.38, 1.4, 1.41, 1.42, 1.43, 1.43, 1.43, 1.43])],
      ['r14-10', 'r14-10', 'r14-10'],
    )
    expect(ratioForSums(uneven)).toBeCloseTo(1.41, 2)
    expect(matchOfParts(uneven).windowTurns).toBeLessThan(matchOfParts(table).windowTurns)
  })
  test('the log is read anew with it; an undo brings the old one back; a later one wins', () => {
    const measured = stockParts('r17-8')
    const arrived = told({ kind: 'arrived', parts })
    const seen = told({ kind: 'sight', at: 'L', offsetMm: 0 })
    const shift = told({ kind: 'shift', from: 0, to: 1, heard: 'clean' })
    const high = told({ kind: 'shift', from: 1, to: 9, heard: 'slow' })
    const right = told({ kind: 'parts', parts: measured })
    const state = reduce([arrived, seen, shift, high, right])
    expect(state.rear.parts).toEqual(measured)
    expect(state.rear.setup?.teeth).toHaveLength(8)
    expect(state.rear.bench).toHaveLength(2)
    expect(state.flagged.map(f => f.id)).toEqual([high.id]) // gear 10 of an 8-speed cannot have been
    expect(reduce([arrived, seen, shift, high, right, told({ kind: 'undo', undoes: right.id })])).toMatchObject({
      rear: { parts },
      flagged: [],
    })
    expect(
      reduce([arrived, right, told({ kind: 'parts', parts: stockParts('r14-11') })]).rear.setup?.teeth,
    ).toHaveLength(11)
  })
  test('a mismatch is believed at once, and what the last sheet knew of other parts is not', () => {
    const mixed: RearParts = { ...parts, derailleur: { standard: 'r17-10', known: 'table', pullRatio: 1.7 } }
    const state = reduce([told({ kind: 'arrived', parts }), told({ kind: 'parts', parts: mixed })])
    const sheet = { belief: { cable: { mean: 0.4, sd: 0.1 } }, parts }
    expect(priorFor(state, sheet)?.lnRatio?.mean).toBeCloseTo(Math.log(3.95 / 2.3 / (3.95 / 2.8)), 2)
    expect(priorFor(state, sheet)?.cable).toBeUndefined()
    expect(priorFor(reduce([told({ kind: 'arrived', parts })]), sheet)?.cable).toBeDefined()
  })
})

describe('bikes like this one', () => {
  const seen = (bikes: number, median: number): Seen => ({
    bikes,
    least: median - 20,
    quarter: median - 5,
    median,
    threeQuarters: median + 5,
    most: median + 20,
  })
  const rule = recordRule('housing last loop')!
  const of = {
    figure: rule.key,
    seen: seen(12, 280),
    frames: [
      { frame: 'internal' as const, seen: seen(3, 215) },
      { frame: 'open' as const, seen: seen(7, 285) },
    ],
  }
  test('go from the closest to the widest; the closest that is enough is offered', () => {
    const open = likesOf(rule, 'r14-10', 'open', of, seen(40, 270))
    expect(open.map(l => [l.width, l.words, l.seen.bikes])).toEqual([
      ['frame', 'r14-10, open, with stops', 7],
      ['standard', 'r14-10, any frame', 12],
      ['any', 'any part, open, with stops', 40],
    ])
    expect(closestOf(open)!.width).toBe('frame')
    // three bikes say little: the next wider is offered
    expect(closestOf(likesOf(rule, 'r14-10', 'internal', of, undefined))!.width).toBe('standard')
    expect(closestOf(likesOf(rule, 'r14-10', null, of, undefined))!.words).toBe('r14-10, any frame')
    // where only few were seen they are shown as few
    const few = likesOf(rule, 'r14-10', 'open', { ...of, seen: seen(2, 285), frames: [] }, undefined)
    expect(sayLike(rule, closestOf(few)!.seen)).toBe('285 mm (2), all between 265 and 305')
    expect(closestOf(likesOf(rule, 'r14-10', 'open', undefined, undefined))).toBeNull()
    expect(sayLike(rule, seen(7, 285))).toBe('285 mm (7), half between 280 and 290')
    expect(sayLike(recordRule('barrel')!, { ...seen(7, 0.25), quarter: 0.125, threeQuarters: 0.25 })).toBe(
      '1/4 turn out (7), half between 1/8 turn out and 1/4 turn out',
    )
  })
  test('the question is asked of the closest that say what is usual: a known frame never silences it', () => {
    const asked = (frame: 'internal' | 'open' | null, value: number) =>
      questionOfLikes(rule.key, value, likesOf(rule, 'r14-10', frame, of, undefined))
    expect(asked(null, 400)).toBe('100 mm longer than any such bike here (12 bikes): keep it?')
    expect(asked('open', 400)).toBe('95 mm longer than any such bike here (7 bikes): keep it?')
    // three internal bikes are too few to go by: all frames are
    expect(asked('internal', 400)).toBe('100 mm longer than any such bike here (12 bikes): keep it?')
    expect(asked('open', 290)).toBeNull()
  })
})
