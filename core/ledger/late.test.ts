import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { BRAKE_FAULTS, checksFor } from '../brake/faults'
import type { EndKind } from '../brake/kinds'
import { stepNamesOf } from '../brake/stepWords'
import { telling } from '../chapter/testTold'
import { HUB_CHECKS } from '../hub/checks'
import { usualHubs, type HubWay } from '../hub/kinds'
import { hubSteps } from '../hub/steps'
import { slippingGears } from '../hub/state'
import { mayReachLargest } from '../rear/gates'
import { stockParts } from '../rear/typedParts'
import type { LedgerEvent } from './events'
import { whyStays } from './gates'
import { reduce, type Told } from './reduce'

/*
 * Two tablets at one bike: what was tapped before something happened, and comes after it, says how it was before.
 */

const one = telling<LedgerEvent>()
const clock = (minute: number) => `2026-12-01T10:${String(minute).padStart(2, '0')}:00.000Z`
let seq = 1
/** Tapped at a minute, and come at once or at another. */
const tapped = (event: LedgerEvent, minute: number, came = minute, basedOn?: number): Told =>
  one(event, { at: clock(minute), receivedAt: clock(came), seq: seq++, ...(basedOn === undefined ? {} : { basedOn }) })
const arrived = tapped({ kind: 'arrived', parts: stockParts('r14-10') }, 0)
const bare = tapped({ kind: 'arrived', parts: null }, 0)
const whyFlagged = (log: Told[]) => reduce(log).flagged.map(f => f.why)

const OF_REAR = { brake: 'rear', lever: null, leverSide: null } as const
const namedAs = (kind: Exclude<EndKind, 'none'>): LedgerEvent => ({
  kind: 'brakeParts',
  parts: { ...OF_REAR, kind },
})

describe('a brake’s proof', () => {
  const front = tapped({ kind: 'proof', brake: 'front', holds: true }, 1)
  const holds: LedgerEvent = { kind: 'proof', brake: 'rear', holds: true }
  const touched: LedgerEvent[] = [
    { kind: 'brakeCured', brake: 'rear', fault: 'pads-worn' },
    { kind: 'brakeStep', brake: 'rear', step: 'pads' },
    { kind: 'brakeClose', brake: 'rear', barrelSixteenthsOut: 16, letOutMm: null },
    { kind: 'brakeScrew', brake: 'rear', side: 'left', sixteenths: 2 },
    { kind: 'brakeNearer', brake: 'rear', nearer: 'left' },
    { kind: 'brakeSeen', brake: 'rear', check: 'noise', outcome: 'squeals' },
    { kind: 'cabled', run: 'rear-brake', step: 'bedded' },
    { kind: 'wheelOut', wheel: 'rear' },
    { kind: 'replace', part: 'cassette' },
    { kind: 'reopened' },
    namedAs('drum'),
  ]
  test.each(touched.map(e => [e.kind, e] as const))('from before a %s is none; one from after it is', (_, touch) => {
    const log = [bare, front, tapped(touch, 5)]
    const again = touch.kind === 'reopened' ? [tapped({ kind: 'proof', brake: 'front', holds: true }, 6)] : []
    expect(whyStays(reduce([...log, ...again, tapped(holds, 4, 7)]))).toBe('rear brake not proven')
    expect(whyFlagged([...log, tapped(holds, 4, 7)]).at(-1)).toContain('try it once more')
    expect(whyStays(reduce([...log, ...again, tapped(holds, 6, 7)]))).toBeNull()
  })
  test('who was asked is believed whatever their clock; nothing that their tablet had kept besides', () => {
    const log = [bare, front, tapped(touched[0]!, 5), tapped(holds, 2, 7)]
    expect(whyStays(reduce([...log, tapped(holds, 3, 7)]))).toBe('rear brake not proven')
    expect(whyStays(reduce([...log, tapped(holds, 3, 8)]))).toBeNull()
    expect(whyFlagged([...log, tapped(holds, 3, 8)]).some(w => w.includes('once more'))).toBe(false)
    // still on its way: it has come nowhere, and is not asked about
    expect(whyStays(reduce([...log.slice(0, 3), one(holds, { at: clock(4) })]))).toBe('rear brake not proven')
  })
  test('who had seen it touched tried it after that, whatever their clock', () => {
    const touch = tapped(touched[0]!, 5)
    expect(whyStays(reduce([bare, front, touch, tapped(holds, 4, 6, touch.seq)]))).toBeNull()
    expect(whyStays(reduce([bare, front, touch, tapped(holds, 4, 6, touch.seq! - 1)]))).not.toBeNull()
  })
  test('each of its tests; a failure counts however late it comes', () => {
    const tests = (['squeeze', 'roll', 'ride'] as const).map(t => ({ ...holds, test: t }) as LedgerEvent)
    const log = [bare, front, tapped(touched[0]!, 5), ...tests.map((t, i) => tapped(t, 2 + i, 7))]
    expect(reduce(log).brake.rear.marks).toEqual({})
    expect(whyStays(reduce([...log, ...tests.map(t => tapped(t, 3, 8))]))).toBeNull()
    const fails: LedgerEvent = { kind: 'proof', brake: 'rear', holds: false }
    expect(whyStays(reduce([bare, front, tapped(touched[0]!, 5), tapped(fails, 4, 7)]))).toContain('failed')
  })
  test('a failure is not answered by what was put right before it', () => {
    const fails = tapped({ kind: 'proof', brake: 'rear', holds: false }, 5)
    const cure = touched[0]!
    const failed = (...more: Told[]) => reduce([bare, front, fails, ...more]).brake.rear.failed !== null
    expect(failed(tapped(cure, 4, 7))).toBe(true)
    expect(failed(tapped(cure, 6, 7))).toBe(false)
    expect(failed(tapped(cure, 4, 7), tapped(cure, 4, 8))).toBe(false)
  })
  test.each(['brakeStep', 'cabled'] as const)('an end capped before its wire was clamped anew is open (%s)', kind => {
    const step = (s: 'clamped' | 'capped'): LedgerEvent =>
      kind === 'cabled' ? { kind, run: 'rear-brake', step: s } : { kind, brake: 'rear', step: s }
    const uncapped = (...more: Told[]) => reduce([bare, tapped(step('clamped'), 5), ...more]).brake.rear.uncapped
    expect(uncapped(tapped(step('capped'), 4, 7))).not.toBeNull()
    expect(uncapped(tapped(step('capped'), 6, 7))).toBeNull()
    expect(uncapped(tapped(step('capped'), 4, 7), tapped(step('capped'), 4, 8))).toBeNull()
  })
})

