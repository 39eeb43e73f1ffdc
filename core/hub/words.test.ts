import { describe, expect, test } from 'vitest'
import { AT, PERSON, telling } from '../chapter/testTold'
import { LedgerEvent } from '../ledger/events'
import { reduce } from '../ledger/reduce'
import { recordsOf } from '../records/chapters'
import { sayEvent } from '../ledger/say'
import { NOTHING_BELIEVED, sheetOf } from '../ledger/sheet'
import { ALL_GEARS, HUB_CHECKS, hubChecksFor, TICK } from './checks'
import { hubFaultWords } from './faultWords'
import { hub as chapter } from './chapter'
import type { HubLog } from './answers'
import { diagnoseHub, hubCure, turnsFromReading } from './diagnose'
import { HUB_WAYS, usualHubs, type HubParts } from './kinds'
import { countDensity, isAsked, turnsToSettle, wheelTurnsOf, whichGear } from './ratio'
import { hubStays, slippingGears, wrongGears } from './state'
import { hubSteps } from './steps'
import { sayCount, sayMm, sayTarget } from './words'

const told = telling<LedgerEvent>()
const bare = told({ kind: 'arrived', parts: null })
const hubOf = (way: HubParts['way']) => usualHubs().find(h => h.parts.way === way)!.parts
const ROD = hubOf('rod')
const MARKS = hubOf('marks')
const TWIN = hubOf('twin')
const is = (parts: HubParts): LedgerEvent => ({ kind: 'hubParts', parts })
const after = (...events: LedgerEvent[]) => reduce([bare, ...events.map(e => told(e))]).hub
const stays = (...events: LedgerEvent[]) => hubStays(after(...events)).map(s => s.id)
const count = (gear: number, hub: HubParts | null, really = gear): LedgerEvent => ({
  kind: 'hubCount',
  gear,
  crankTurns: 10,
  wheelTurns: hub ? Math.round(wheelTurnsOf(hub, really, 10) * 10) / 10 : null,
})
const NUT: LedgerEvent = { kind: 'hubSeen', check: 'lock', outcome: 'tight' }
const HOLDS: LedgerEvent = { kind: 'hubProof', holds: true }
const sheet = (...events: LedgerEvent[]) =>
  sheetOf(reduce([bare, ...events.map(e => told(e))]), NOTHING_BELIEVED, {
    at: AT,
    by: PERSON,
    how: 'proven',
    fault: null,
    recallOn: null,
  })

