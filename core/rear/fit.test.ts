import { NEEDED_WINDOW_TURNS, NO_WINDOW_TURNS } from '../standards/model'
import { partsOf } from '../standards/partsOfShop'
import { describe, expect, test } from 'vitest'
import fc from 'fast-check'
import solver from 'javascript-lp-solver'
import { NEW_CABLE } from '../response/parameters'
import { geometryOf } from '../response/setup'
import { restPlaceMm } from '../response/pulley'
import { arrivesClean, arrivalsAt } from '../response/window'
import { DRIVETRAIN_STANDARDS } from '../standards/drivetrains'
import { fitOf, quickFit, sayFit, type Trio } from './fit'
import { fixesFor, sayPerClick, thirdPart } from './fixes'
import { matchDrivetrain } from '../standards/match'
import { catalogueInForce } from '../standards/shopValues'
import { alike, matrixOf, trioOf } from './trio'

const parts = partsOf(catalogueInForce([]))
const pick = (s: string, d: string, c: string) => ({
  s: parts.shifters.find(p => p.id === s)!,
  d: parts.derailleurs.find(p => p.id === d)!,
  c: parts.cassettes.find(p => p.id === c)!,
})
const trio = (s: string, d: string, c: string): Trio => {
  const p = pick(s, d, c)
  return trioOf(p.s, p.d, p.c)
}
const even = (count: number, mm: number) => new Array<number>(count).fill(mm)

describe('match error against a general solver', () => {
  // Outside judge: a linear program, javascript-lp-solver. Least w such that −w ≤ r·cable − place + b ≤ w; offset b and
  // ratio r free.
  const least = (cable: number[], place: number[], ratio: number | null): { worst: number; ratio: number } => {
    const constraints: Record<string, { max?: number; min?: number }> = {}
    const variables: Record<string, Record<string, number>> = {
      w: { w: 1 },
      bp: {},
      bm: {},
      ...(ratio === null ? { r: {} } : {}),
    }
    cable.forEach((c, k) => {
      const rest = place[k] - (ratio === null ? 0 : ratio * c)
      constraints[`u${k}`] = { max: rest }
      constraints[`l${k}`] = { min: rest }
      for (const side of ['u', 'l']) {
        variables.w[`${side}${k}`] = side === 'u' ? -1 : 1
        variables.bp[`${side}${k}`] = 1
        variables.bm[`${side}${k}`] = -1
        if (ratio === null) variables.r[`${side}${k}`] = c
      }
    })
    const answer = solver.Solve({ optimize: 'w', opType: 'min', constraints, variables }) as {
      result: number
      r?: number
    }
    return { worst: answer.result, ratio: answer.r ?? ratio ?? NaN }
  }
  const places = (steps: readonly number[]) => steps.reduce<number[]>((out, s) => [...out, out.at(-1)! + s], [0])
  test.each([
    ['r14-10', 'r17-10', 'r17-10'],
    ['r17-9', 'r17-9', 'r17-8'],
    ['r14-11', 'r14-10', 'r14-11'],
    ['r11-12w', 'r11-12x', 'r11-12x'],
  ])('%s on %s with %s', (s, d, c) => {
    const { pullMm, ratio, pitchMm } = trio(s, d, c)
    const n = Math.min(pullMm.length, pitchMm.length)
    const match = matchDrivetrain({
      pullMm: pullMm.slice(0, n),
      pullRatio: ratio as number,
      pitchMm: pitchMm.slice(0, n),
    })
    expect(match.worstMm).toBeCloseTo(
      least(places(pullMm.slice(0, n)), places(pitchMm.slice(0, n)), ratio as number).worst,
      6,
    )
  })
  test('and on uneven parts, offset alone and offset with ratio', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.double({ min: 2.2, max: 4.4, noNaN: true }), fc.double({ min: 3.5, max: 5.5, noNaN: true })),
          { minLength: 3, maxLength: 11 },
        ),
        fc.double({ min: 1, max: 1.9, noNaN: true }),
        (gaps, ratio) => {
          const pullMm = gaps.map(g => g[0])
          const pitchMm = gaps.map(g => g[1])
          const match = matchDrivetrain({ pullMm, pullRatio: ratio, pitchMm })
          expect(match.worstMm).toBeCloseTo(least(places(pullMm), places(pitchMm), ratio).worst, 5)
          // both have the least worst error; where several ratios do, either may be named
          const free = least(places(pullMm), places(pitchMm), null)
          expect(matchDrivetrain({ pullMm, pullRatio: match.ratioNeeded, pitchMm }).worstMm).toBeCloseTo(free.worst, 5)
        },
      ),
      { numRuns: 30, seed: 11 },
    )
  })
})

