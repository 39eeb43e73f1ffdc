import { Matrix, SingularValueDecomposition, solve as solveMatrix } from 'ml-matrix'
import { describe, expect, test } from 'vitest'
import { cameraBehind, asked, partsAsTheyLook, pictureBehind, sightBike, weatherOf } from '../bench/sightBench'
import { askBeside, gapBeside } from '../bench/sideBench'
import { scoreLead } from '../bench/leadScore'
import { standInLook } from '../bench/standInCamera'
import { scoreBehind, scoreRod, scoreSide } from '../bench/sightScore'
import { render, toothedEndsOf, type Disc } from '../bench/render'
import { radians } from '../quantity/angle'
import { LedgerEvent } from '../ledger/events'
import { randomFrom } from '../quantity/random'
import { tipDiameterMm } from '../standards/sprockets'
import { alongPulley, alongRim } from './alongRim'
import { lookAlong, minus, seen, usualLens, type Pixel, type Place, type Pose } from './camera'
import { findEnd, findNear, findStep, type Look, type Patch } from './edges'
import { measureFromBehind, type Behind, type BehindPicture } from './fromBehind'
import { measureFromSide } from './fromSide'
import { besidePlaces, sayOblique, sayWideGap } from './measures'
import { MEASURE_WORDS, type MeasureId } from './page'
import { measureBeside, RULERS } from './planar'
import { gapsShown, lead, type Led } from './plane'
import { scatterOf } from './onOneRound'
import { proposalsOf } from './propose'
import { edgeBeside, endsOf, nearestOf, onRim, outwardOf, type Rim } from './rim'
import { figureOf, solve } from './solve'
import { findTooth, teethFinder, tipsBlurPx } from './tipsBeside'
import { entryOf, sayMeasured, tell } from './tell'
import { barsOf, isBlurred, towards, type Touch } from './touch'

const lens = usualLens(4000, 3000)
const pose: Pose = { atMm: [60, 40, -620], yaw: 0.07, pitch: -0.11, roll: 0.04 }
const exact = (at: Pixel): Touch => ({ at, sdPx: 0.5 })
type Ends = { upper: Pixel; lower: Pixel }

/** A bike as it is drawn, its cassette not black: less is found on one. */
const lightOf = (seed: number) => ({ ...partsAsTheyLook(seed), cassette: null })

describe('the camera', () => {
  // the direct linear transform: Hartley and Zisserman, Multiple View Geometry, algorithm 4.1; SVD by ml-matrix
  test('sees a plane as a projective map: four of its points tell where every other lies', () => {
    const on = (y: number, z: number): Place => [20, y, z]
    const four: [number, number][] = [
      [-80, -60],
      [90, -50],
      [70, 85],
      [-60, 75],
    ]
    const rows = four.flatMap(([y, z]) => {
      const [u, v] = seen(lens, pose, on(y, z))
      return [
        [-y, -z, -1, 0, 0, 0, u * y, u * z, u],
        [0, 0, 0, -y, -z, -1, v * y, v * z, v],
      ]
    })
    const svd = new SingularValueDecomposition(new Matrix([...rows, new Array<number>(9).fill(0)]))
    const h = svd.rightSingularVectors.getColumn(8)
    for (const [y, z] of [
      [0, 0],
      [33, -12],
      [-71, 40],
    ] as const) {
      const w = h[6]! * y + h[7]! * z + h[8]!
      const [u, v] = seen(lens, pose, on(y, z))
      expect(u).toBeCloseTo((h[0]! * y + h[1]! * z + h[2]!) / w, 4)
      expect(v).toBeCloseTo((h[3]! * y + h[4]! * z + h[5]!) / w, 4)
    }
  })
  test('looks back along the line that it saw a place on, bent lens or not', () => {
    const bent = { ...lens, bend: -0.05 }
    const place: Place = [31, -88, 12]
    const along = lookAlong(bent, pose, seen(bent, pose, place))
    const from = minus(place, pose.atMm)
    for (const i of [0, 1]) expect(along[i]! / along[2]!).toBeCloseTo(from[i]! / from[2]!, 6)
  })
  test('seen from behind inboard lies to the left, up is up, nearer is larger', () => {
    const still: Pose = { atMm: [0, 0, -600], yaw: 0, pitch: 0, roll: 0 }
    expect(seen(lens, still, [10, 0, 0])[0]).toBeLessThan(lens.middle[0])
    expect(seen(lens, still, [0, 10, 0])[1]).toBeLessThan(lens.middle[1])
    const off = (z: number) => lens.middle[0] - seen(lens, still, [10, 0, z])[0]
    expect(off(-100)).toBeGreaterThan(off(0))
  })
})

describe('a rim', () => {
  const rim: Rim = { middle: [30, -5, 4], radiusMm: 70, camber: 0.03, toe: -0.02 }
  test('ends where none of a thousand of its places goes farther', () => {
    const { upper, lower } = endsOf(lens, pose, rim)
    const dir = [Math.sin(-pose.roll), -Math.cos(pose.roll)]
    const all = Array.from({ length: 1000 }, (_, i) => seen(lens, pose, onRim(rim, (i * Math.PI) / 500)))
    const far = (p: Pixel, s: number) => s * (p[0] * dir[0]! + p[1] * dir[1]!)
    const most = (s: number) => Math.max(...all.map(p => far(p, s)))
    // the rim's own upright leans a little from the picture's
    expect(Math.abs(most(1) - far(upper, 1))).toBeLessThan(0.3)
    expect(Math.abs(most(-1) - far(lower, -1))).toBeLessThan(0.3)
  })
  test('is nearest where no other place of it is nearer', () => {
    const off = (p: Place) => Math.hypot(...minus(p, pose.atMm))
    const nearest = off(nearestOf(pose, rim))
    for (let i = 0; i < 360; i++) expect(off(onRim(rim, (i * Math.PI) / 180))).toBeGreaterThan(nearest - 0.05)
  })
})

test('least squares agree with a matrix library where all is straight', () => {
  const rows = [
    [1, 2],
    [3, -1],
    [0.5, 0.7],
  ]
  const seenAs = [4, 1, 2]
  const { at, covariance } = solve(
    [
      { mean: 0, sd: 1000 },
      { mean: 0, sd: 1000 },
    ],
    x => rows.map((r, i) => r[0]! * x[0]! + r[1]! * x[1]! - seenAs[i]!),
  )
  const m = new Matrix(rows)
  const usual = solveMatrix(m, Matrix.columnVector(seenAs))
  expect(at[0]).toBeCloseTo(usual.get(0, 0), 4)
  expect(at[1]).toBeCloseTo(usual.get(1, 0), 4)
  const normal = solveMatrix(m.transpose().mmul(m), Matrix.eye(2))
  expect(covariance.get(0, 1)).toBeCloseTo(normal.get(0, 1), 4)
  expect(figureOf({ at, covariance, misfit: 0, figures: 3 }, x => 2 * x[0]!).sd).toBeCloseTo(
    2 * Math.sqrt(normal.get(0, 0)),
    3,
  )
})