describe('each entry in a line', () => {
  test.each<[LedgerEvent, string]>([
    [is(ROD), `Hub: ${ROD.ratios.length} gears, `],
    [{ kind: 'hubSeen', check: 'lock', outcome: 'loose' }, 'Hub, lock nut: loose'],
    [{ kind: 'hubSeen', check: 'of-next-year', outcome: 'Odd' }, 'Hub, of-next-year: odd'],
    [{ kind: 'hubRead', mm: 1.25 }, 'Hub, in the setting gear: 1.3 mm'],
    [{ kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns: 11.7 }, 'gear 2: 11.7 wheel turns to 5 of the cranks'],
    [{ kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns: null }, 'gear 2: slips or finds no gear'],
    [{ kind: 'hubTurn', sixteenths: 8 }, 'Hub cable 1/2 turn tighter'],
    [{ kind: 'hubTurn', sixteenths: -4 }, 'Hub cable 1/4 turn slacker'],
    [{ kind: 'hubCured', fault: 'of-next-year' }, 'Hub, put right: of-next-year'],
    [{ kind: 'hubStep', step: 'of-next-year' }, 'Hub: of-next-year'],
    [HOLDS, 'Hub gear holds in every gear'],
    [{ kind: 'hubProof', holds: false }, 'Hub gear failed'],
  ])('%o', (event, words) => {
    expect(sayEvent(event, []).toLowerCase()).toContain(words.toLowerCase())
  })
  test('cures, steps and looks are said by what they are, not by their ids', () => {
    expect(sayEvent({ kind: 'hubCured', fault: 'slack' }, [])).toBe(
      `Hub, put right: ${hubFaultWords('slack')!.toLowerCase()}`,
    )
    for (const s of HUB_WAYS.flatMap(hubSteps))
      expect(sayEvent({ kind: 'hubStep', step: s.id }, []).length).toBeGreaterThan(10)
    for (const c of HUB_CHECKS)
      for (const [outcome, words] of c.outcomes)
        expect(sayEvent({ kind: 'hubSeen', check: c.id, outcome }, [])).toBe(`Hub, ${c.of}: ${words.toLowerCase()}`)
  })
  test('only an outcome of that check, and a fault of the list, is an entry', () => {
    const seen = (check: string, outcome: string) => LedgerEvent.safeParse({ kind: 'hubSeen', check, outcome }).success
    expect([seen('lock', 'tight'), seen('lock', 'odd'), seen('odd', 'tight')]).toEqual([true, false, false])
    expect(LedgerEvent.safeParse({ kind: 'hubCured', fault: 'odd' }).success).toBe(false)
    expect(hubFaultWords('odd')).toBeUndefined()
  })
  test('readings and targets in words', () => {
    expect([sayMm(1.25), sayMm(-1.2), sayMm(0)]).toEqual(['1.3 mm', '−1.2 mm', '0.0 mm'])
    expect(sayTarget(MARKS)).toBe(`marks in line in gear ${MARKS.referenceGear}`)
    expect(sayTarget(ROD)).toMatch(/^about 1 mm of rod past the axle in gear 2$/)
    expect(sayTarget(TWIN)).toMatch(/^about \d mm of free play at the grip$/)
    const five = usualHubs().find(h => h.parts.way === 'rod' && h.parts.ratios.length === 5)
    if (five) expect(sayTarget(five.parts)).toMatch(/rod past the axle in gear \d/)
  })
  test('a count in words: the gear asked for, another, none of them, a slip', () => {
    const at = (gear: number, really: number) => ({
      gear,
      crankTurns: 10,
      wheelTurns: wheelTurnsOf(ROD, really, 10),
    })
    expect(sayCount(ROD, at(2, 2))).toContain('the gear asked for, ')
    expect(sayCount(ROD, at(2, 3))).toContain('really gear 3, ')
    expect(sayCount(ROD, { ...at(2, 3), wheelTurns: 3 })).toContain('none of this hub’s')
    expect(sayCount(ROD, { ...at(2, 3), wheelTurns: null })).toBe('slips or finds no gear')
  })
})