describe('which brake it is, said late', () => {
  const proof = (brake: 'front' | 'rear', minute: number, came?: number) =>
    tapped({ kind: 'proof', brake, holds: true }, minute, came)
  const log = [bare, proof('front', 1), tapped(namedAs('linear-pull'), 5)]
  const kindIn = (l: Told[]) => reduce(l).brake.rear.parts?.kind

  test('is not what was said since, and is asked about; said again it is', () => {
    const late = [...log, tapped(namedAs('drum'), 4, 7)]
    expect(kindIn(late)).toBe('linear-pull')
    expect(whyFlagged(late)).toEqual([
      'Two tablets differ on which rear brake this is: look whether what stands is right',
    ])
    expect(kindIn([...late, tapped(namedAs('drum'), 4, 8)])).toBe('drum')
    expect(whyFlagged([...late, tapped(namedAs('drum'), 4, 8)])).toEqual([])
    expect(whyFlagged([...late, tapped(namedAs('linear-pull'), 8)])).toEqual([])
    expect(kindIn([...log, tapped(namedAs('drum'), 6, 7)])).toBe('drum')
    // who had seen it named, and names it otherwise, is believed whatever their clock says
    expect(kindIn([...log, tapped(namedAs('drum'), 4, 7, log[2]!.seq)])).toBe('drum')
  })
  test('a bike is not let go without a brake by who said so before it was seen to have one', () => {
    const none: LedgerEvent = { kind: 'brakeParts', parts: { ...OF_REAR, kind: 'none', none: 'fixed' } }
    expect(whyStays(reduce([...log, tapped(none, 4, 7)]))).toBe('rear brake not proven')
    expect(whyStays(reduce([...log, tapped(none, 6, 7)]))).toBeNull()
  })
  test('no danger seen since is named away, and no proof made before stands while they differ', () => {
    const out = tapped({ kind: 'brakeSeen', brake: 'rear', check: 'noodle', outcome: 'out' }, 6)
    const drum = [...log, out, tapped(namedAs('drum'), 5, 7)]
    expect(kindIn(drum)).toBe('linear-pull')
    expect(whyStays(reduce([...drum, proof('rear', 8)]))).toContain('noodle')
    const between = [bare, proof('front', 1), proof('rear', 3), tapped(namedAs('linear-pull'), 5)]
    const again = [...log, proof('rear', 6), tapped(namedAs('linear-pull'), 8)]
    expect(whyStays(reduce(again))).toBeNull()
    expect(whyStays(reduce([...again, tapped(namedAs('drum'), 4, 9)]))).toBe('rear brake not proven')
    expect(whyStays(reduce([...between, proof('rear', 6), tapped(namedAs('drum'), 4, 9)]))).toBeNull()
  })
})