/** A bike and a camera as the measuring thinks them, touched exactly. */
function touched(
  views: readonly { viewDeg: number; far?: number }[],
  truth: { offsetMm: number; leanDeg?: number },
): Behind {
  const radiusMm = tipDiameterMm(34) / 2 - 0.15
  // a tooth seldom stands just at the end of their round: on the average what is seen ends 0.09 mm within it
  const pulleyMm = tipDiameterMm(11) / 2 - 0.15 - 0.09
  const sprocket: Rim = { middle: [38, 0, 0], radiusMm, camber: 0, toe: 0 }
  const pulley: Rim = {
    middle: [16 + truth.offsetMm, -104, 12],
    radiusMm: pulleyMm,
    camber: radians(truth.leanDeg ?? 0),
    toe: 0,
  }
  return {
    sprocket: { teeth: 34, placeMm: 38 },
    pulleyTeeth: 11,
    planeMm: 16,
    pictures: views.map(({ viewDeg, far = 600 }) => {
      const a = radians(viewDeg)
      const from: Pose = { atMm: [38 - far * Math.tan(a), 30, -far], yaw: -a, pitch: -0.1, roll: 0.02 }
      const s = endsOf(lens, from, sprocket)
      const p = endsOf(lens, from, pulley)
      return {
        lens,
        sprocket: {
          upper: exact(s.upper),
          lower: exact(s.lower),
          near: exact(seen(lens, from, nearestOf(from, sprocket))),
        },
        pulley: { upper: exact(p.upper), lower: exact(p.lower) },
      }
    }),
  }
}

describe('from behind', () => {
  test('in the plane the offset comes back, and the lean', () => {
    for (const offsetMm of [-1.8, 0, 0.6]) {
      const told = measureFromBehind(touched([{ viewDeg: 0.4 }], { offsetMm, leanDeg: 2 }))
      if (told.is !== 'told') throw new Error(told.why)
      expect(Math.abs(told.offsetMm.mean - offsetMm)).toBeLessThan(0.08)
      expect(told.offsetMm.sd).toBeLessThan(0.3)
      expect(Math.abs(told.leanDeg.mean - 2)).toBeLessThan(0.3)
      expect(told.viewDeg[0]!.mean).toBeCloseTo(0.4, 1)
    }
  })
  test('one at 15° says that it would not tell, and from which side it was taken; two from both sides tell', () => {
    const one = measureFromBehind(touched([{ viewDeg: 15 }], { offsetMm: 1 }))
    expect(one).toMatchObject({ is: 'unusable', why: 'oblique' })
    if (one.is !== 'unusable' || one.why !== 'oblique') throw new Error('told')
    expect(one.told.viewDeg[0]!.mean).toBeCloseTo(15, 0)
    expect(one.told.offsetMm.sd).toBeGreaterThan(1)
    const two = measureFromBehind(touched([{ viewDeg: 9 }, { viewDeg: -10 }], { offsetMm: 1 }))
    expect(two).toMatchObject({ is: 'told' })
    if (two.is === 'told') expect(Math.abs(two.offsetMm.mean - 1)).toBeLessThan(0.25)
  })
  test('a depth of 50 mm seen from 15° looks like 13 mm aside: 50 · tan 15°', () => {
    const from: Pose = { atMm: [0, 0, -10_000], yaw: 0, pitch: 0, roll: 0 }
    const turned: Pose = { ...from, atMm: [-10_000 * Math.tan(radians(15)), 0, -10_000], yaw: radians(-15) }
    const apart = (p: Pose) => seen(lens, p, [0, 0, 50])[0] - seen(lens, p, [0, 0, 0])[0]
    const perMm = (seen(lens, turned, [-1, 0, 0])[0] - seen(lens, turned, [0, 0, 0])[0]) / Math.cos(radians(15))
    expect(Math.abs(apart(from))).toBeLessThan(0.01)
    expect(Math.abs(apart(turned) / perMm)).toBeCloseTo(13, 0)
  })
  test('a sprocket that is too small and touches that are not of one bike are refused', () => {
    expect(measureFromBehind(touched([{ viewDeg: 0, far: 3000 }], { offsetMm: 0 }))).toMatchObject({ why: 'small' })
    const wrong = touched([{ viewDeg: 0 }], { offsetMm: 0 })
    const [picture] = wrong.pictures
    const lower: Touch = { at: [picture!.pulley.lower.at[0], picture!.pulley.lower.at[1] + 160], sdPx: 0.5 }
    const apart = measureFromBehind({ ...wrong, pictures: [{ ...picture!, pulley: { ...picture!.pulley, lower } }] })
    expect(apart).toMatchObject({ is: 'unusable', why: 'apart' })
    expect(() => measureFromBehind({ ...wrong, pictures: [] })).toThrow(RangeError)
  })
})

describe('from the side', () => {
  const sprocket: Rim = { middle: [20, 0, 0], radiusMm: tipDiameterMm(24) / 2 - 0.15, camber: 0, toe: 0 }
  const pulley: Rim = { middle: [20, -80, 8], radiusMm: tipDiameterMm(11) / 2 - 0.15, camber: 0, toe: 0 }
  const from: Pose = { atMm: [-480, -30, 10], yaw: -Math.PI / 2, pitch: 0, roll: 0.03 }
  const tip = (rim: Rim, angle: number, pose = from) => exact(seen(lens, pose, onRim(rim, angle)))
  const tooth = (of: number, k: number) => 0.2 + (2 * Math.PI * k) / of
  const touchedFrom = (pose: Pose, pulleyTeeth: number | null = 11) =>
    measureFromSide({
      lens,
      sprocket: { teeth: 24, placeMm: 20 },
      pulleyTeeth,
      tips: [11, 19, 3].map(k => tip(sprocket, tooth(24, k), pose)),
      pulleyTips: [0, 4, 7].map(k => tip(pulley, tooth(11, k), pose)),
    })
  const gapMm = Math.hypot(80, 8) - sprocket.radiusMm - pulley.radiusMm
  test('the gap comes back from three tips and three', () => {
    const told = touchedFrom(from)
    if (told.is !== 'told') throw new Error(told.why)
    expect(told.gapMm.mean).toBeCloseTo(gapMm, 1)
    expect(told.gapMm.sd).toBeLessThan(0.35)
  })
  test('teeth stand evenly: from 6° aside they tell from where it was taken', () => {
    const aside: Pose = { ...from, atMm: [-480, -30, 60], yaw: from.yaw + 0.1, pitch: -0.06 }
    const [counted, not] = [touchedFrom(aside), touchedFrom(aside, null)]
    if (counted.is !== 'told' || not.is !== 'told') throw new Error('refused')
    expect(Math.abs(counted.gapMm.mean - gapMm)).toBeLessThan(0.25)
    // the camera stands 50 mm before the middle that it is 500 mm from, and above the gap
    expect(counted.from.beforeDeg).toBeGreaterThan(4)
    expect(counted.from.aboveDeg).toBeGreaterThan(1)
    expect(counted.gapMm.sd).toBeLessThan(not.gapMm.sd)
  })
  test('a pulley counted wrongly, or a place between two teeth, is refused', () => {
    expect(touchedFrom(from, 13)).toMatchObject({ why: 'apart' })
    const between = measureFromSide({
      lens,
      sprocket: { teeth: 24, placeMm: 20 },
      pulleyTeeth: null,
      tips: [tooth(24, 11), tooth(24, 19.5), tooth(24, 3)].map(a => tip(sprocket, a)),
      pulleyTips: [0.4, 2.2].map(a => tip(pulley, a)),
    })
    expect(between).toMatchObject({ why: 'apart' })
  })
  test('tips that lie together and tips that are no circle of that size are refused', () => {
    const ask = {
      lens,
      sprocket: { teeth: 24, placeMm: 20 },
      pulleyTeeth: 11,
      pulleyTips: [0.4, 2.2].map(a => tip(pulley, a)),
    }
    const together = measureFromSide({ ...ask, tips: [0.2, 0.3, 0.4].map(a => tip(sprocket, a)) })
    expect(together).toMatchObject({ why: 'together' })
    const wide: Rim = { ...sprocket, radiusMm: 90 }
    const apart = measureFromSide({
      ...ask,
      tips: [tip(sprocket, 0), tip(sprocket, 2), tip(wide, 4), tip(sprocket, 5)],
    })
    expect(apart).toMatchObject({ why: 'apart' })
    expect(() => measureFromSide({ ...ask, tips: [] })).toThrow(/three/)
  })
})

