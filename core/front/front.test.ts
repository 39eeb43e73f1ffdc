import { END_GAP_MM } from './endGaps'
import { Matrix } from 'ml-matrix'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { chainAngleDeg, chainAtCageMm, ringLines, sprocketLines } from './chainLine'
import type { RUB_MOVES, FrontSeen } from './moves'
import { FRONT_SEEN, FRONT_TURN_DOES, frontMove, frontMoves, onRing, possibleSeen, seenWords } from './moves'
import { FRONT_ELSEWHERE } from './elsewhere'
import { FRONT_STEPS } from './orders'
import { FrontParts, USUAL_FRONT } from './parts'
import type { FrontEvent, FrontSight } from './events'
import { atAGlance, ownAnswer } from './glance'
import { rubSeen, unguarded } from './looks'
import { END_GAPS, HEIGHTS } from '../procedure/schools'
import { gapChance } from './belief'
import { front } from './chapter'
import { FRONT_ORDERS } from '../procedure/frontOrders'
import { asksFigure, frontAfter, frontStepsDone, noFront, writtenMove } from './state'
import { screwTurn } from './words'
import { adviseFront } from './advise'
import { cageOffMm, clearMm, frontGeometry, type FrontBike } from './response'
import { cageClicks, frontTroubles, rubIsModelled, rubMap } from './rub'

const pitch = new Array<number>(9).fill(3.95)
const gaps = { innerMm: END_GAP_MM, outerMm: END_GAP_MM }

describe('chain lines', () => {
  test('rings and sprockets stand about their chain lines, smallest ring inboard, smallest sprocket outboard', () => {
    const rings = ringLines(USUAL_FRONT.triple)
    expect(rings).toEqual([39.5, 47.5, 55.5])
    const sprockets = sprocketLines(43.5, pitch)
    expect(sprockets).toHaveLength(10)
    expect((sprockets[0] + sprockets[9]) / 2).toBeCloseTo(43.5, 9)
    expect(sprockets[0] - sprockets[9]).toBeCloseTo(9 * 3.95, 9)
  })
  // Outside judge: the angle between two vectors by a general matrix library
  test('chain angle and place at the cage agree with vectors', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 35, max: 60, noNaN: true }),
        fc.double({ min: 20, max: 70, noNaN: true }),
        fc.double({ min: 380, max: 470, noNaN: true }),
        (ring, sprocket, stay) => {
          const chain = Matrix.columnVector([stay, sprocket - ring])
          const straight = Matrix.columnVector([1, 0])
          const cos = chain.dot(straight) / chain.norm()
          expect(Math.abs(chainAngleDeg(ring, sprocket, stay))).toBeCloseTo(
            (Math.acos(Math.min(1, cos)) * 180) / Math.PI,
            5,
          )
          const at = Matrix.add(Matrix.columnVector([0, ring]), Matrix.mul(chain, 70 / stay))
          expect(chainAtCageMm({ ...USUAL_FRONT.double, chainstayMm: stay }, ring, sprocket)).toBeCloseTo(
            at.get(1, 0),
            9,
          )
        },
      ),
      { numRuns: 60, seed: 3 },
    )
  })
  test.each([[0], [-400], [NaN]])('a chainstay of %f mm is refused', mm => {
    expect(() => chainAngleDeg(40, 45, mm)).toThrow(/chainstayMm/)
  })
})