describe('a hub', () => {
  const hub = tapped({ kind: 'hubParts', parts: usualHubs().find(h => h.parts.way === 'rod')!.parts }, 0)
  const turn: LedgerEvent = { kind: 'hubTurn', sixteenths: 4 }
  const locked: LedgerEvent = { kind: 'hubStep', step: 'locked' }
  const holds: LedgerEvent = { kind: 'hubProof', holds: true }
  const slips: LedgerEvent = { kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns: null }
  const keeps = (...more: Told[]) => whyStays(reduce([bare, hub, ...more])) ?? ''

  test.each<[string, LedgerEvent]>([
    ['turn', turn],
    ['cable', { kind: 'cabled', run: 'hub', step: 'clamped' }],
    ['wheel', { kind: 'wheelOut', wheel: 'rear' }],
    ['cure', { kind: 'hubCured', fault: 'stretch' }],
    ['step', { kind: 'hubStep', step: 'slack' }],
  ])('its nut and its proof from before a %s are none', (_, touch) => {
    const set = [tapped(turn, 1), tapped(touch, 5)]
    expect(keeps(...set, tapped(locked, 4, 7))).toContain('not seen tight')
    expect(keeps(...set, tapped({ kind: 'hubSeen', check: 'lock', outcome: 'tight' }, 4, 7))).toContain(
      'not seen tight',
    )
    expect(keeps(...set, tapped(locked, 6), tapped(holds, 4, 7))).toContain('hub gear not proven')
    expect(keeps(...set, tapped(locked, 6), tapped(holds, 6, 7))).not.toContain('hub')
    expect(keeps(...set, tapped(locked, 4, 7), tapped(locked, 4, 8), tapped(holds, 8))).not.toContain('hub')
    const asked = [bare, hub, ...set, tapped(locked, 6), tapped(holds, 4, 7)]
    expect(whyFlagged(asked).at(-1)).toContain('once more')
    expect(whyFlagged([...asked, tapped(holds, 8)]).some(w => w.includes('once more'))).toBe(false)
  })
  test('what was counted stands beside a turn from before it', () => {
    const counted = (...more: Told[]) => slippingGears(reduce([bare, hub, tapped(slips, 5), ...more]).hub)
    expect(counted(tapped(turn, 4, 7))).toEqual([2])
    expect(counted(tapped(turn, 6, 7))).toEqual([])
    expect(counted(tapped(turn, 3, 7), tapped(turn, 4, 8))).toEqual([])
    expect(counted(tapped(turn, 3, 7), tapped(turn, 4, 7))).toEqual([2])
    const failed = tapped({ kind: 'hubSeen', check: 'gears', outcome: 'not' }, 5)
    expect(keeps(failed, tapped({ kind: 'wheelOut', wheel: 'rear' }, 4, 7))).toContain('not every gear')
  })
  const as = (way: HubWay): LedgerEvent => ({
    kind: 'hubParts',
    parts: usualHubs().find(h => h.parts.way === way)!.parts,
  })
  test('which it is, said late, is not what was said since; said again it is', () => {
    const late = [bare, hub, tapped(as('rod'), 5), tapped(as('twin'), 4, 7)]
    expect(reduce(late).hub.parts?.way).toBe('rod')
    expect(whyFlagged(late)).toEqual(['Two tablets differ on which hub this is: look whether what stands is right'])
    const again = [...late, tapped(as('twin'), 4, 8)]
    expect(reduce(again).hub.parts?.way).toBe('twin')
    const named = tapped(as('rod'), 5)
    expect(reduce([bare, hub, named, tapped(as('twin'), 4, 7, named.seq)]).hub.parts?.way).toBe('twin')
    expect(whyFlagged(again)).toEqual([])
    const proven = [tapped(as('marks'), 1), tapped(holds, 2)]
    expect(keeps(...proven)).not.toContain('hub')
    expect(keeps(...proven, tapped(as('marks'), 5), tapped(as('twin'), 4, 7))).toContain('hub gear not proven')
  })
  test('named another kind late, what slipped since still slips; what slipped before is proven anew', () => {
    expect(keeps(tapped(slips, 5), tapped(as('marks'), 4, 7))).toContain('slips')
    expect(keeps(tapped(slips, 5), tapped(as('marks'), 6, 7))).not.toContain('slips')
    expect(keeps(tapped(slips, 5), tapped(as('marks'), 6, 7))).toContain('hub gear not proven')
  })
  test('a nut seen tight before it was named a rod hub is not this one’s', () => {
    const named = [tapped(as('marks'), 1), tapped(holds, 2), tapped(as('rod'), 5)]
    const tight = (minute: number) => tapped({ kind: 'hubSeen', check: 'lock', outcome: 'tight' }, minute, 7)
    expect(keeps(...named, tight(4))).toContain('lock nut not seen tight')
    expect(keeps(...named, tight(6))).not.toContain('lock nut')
  })
  test('a nut seen loose is a rod hub’s alone; a hub named otherwise since is proven', () => {
    const loose = tapped({ kind: 'hubSeen', check: 'lock', outcome: 'loose' }, 2)
    expect(keeps(loose)).toContain('lock nut is loose')
    expect(keeps(loose, tapped(as('marks'), 3))).toContain('hub gear not proven')
    expect(keeps(loose, tapped(as('marks'), 3))).not.toContain('nut')
  })
  test('who tried it before its nut was tight, and is not believed, leaves it to be proven', () => {
    expect(keeps(tapped(holds, 2))).toContain('hub gear not proven')
  })
  test('a failure is not answered by what was put right before it', () => {
    const fails = tapped({ kind: 'hubProof', holds: false }, 5)
    expect(keeps(fails, tapped({ kind: 'hubCured', fault: 'stretch' }, 4, 7))).toContain('failed its proof')
    expect(keeps(fails, tapped({ kind: 'hubCured', fault: 'stretch' }, 6, 7))).not.toContain('failed')
  })
})