test('a length beside a ruler, and what makes it less sure', () => {
  const at = (x: number, y: number) => ({ at: [x, y] as Pixel, sdPx: 1 })
  const ruler = { from: at(0, 0), to: at(200, 0), ...RULERS.chain }
  const length = { from: at(0, 50), to: at(100, 50) }
  const flat = measureBeside({ ruler, length, deeperMm: 0 })
  const deep = measureBeside({ ruler, length, deeperMm: 20 })
  const across = measureBeside({ ruler, length: { from: at(0, 0), to: at(0, 100) }, deeperMm: 0 })
  if (flat.is !== 'told' || deep.is !== 'told' || across.is !== 'told') throw new Error('refused')
  expect(flat.mean).toBeCloseTo(12.7, 6)
  expect(deep.sd).toBeGreaterThan(flat.sd)
  expect(across.sd).toBeGreaterThan(flat.sd)
  expect(measureBeside({ ruler: { ...ruler, to: at(20, 0) }, length, deeperMm: 0 })).toMatchObject({ why: 'small' })
})

describe('what touched pictures tell', () => {
  const { pictures } = touched([{ viewDeg: 0.3 }], { offsetMm: 0.7 })
  const size = { widthPx: 4000, heightPx: 3000 }
  const placed = ({ sprocket: { upper, lower, near }, pulley: p }: Behind['pictures'][number]) => ({
    ...size,
    touched: { upper, lower, near, pulleyUpper: p.upper, pulleyLower: p.lower },
  })
  const all = pictures.map(placed)
  const bike = { teeth: [11, 21, 34], placeMm: [0, 16, 38], click: 1, pulleyTeeth: 11 }
  test('the offset in gear, as it is written and said; L is told from the largest’s plane', () => {
    const told = tell({ ...bike, what: 'offset', pictures: all })
    if (told.is !== 'told') throw new Error(told.words)
    expect(entryOf('offset', 1, told)).toMatchObject({ kind: 'offset', click: 1, offsetMm: 0.7 })
    expect(sayMeasured('offset', told).mm).toBe('0.7 mm inboard')
    // the pulley is 22 mm away from L's plane: not pushed to it, so not of this question
    expect(tell({ ...bike, what: 'L', pictures: all })).toMatchObject({ is: 'unusable' })
  })
  test('from far to the side it is wide, with where to take the next from; a figure about 0 has no side', () => {
    const far = touched([{ viewDeg: -16 }], { offsetMm: 0 }).pictures.map(placed)
    expect(tell({ ...bike, what: 'offset', pictures: far })).toMatchObject({
      is: 'wide',
      words: expect.stringContaining('to the frame’s side') as string,
    })
    expect(sayMeasured('H', { figure: { mean: -0.02, sd: 0.2 } })).toEqual({ mm: '0.0 mm', off: '0.4' })
  })
  test('every figure is an entry of its bench that the ledger takes; two lengths are only kept', () => {
    const told = { is: 'told' as const, figure: { mean: 2.34, sd: 0.12 }, behind: null }
    const written = (Object.keys(MEASURE_WORDS) as MeasureId[]).map(what => [what, entryOf(what, 1, told)] as const)
    expect(written.flatMap(([what, e]) => (e ? [] : [what]))).toEqual(['frontPads', 'rearPads', 'yoke', 'tail'])
    for (const [, e] of written) if (e) LedgerEvent.parse(e)
    expect(entryOf('rod', 0, told, -1)).toEqual({ kind: 'hubRead', mm: -2.3 })
    expect(entryOf('innerStop', 0, told)).toEqual({ kind: 'frontGap', plate: 'inner', gapMm: 2.3, byStop: true })
    expect(entryOf('plate', 0, told)).toEqual({ kind: 'frontPosition', heightMm: 2.3, angleDeg: null })
  })
  test('both pads beside their rim: which is nearer does not hang on how wide the rim is', () => {
    const at = (x: number): Touch => ({ at: [x, 10], sdPx: 1.2 })
    const pads = (l: number, r: number, per = 20) =>
      tell({
        ...bike,
        what: 'frontPads',
        pictures: [
          {
            ...size,
            touched: {
              leftPad: at(0),
              leftRim: at(l * per),
              rightRim: at((l + 20) * per),
              rightPad: at((l + 20 + r) * per),
            },
          },
        ],
      })
    const nearer = (t: ReturnType<typeof pads>) => (t.is === 'told' ? t.pads?.nearer : t.words)
    expect(nearer(pads(1, 2))).toBe('left')
    expect(nearer(pads(2, 1.2))).toBe('right')
    expect(nearer(pads(1.5, 1.6))).toBe('even')
    const told = pads(1, 2)
    if (told.is !== 'told') throw new Error(told.words)
    expect(entryOf('frontPads', 0, told)).toEqual({ kind: 'brakeNearer', brake: 'front', nearer: 'left' })
    expect(sayMeasured('frontPads', told).mm).toBe('left 1.0, right 2.0 mm')
    // so small in the picture that a touch is more than what is even
    expect(pads(1, 2, 4)).toMatchObject({ is: 'unusable' })
    expect(pads(1, 2, 2)).toMatchObject({ is: 'unusable' })
  })
  test('a gap told too widely says what would make it closer: the pulley’s teeth, a camera held square, a nearer picture', () => {
    const square = { aboveDeg: 3, beforeDeg: -2 }
    const said = [
      sayWideGap(0.9, false, { aboveDeg: 20, beforeDeg: 0 }),
      sayWideGap(0.9, true, square),
      sayWideGap(0.9, true, { aboveDeg: -14, beforeDeg: 3 }),
      sayWideGap(0.9, true, { aboveDeg: 2, beforeDeg: 12 }),
    ]
    expect(said.map(w => /± 1.8 mm.*(teeth|nearer|14° from below|12° from in front)/.exec(w)?.[1])).toEqual([
      'teeth',
      'nearer',
      '14° from below',
      '12° from in front',
    ])
  })
  test('a picture is blurred where more than half of its ends are, not for one', () => {
    expect([isBlurred([9]), isBlurred([9, 1, 1]), isBlurred([9, 9, 1])]).toEqual([false, false, true])
    // none of its ends stood out at all
    expect([isBlurred([null, null, null, 1]), isBlurred([null, null, null, null])]).toEqual([false, true])
  })
})

