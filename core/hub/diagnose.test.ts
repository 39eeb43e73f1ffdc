import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { UNKNOWN } from '../chapter/looks'
import type { HubLog } from './answers'
import { hubChecksFor } from './checks'
import { diagnoseHub, hubCure, isGearOff, type HubDiagnosis } from './diagnose'
import { usualHubs, type HubParts } from './kinds'
import { isAsked, wheelTurnsOf } from './ratio'

/* Ocho's own rules of when a hub's fault is named and what is looked at next (`model`, no outside source). */

const HUBS = usualHubs().map(u => u.parts)
const hub = (id: string): HubParts => HUBS.find(h => h.standard === id)!
const nothing: HubLog = { seen: [], readings: [], counts: [] }
const saw = (...looks: [check: string, outcome: string][]): HubLog => ({
  ...nothing,
  seen: looks.map(([check, outcome]) => ({ check, outcome })),
})
const chance = (d: HubDiagnosis, id: string) => d.faults.find(f => f.id === id)!.chance
const nextOf = (d: HubDiagnosis) => (d.next?.do === 'look' ? d.next.check.id : (d.next?.do ?? null))

describe('whatever is answered, unknown too', () => {
  const looked = (log: HubLog, check: string) => log.seen.filter(s => s.check === check && s.outcome !== UNKNOWN)
  /** Why a fault may not be named yet, or a question not be put. */
  function broken(parts: HubParts, log: HubLog, d: HubDiagnosis): string[] {
    const out: string[] = []
    const { found, next } = d
    const twin = parts.way === 'twin'
    if (found) {
      const sure = found.id === 'none' ? 0.8 : found.id === 'inside' ? 0.95 : 0.9
      if (d.faults[0]!.id !== found.id || d.faults[0]!.chance < sure) out.push(`${found.id} named too soon`)
      if (!log.seen.some(s => s.check === 'gears') && !log.counts.length) out.push('named before any gear was tried')
      if (found.id === 'drag' && log.seen.filter(s => s.check === 'wire' && s.outcome === 'drags').length < 2)
        out.push('a run renewed for one drag')
      if (['none', 'inside'].includes(found.id)) {
        if (!log.readings.length) out.push(`${found.id} without a reading`)
        if (!looked(log, 'wire').length) out.push(`${found.id} without the wire`)
        if (twin && !looked(log, 'coupling').length) out.push(`${found.id} without the couplings`)
      }
      if (found.id === 'none') {
        const last = new Map(log.counts.map(c => [c.gear, c]))
        for (const c of last.values())
          if (!isAsked(parts, c)) out.push(`nothing wrong, and gear ${c.gear} is not there`)
        for (const c of hubChecksFor(parts.way)) {
          const seen = looked(log, c.id).at(-1)
          if (c.id !== 'moved' && seen && seen.outcome !== c.outcomes[0][0])
            out.push(`nothing wrong, and ${c.id} was last seen ${seen.outcome}`)
        }
      }
      if (found.id === 'none' && looked(log, 'gears').length < 2 && log.counts.length < 2)
        out.push('nothing wrong by one try of the gears')
    }
    if (next?.do === 'read' && log.readings.length > 1) out.push('read a third time')
    if (next?.do === 'count' && log.counts.filter(c => c.gear === next.gear).length > 1)
      out.push('counted a third time')
    if (next?.do === 'look') {
      const seen = log.seen.filter(s => s.check === next.check.id)
      if (seen.some(s => s.outcome === UNKNOWN)) out.push(`${next.check.id} asked of who does not know`)
      if (seen.length > 2 || (seen.length === 2 && seen[0]!.outcome === seen[1]!.outcome))
        out.push(`${next.check.id} asked once too often`)
      if (!next.check.ways.includes(parts.way)) out.push(`${next.check.id} of a hub that has none`)
    }
    return out
  }
  test.each(HUBS.map(h => [h.standard!, h] as const))('%s', (_, parts) => {
    const answers = fc.array(fc.record({ pick: fc.nat(20), mm: fc.double({ min: -3, max: 6, noNaN: true }) }), {
      minLength: 60,
      maxLength: 60,
    })
    fc.assert(
      fc.property(answers, told => {
        let log = nothing
        for (const { pick, mm } of told) {
          const d = diagnoseHub(parts, log)
          expect(broken(parts, log, d), JSON.stringify(log)).toEqual([])
          if (d.found || !d.next) return
          if (d.next.do === 'read') log = { ...log, readings: [...log.readings, { mm }] }
          else if (d.next.do === 'count') {
            const { gear } = d.next
            // as it should be, another gear, or none
            const is = [gear, gear, gear, 1 + (pick % parts.ratios.length), null][pick % 5]!
            const wheelTurns = is === null ? null : Math.round(wheelTurnsOf(parts, is, 5) * 10) / 10
            log = { ...log, counts: [...log.counts, { gear, crankTurns: 5, wheelTurns }] }
          } else {
            const { id, outcomes } = d.next.check
            const outcome = pick === 0 ? UNKNOWN : outcomes[pick % 3 ? 0 : outcomes.length - 1]![0]
            log = { ...log, seen: [...log.seen, { check: id, outcome }] }
          }
        }
        throw new Error('asked for ever')
      }),
      { seed: 1, numRuns: 12 },
    )
  })
})