describe('L seen by hand', () => {
  const seen: LedgerEvent = { kind: 'sight', at: 'L', offsetMm: 0 }
  const mayReach = (...more: Told[]) => mayReachLargest(reduce([arrived, ...more]).rear.trace)
  test.each<[string, LedgerEvent]>([
    ['hanger bent', { kind: 'bend' } as LedgerEvent],
    ['hanger renewed', { kind: 'replace', part: 'hanger' }],
    ['derailleur renewed', { kind: 'replace', part: 'derailleur' }],
    ['cassette renewed', { kind: 'replace', part: 'cassette' }],
  ])('before its %s opens nothing', (_, moved) => {
    expect(mayReach(tapped(moved, 5), tapped(seen, 4, 7))).toBe(false)
    expect(whyFlagged([arrived, tapped(moved, 5), tapped(seen, 4, 7)])[0]).toBe(
      'L was looked at before the hanger or a part was moved elsewhere: see it once more',
    )
    expect(mayReach(tapped(moved, 5), tapped(seen, 3, 7), tapped(seen, 4, 7))).toBe(false)
    expect(mayReach(tapped(moved, 5), tapped(seen, 4, 7), tapped(seen, 4, 8))).toBe(true)
    // once seen again it is asked no more
    expect(whyFlagged([arrived, tapped(moved, 5), tapped(seen, 4, 7), tapped(seen, 8)])).toEqual([])
    expect(mayReach(tapped(moved, 5), tapped(seen, 6, 7))).toBe(true)
  })
  test('before a new cable it stands: no stop rests on that', () => {
    expect(mayReach(tapped({ kind: 'replace', part: 'cable' }, 5), tapped(seen, 4, 7))).toBe(true)
  })
})