describe('a step across a length', () => {
  /** Dark to the left of `edge`, bright to its right, softly; a faint line before it. */
  const patch = (edge: number): Patch => {
    const data = new Uint8Array(61 * 61)
    for (let i = 0; i < data.length; i++) {
      const x = i % 61
      data[i] = 60 + 100 / (1 + Math.exp(-(x - edge) / 0.8)) + (Math.abs(x - edge + 9) < 1 ? 12 : 0)
    }
    return { width: 61, height: 61, data, left: 1_000, top: 500 }
  }
  test.each([28, 30.4, 33.7])('is found where it is, to a part of a pixel: %f', edge => {
    const found = findStep(patch(edge), [1_031, 530], [1, 0])!
    expect(found.at[0]).toBeCloseTo(1_000 + edge, 0)
    expect(Math.abs(found.at[0] - 1_000 - edge)).toBeLessThan(0.3)
    expect(found).toMatchObject({ bright: true })
    // looked at from the other side it is the same place
    expect(findStep(patch(edge), [1_031, 530], [-1, 0])!.at[0]).toBeCloseTo(found.at[0], 1)
  })
  test('nothing is found along it, or where nothing is', () => {
    expect(findStep(patch(30), [1_031, 530], [0, 1])).toBeNull()
    expect(findStep(patch(500), [1_031, 530], [1, 0])).toBeNull()
  })
  test('a length’s ends are looked for from one another; an axle’s end and a chain’s pins by the hand', () => {
    expect(besidePlaces('rod').map(p => [p.id, p.finding, p.from])).toEqual([
      ['rulerFrom', 'step', 'rulerTo'],
      ['rulerTo', 'step', 'rulerFrom'],
      ['from', 'none', 'to'],
      ['to', 'step', 'from'],
    ])
    expect(besidePlaces('innerGap').map(p => p.finding)).toEqual(['none', 'none', 'step', 'step'])
    expect([towards([0, 0], [3, 4]), towards([0, 0], [0.4, 0])]).toEqual([[0.6, 0.8], null])
  })
})

describe('edges in rendered pictures', () => {
  const bike = sightBike(41)
  const random = randomFrom(41, 7)
  const camera = cameraBehind(bike, 0.5, random)
  const weather = { ...weatherOf(random, 41), grease: 0, blurPx: 1.2 }
  const rim = bike.discs[bike.teeth.length - 1]!
  const { upper, lower } = toothedEndsOf(camera.lens, camera.pose, rim)
  const length = Math.hypot(lower[0] - upper[0], lower[1] - upper[1])
  const into: Pixel = [(lower[0] - upper[0]) / length, (lower[1] - upper[1]) / length]
  const bar = (1.7 * length) / (2 * rim.radiusMm)
  const look = (touch: Pixel, blurPx: number, discs = bike.discs) => {
    const part = { left: Math.round(touch[0]) - 55, top: Math.round(touch[1]) - 55, width: 110, height: 110 }
    const picture = render(discs, camera.lens, camera.pose, { ...weather, blurPx }, part)
    return findEnd({ ...picture, ...part }, touch, into, bar)
  }
  test('a touch some pixels beside an end is put on it', () => {
    for (const [du, dv] of [
      [5, -4],
      [-6, 3],
      [0, 6],
    ] as const) {
      const found = look([upper[0] + du, upper[1] + dv], 1.2)!
      expect(Math.abs((found.at[0] - upper[0]) * into[1] - (found.at[1] - upper[1]) * into[0])).toBeLessThan(1)
      expect(found.blurPx).toBeLessThan(2.5)
    }
  })
  test('a blurred picture says how blurred it is; where nothing is nothing is found', () => {
    expect(look(upper, 7)?.blurPx ?? 9).toBeGreaterThan(4)
    expect(look([upper[0] + 500, upper[1] - 500], 1.2, [])).toBeNull()
  })
})

describe('a drawn disc as it stands', () => {
  const disc: Disc = {
    middle: [0, 0, 0],
    radiusMm: 22,
    rootMm: 17,
    camber: 0,
    toe: 0,
    teeth: 11,
    halfMm: 1.1,
    tone: 0.9,
  }
  const straight: Pose = { atMm: [0, 0, -600], yaw: 0, pitch: 0, roll: 0 }
  const heightPx = ({ upper, lower }: Ends) => lower[1] - upper[1]
  /** px that a height at the axle comes to. */
  const px = (mm: number) => (mm * lens.focalPx) / 600
  test('ends at a tooth’s tip: of an odd count one end is a gap, whose two teeth stand lower', () => {
    // half a pitch beside the round's end, less the half of a tip, which is flat while its cosine is over 10/19
    const beside = Math.PI / 11 - Math.acos(10 / 19) / 11
    // the one of the two that looks at the camera is so much nearer to it
    const gapPx = (px(22 * Math.cos(beside)) * 600) / (600 - 22 * Math.sin(beside))
    const ends = toothedEndsOf(lens, straight, disc)
    expect(heightPx(ends)).toBeCloseTo(px(22) + gapPx, 0)
    expect(ends.upper[1]).toBeCloseTo(lens.middle[1] - px(22), 0)
    // turned by half a pitch the gap is above
    const other = toothedEndsOf(lens, straight, { ...disc, turn: Math.PI / 11 })
    expect(lens.middle[1] - other.upper[1]).toBeCloseTo(gapPx, 0)
    expect(heightPx(toothedEndsOf(lens, straight, { ...disc, teeth: 12 }))).toBeCloseTo(px(44), 0)
  })
  test('a tooth that is longer than the others is drawn to its tip, a shorter one to its own', () => {
    const [u, top] = [2000, Math.round(lens.middle[1] - px(22))]
    const each = (mm: number) => Array.from({ length: 11 }, (_, k) => ({ shorterMm: k ? 0 : -mm, leanMm: 0 }))
    const lit = (mm: number) => {
      const part = { left: u - 4, top: top - 20, width: 8, height: 40 }
      const weather = { ...weatherOf(randomFrom(1), 1), blurPx: 0, noise: 0, grease: 0, uneven: 0 }
      const { data } = render([{ ...disc, each: each(mm) }], lens, straight, weather, part)
      return Array.from({ length: 40 }, (_, y) => data[8 * y + 4]!).filter(light => light > 70).length
    }
    for (const mm of [0.8, -0.8]) expect(Math.abs(lit(mm) - lit(0) - px(mm))).toBeLessThan(1.1)
  })
  test('two pictures of an unturned pulley are of one bike, whichever of its teeth stand at its ends', () => {
    const bikes = Array.from({ length: 24 }, (_, i) => sightBike(60_000 + i)).filter(b => b.pulleyTeeth % 2)
    const off = bikes.map((bike, i) => {
      const random = randomFrom(i, 1)
      const largest = bike.discs[bike.teeth.length - 1]!
      const pictures = [-14, 14].map((viewDeg): BehindPicture => {
        const camera = cameraBehind(bike, viewDeg, random, 4000, 3000, 500, 0)
        const of = (d: Disc) => {
          const { upper, lower } = toothedEndsOf(camera.lens, camera.pose, d)
          return { upper: exact(upper), lower: exact(lower) }
        }
        const near = exact(seen(camera.lens, camera.pose, nearestOf(camera.pose, largest)))
        const face: Rim = { ...largest, middle: [largest.middle[0] + largest.halfMm, 0, 0] }
        const along = largest.each!.flatMap(({ shorterMm }, k) => {
          const angle = largest.turn! + (2 * Math.PI * k) / largest.teeth
          const [down, forward] = [-Math.cos(angle), Math.sin(angle)]
          const at = seen(camera.lens, camera.pose, onRim({ ...face, radiusMm: face.radiusMm - shorterMm }, angle))
          // from the frame's side the near half stands free, from the spokes' the far one
          return viewDeg * forward < 0 && Math.abs(down) < 0.97 ? [{ at, sdPx: 0.7, tip: { down, forward } }] : []
        })
        return { lens, sprocket: { ...of(largest), near, along }, pulley: of(bike.pulley) }
      })
      const m = measureFromBehind(asked(bike, pictures))
      return m.is === 'told' ? Math.abs(m.offsetMm.mean - bike.offsetMm) : m.why
    })
    expect(off.filter(o => typeof o === 'string')).toEqual([])
    expect(Math.sqrt((off as number[]).reduce((s, o) => s + o * o, 0) / off.length)).toBeLessThan(0.5)
  })
})