describe('before something is named', () => {
  test('a wire that drags is tugged once more before its run is renewed', () => {
    const once = saw(['gears', 'not'], ['wire', 'drags'], ['lock', 'tight'], ['screwed', 'home'], ['moved', 'no'])
    const parts = hub('marks-8')
    const sure: HubLog = { ...once, readings: [{ mm: 0 }, { mm: 0 }] }
    expect(diagnoseHub(parts, sure).faults[0]!.id).toBe('drag')
    expect(diagnoseHub(parts, sure).found).toBeNull()
    const twice = { ...sure, seen: [...sure.seen, { check: 'wire', outcome: 'drags' }] }
    expect(diagnoseHub(parts, twice).found?.id).toBe('drag')
    expect(hubCure(diagnoseHub(parts, twice))).toEqual({ do: 'cure', fault: 'drag' })
  })
  test('nothing is said to be wrong never against what was last seen: the gear that slipped, the look that was bad', () => {
    const parts = hub('marks-8')
    const looks = saw(['gears', 'hold'], ['washers', 'home'], ['moved', 'no'], ['wire', 'free'], ['gears', 'hold'])
    const first = { gear: 1, crankTurns: 5, wheelTurns: Math.round(wheelTurnsOf(parts, 1, 5) * 10) / 10 }
    const slipped = { gear: 4, crankTurns: 5, wheelTurns: null }
    const cured = ['slack', 'slack', 'tight', 'tight', 'inside', 'inside', 'drag', 'axle']
    const log: HubLog = { ...looks, readings: [{ mm: 0.3 }, { mm: 0.1 }], counts: [first, slipped] }
    const d = diagnoseHub(parts, log, cured)
    expect(d.faults[0]).toMatchObject({ id: 'none' })
    expect([d.found, d.next]).toEqual([null, { do: 'count', gear: 4 }])
    const there = { ...slipped, wheelTurns: Math.round(wheelTurnsOf(parts, 4, 5) * 10) / 10 }
    const counted = { ...log, counts: [...log.counts, there] }
    expect(diagnoseHub(parts, counted, cured).found?.id).toBe('none')
    const bad = { ...counted, seen: [...log.seen, { check: 'washers', outcome: 'not' }] }
    const again = diagnoseHub(parts, bad, [...cured, 'washers', 'washers'])
    expect(again.faults[0]).toMatchObject({ id: 'none' })
    expect([again.found, nextOf(again)]).toEqual([null, 'washers'])
    // a wheel that was moved may well stand right
    const moved = { ...counted, seen: [...log.seen, { check: 'moved', outcome: 'yes' }] }
    expect(diagnoseHub(parts, moved, [...cured, 'axle', 'washers', 'washers']).found?.id).toBe('none')
  })
  test('the inside of a hub is not blamed before wire, window and couplings were looked at', () => {
    for (const [parts, due] of [
      [hub('marks-8'), ['read', 'wire']],
      [hub('twin-14'), ['read', 'wire', 'coupling']],
    ] as const) {
      // one gear slips whenever it is counted, its neighbours are as they should be
      const counts = [4, 6, 7].flatMap(gear => [
        { gear, crankTurns: 5, wheelTurns: Math.round(wheelTurnsOf(parts, gear, 5) * 10) / 10 },
        { gear: 5, crankTurns: 5, wheelTurns: null },
      ])
      const others = hubChecksFor(parts.way)
        .filter(c => !['gears', 'wire', 'coupling'].includes(c.id))
        .map(c => [c.id, c.outcomes[0]![0]] as [string, string])
      let log: HubLog = { ...saw(['gears', 'not'], ...others, ...others), counts }
      const asked: (string | null)[] = []
      for (let i = 0; i < 8; i++) {
        const d = diagnoseHub(parts, log)
        if (d.found) break
        asked.push(nextOf(d))
        if (d.next?.do === 'read') log = { ...log, readings: [...log.readings, { mm: parts.way === 'twin' ? 2 : 0 }] }
        else if (d.next?.do === 'look') {
          const { id, outcomes } = d.next.check
          log = { ...log, seen: [...log.seen, { check: id, outcome: outcomes[0]![0] }] }
        }
      }
      expect([...new Set(asked)], parts.standard!).toEqual(due)
      expect(diagnoseHub(parts, log).found?.id).toBe('inside')
    }
  })
  test('the gears come first, unless one was counted', () => {
    for (const parts of HUBS) {
      expect(nextOf(diagnoseHub(parts, nothing))).toBe('gears')
      const wheelTurns = Math.round(wheelTurnsOf(parts, 1, 5) * 10) / 10
      expect(nextOf(diagnoseHub(parts, { ...nothing, counts: [{ gear: 1, crankTurns: 5, wheelTurns }] }))).not.toBe(
        'gears',
      )
      expect(nextOf(diagnoseHub(parts, saw(['gears', UNKNOWN])))).not.toBe('gears')
    }
  })
  test('a sound hub: the window read, every gear twice, wire and couplings looked at, then nothing is said to be wrong', () => {
    for (const parts of [hub('rod-3'), hub('marks-8'), hub('twin-14')]) {
      let log = nothing
      const asked: string[] = []
      for (let i = 0; i < 20; i++) {
        const d = diagnoseHub(parts, log)
        if (d.found || !d.next) break
        asked.push(nextOf(d)!)
        if (d.next.do === 'read')
          log = { ...log, readings: [...log.readings, { mm: parts.way === 'marks' ? 0 : parts.way === 'rod' ? 1 : 2 }] }
        else if (d.next.do === 'look')
          log = { ...log, seen: [...log.seen, { check: d.next.check.id, outcome: d.next.check.outcomes[0]![0] }] }
        else {
          const { gear } = d.next
          const wheelTurns = Math.round(wheelTurnsOf(parts, gear, 5) * 10) / 10
          log = { ...log, counts: [...log.counts, { gear, crankTurns: 5, wheelTurns }] }
        }
      }
      expect(diagnoseHub(parts, log).found?.id, asked.join()).toBe('none')
      expect(asked[0]).toBe('gears')
      expect(asked).toContain('read')
      expect(asked).toContain('wire')
      expect(asked.includes('coupling')).toBe(parts.way === 'twin')
      expect(asked.filter(a => a === 'gears' || a === 'count').length).toBeGreaterThan(1)
      // the grip and the couplings of two cables are looked at besides
      expect(asked.length, asked.join()).toBeLessThanOrEqual(parts.way === 'twin' ? 10 : 7)
      expect(hubCure(diagnoseHub(parts, log))).toBeNull()
    }
  })
})