describe('what stands on the sheet and in the records', () => {
  test('as found is the first reading and every gear that slipped; done is what was turned, read, counted and cured', () => {
    const s = sheet(
      is(ROD),
      { kind: 'hubRead', mm: -0.5 },
      { kind: 'hubRead', mm: 1 },
      count(3, null),
      count(1, null),
      count(3, null),
      { kind: 'hubTurn', sixteenths: 8 },
      { kind: 'hubCured', fault: 'slack' },
      count(3, ROD),
      count(1, ROD),
      { kind: 'hubRead', mm: 1.1 },
      NUT,
      HOLDS,
    )
    expect(s.found).toEqual([
      { what: 'Hub as found', figure: 'rod past the axle -0.5 mm' },
      {
        what: 'Hub slipped in gear',
        figure: '1, 3',
        plain: 'The hub gear slipped, which can throw a rider.',
      },
    ])
    expect(s.done.map(f => `${f.what}: ${f.figure}`)).toEqual([
      'Rod past the axle: 1.1 mm',
      'Hub cable: 1/2 turn tighter, net',
      `Hub, put right: ${hubFaultWords('slack')!.toLowerCase()}`,
      'Hub gears counted: 1, 3',
      'Hub gear: holds in every gear',
    ])
    expect(s.done[1]!.brief).toBe('1/2 turn tighter')
    expect(s.tell.join()).toContain('Hub gear: should it slip')
    expect(s.left).toEqual([])
  })
  test('a hub that nobody touched says only how its rider should ride it; no hub says nothing', () => {
    const untouched = sheet(is(ROD))
    expect([untouched.found, untouched.done]).toEqual([[], []])
    expect(untouched.tell).toHaveLength(1)
    expect(sheet().tell).toEqual([])
    expect(sheet(is(ROD), { kind: 'hubCured', fault: 'of-next-year' as never }).done[0]!.figure).toBe('of-next-year')
    expect(sheet(is(ROD), { kind: 'hubProof', holds: false }).done).toEqual([
      { what: 'Hub gear', figure: 'failed its proof', plain: 'The hub gear does not hold yet.' },
    ])
  })
  test('records only what was read or turned, under the hub’s row or its way and gears', () => {
    const job = (...events: LedgerEvent[]) => reduce([bare, ...events.map(e => told(e))])
    const figures = (...events: LedgerEvent[]) => recordsOf(job(...events), false)
    const standards = (...events: LedgerEvent[]) => chapter.records.standards(job(...events))
    expect([standards(), standards(is(ROD))]).toEqual([[], []])
    expect(standards(is(ROD), { kind: 'hubRead', mm: 1 })).toEqual([`hub ${ROD.standard}`])
    expect(standards(is(ROD), HOLDS)).toEqual([])
    expect(standards(is({ ...ROD, standard: null }), { kind: 'hubTurn', sixteenths: 4 })).toEqual(['hub rod-3-own'])
    expect(figures(is(ROD))).toEqual([])
    expect(figures(is(ROD), { kind: 'hubRead', mm: 1 }, { kind: 'hubTurn', sixteenths: 8 })).toEqual([
      expect.objectContaining({ figure: 'hub-turns', value: 0.5 }),
    ])
    expect(figures(is(MARKS), { kind: 'hubRead', mm: 0.5 })).toEqual([
      expect.objectContaining({ figure: 'hub-marks', value: 0.5 }),
    ])
    const { named } = chapter.records
    expect(named(`hub ${ROD.standard}`)).toBe(usualHubs()[0]!.title)
    expect(named('hub twin-20-own')).toContain('twin, 20 gears')
    expect([named('hub rod-1-own'), named('hub rod-21-own'), named('r14-10')]).toEqual([null, null, null])
  })
})