test('what is too oblique says how widely it tells, and where the next is taken from: straight from behind tells best', () => {
  const one = sayOblique(14.6, 0.9, 1)
  expect(one).toContain('15° from the frame’s side')
  expect(one).toContain('± 1.8 mm')
  expect(one.indexOf('straight from behind')).toBeLessThan(one.indexOf('the spokes’ side'))
  expect(one).toContain('same height')
  expect(sayOblique(-9, 0.9, 1)).toContain('from as far to the frame’s side')
  expect(sayOblique(-9, 0.9, 2)).toContain('Together')
})

describe('found without a touch', () => {
  const bike = sightBike(8005)
  const random = randomFrom(8005, 612)
  const camera = cameraBehind(bike, 0.4, random)
  const weather = { ...weatherOf(random, 8005), grease: 0, blurPx: 1.2 }
  const rim = bike.discs[bike.teeth.length - 1]!
  const look = (about: Pixel, aroundPx: number) => {
    const size = 2 * Math.round(aroundPx)
    const [left, top] = [Math.round(about[0]) - size / 2, Math.round(about[1]) - size / 2]
    const part = { left, top, width: size, height: size }
    return { ...render(bike.discs, camera.lens, camera.pose, weather, part), ...part }
  }
  const [ends, pulley] = [rim, bike.pulley].map(disc => toothedEndsOf(camera.lens, camera.pose, disc)) as [Ends, Ends]
  const found = (widthPx: number) => ({ at: ends.upper, widthPx, contrast: 0.5, blurPx: 1, bright: true })
  const standing = (widthPx: number) => ({
    upper: { at: ends.upper, found: found(widthPx) },
    lower: { at: ends.lower, found: null },
    pulleyLower: { at: pulley.lower, found: null },
  })
  const bar = (1.7 * Math.hypot(ends.lower[0] - ends.upper[0], ends.lower[1] - ends.upper[1])) / (2 * rim.radiusMm)
  test('in the plane the near edge and the pulley’s other end, each where it is', () => {
    const proposed = proposalsOf(standing(bar), rim.radiusMm, lens.focalPx, bike.pulleyTeeth, look)
    expect(proposed.map(p => p.id)).toEqual(['near', 'pulleyUpper'])
    const near = seen(camera.lens, camera.pose, nearestOf(camera.pose, rim))
    expect(Math.abs(proposed[0]!.found.at[0] - near[0])).toBeLessThan(2)
    const [u, v] = proposed[1]!.found.at
    expect(Math.hypot(u - pulley.upper[0], v - pulley.upper[1])).toBeLessThan(3.5)
  })
  test('from the side, where ends are wide, the near edge is left for a touch; nothing before two ends stand', () => {
    const wide = proposalsOf(standing(3 * bar), rim.radiusMm, lens.focalPx, bike.pulleyTeeth, look)
    expect(wide.map(p => p.id)).toEqual(['pulleyUpper'])
    const { upper } = standing(bar)
    expect(proposalsOf({ upper }, rim.radiusMm, lens.focalPx, null, look)).toEqual([])
  })
  test('where nothing stands nothing is proposed', () => {
    const empty = (about: Pixel, aroundPx: number) => {
      const patch = look(about, aroundPx)
      return { ...patch, data: patch.data.map(() => 60) }
    }
    expect(proposalsOf(standing(bar), rim.radiusMm, lens.focalPx, null, empty)).toEqual([])
  })
})

test('a pulley whose teeth nobody counted is told more widely', () => {
  const ask = touched([{ viewDeg: 0.8 }], { offsetMm: 0.5 })
  const [known, open] = [measureFromBehind(ask), measureFromBehind({ ...ask, pulleyTeeth: null })]
  if (known.is !== 'told' || open.is !== 'told') throw new Error('refused')
  expect(open.offsetMm.sd).toBeGreaterThan(known.offsetMm.sd)
  expect(Math.abs(open.offsetMm.mean - 0.5)).toBeLessThan(2 * open.offsetMm.sd)
})

describe('led into the plane', () => {
  test('the gaps stand more open from straight behind than from 3° aside, whatever the light', () => {
    for (const seed of [3, 11, 29]) {
      const shown = (deg: number, brighter = 1) => {
        const ask = {
          teeth: [11, 13, 15, 17, 20, 23, 26, 30, 34],
          placeMm: [0, 4, 8, 12, 16, 20, 24, 28, 32],
          click: 2,
        }
        const { band } = standInLook({ ...ask, from: 'behind', viewDeg: deg, seed, shot: 1 })
        return gapsShown({ ...band, data: band.data.map(v => Math.min(255, v * brighter)) })
      }
      expect(shown(0.5)).toBeGreaterThan(1.3 * Math.max(shown(-3), shown(4)))
    }
  })
  test('what is no row of sprockets shows nothing: darkness, a wall, one strong edge', () => {
    const random = randomFrom(5, 8)
    const made = (light: (x: number) => number) =>
      gapsShown({
        width: 400,
        height: 50,
        data: Uint8Array.from({ length: 20_000 }, (_, i) => light(i % 400) + 8 * random.next()),
      })
    expect([made(() => 0), made(() => 120), made(x => (x < 200 ? 40 : 200))]).toEqual([0, 0, 0])
    expect(made(x => (x % 10 < 4 ? 200 : 60))).toBeGreaterThan(0)
  })
  test('the hand is there only once it has gone past and come back', () => {
    const path = [0.3, 0.6, 1, 0.5, 0.4, 0.7, 0.95]
    const led = path.reduce<Led[]>((all, shown) => [...all, lead(all.at(-1) ?? null, shown)], [])
    expect(led.map(l => l.passed)).toEqual([false, false, false, true, true, true, true])
    expect(led.map(l => l.there)).toEqual([false, false, false, false, false, false, true])
    // wider open than ever: that one is passed before it counts
    expect(lead(led.at(-1)!, 2)).toMatchObject({ best: 2, passed: false, there: false })
    expect(lead(null, 0)).toMatchObject({ share: 0, there: false })
  })
})