describe('what was tried, heard or is not there', () => {
  test('a fault cured once has a tenth of its odds, cured twice none', () => {
    const log = saw(['lock', 'loose'])
    const odds = (...cured: string[]) => {
      const d = diagnoseHub(hub('rod-3'), log, cured)
      return chance(d, 'lock-nut') / chance(d, 'none')
    }
    expect(odds('lock-nut') / odds()).toBeCloseTo(0.1, 9)
    expect(odds('drag')).toBeCloseTo(odds(), 9)
    expect(odds('lock-nut', 'lock-nut')).toBe(0)
    expect(odds('lock-nut', 'lock-nut', 'lock-nut')).toBe(0)
  })
  test('a tick that was heard speaks for a right highest gear, where a hub ticks at all', () => {
    const right = (parts: HubParts, tickOdds: number | null) =>
      chance(diagnoseHub(parts, { ...nothing, tickOdds } as HubLog), 'none')
    const [rod, marks] = [hub('rod-3'), hub('marks-8')]
    expect(right(rod, 20)).toBeGreaterThan(right(rod, null))
    expect(right(rod, 0.05)).toBeLessThan(right(rod, null))
    expect(right(marks, 20)).toBe(right(marks, null))
  })
  test('a look that belongs to another hub says nothing', () => {
    const before = diagnoseHub(hub('twin-14'), nothing).faults
    expect(diagnoseHub(hub('twin-14'), saw(['lock', 'loose'])).faults).toEqual(before)
    expect(hubChecksFor('twin').some(c => c.id === 'lock')).toBe(false)
  })
  test('a turn cures slack and tight alone; out by a whole gear is said of these alone', () => {
    const found = (id: string, rest: Partial<HubDiagnosis>): HubDiagnosis => ({
      faults: [],
      found: { id, words: id, cure: '' },
      next: null,
      offClicks: 0,
      turns: 0,
      ...rest,
    })
    expect(hubCure(found('slack', { turns: 1.5 }))).toEqual({ do: 'turn', sixteenths: 24 })
    expect(hubCure(found('tight', { turns: -0.25 }))).toEqual({ do: 'turn', sixteenths: -4 })
    expect(hubCure(found('tight', { turns: 0 }))).toEqual({ do: 'cure', fault: 'tight' })
    expect(hubCure(found('drag', { turns: 1 }))).toEqual({ do: 'cure', fault: 'drag' })
    expect(hubCure(found('none', { turns: 1 }))).toBeNull()
    expect(hubCure({ ...found('slack', { turns: 1 }), found: null })).toBeNull()
    const off = (id: string, offClicks: number) => isGearOff(found(id, { offClicks }))
    expect([off('slack', 0.8), off('tight', -0.8), off('tight', -1.1)]).toEqual([true, true, true])
    expect([off('slack', 0.79), off('tight', -0.79), off('drag', 1), off('none', 1)]).toEqual(
      Array.from({ length: 4 }, () => false),
    )
    expect(isGearOff({ ...found('slack', { offClicks: 1 }), found: null })).toBe(false)
  })
})