describe('what follows from an entry', () => {
  test('what has to be proven: anything set, cured, stepped, cabled, or a wheel that was out', () => {
    expect(stays(is(ROD))).toEqual([])
    const unproven = ['hub-nut', 'hub-unproven']
    for (const e of [
      { kind: 'hubTurn', sixteenths: 4 },
      { kind: 'hubCured', fault: 'slack' },
      { kind: 'hubStep', step: 'home' },
      { kind: 'hubStep', step: 'slack' },
      { kind: 'cabled', run: 'hub', step: 'clamped' },
      { kind: 'cabled', run: 'hub-second', step: 'clamped' },
      { kind: 'wheelOut', wheel: 'rear' },
      { kind: 'replace', part: 'cassette' },
    ] as LedgerEvent[])
      expect(stays(is(ROD), NUT, e)).toEqual(unproven)
    for (const e of [
      { kind: 'cabled', run: 'rear', step: 'clamped' },
      { kind: 'cabled', run: 'hub', step: 'fed' },
      { kind: 'wheelOut', wheel: 'front' },
      { kind: 'replace', part: 'hanger' },
      { kind: 'hubRead', mm: 1 },
    ] as LedgerEvent[])
      expect(stays(is(ROD), NUT, e)).toEqual([])
    for (const e of [{ kind: 'cabled', run: 'hub', step: 'clamped' } as LedgerEvent])
      expect(after(e).worked).toBe(false) // nobody has said that there is a hub
  })
  test('a nut locked as a step is seen tight; marks and twin cables have none to lock', () => {
    const turn: LedgerEvent = { kind: 'hubTurn', sixteenths: 4 }
    expect(stays(is(ROD), turn, { kind: 'hubStep', step: 'locked' }, HOLDS)).toEqual([])
    expect(stays(is(ROD), turn, { kind: 'hubStep', step: 'locked' }, { kind: 'hubStep', step: 'window' })).toEqual([
      'hub-unproven',
    ])
    expect(stays(is(MARKS), turn, HOLDS)).toEqual([])
    expect(after(is(MARKS), { kind: 'hubStep', step: 'home' }).locked).toBeNull()
    expect(after(is(ROD), turn, NUT, turn).locked).toBeNull()
    expect(after(is(ROD), { kind: 'hubSeen', check: 'lock', outcome: 'loose' }).locked).toBe(false)
  })
  test('a turn answers looks at the nut, at all gears and at the highest, and no other; a cure answers all; readings and counts are of what was set before', () => {
    const real = HUB_CHECKS.find(c => ![TICK, ALL_GEARS, 'lock'].includes(c.id) && hubChecksFor('rod').includes(c))!
    const other: LedgerEvent = { kind: 'hubSeen', check: real.id, outcome: real.outcomes[0]![0] }
    const gears: LedgerEvent = { kind: 'hubSeen', check: ALL_GEARS, outcome: 'not' }
    const turned = after(is(ROD), NUT, other, gears, { kind: 'hubRead', mm: 1 }, count(1, ROD), {
      kind: 'hubTurn',
      sixteenths: -3,
    })
    expect(turned.seen.map(s => s.check)).toEqual([real.id])
    const turn: LedgerEvent = { kind: 'hubTurn', sixteenths: 2 }
    expect(after(is(ROD), { kind: 'hubSeen', check: TICK, outcome: 'ticks' }, turn).seen).toEqual([])
    expect([turned.readings, turned.counts, turned.net]).toEqual([[], [], -3])
    const cured = after(is(ROD), other, { kind: 'hubCured', fault: 'slack' }, { kind: 'hubCured', fault: 'drag' })
    expect([cured.seen, cured.cured]).toEqual([[], ['slack', 'drag']])
  })
  test('a gear is judged by its last count, in order of gears; the highest gear can be counted too', () => {
    const last = ROD.ratios.length
    const h = after(is(ROD), count(last, null), count(1, null), count(2, ROD, 3), count(1, ROD))
    expect([slippingGears(h), wrongGears(h)]).toEqual([[last], [2]])
    expect(after(is(ROD), count(last + 1, null)).counts).toEqual([])
    expect(stays(is(ROD), count(3, null), count(1, null))).toContain('hub-slips')
    expect(hubStays(after(is(ROD), count(3, null), count(1, null)))[0]!.why).toContain('in 1, 3')
  })
  test('named anew with fewer gears, counts of gears it does not have go; whatever was proven is proven anew', () => {
    const eleven = usualHubs().find(h => h.parts.way === 'marks' && h.parts.ratios.length > 7)!.parts
    const fewer = { ...eleven, ratios: eleven.ratios.slice(0, 7), referenceGear: 4, standard: null }
    const counted = after(is(eleven), count(7, eleven), count(8, eleven), HOLDS, is(fewer))
    expect(counted.counts.map(c => c.gear)).toEqual([7])
    expect([counted.worked, counted.proof]).toEqual([true, null])
    expect(after(is(eleven), is(fewer)).worked).toBe(false)
    expect(after(is(eleven), count(8, null), is(ROD)).worked).toBe(true)
  })
})

describe('counts to the letter', () => {
  test('a density is one over all readings (numerical integral), and its likeliest is the gear itself', () => {
    for (const hub of [ROD, MARKS]) {
      const most = wheelTurnsOf(hub, hub.ratios.length, 10) * 1.3
      const step = 0.01
      for (const gear of [1, hub.ratios.length]) {
        let sum = 0
        for (let x = step / 2; x < most; x += step)
          sum += countDensity(hub, gear, { crankTurns: 10, wheelTurns: x }) * step
        expect(sum).toBeCloseTo(1, 2)
        const at = wheelTurnsOf(hub, gear, 10)
        const dens = (x: number) => countDensity(hub, gear, { crankTurns: 10, wheelTurns: x })
        expect(dens(at)).toBeGreaterThan(dens(at + 0.2))
        expect(dens(at + 1)).toBeGreaterThan(dens(at + 0.5)) // one turn miscounted
        expect(dens(at - 1)).toBeCloseTo(dens(at + 1), 9)
      }
    }
  })
  test('chances of the gears sum to one, and a slip is no gear that was asked for', () => {
    const read = whichGear(ROD, { crankTurns: 10, wheelTurns: wheelTurnsOf(ROD, 2, 10) })
    expect(read.gears.reduce((s, g) => s + g.chance, 0)).toBeCloseTo(1, 12)
    expect(read.gears[0]!.gear).toBe(2)
    expect(isAsked(ROD, { gear: 2, crankTurns: 10, wheelTurns: null })).toBe(false)
  })
  test('turns that settle a gear look at its own neighbours; all gears take the closest pair', () => {
    const near = { ...MARKS, standard: null, ratios: [0.5, 1, 1.02, 1.5], ringTeeth: 20, sprocketTeeth: 20 }
    const each = near.ratios.map((_, i) => turnsToSettle(near, i + 1))
    expect(turnsToSettle(near)).toBe(Math.max(...each))
    expect(each[1]).toBe(each[2]) // the two that are close, from either of them
    expect(each[0]).toBeLessThan(each[1]!)
    expect(each[3]).toBeLessThan(each[1]!)
  })
})