describe('the figures that are published, on a few pictures', () => {
  test('a hand that rocks through the plane is led back to it', () => {
    const score = scoreLead(4, 93_000)
    expect(score.told).toBeGreaterThan(2)
    expect(score.rmsDeg).toBeLessThan(2.5)
  }, 120_000)
  test('in the plane: seldom further off than said, seldom refused', () => {
    const score = scoreBehind('in the plane, within 1°', 8, 90_000)
    expect(score.refused).toBeLessThan(2)
    expect(score.rmsMm).toBeLessThan(0.5)
    expect(score.share95).toBeGreaterThan(0.8)
  }, 120_000)
  test('the gap from the side, by teeth that are found besides', () => {
    const { found, touched } = scoreSide(3, 230_000)
    expect(found.rmsMm).toBeLessThan(0.4)
    expect(found.statedSdMm).toBeLessThan(0.75 * touched.statedSdMm)
    expect(found.share95).toBeGreaterThan(0.8)
    expect(found.refused).toBe(0)
  })
  test('the rod past its axle, in drawn pictures', () => {
    const score = scoreRod(150, 92_000)
    expect(score.rmsMm).toBeLessThan(0.2)
    expect(score.share95).toBeGreaterThan(0.9)
  })
  test('the same bike and hand give the same picture', () => {
    const bike = sightBike(5)
    expect(asked(bike, [pictureBehind(bike, 1, 5).picture])).toEqual(asked(bike, [pictureBehind(bike, 1, 5).picture]))
  })
})

describe('the pulley’s edge at more places', () => {
  const SEED = 83_034
  const bike = sightBike(SEED)
  const { picture } = pictureBehind(bike, -0.3, SEED)
  const along = picture.pulley.along!
  const told = (pulley: BehindPicture['pulley']) => {
    const m = measureFromBehind(asked(bike, [{ ...picture, pulley }]))
    if (m.is !== 'told') throw new Error(m.why)
    return m.offsetMm
  }
  test('is found between its ends, on its bar', () => {
    expect(along.length).toBeGreaterThanOrEqual(4)
    const camera = cameraBehind(bike, -0.3, randomFrom(SEED, 612, -3 + 4000))
    for (const { at } of along) {
      const [u] = edgeBeside(camera.lens, camera.pose, bike.pulley, ([, v]) => v - at[1])
      expect(Math.abs(u - at[0])).toBeLessThan(1.5)
    }
  })
  test('holds the pulley where a hand put one end beside it, and that end is no reason to refuse', () => {
    const off = (of: readonly Touch[], px: number) => {
      const { upper, lower } = picture.pulley
      return told({ upper, lower: { at: [lower.at[0] + px, lower.at[1]], sdPx: 1.2 }, along: of })
    }
    const moved = (of: readonly Touch[]) => Math.abs(off(of, 3).mean - off(of, 0).mean)
    expect(moved(along)).toBeLessThan(0.6 * moved([]))
    expect(off(along, 0).sd).toBeLessThan(off([], 0).sd)
    expect(() => off(along, 9)).not.toThrow()
  })
  test('is not looked for from well aside, where a plate stands before it', () => {
    const ends = { upper: [2000, 950], lower: [2000, 1750], near: [1910, 1350] } as const
    const pulley = { upper: [2030, 1800], lower: [2030, 2060] } as const
    const striped: Look = (about, aroundPx) => {
      const size = 2 * Math.round(aroundPx)
      const left = Math.round(about[0]) - size / 2
      const data = Uint8Array.from({ length: size * size }, (_, i) => ((left + (i % size)) % 20 < 12 ? 200 : 30))
      return { width: size, height: size, data, left, top: Math.round(about[1]) - size / 2 }
    }
    expect(alongPulley(ends, pulley, 68, lens.focalPx, striped)).toEqual([])
    const straight = { ...ends, near: [2000, 1350] } as const
    expect(alongPulley(straight, pulley, 68, lens.focalPx, striped).length).toBeGreaterThan(4)
  })
  test('a place that lies on another edge is left out by the others, be it near or far', () => {
    const ends = { upper: [2000, 950], lower: [2000, 1750], near: [2000, 1350] } as const
    // a bar of the near edge's width; about two of its places it is another's, so far beside it
    const drawn =
      (besidePx: number): Look =>
      (about, aroundPx) => {
        const size = 2 * Math.round(aroundPx)
        const [left, top] = [Math.round(about[0]) - size / 2, Math.round(about[1]) - size / 2]
        const data = Uint8Array.from({ length: size * size }, (_, i) => {
          const [x, y] = [left + (i % size), top + Math.floor(i / size)]
          const at = 2000 + (Math.abs(y - 1430) < 40 || Math.abs(y - 1574) < 40 ? besidePx : 0)
          return Math.abs(x - at) < 5.6 ? 190 : 40
        })
        return { width: size, height: size, data, left, top }
      }
    const found = (besidePx: number) => alongRim(ends, { teeth: 34, radiusMm: 68 }, lens.focalPx, drawn(besidePx))
    expect(found(0)).toHaveLength(8)
    for (const besidePx of [-4, 9]) {
      const left = found(besidePx)
      expect(left.length).toBeGreaterThanOrEqual(5)
      for (const { at } of left) expect(Math.abs(at[0] - 2000)).toBeLessThan(1)
    }
  })
  test('a near edge looks as much wider as it is nearer', () => {
    // 68 mm at 5.5 px a mm, 600 mm away: the near edge is 532 away
    const { widthPx, farMm } = barsOf([0, 0], [0, 748], 68, 3300)
    expect(farMm).toBeCloseTo(600, 6)
    expect(widthPx.near / widthPx.sprocket).toBeCloseTo(600 / 532, 6)
  })
})

describe('before a light wall', () => {
  const onEdge = (seed: number, viewDeg: number, of: 'sprocket' | 'pulley') => {
    const bike = sightBike(seed)
    const { picture } = pictureBehind(bike, viewDeg, seed)
    const camera = cameraBehind(bike, viewDeg, randomFrom(seed, 612, Math.round(10 * viewDeg) + 4000))
    const rim = of === 'sprocket' ? bike.discs[bike.teeth.length - 1]! : bike.pulley
    return picture[of].along!.map(
      ({ at }) => at[0] - edgeBeside(camera.lens, camera.pose, rim, ([, v]) => v - at[1])[0],
    )
  }
  test('a sprocket’s edge is dark before the wall and bright before its neighbours: found on both parts', () => {
    for (const seed of [8001, 8003]) {
      const off = onEdge(seed, 0.4, 'sprocket')
      expect(off.length, String(seed)).toBeGreaterThanOrEqual(4)
      for (const px of off) expect(Math.abs(px)).toBeLessThan(2)
    }
  })
  test('a black pulley’s edge is found', () => {
    const off = onEdge(8003, 0.4, 'pulley')
    expect(off.length).toBeGreaterThanOrEqual(4)
    for (const px of off) expect(Math.abs(px)).toBeLessThan(1.5)
  })
  test('a near edge is lighter than the gaps beside it, and the gap is not taken for it', () => {
    const data = Uint8Array.from({ length: 200 * 200 }, (_, i) =>
      [78, 100, 122].some(middle => Math.abs((i % 200) - middle) < 5) ? 170 : 40,
    )
    // touched nearer to the gap's middle
    for (const x of [102, 106]) {
      const found = findNear({ width: 200, height: 200, data, left: 0, top: 0 }, [x, 100], [0, 1], 9, 8)!
      expect(Math.abs(found.at[0] - 100)).toBeLessThan(0.6)
    }
  })
  test('places that scatter about their own round tell no more closely than that', () => {
    const round = (scatterPx: number) =>
      [-1, -0.6, -0.2, 0.2, 0.6, 1].map((phi, i) => ({ phi, outPx: 0.5 + phi ** 2 + (i % 2 ? 1 : -1) * scatterPx }))
    expect(scatterOf(round(1))).toBeGreaterThan(1)
    expect(scatterOf(round(0))).toBeLessThan(0.2)
    expect(scatterOf(round(1).slice(0, 3))).toBe(0)
  })
})