describe('verdicts come from the window of the response model', () => {
  test.each(DRIVETRAIN_STANDARDS.map(s => [s.id]))('%s: the stock trio works', id => {
    const fit = fitOf(trio(id, id, id))
    expect(fit.verdict).toBe('works')
    expect(fit.windowTurns).toBeGreaterThan(NEEDED_WINDOW_TURNS)
  })
  test('the window is where a search finds every gear clean from both sides', () => {
    for (const [s, d, c] of [
      ['r14-10', 'r14-10', 'r14-10'],
      ['r14-11', 'r14-10', 'r14-11'],
      ['r17-9', 'r17-9', 'r15-9'],
      ['r17-8', 'r19-8', 'r17-8'],
    ]) {
      const t = trio(s, d, c)
      const n = Math.min(t.pullMm.length, t.pitchMm.length)
      const fit = fitOf(t)
      const g = geometryOf({
        teeth: even(n + 1, 20),
        pitchMm: t.pitchMm.slice(0, n),
        pullMm: t.pullMm.slice(0, n),
        pullRatio: 1,
        barrelPitchMm: 0.8,
        barrelTurnsOut: 0,
        barrelTurnsRange: 1,
      })
      // slow judge: the full chances of hearing, cable offset by cable offset, with stops where a hand sets them
      let clean = 0
      const step = 0.01
      for (let cableMm = -4; cableMm <= 4; cableMm += step) {
        const bike = {
          cableMm,
          ratio: t.ratio as number,
          backlashInMm: NEW_CABLE.backlashMm / 2,
          backlashOutMm: NEW_CABLE.backlashMm / 2,
          camberTan: 0,
          bowMm: 0,
          stopHMm: g.placeMm[0],
          stopLMm: g.placeMm[n],
        }
        if (
          Array.from({ length: n + 1 }, (_, k) => k).every(k =>
            arrivalsAt(g, k).every(inward =>
              arrivesClean(g, k, inward, (restPlaceMm(g, bike, k, inward) - g.placeMm[k]) / g.pitchMm[k], {
                sharpness: 1,
                asymmetryPitch: 0,
              }),
            ),
          )
        )
          clean += step
      }
      expect(Math.max(0, fit.windowTurns) * 0.8, `${s} ${d} ${c}`).toBeCloseTo(clean, 1)
    }
  })
  test('a matrix cell says what the whole fit says', () => {
    const { d } = pick('r14-10', 'r14-10', 'r14-10')
    for (const [i, row] of matrixOf(d, parts).entries())
      for (const [k, cell] of row.entries()) {
        const fit = fitOf(trioOf(parts.shifters[i], d, parts.cassettes[k]))
        expect(cell).toMatchObject({ verdict: fit.verdict, windowTurns: fit.windowTurns, gears: fit.gears })
        expect(cell.worstMm).toBeCloseTo(fit.worstMm, 9)
      }
  })
  test('too high a ratio is forgiven at the ends, where stops hold; the tight gears are named', () => {
    const fit = fitOf(trio('r14-11', 'r14-10', 'r14-11'))
    expect(fit.verdict).toBe('care')
    expect(fit.windowTurns).toBeGreaterThanOrEqual(NO_WINDOW_TURNS)
    expect(fit.tightGears).toContain(1)
    expect(fit.tightGears).not.toContain(0)
    expect(sayFit(fit, k => `${k + 1}`)).toContain('Works with care in the 2')
  })
  test('nothing indexes that is over 0.15 of a pitch off at an end where no stop helps (trade figure, model)', () => {
    // too low a ratio: the pulley hangs back at the largest and forward at the smallest, away from both stops
    for (const share of [0.15, 0.2, 0.3]) {
      const n = 9
      const low = fitOf({ pullMm: even(n, 2.8), ratio: (4 * n - 2 * share * 4) / (2.8 * n), pitchMm: even(n, 4) })
      expect(low.worstMm / 4).toBeCloseTo(share, 6)
      expect(low.verdict, String(share)).toBe('will-not-index')
    }
  })
  test('an uneven ratio is a list along the travel', () => {
    const { pullMm, pitchMm } = trio('r14-10', 'r14-10', 'r14-10')
    const flat = fitOf({ pullMm, ratio: even(9, 3.95 / 2.8), pitchMm })
    expect(flat.windowTurns).toBeCloseTo(fitOf({ pullMm, ratio: 3.95 / 2.8, pitchMm }).windowTurns, 9)
    const uneven = fitOf({ pullMm, ratio: [1.34, 1.36, 1.4, 1.42, 1.44, 1.44, 1.42, 1.42, 1.42], pitchMm })
    expect(uneven.windowTurns).toBeLessThan(flat.windowTurns)
    expect(uneven.errorMm).toHaveLength(10)
  })
  test.each([
    ['pullMm', { pullMm: [], ratio: 1, pitchMm: [4] }],
    ['pullMm[1]', { pullMm: [3, 0], ratio: 1, pitchMm: [4, 4] }],
    ['pitchMm[0]', { pullMm: [3], ratio: 1, pitchMm: [-4] }],
    ['ratio', { pullMm: [3, 3], ratio: [1], pitchMm: [4, 4] }],
    ['ratio[0]', { pullMm: [3], ratio: [NaN], pitchMm: [4] }],
    ['pullRatio', { pullMm: [3], ratio: -1, pitchMm: [4] }],
  ])('refuses nonsense by name: %s', (name, bad) => {
    expect(() => fitOf(bad)).toThrow(name)
    expect(() => fitOf(bad)).toThrow(RangeError)
  })
})