describe('the rub map', () => {
  test('end pairs have the gaps they were set to, on the plate they were set by', () => {
    const map = rubMap(USUAL_FRONT.double, pitch, 5.9, gaps)
    expect(map[0][9].innerMm).toBeCloseTo(1, 9)
    expect(map[1][0].outerMm).toBeCloseTo(1, 9)
    expect(map).toHaveLength(2)
    expect(map[0]).toHaveLength(10)
  })
  test('what was clear is at most what the cage leaves over the chain', () => {
    for (const row of rubMap(USUAL_FRONT.double, pitch, 5.9, gaps))
      for (const p of row) expect(p.innerMm + p.outerMm).toBeCloseTo(12 - 5.9, 9)
  })
  test('crossed pairs are nearest to a plate: small ring with the smallest sprocket outward, big with the largest inward', () => {
    const map = rubMap({ ...USUAL_FRONT.double, trimMm: 0 }, pitch, 5.9, gaps)
    expect(map[0][0].outerMm).toBeLessThan(map[0][9].outerMm)
    expect(map[1][9].innerMm).toBeLessThan(map[1][0].innerMm)
    expect(Math.max(...map[0].map(p => p.angleDeg))).toBe(map[0][0].angleDeg)
  })
  test('a trim clears what rubs without it, and is named; a rotating cage has none', () => {
    const narrow: FrontParts = { ...USUAL_FRONT.double, cageWidthMm: 10 }
    const without = rubMap({ ...narrow, trimMm: 0 }, pitch, 5.9, gaps)
    const withTrim = rubMap({ ...narrow, trimMm: 1.5 }, pitch, 5.9, gaps)
    expect(without[0][0].rubs).toBe('outer')
    expect(withTrim[0][0].clearMm).toBeGreaterThan(without[0][0].clearMm)
    expect(withTrim[0][0].click).toBe('small, trimmed')
    expect(cageClicks({ ...narrow, cage: 'rotating', trimMm: 1.5 }, pitch, 5.9, gaps).map(c => c.name)).toEqual([
      'small',
      'big',
    ])
    expect(cageClicks(USUAL_FRONT.triple, pitch, 5.9, gaps).map(c => c.name)).toEqual(['small', 'middle', 'big'])
  })
  test('capacity, largest ring and pulls that do not go together are said in numbers', () => {
    expect(frontTroubles(USUAL_FRONT.double)).toEqual([])
    expect(frontTroubles({ ...USUAL_FRONT.double, capacityTeeth: 14 })).toEqual([
      expect.stringContaining('differ by 16 teeth'),
    ])
    expect(frontTroubles({ ...USUAL_FRONT.double, largestTeeth: 50 })).toEqual([])
    expect(frontTroubles({ ...USUAL_FRONT.double, largestTeeth: 46 })).toEqual([
      expect.stringContaining('for a 46 at most'),
    ])
    // about 6 to 12 mm from ring to ring by family, not interchangeable: memory
    expect(frontTroubles({ ...USUAL_FRONT.double, leverPullMm: 6, wantedPullMm: 9 })).toEqual([
      expect.stringMatching(/falls short of its ring by about 33 %/),
    ])
    expect(frontTroubles({ ...USUAL_FRONT.double, leverPullMm: 9.3, wantedPullMm: 9 })).toEqual([])
  })
  test('two pulls that were read lead the belief', () => {
    const setup = { parts: USUAL_FRONT.double, pitchMm: pitch, chainWidthMm: 5.9 }
    const log = [{ kind: 'frontShift', from: 0, to: 1, seen: 'no-climb' }] as const
    const short = adviseFront({ ...setup, parts: { ...setup.parts, leverPullMm: 6, wantedPullMm: 9 } }, log).causes.pull
    const fits = adviseFront({ ...setup, parts: { ...setup.parts, leverPullMm: 9, wantedPullMm: 9 } }, log).causes.pull
    expect(short).toBeGreaterThan(0.8)
    expect(fits).toBeLessThan(0.15)
  })
})