describe('the edge at more places', () => {
  const bike = sightBike(6, undefined, lightOf(6))
  const { picture } = pictureBehind(bike, 0.4, 6)
  const off = (along: readonly Touch[], lowerPx: number) => {
    const { lower } = picture.sprocket
    const wrong = { at: [lower.at[0] + lowerPx, lower.at[1]] as const, sdPx: 1.2 }
    const told = measureFromBehind(
      asked(bike, [{ ...picture, sprocket: { ...picture.sprocket, lower: wrong, along } }]),
    )
    if (told.is !== 'told') throw new Error(told.why)
    return { mm: told.offsetMm.mean, sd: told.offsetMm.sd }
  }
  const found = picture.sprocket.along!
  test('holds the bar where one end lies in the dark and is put beside it by hand', () => {
    expect(found.length).toBeGreaterThanOrEqual(4)
    const moved = (along: readonly Touch[]) => Math.abs(off(along, 3).mm - off(along, 0).mm)
    expect(moved(found)).toBeLessThan(0.7 * moved([]))
    expect(off(found, 0).sd).toBeLessThan(off([], 0).sd)
  })
  test('one place on another edge pulls no further than one at the limit', () => {
    const [first, ...others] = found
    const pulled = (px: number) =>
      Math.abs(off([{ ...first!, at: [first!.at[0] + px, first!.at[1]] }, ...others], 0).mm - off(found, 0).mm)
    expect(pulled(12)).toBeLessThan(0.1)
    expect(pulled(12)).toBeLessThan(4 * pulled(2) + 0.02)
  })
  test('is none in a picture that has no edges', () => {
    const nothing = (about: Pixel, aroundPx: number): Patch => {
      const width = 2 * Math.round(aroundPx)
      return { width, height: width, data: new Uint8Array(width * width).fill(90), left: 0, top: Math.round(about[1]) }
    }
    const near = (bowPx: number) => ({ upper: [2000, 1000], lower: [2000, 1700], near: [2000 + bowPx, 1350] }) as const
    for (const bowPx of [0, -60])
      expect(alongRim(near(bowPx), { teeth: 32, radiusMm: 65 }, lens.focalPx, nothing)).toEqual([])
  })
})

describe('teeth found from the side', () => {
  /** A bar that stands up from a rim and ends at its tip, light on dark or dark on light. */
  const drawn =
    (on: number, off: number, wide = 20, tipAt = 50): Look =>
    (about, aroundPx) => {
      const size = 2 * Math.round(aroundPx)
      const [left, top] = [Math.round(about[0]) - size / 2, Math.round(about[1]) - size / 2]
      const data = Uint8Array.from({ length: size * size }, (_, i) => {
        const [x, y] = [left + (i % size), top + Math.floor(i / size)]
        const tooth = Math.abs(x - 103) <= wide / 2 && y >= tipAt
        return tooth || y >= tipAt + 27 ? on : off
      })
      return { width: size, height: size, data, left, top }
    }
  const up = [0, -1] as const
  test('a tip where it is, light on dark and dark on light', () => {
    for (const look of [drawn(180, 60), drawn(50, 170)]) {
      const found = findTooth([100, 53], up, 6, look)!
      expect(Math.abs(found[0] - 103)).toBeLessThan(0.6)
      expect(Math.abs(found[1] - 49.5)).toBeLessThan(0.6)
    }
  })
  test('under a chain, where no bar stands, and at the picture’s edge there is none', () => {
    expect(findTooth([100, 53], up, 6, drawn(180, 60, 400))).toBeNull()
    expect(findTooth([100, 53], up, 6, drawn(100, 100))).toBeNull()
    expect(findTooth([100, 90], up, 6, drawn(180, 60, 20, 20))).toBeNull()
    const cut: Look = () => ({ width: 1, height: 1, data: new Uint8Array(1), left: 0, top: 0 })
    expect(findTooth([100, 53], up, 6, cut)).toBeNull()
  })
  const { scene, ask, look } = askBeside(91_005, undefined, lightOf(91_005))
  test('on a black cassette it finds less, and what it finds harms nothing', () => {
    const seed = 91_006
    const black = askBeside(seed, undefined, { ...partsAsTheyLook(seed), cassette: 0.15 })
    const besides = teethFinder(black.look)(black.ask)
    const told = measureFromSide({ ...black.ask, besides })
    if (told.is !== 'told') throw new Error(told.why)
    expect(Math.abs(told.gapMm.mean - black.scene.bike.gapMm)).toBeLessThan(2.5 * told.gapMm.sd)
  })
  test('more of a drawn cassette than was touched, nearly all of them on its teeth', () => {
    const { tips } = teethFinder(look)(ask)
    expect(tips.length).toBeGreaterThan(6)
    const told = [{}, { besides: { tips, pulleyTips: [] } }].map(more => measureFromSide({ ...ask, ...more }))
    const [touched, found] = told.map(m => (m.is === 'told' ? m.gapMm : null))
    expect(found!.sd).toBeLessThan(touched!.sd)
    expect(Math.abs(found!.mean - scene.bike.gapMm)).toBeLessThan(2.5 * found!.sd)
  })
  test('asked again it does not look twice, and less with one touch more', () => {
    let looks = 0
    const find = teethFinder((about, aroundPx) => (looks++, look(about, aroundPx)))
    find({ ...ask, pulleyTips: ask.pulleyTips.slice(0, 2) })
    const first = looks
    const { tips } = find(ask)
    expect(looks - first).toBeLessThan(first)
    const both = looks
    expect(find(ask).tips).toEqual(tips)
    expect(looks).toBe(both)
  })
  test('what was found beside the touches is no reason to refuse them', () => {
    const off = { tips: ask.tips.map(t => ({ ...t, at: [t.at[0] + 40, t.at[1] + 25] as const })), pulleyTips: [] }
    const wrong = { tips: Array.from({ length: 12 }, (_, i) => off.tips[i % 3]!), pulleyTips: [] }
    expect(measureFromSide({ ...ask, besides: wrong }).is).toBe('told')
  })
  test('a pulley whose teeth nobody counted is not looked for, and touches that are no bike’s find nothing', () => {
    expect(teethFinder(look)({ ...ask, pulleyTeeth: null }).pulleyTips).toEqual([])
    const elsewhere = { ...ask, tips: ask.tips.map((t, i) => ({ ...t, at: [t.at[0] + 400 * i, t.at[1]] as const })) }
    expect(teethFinder(look)(elsewhere)).toEqual({ tips: [], pulleyTips: [] })
  })
  test('light teeth before a light disc tell nothing of how blurred they are, and are no reason to refuse', () => {
    const flat: Look = (about, aroundPx) => {
      const size = 2 * Math.round(aroundPx)
      return { width: size, height: size, data: new Uint8Array(size * size).fill(150), left: 0, top: 0 }
    }
    expect(tipsBlurPx(ask, flat)).toEqual([])
    expect(isBlurred(tipsBlurPx(ask, flat))).toBe(false)
  })
  test('a blurred picture is refused, a sharp one is not', () => {
    expect(gapBeside(91_001, 8).told(false)).toBeNull()
    expect(gapBeside(91_001).told(false)).not.toBeNull()
  })
})