describe('what would fix it', () => {
  const fixes = (s: string, d: string, c: string) => {
    const p = pick(s, d, c)
    return fixesFor(p.s, p.d, p.c, parts)
  }
  test('nothing for a trio that works', () => {
    expect(fixes('r14-10', 'r14-10', 'r14-10')).toEqual([])
  })
  test('every fix offered works, by the same judge', () => {
    for (const [s, d, c] of [
      ['r14-10', 'r17-10', 'r17-10'],
      ['r17-9', 'r17-9', 'r17-8'],
      ['r12-11', 'r14-11', 'r14-11'],
    ]) {
      const p = pick(s, d, c)
      const found = fixesFor(p.s, p.d, p.c, parts)
      expect(found.length).toBeGreaterThan(0)
      for (const f of found) {
        expect(f.fit.verdict).toBe('works')
        if (f.by === 'derailleur') expect(quickFit(trio(s, f.id, c)).verdict).toBe('works')
        if (f.by === 'cassette') expect(quickFit(trio(s, d, f.id)).verdict).toBe('works')
        if (f.by === 'shifter') expect(quickFit(trio(f.id, d, c)).verdict).toBe('works')
        if (f.by === 'pulley' || f.by === 'pinch-side')
          for (const factor of [f.factor.from, f.factor.to])
            expect(quickFit({ ...trio(s, d, c), ratio: (p.d.ratio as number) * factor }).verdict).toBe('works')
      }
    }
  })
  // from memory: the sides of a bolt change the ratio by 10 to 15 %; 1.9 and 1.7 differ by 12
  test('the other side of the pinch bolt parts the two old eight-speeds, a pulley too', () => {
    const found = fixes('r17-8', 'r19-8', 'r17-8')
    expect(found.find(f => f.by === 'pinch-side')).toBeDefined()
    expect(found.find(f => f.by === 'pulley')).toMatchObject({ factor: { from: expect.closeTo(0.88, 2) } })
    expect(fixes('r14-10', 'r17-10', 'r17-10').find(f => f.by === 'pinch-side')).toBeUndefined() // it would need 18 %
  })
})

describe('with two parts', () => {
  const two = (s: string | null, d: string | null, c: string | null) => {
    const p = (list: { id: string }[], id: string | null) => (id ? list.find(x => x.id === id)! : null)
    return thirdPart(
      p(parts.shifters, s) as never,
      p(parts.derailleurs, d) as never,
      p(parts.cassettes, c) as never,
      parts,
    )
  }
  test('the third is what makes pull × ratio the pitch (trade table, from memory)', () => {
    expect(two('r17-8', null, 'r17-8')).toMatchObject({ what: 'derailleur', needs: 'a pull ratio of 1.71' })
    expect(two('r14-10', 'r14-10', null)).toMatchObject({ what: 'cassette', needs: 'sprockets 3.95 mm apart' })
    expect(two(null, 'r11-9', 'r11-9')).toMatchObject({ what: 'shifter', needs: '4.00 mm of cable a click' })
    expect(two('r17-8', null, 'r17-8')!.fits.map(f => f.id)).toContain('r17-8')
    expect([two(null, null, 'r17-8'), two('r17-8', 'r17-8', 'r17-8')]).toEqual([null, null])
  })
  test('the reason of a verdict is said per click', () => {
    expect(sayPerClick(trio('r14-10', 'r17-10', 'r17-10'))).toContain('0.86 mm too much a click')
    expect(sayPerClick(trio('r14-10', 'r14-10', 'r14-10'))).toContain('nothing a click')
  })
})

test('parts of the same numbers share a row of the matrix', () => {
  const rows = alike(parts.shifters, p => p.pullMm)
  expect(rows.find(r => r.ids.includes('r14-10'))!.ids).toEqual(['r14-10', 'r15-10'])
  expect(rows.flatMap(r => r.ids)).toHaveLength(DRIVETRAIN_STANDARDS.length)
})

test('a lever with fewer clicks than sprockets never works without care, however wide its window', () => {
  const whole = { pullMm: new Array<number>(9).fill(2.8), ratio: 1.41, pitchMm: new Array<number>(9).fill(3.95) }
  expect(fitOf(whole).verdict).toBe('works')
  const short = { ...whole, pullMm: whole.pullMm.slice(2) }
  const fit = fitOf(short)
  expect([fit.verdict, quickFit(short).verdict]).toEqual(['care', 'care'])
  expect(fit.unreached).toBe(2)
  expect(sayFit(fit, String)).toBe('Works on the 8 smallest. No click reaches the largest 2: L holds the chain off.')
})