describe('moves of the written order (common practice, no source)', () => {
  test.each([
    ['no-climb', 0, 'barrel', 'out'],
    ['no-climb', 2, 'H', 'out'],
    ['no-drop', 0, 'barrel', 'in'],
    ['no-drop', 2, 'L', 'out'],
    ['falls-inboard', 0, 'L', 'in'],
    ['falls-outboard', 0, 'H', 'in'],
  ] as const)('%s, answered %i times: %s %s', (seen, answered, screw, way) => {
    for (const on of ['small', 'big'] as const) expect(frontMove(seen, answered, on)).toMatchObject({ screw, way })
  })
  // which ring it rubs on decides the screw
  test.each([
    ['rubs-outer', 'big', 0, 'barrel', 'out'],
    ['rubs-outer', 'big', 2, 'H', 'out'],
    ['rubs-inner', 'big', 0, 'barrel', 'in'],
    ['rubs-inner', 'small', 0, 'L', 'out'],
    ['rubs-inner', 'small', 1, 'barrel', 'in'],
  ] as const)('%s on the %s ring, answered %i times: %s %s', (seen, on, answered, screw, way) => {
    expect(frontMove(seen, answered, on)).toMatchObject({ screw, way })
  })
  test('each written move against a rub, applied to the geometry, takes the plate that rubs away from the chain', () => {
    const g = frontGeometry({ parts: USUAL_FRONT.triple, pitchMm: pitch, chainWidthMm: 5.9 })
    const sound: FrontBike = {
      slackMm: 0,
      stopLMm: 0,
      stopHMm: 0,
      backlashMm: 0.2,
      heightMm: 2,
      angleDeg: 0,
      stroke: 1,
      sharpness: 1,
      middleMm: 0,
    }
    const MM_PER_EIGHTH = 0.1
    // the cage stands 2 mm off, and the plate is near the chain or rubs: what holds it there, the cable or that end's
    // stop
    const rubbing: [FrontSeen & keyof typeof RUB_MOVES, number, string, Partial<FrontBike>][] = [
      ['rubs-inner', 0, 'stop', { stopLMm: 2 }],
      ['rubs-inner', 0, 'cable', { slackMm: 2 }],
      ['rubs-inner', 1, 'cable', { slackMm: 2, stopHMm: 4 }],
      ['rubs-inner', 2, 'cable', { slackMm: 2, stopHMm: 4 }],
      ['rubs-inner', 2, 'stop', { slackMm: 3, stopHMm: 2 }],
      ['rubs-outer', 0, 'stop', { slackMm: -3, stopLMm: -2 }],
      ['rubs-outer', 1, 'cable', { slackMm: -2, stopLMm: -4 }],
      ['rubs-outer', 2, 'cable', { slackMm: -2, stopLMm: -4 }],
      ['rubs-outer', 2, 'stop', { slackMm: 1, stopHMm: -2 }],
    ]
    for (const [seen, ring, holds, wrong] of rubbing) {
      const plate = seen === 'rubs-inner' ? 'inner' : 'outer'
      const where = `${seen} on ring ${ring}, held by the ${holds}`
      let bike: FrontBike = sound
      const clear = () => clearMm(g, bike, ring, g.judgedOn(ring), cageOffMm(g, bike, ring, ring > 0))[plate]
      const wellSet = clear()
      bike = { ...sound, ...wrong }
      const before = clear()
      expect(before, where).toBeLessThan(wellSet - 1)
      for (const m of frontMoves(seen, onRing(ring, 3))) {
        const by = MM_PER_EIGHTH * m.eighths
        const was = clear()
        if (m.screw === 'barrel') bike = { ...bike, slackMm: bike.slackMm + (m.way === 'out' ? by : -by) }
        if (m.screw === 'H') bike = { ...bike, stopHMm: bike.stopHMm + (m.way === 'out' ? by : -by) }
        if (m.screw === 'L') bike = { ...bike, stopLMm: bike.stopLMm + (m.way === 'in' ? by : -by) }
        // never the wrong way; a screw that does not hold the cage does nothing
        expect(clear(), `${where}: ${m.screw} ${m.way}`).toBeGreaterThanOrEqual(was - 1e-9)
      }
      expect(clear(), where).toBeGreaterThan(before)
    }
  })
  test('a list used up sends elsewhere, and clean asks for nothing', () => {
    for (const seen of FRONT_SEEN) {
      if (seen === 'clean') {
        expect(frontMove(seen, 0, 'big')).toBeNull()
        continue
      }
      for (const on of ['small', 'middle', 'big'] as const) {
        const moves = frontMoves(seen, on)
        expect(frontMove(seen, moves.length, on)).toBeNull()
        for (const m of moves) expect(FRONT_TURN_DOES[m.screw][m.way]).toBeTruthy()
      }
      expect(FRONT_ELSEWHERE[seen].length).toBeGreaterThan(20)
    }
  })
  test('winding in takes travel away: H in inboard, L in outboard; barrel out is tighter and outboard', () => {
    expect(FRONT_TURN_DOES.H.in).toContain('inboard')
    expect(FRONT_TURN_DOES.L.in).toContain('outboard')
    expect(FRONT_TURN_DOES.barrel.out).toMatch(/tighter.*outboard/)
  })
  test('the orders: conventional sets L before tension and does all again; rotating clamps with the lever on the big ring', () => {
    expect(FRONT_STEPS.conventional.map(s => s.id)).toEqual(['height', 'L', 'tension', 'H', 'again'])
    expect(FRONT_STEPS.rotating.map(s => s.id)).toEqual(['height', 'marks', 'H', 'clamp', 'drop', 'pairs'])
    expect(FRONT_STEPS.rotating.find(s => s.id === 'clamp')!.how).toContain('Lever clicked to the big ring')
  })
})