describe('tips of the largest sprocket, seen well aside', () => {
  const SEED = 24_009
  const VIEWS = [-11.7, 10.9]
  const bike = sightBike(SEED)
  const drawnOnce = new Map<number, BehindPicture>()
  const taken = (viewDeg: number): BehindPicture => {
    const picture = drawnOnce.get(viewDeg) ?? pictureBehind(bike, viewDeg, SEED).picture
    drawnOnce.set(viewDeg, picture)
    return picture
  }
  const ownOf = ({ teeth, turn, each }: Disc, angle: number) =>
    each![(Math.round((teeth * (angle - turn!)) / (2 * Math.PI)) + 2 * teeth) % teeth]!
  /** A made picture's tips, and how far outward of its true tooth each lies, px. */
  const tipsOf = (viewDeg: number) => {
    const along = taken(viewDeg).sprocket.along!
    const camera = cameraBehind(bike, viewDeg, randomFrom(SEED, 612, Math.round(10 * viewDeg) + 4000))
    const largest = bike.discs[bike.teeth.length - 1]!
    return along.map(t => {
      const angle = Math.atan2(t.tip!.forward, -t.tip!.down)
      // each tooth is as long as it is
      const radiusMm = largest.radiusMm - ownOf(largest, angle).shorterMm
      const face: Rim = { ...largest, radiusMm, middle: [largest.middle[0] + largest.halfMm, 0, 0] }
      return outwardOf(camera.lens, camera.pose, face, t.at, angle)
    })
  }
  const half = (of: readonly number[]) => [...of].map(Math.abs).sort((a, b) => a - b)[Math.floor(of.length / 2)]!
  test('are found from one end to the other, from either side, to a quarter of a pixel', () => {
    for (const viewDeg of VIEWS) {
      const off = tipsOf(viewDeg)
      expect(off.length).toBeGreaterThanOrEqual(11)
      expect(half(off)).toBeLessThan(0.25)
      // neither the picture nor the search leans outward or inward
      expect(Math.abs(off.reduce((a, b) => a + b, 0) / off.length)).toBeLessThan(0.25)
    }
  })
  test('are found before a light wall too, and none where the wall is as light as the sprocket', () => {
    expect(pictureBehind(sightBike(24_008), -12, 24_008).picture.sprocket.along!.length).toBeGreaterThanOrEqual(11)
    expect(pictureBehind(sightBike(24_014), 12, 24_014).picture.sprocket.along!).toEqual([])
  })
  test('hold two pictures whose ends were put beside theirs', () => {
    const pictures = VIEWS.map(taken)
    const told = (shiftPx: number, tips: boolean) => {
      const moved = pictures.map(({ sprocket, ...rest }) => ({
        ...rest,
        sprocket: {
          ...sprocket,
          along: tips ? sprocket.along! : [],
          lower: { ...sprocket.lower, at: [sprocket.lower.at[0] + shiftPx, sprocket.lower.at[1]] as const },
        },
      }))
      const m = measureFromBehind(asked(bike, moved))
      if (m.is !== 'told') throw new Error(m.why)
      return m.offsetMm
    }
    expect(Math.abs(told(3, true).mean - told(0, true).mean)).toBeLessThan(
      0.3 * Math.abs(told(3, false).mean - told(0, false).mean),
    )
    expect(told(0, true).sd).toBeLessThan(told(0, false).sd)
  })
  test('a tooth that is lost under grease does not pull the round inward', () => {
    // a round seen 14° aside, its teeth drawn plainly; one of them is as dark as what lies behind
    const [teeth, halfPx, bowPx] = [32, 400, 90]
    const toothPx = 28
    const drawn =
      (lost: number | null, darkAbove = 0, other = false): Look =>
      (about, aroundPx) => {
        const size = 2 * Math.round(aroundPx)
        const [left, top] = [Math.round(about[0]) - size / 2, Math.round(about[1]) - size / 2]
        const data = Uint8Array.from({ length: size * size }, (_, i) => {
          const [x, y] = [((left + (i % size) - 2000) / bowPx) * halfPx, top + Math.floor(i / size) - 1350]
          const [r, angle] = [Math.hypot(x, y), Math.atan2(y, x)]
          const tooth = Math.round((teeth * angle) / (2 * Math.PI))
          const on = r < halfPx - (Math.cos(teeth * angle) > 0.5 ? 0 : toothPx)
          const dark = (tooth === lost && r > halfPx - toothPx) || y + 1350 < darkAbove
          // the pulley's tooth, close beside the lowest of its own
          const beside = other && Math.hypot(top + Math.floor(i / size) - 1742, left + (i % size) - 1972) < 9
          return (on && !dark) || beside ? 170 : 30
        })
        return { width: size, height: size, data, left, top }
      }
    const ends = { upper: [2000, 950], lower: [2000, 1750], near: [2000 - bowPx, 1350] } as const
    const sprocket = { teeth, radiusMm: 65 }
    const far = (t: Touch) => Math.hypot(((t.at[0] - 2000) / bowPx) * halfPx, t.at[1] - 1350) / halfPx
    const whole = alongRim(ends, sprocket, lens.focalPx, drawn(null))
    expect(whole.length).toBeGreaterThanOrEqual(11)
    for (const t of whole) expect(Math.abs(far(t) - 1)).toBeLessThan(0.012)
    const without = alongRim(ends, sprocket, lens.focalPx, drawn(teeth / 2 - 3))
    expect(without.length).toBe(whole.length - 1)
    for (const t of without) expect(Math.abs(far(t) - 1)).toBeLessThan(0.012)
    // nor does the pulley's, further out beside the lower end
    const beside = alongRim(ends, sprocket, lens.focalPx, drawn(null, 0, true))
    for (const t of beside) expect(Math.abs(far(t) - 1)).toBeLessThan(0.012)
    // which costs none of the others their place
    expect(beside.length).toBeGreaterThanOrEqual(whole.length - 1)
    // of too few teeth they tell nothing
    expect(alongRim(ends, sprocket, lens.focalPx, drawn(null, 1450))).toEqual([])
  })
  test('how far a place lies outside a rim’s picture is its distance to the nearest of it (sampled)', () => {
    const rim: Rim = { middle: [30, 0, 0], radiusMm: 65, camber: 0, toe: 0 }
    const aside: Pose = { atMm: [-120, 20, -640], yaw: -0.23, pitch: -0.05, roll: 0.03 }
    const edge = Array.from({ length: 4000 }, (_, i) => seen(lens, aside, onRim(rim, (2 * Math.PI * i) / 4000)))
    const middle = seen(lens, aside, rim.middle)
    for (const angle of [-0.4, -1.2, -2.7, 0.9, 2])
      for (const px of [6, -4]) {
        const on = seen(lens, aside, onRim(rim, angle))
        const long = Math.hypot(on[0] - middle[0], on[1] - middle[1])
        const at: Pixel = [on[0] + (px * (on[0] - middle[0])) / long, on[1] + (px * (on[1] - middle[1])) / long]
        const nearest = Math.min(...edge.map(e => Math.hypot(e[0] - at[0], e[1] - at[1])))
        const told = outwardOf(lens, aside, rim, at, angle + 0.03)
        expect(told).toBeCloseTo(Math.sign(px) * nearest, 1)
      }
  })
})