describe('whatever two tablets tap, one of them offline', () => {
  const OF: Record<'brake' | 'hub' | 'rear', { start: LedgerEvent[]; acts: LedgerEvent[] }> = {
    brake: {
      start: [namedAs('linear-pull')],
      acts: [
        ...[true, true, true, false].map((holds): LedgerEvent => ({ kind: 'proof', brake: 'rear', holds })),
        ...(['squeeze', 'roll', 'ride'] as const).map((test): LedgerEvent => ({
          kind: 'proof',
          brake: 'rear',
          holds: true,
          test,
        })),
        ...checksFor('linear-pull').flatMap(c =>
          c.outcomes.map(([outcome]): LedgerEvent => ({ kind: 'brakeSeen', brake: 'rear', check: c.id, outcome })),
        ),
        ...BRAKE_FAULTS['linear-pull'].map((f): LedgerEvent => ({ kind: 'brakeCured', brake: 'rear', fault: f.id })),
        ...stepNamesOf('linear-pull').map((x): LedgerEvent => ({ kind: 'brakeStep', brake: 'rear', step: x.id })),
        ...(['fed', 'clamped', 'bedded', 'capped'] as const).map((step): LedgerEvent => ({
          kind: 'cabled',
          run: 'rear-brake',
          step,
        })),
        { kind: 'wheelOut', wheel: 'rear' },
        ...(['linear-pull', 'dual-pivot', 'drum', 'cable-disc', 'hydraulic-disc', 'roller'] as const).map(namedAs),
        { kind: 'brakeParts', parts: { ...OF_REAR, kind: 'none', none: 'fixed' } },
      ],
    },
    hub: {
      start: [
        { kind: 'hubParts', parts: usualHubs().find(h => h.parts.way === 'rod')!.parts },
        { kind: 'proof', brake: 'rear', holds: true },
      ],
      acts: [
        ...[true, true, true, false].map((holds): LedgerEvent => ({ kind: 'hubProof', holds })),
        ...HUB_CHECKS.flatMap(c =>
          c.outcomes.map(([outcome]): LedgerEvent => ({ kind: 'hubSeen', check: c.id, outcome })),
        ),
        ...hubSteps('rod').map((x): LedgerEvent => ({ kind: 'hubStep', step: x.id })),
        ...[null, 11.7].map((wheelTurns): LedgerEvent => ({ kind: 'hubCount', gear: 2, crankTurns: 5, wheelTurns })),
        { kind: 'hubTurn', sixteenths: 4 },
        { kind: 'hubCured', fault: 'not-home' },
        { kind: 'cabled', run: 'hub', step: 'clamped' },
        { kind: 'wheelOut', wheel: 'rear' },
      ],
    },
    rear: {
      start: [{ kind: 'proof', brake: 'rear', holds: true }],
      acts: [
        ...([[], [], ['cracked'], ['split']] as const).map((e): LedgerEvent => ({
          kind: 'sensed',
          exceptions: [...e],
          chainWearPercent: null,
        })),
        ...(['L', 'L', 'H'] as const).map((at): LedgerEvent => ({ kind: 'sight', at, offsetMm: 0 })),
        ...(['hanger', 'cassette', 'cable'] as const).map((part): LedgerEvent => ({ kind: 'replace', part })),
        { kind: 'bend', hour: 12, tipMm: 2 } as LedgerEvent,
      ],
    },
  }
  const EXACT: readonly string[] = ['proof', 'hubProof', 'sight', 'sensed', 'brakeParts']

  test.each(['brake', 'hub', 'rear'] as const)(
    'the bike stays, and its largest sprocket shut, as it would had all been told at once: %s',
    of => {
      const { start, acts } = OF[of]
      const base = [
        tapped({ kind: 'arrived', parts: of === 'rear' ? stockParts('r14-10') : null }, 0),
        tapped({ kind: 'proof', brake: 'front', holds: true }, 0),
        ...start.map(e => tapped(e, 0)),
      ].map((t, i) => ({ ...t, seq: i + 1 }))
      const story = fc.array(fc.tuple(fc.nat(acts.length - 1), fc.boolean()), { minLength: 2, maxLength: 9 })
      fc.assert(
        fc.property(story, taps => {
          const told = taps.map(([i, offline], k) => ({ event: acts[i]!, minute: k + 1, offline }))
          const at = (t: (typeof told)[number], came: number, seq: number, basedOn: number) =>
            one(t.event, { at: clock(t.minute), receivedAt: clock(came), seq, basedOn })
          const n = base.length
          const truth = reduce([...base, ...told.map((t, k) => at(t, t.minute, n + k + 1, n + k))])
          const online = told.filter(t => !t.offline).map((t, k) => at(t, t.minute, n + k + 1, n + k))
          // what waits on a tablet counts as known to what it taps next; not to what is signed, or says what it is
          const late = told
            .filter(t => t.offline)
            .map((t, k) => at(t, 30, n + online.length + k + 1, EXACT.includes(t.event.kind) ? n : n + k))
          const came = reduce([...base, ...online, ...late])
          if (whyStays(truth) !== null) expect(whyStays(came)).not.toBeNull()
          if (!mayReachLargest(truth.rear.trace)) expect(mayReachLargest(came.rear.trace)).toBe(false)
        }),
        { numRuns: 1500 },
      )
    },
  )
})