test.each([
  ['rings that cross', { rings: [50, 34] }, 'Rings cross'],
  ['one ring', { rings: [42], spacingMm: [] }, 'at least 2 rings'],
  ['a chainstay of 0', { chainstayMm: 0 }, 'Chainstay, mm: from 250'],
  ['spacings of another number', { spacingMm: [8, 8] }, '2 rings have 1 gaps'],
])('refuses %s', (_, change, words) => {
  const read = FrontParts.safeParse({ ...USUAL_FRONT.double, ...change })
  expect(read.success).toBe(false)
  expect(read.error?.issues.map(i => i.message).join()).toContain(words)
})

describe('the front after its entries', () => {
  const after = (...events: FrontEvent[]) => events.reduce(frontAfter, noFront)
  const seen = (what: FrontSeen): FrontEvent => ({ kind: 'frontShift', from: 0, to: 1, seen: what })

  test('the written moves follow each other until it is clean', () => {
    expect(writtenMove(after(seen('no-climb')))).toMatchObject({ screw: 'barrel', way: 'out' })
    const twice = after(
      seen('no-climb'),
      { kind: 'frontTurn', screw: 'barrel', sixteenths: 8 },
      seen('no-climb'),
      { kind: 'frontTurn', screw: 'barrel', sixteenths: 8 },
      seen('no-climb'),
    )
    expect(writtenMove(twice)).toMatchObject({ screw: 'H', way: 'out' })
    expect(twice.net).toEqual({ barrel: 16, H: 0, L: 0 })
    const done = frontAfter(frontAfter(twice, { kind: 'frontTurn', screw: 'H', sixteenths: -4 }), seen('no-climb'))
    expect(writtenMove(done)).toBeNull() // the list is used up: look elsewhere
    expect(done.open).toEqual({ seen: 'no-climb', on: 'big', answered: 3 })
    expect(writtenMove(frontAfter(twice, seen('clean')))).toBeNull()
  })

  test('another fault starts its own list; a turn that was not the move does not count', () => {
    expect(
      writtenMove(after(seen('no-climb'), { kind: 'frontTurn', screw: 'L', sixteenths: 2 }, seen('no-climb'))),
    ).toMatchObject({ screw: 'barrel' })
    expect(writtenMove(after(seen('no-climb'), seen('falls-outboard')))).toMatchObject({ screw: 'H', way: 'in' })
  })

  test('what a stop leaves by itself is kept apart from how the cage stands, and lost when it is turned', () => {
    const seen = after(
      { kind: 'frontGap', plate: 'inner', gapMm: 1, byStop: true },
      { kind: 'frontGap', plate: 'outer', gapMm: 2.5, byStop: true },
    )
    expect(seen.byStop).toEqual({ inner: 1, outer: 2.5 })
    expect(seen.gaps.measured).toEqual({ inner: false, outer: false })
    expect(frontAfter(seen, { kind: 'frontTurn', screw: 'L', sixteenths: 2 }).byStop).toEqual({
      inner: null,
      outer: 2.5,
    })
    for (const what of ['position', 'stops'] as const)
      expect(frontAfter(seen, { kind: 'frontSet', what }).byStop).toEqual({ inner: null, outer: null })
    expect(frontAfter(seen, { kind: 'frontSet', what: 'clamp' }).byStop).toEqual(seen.byStop)
  })

  test('past a middle ring only the cable is answered, and it is said so', () => {
    expect(seenWords('falls-outboard', 'middle')).toBe('Past the middle, to the big')
    expect(frontMove('falls-outboard', 0, 'middle')).toMatchObject({ screw: 'barrel', way: 'in' })
    expect(frontMove('falls-inboard', 0, 'middle')).toMatchObject({ screw: 'barrel', way: 'out' })
    expect(seenWords('falls-outboard', 'big')).toBe('Falls off outboard')
    expect(possibleSeen(0, 1)).not.toContain('late-drop')
    expect(possibleSeen(1, 0)).not.toContain('late-climb')
  })

  test('H turned asks for L again, and a look at the inner gap answers it', () => {
    const turned = after({ kind: 'frontTurn', screw: 'H', sixteenths: 2 })
    expect(turned.lookAgain).toBe(true)
    expect(frontAfter(turned, { kind: 'frontGap', plate: 'inner', gapMm: 1 }).lookAgain).toBe(false)
  })

  test('a cage set anew is looked at anew; a clamp restarts the barrel only', () => {
    const before: FrontEvent[] = [
      { kind: 'frontPosition', heightMm: 5, angleDeg: null },
      { kind: 'frontPosition', heightMm: null, angleDeg: 2 },
      { kind: 'frontTurn', screw: 'barrel', sixteenths: 6 },
      { kind: 'frontTurn', screw: 'H', sixteenths: 2 },
    ]
    expect(after(...before).position).toEqual({ heightMm: 5, angleDeg: 2, byEye: false })
    expect(after(...before, { kind: 'frontSet', what: 'clamp' })).toMatchObject({
      position: { heightMm: 5, angleDeg: 2 },
      net: { barrel: 0, H: 2, L: 0 },
    })
    expect(after(...before, { kind: 'frontSet', what: 'position' }).position).toEqual({
      heightMm: null,
      angleDeg: null,
      byEye: false,
    })
  })
})