describe('pinned: what the diagnosis answers today, changed only on purpose (model, no outside source)', () => {
  const LOGS: [string, (hub: HubParts) => Partial<HubLog>, string[]?][] = [
    ['nothing yet', () => ({})],
    ['reads slack', () => ({ readings: [{ mm: -0.6 }] })],
    ['reads tight, twice', () => ({ readings: [{ mm: 3 }, { mm: 3.4 }] })],
    ['reads right', hub => ({ readings: [{ mm: hub.way === 'marks' ? 0 : hub.way === 'rod' ? 1 : 2 }] })],
    ['gear 2 slips', () => ({ counts: [{ gear: 2, crankTurns: 5, wheelTurns: null }] })],
    ['gear 2 is gear 3', hub => ({ counts: [{ gear: 2, crankTurns: 10, wheelTurns: wheelTurnsOf(hub, 3, 10) }] })],
    [
      'gear 1 right, 2 slips twice',
      hub => ({
        counts: [
          { gear: 1, crankTurns: 10, wheelTurns: wheelTurnsOf(hub, 1, 10) },
          { gear: 2, crankTurns: 5, wheelTurns: null },
          { gear: 2, crankTurns: 5, wheelTurns: null },
        ],
      }),
    ],
    ['slack, cured of it', () => ({ readings: [{ mm: -0.6 }] }), ['slack']],
    [
      'first look of each check wrong',
      hub => ({
        seen: hubChecksFor(hub.way)
          .slice(0, 2)
          .map(c => ({ check: c.id, outcome: c.outcomes.at(-1)![0] })),
      }),
    ],
    [
      'every look right',
      hub => ({ seen: hubChecksFor(hub.way).map(c => ({ check: c.id, outcome: c.outcomes[0]![0] })) }),
    ],
  ]
  const line = (hub: HubParts, log: Partial<HubLog>, cured?: string[]) => {
    const d = diagnoseHub(hub, { seen: [], readings: [], counts: [], ...log }, cured)
    const next =
      d.next === null
        ? '–'
        : d.next.do === 'look'
          ? d.next.check.id
          : `${d.next.do} ${'gear' in d.next ? d.next.gear : ''}`
    const cure = hubCure(d)
    return [
      d.faults
        .slice(0, 5)
        .map(f => `${f.id} ${f.chance.toFixed(4)}`)
        .join(', '),
      `found ${d.found?.id ?? '–'}`,
      `next ${next}`,
      `off ${d.offClicks.toFixed(3)}, turns ${d.turns}`,
      cure === null ? 'no cure yet' : cure.do === 'turn' ? `turn ${cure.sixteenths}` : `cure ${cure.fault}`,
    ].join('; ')
  }
  test('for each way of setting', async () => {
    const text = [ROD, MARKS, TWIN].flatMap(hub => [
      `${hub.way}, ${hub.ratios.length} gears`,
      ...LOGS.map(([name, log, cured]) => `  ${name}: ${line(hub, log(hub), cured)}`),
      `  turns from a reading of 2 mm: ${turnsFromReading(hub, 2)}`,
    ])
    await expect(`${text.join('\n')}\n`).toMatchFileSnapshot('./diagnose.pinned.txt')
  })
  test('words of every fault are its own', () => {
    for (const f of diagnoseHub(ROD, { seen: [], readings: [], counts: [] }).faults)
      expect(f.words).toBe(hubFaultWords(f.id) ?? 'Nothing found')
  })
})