test('a step that asks a figure is done by its figure, and open again once that is lost; the others are ticked', () => {
  const after = (...events: FrontEvent[]) => events.reduce(frontAfter, noFront)
  const entries: FrontEvent[] = [
    { kind: 'frontPosition', heightMm: 2, angleDeg: null },
    { kind: 'frontGap', plate: 'inner', gapMm: 1, byStop: true },
    { kind: 'frontStep', order: 'conventional', step: 'tension' },
  ]
  expect(frontStepsDone(after(...entries), 'conventional')).toEqual(['height', 'L', 'tension'])
  expect(frontStepsDone(after(...entries, { kind: 'frontTurn', screw: 'L', sixteenths: 2 }), 'conventional')).toEqual([
    'height',
    'tension',
  ])
  for (const order of FRONT_ORDERS)
    for (const { id } of FRONT_STEPS[order]) expect(asksFigure(id)).toBe(['height', 'L', 'H'].includes(id))
})

test('a turn of the tension is called and turned as this bike has it: a screw on the derailleur the other way round', () => {
  const more = { screw: 'barrel', sixteenths: 8 } as const
  expect(screwTurn(more, USUAL_FRONT.double)).toEqual({ name: 'Barrel', way: 'out' })
  expect(screwTurn(more, { ...USUAL_FRONT.double, tensionBy: 'inline adjuster' }).way).toBe('out')
  expect(screwTurn(more, { ...USUAL_FRONT.double, tensionBy: 'tension screw' })).toEqual({
    name: 'Tension screw',
    way: 'in',
  })
  expect(screwTurn({ screw: 'L', sixteenths: 4 }, { ...USUAL_FRONT.double, tensionBy: 'tension screw' }).way).toBe('in')
})

test('a gap no cage can show is refused with what to do; the rub of a rotating cage is not modelled', () => {
  const refused = (gapMm: number, byStop?: true) =>
    front.gates.refuses({ kind: 'frontGap', plate: 'inner', gapMm, ...(byStop ? { byStop } : {}) }, {
      front: { ...noFront, parts: USUAL_FRONT.double },
    } as never)
  expect(refused(-3)?.message).toContain('0 if it touches')
  expect(refused(18)?.message).toContain('room for 7.0 mm')
  expect(refused(1)).toBeNull()
  expect(refused(8, true)).toBeNull()
  expect(rubIsModelled(USUAL_FRONT.double)).toBe(true)
  expect(rubIsModelled({ cage: 'rotating' })).toBe(false)
})

test('what was judged at a glance is said so, reads wider, and is kept for no other bike', () => {
  const glance: FrontEvent = { kind: 'frontPosition', heightMm: 1.5, angleDeg: 0, byEye: true }
  const read: FrontEvent = { kind: 'frontPosition', heightMm: 1.5, angleDeg: 0 }
  const stands = (e: FrontEvent) => ({ front: frontAfter({ ...noFront, parts: USUAL_FRONT.double }, e) }) as never
  const kept = (e: FrontEvent) => front.records!.figures(stands(e), false).map(f => f.figure)
  expect(kept(read)).toContain('front-height')
  expect(kept(glance)).not.toContain('front-height')
  expect(front.say(glance, [])).toContain('about 1.5 mm')
  expect(front.say(read, [])).not.toContain('about')
  expect(gapChance(2, 1, true)).toBeGreaterThan(gapChance(2, 1))
  const typed = (more: object) =>
    front.records!.typed!({ kind: 'frontGap', plate: 'inner', gapMm: 1, ...more } as never, stands(read))
  expect(typed({})).toMatchObject([{ figure: 'front-inner', value: 1 }])
  expect([typed({ byStop: true }), typed({ byEye: true })]).toEqual([[], []])
})

test('a pair as it was seen counts until something is turned; an end the chain was thrown over is open until its stop was seen', () => {
  const rub: FrontSight = { kind: 'frontRub', ring: 0, sprocket: 2, plate: 'outer' }
  const turn: FrontSight = { kind: 'frontTurn', screw: 'barrel', sixteenths: 2 }
  expect(rubSeen([rub], 0, 2)).toBe('outer')
  expect(rubSeen([rub, { ...rub, plate: null }], 0, 2)).toBeNull()
  expect(rubSeen([rub], 1, 2)).toBeUndefined()
  expect(rubSeen([rub, turn], 0, 2)).toBeUndefined()
  const seen: FrontSight = { kind: 'frontGap', plate: 'inner', gapMm: 1, byStop: true }
  expect(unguarded([], ['inboard', 'outboard'])).toEqual(['inboard', 'outboard'])
  expect(unguarded([seen], ['inboard', 'outboard'])).toEqual(['outboard'])
  expect(unguarded([seen, { ...turn, screw: 'L' }], ['inboard'])).toEqual(['inboard'])
  expect(unguarded([{ ...seen, byStop: undefined }], ['inboard'])).toEqual(['inboard'])
})

test('what looks right at a glance is one touch by the schools, and asked only where a glance will do', () => {
  const [height, endGap] = [HEIGHTS[1]!, END_GAPS[1]!]
  expect(atAGlance({ do: 'position' }, { height, endGap }, true)).toEqual({
    words: 'Both right: about 3 mm, in line',
    entries: [{ kind: 'frontPosition', heightMm: 2.75, angleDeg: 0, byEye: true }],
  })
  const stop = { do: 'gap', plate: 'inner', byStop: true } as const
  expect(atAGlance(stop, { height, endGap }, true)?.entries).toEqual(
    (['inner', 'outer'] as const).map(plate => ({ kind: 'frontGap', plate, gapMm: 0.25, byStop: true, byEye: true })),
  )
  expect(atAGlance(stop, { height, endGap }, false)).toBeNull()
  expect(atAGlance({ do: 'gap', plate: 'inner' }, { height, endGap }, true)).toBeNull()
  expect(atAGlance({ do: 'turn', screw: 'L', sixteenths: 2 }, { height, endGap }, true)).toBeNull()
})

test('what a move answers of itself: turned, set, there and back all clean; one way alone has its own keys', () => {
  const on = (ring: number) => 10 - ring
  const round = [
    { kind: 'frontShift', from: 0, to: 1, sprocket: 9, seen: 'clean' },
    { kind: 'frontShift', from: 1, to: 0, sprocket: 10, seen: 'clean' },
  ]
  const shift = { do: 'shift', from: 0, to: 1, sprocket: 9, back: true } as const
  expect(ownAnswer(shift, on)).toEqual(round)
  expect(ownAnswer({ ...shift, times: 2 }, on)).toEqual([...round, ...round])
  expect(ownAnswer({ do: 'turn', screw: 'H', sixteenths: -6 }, on)).toEqual([
    { kind: 'frontTurn', screw: 'H', sixteenths: -6 },
  ])
  expect(ownAnswer({ do: 'set', what: 'clamp' }, on)).toEqual([{ kind: 'frontSet', what: 'clamp' }])
  for (const move of [
    { do: 'shift', from: 0, to: 1, sprocket: 9 },
    { do: 'gap', plate: 'inner' },
    { do: 'position' },
    { do: 'undone' },
    { do: 'done' },
  ] as const)
    expect(ownAnswer(move, on), move.do).toBeNull()
})
