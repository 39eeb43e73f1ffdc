import { randomFrom, type Random } from '../quantity/random'
import { seen, usualLens, type Lens, type Pose } from '../sight/camera'
import type { Look } from '../sight/edges'
import type { Figure } from '../sight/fromBehind'
import { measureFromSide, WIDEST_GAP_MM, type FromSide } from '../sight/fromSide'
import { onRim } from '../sight/rim'
import { shownBesides, teethFinder } from '../sight/tipsBeside'
import type { Touch } from '../sight/touch'
import { render, type Disc, type Grey, type Weather } from './render'
import {
  behindOf,
  cameraBeside,
  partsAsTheyLook,
  sightBike,
  weatherOf,
  type Given,
  type Looks,
  type SightBike,
} from './sightBench'

/*
 * A cassette and its guide pulley as a camera sees them from the drive side, with what stands in the way there: the
 * chain over half of the largest sprocket's tips and of the pulley's, the stays' ends, the cage, spokes behind. Teeth
 * have heights and a lean of their own, tips are broad on one bike and narrow on the next.
 */

/** How teeth and touches differ from one another, mm; none of it is what the measuring thinks. */
const TIPS = { shorterMm: 0.12, leanMm: 0.3, leanSdMm: 0.1, besideMm: 0.45 } as const
/** The chain lies so far outward of the tips that it covers, mm. */
const CHAIN_OUT_MM = 0.6
const CHAIN_WAIST_MM = 1.4

/** A chain's plates are waisted between their pins, so that their edge waves, one wave a pitch. */
const linksOver = ({ radiusMm }: Disc) => ({
  radiusMm: radiusMm + CHAIN_OUT_MM,
  rootMm: radiusMm + CHAIN_OUT_MM - CHAIN_WAIST_MM,
  narrow: 0.45,
})

export type SideScene = { bike: SightBike; sprocket: Disc; pulley: Disc; discs: readonly Disc[]; freeTips: FreeTips }
/** Numbers of the teeth that a hand would touch: not under the chain, not behind a stay or the cage. */
export type FreeTips = { sprocket: readonly number[]; pulley: readonly number[] }

const TURN = 2 * Math.PI
const toothed = (disc: Disc, random: Random, narrow: number): Disc => ({
  ...disc,
  turn: 0,
  narrow,
  each: Array.from({ length: disc.teeth }, () => ({
    shorterMm: TIPS.shorterMm * random.normal(),
    leanMm: TIPS.leanMm + TIPS.leanSdMm * random.normal(),
  })),
})

/**
 * A bike with its largest sprocket in gear, its pulley below. Angles are radians forward of upright, as a disc's are.
 * @param given a drivetrain; by chance where left out
 */
export function sideScene(
  seed: number,
  given?: Pick<Given, 'teeth' | 'placeMm'>,
  // of bikes in good light all is light: the stand-in's
  looks: Looks | null = given ? null : partsAsTheyLook(seed),
): SideScene {
  const random = randomFrom(seed, 625)
  const { teeth, placeMm } = given ?? drivetrain(seed)
  const n = teeth.length
  const bike = sightBike(seed, { teeth, placeMm, click: n - 1 })
  const metal = looks?.cassette ?? null
  const inMetal = (d: Disc): Disc => (metal === null ? d : { ...d, tone: metal })
  const sprocket = toothed(inMetal(bike.discs[n - 1]!), random, 0.3 * random.next())
  const tone = looks ? looks.pulley.from + looks.pulley.more * randomFrom(seed, 631).next() : bike.pulley.tone
  const pulley = toothed({ ...bike.pulley, tone }, random, 0.3 * random.next())
  const [x, up, forward] = pulley.middle
  const toPulley = Math.atan2(forward, up)
  // the chain comes from in front on to the top, lies round the back, and leaves across for the pulley's front
  const leaves = 0.36 + 0.1 * random.normal()
  const comes = 0.05 + 0.1 * random.next()
  const chain: Disc = {
    ...sprocket,
    each: undefined,
    ...linksOver(sprocket),
    halfMm: 3.1,
    tone: 0.4 + 0.5 * random.next(),
    arcs: [[toPulley + leaves, TURN + comes]],
  }
  const onPulley: Disc = {
    ...pulley,
    each: undefined,
    ...linksOver(pulley),
    halfMm: 3.1,
    tone: chain.tone,
    arcs: [[toPulley + Math.PI + leaves, toPulley + Math.PI + leaves + 2.2]],
  }
  const round = (mm: number, radiusMm: number, tone: number, arcs?: Disc['arcs']): Disc => ({
    middle: [sprocket.middle[0] + mm, 0, 0],
    radiusMm,
    rootMm: radiusMm,
    camber: 0,
    toe: 0,
    teeth: 20,
    halfMm: 1.5,
    tone,
    arcs,
  })
  const stayHalf = 0.09 + 0.05 * random.next()
  const stays = [0.55 + 0.3 * random.next(), 1.6 + 0.2 * random.next()].map(
    at => [at - stayHalf, at + stayHalf] as const,
  )
  const spokes = Array.from({ length: 18 }, (_, k) => {
    const at = (k / 18) * TURN + 0.06 * random.normal()
    return [at - 0.011, at + 0.011] as const
  })
  const cage: Disc = {
    ...pulley,
    each: undefined,
    middle: [x - 4, up, forward],
    radiusMm: pulley.radiusMm + 6,
    rootMm: pulley.radiusMm + 6,
    halfMm: 0.8,
    tone: looks ? looks.cage : 0.3 + 0.3 * random.next(),
    arcs: [[toPulley - 0.5, toPulley + 0.5]],
  }
  const inside: Disc = { ...cage, radiusMm: 14, rootMm: 14, arcs: undefined }
  // one wheel in three has a plain disc behind its largest sprocket
  const guard = random.next() < 0.33 ? [round(6, sprocket.radiusMm + 8, 0.15 + random.next())] : []
  const discs = [
    ...bike.discs.slice(0, n - 1).map(inMetal),
    sprocket,
    pulley,
    chain,
    onPulley,
    cage,
    inside,
    round(-n * 4 - 8, 125, 0.3 + 0.5 * random.next(), stays),
    round(-n * 4 - 8, 32, 0.45),
    ...guard,
    round(12, 200, 0.4 + 0.6 * random.next(), spokes),
  ].sort((a, b) => a.middle[0] - a.halfMm - b.middle[0] + b.halfMm)
  const free = (disc: Disc, hidden: readonly (readonly [number, number])[]) =>
    Array.from({ length: disc.teeth }, (_, k) => k).filter(k => {
      const at = (k / disc.teeth) * TURN
      return !hidden.some(([from, to]) => (((at - from + 0.1) % TURN) + TURN) % TURN <= to - from + 0.2)
    })
  return {
    bike,
    sprocket,
    pulley,
    discs,
    freeTips: {
      sprocket: free(sprocket, [...chain.arcs!, ...stays]),
      pulley: free(pulley, [...onPulley.arcs!, ...cage.arcs!]),
    },
  }
}
function drivetrain(seed: number) {
  const teeth = [11, 13, 15, 17, 19, 21, 24, 28, 32 + 2 * randomFrom(seed, 624).below(6)]
  return { teeth, placeMm: teeth.map((_, k) => 3.9 * k) }
}

export type SideCamera = { lens: Lens; pose: Pose; weather: Weather }
export function sideCamera({ sprocket }: SideScene, seed: number): SideCamera {
  const random = randomFrom(seed, 616)
  const camera = cameraBeside(sprocket, random)
  const weather = weatherOf(random, seed)
  // the lamp over a shoulder
  const [aside, high] = [0.5 * random.normal(), 0.3 + 0.5 * random.next()]
  const size = Math.hypot(0.8, high, aside)
  const lightFrom: Weather['lightFrom'] = [-0.8 / size, high / size, aside / size]
  return { ...camera, weather: { ...weather, lightFrom, behind: behindOf(seed) } }
}

const TILE_PX = 64
/** The picture about a place; drawn tile by tile, each once. */
export function lookBeside({ discs }: SideScene, { lens, pose, weather }: SideCamera): Look {
  const tiles = new Map<string, Grey>()
  const tile = (x: number, y: number): Grey => {
    const key = `${x} ${y}`
    const drawn =
      tiles.get(key) ??
      render(discs, lens, pose, weather, { left: x * TILE_PX, top: y * TILE_PX, width: TILE_PX, height: TILE_PX })
    tiles.set(key, drawn)
    return drawn
  }
  return (about, aroundPx) => {
    const around = Math.round(aroundPx)
    const [left, top, size] = [Math.round(about[0]) - around, Math.round(about[1]) - around, 2 * around]
    const data = new Uint8Array(size * size)
    for (let y = Math.floor(top / TILE_PX); y * TILE_PX < top + size; y++)
      for (let x = Math.floor(left / TILE_PX); x * TILE_PX < left + size; x++) {
        const from = tile(x, y).data
        for (let v = Math.max(top, y * TILE_PX); v < Math.min(top + size, (y + 1) * TILE_PX); v++)
          for (let u = Math.max(left, x * TILE_PX); u < Math.min(left + size, (x + 1) * TILE_PX); u++)
            data[(v - top) * size + u - left] = from[(v - y * TILE_PX) * TILE_PX + u - x * TILE_PX]!
      }
    return { width: size, height: size, data, left, top }
  }
}

/** A hand under the magnifier is off by so much, px. */
const HAND_PX = 1.2

/**
 * A picture from the side with three tips and three touched, and the look that finds more in it.
 * @param blurPx by the weather where left out
 */
export function askBeside(
  seed: number,
  blurPx?: number,
  looks = partsAsTheyLook(seed),
): { scene: SideScene; ask: FromSide; look: Look } {
  const scene = sideScene(seed, undefined, looks)
  const usual = sideCamera(scene, seed)
  const camera = { ...usual, weather: { ...usual.weather, blurPx: blurPx ?? usual.weather.blurPx } }
  const random = randomFrom(seed, 626)
  const { lens, pose } = camera
  const touch = (disc: Disc, tooth: number): Touch => {
    const own = disc.each![tooth]!
    const radiusMm = disc.radiusMm - own.shorterMm
    const beside = (own.leanMm + TIPS.besideMm * random.normal()) / radiusMm
    const [u, v] = seen(lens, pose, onRim({ ...disc, radiusMm }, (TURN * tooth) / disc.teeth + beside))
    return { at: [u + HAND_PX * random.normal(), v + HAND_PX * random.normal()], sdPx: HAND_PX }
  }
  const teeth = teethTouched(scene)
  const ask = {
    lens: usualLens(4000, 3000),
    sprocket: { teeth: scene.sprocket.teeth, placeMm: scene.bike.placeMm.at(-1)! },
    pulleyTeeth: scene.pulley.teeth,
    tips: teeth.sprocket.map(k => touch(scene.sprocket, k)),
    pulleyTips: teeth.pulley.map(k => touch(scene.pulley, k)),
  }
  return { scene, ask, look: lookBeside(scene, camera) }
}

/** A gap in a picture that is drawn once, however often it is measured in. */
export function gapBeside(seed: number, blurPx?: number) {
  const { scene, ask, look } = askBeside(seed, blurPx)
  return {
    gapMm: scene.bike.gapMm,
    /**
     * The gap as it is measured; null where the picture is refused, or another is asked for.
     * @param found whether the other teeth are looked for, as the page does
     */
    told(found = true): Figure | null {
      const besides = shownBesides(ask, found ? teethFinder(look) : () => ({ tips: [], pulleyTips: [] }), look)
      if (!besides) return null
      const m = measureFromSide({ ...ask, besides })
      return m.is === 'told' && m.gapMm.sd <= WIDEST_GAP_MM ? m.gapMm : null
    },
  }
}

/** Which teeth a hand touches, by what it is asked: those that look at each other first, then two well apart. */
export function teethTouched({ sprocket, pulley, freeTips }: SideScene): FreeTips {
  const [, up, forward] = pulley.middle
  const toPulley = Math.atan2(forward, up)
  return {
    sprocket: wellApart(freeTips.sprocket, sprocket.teeth, toPulley),
    pulley: wellApart(freeTips.pulley, pulley.teeth, toPulley + Math.PI),
  }
}

/** The free tooth nearest to an angle, and two more as far from it and from one another as can be. */
function wellApart(free: readonly number[], teeth: number, from: number): number[] {
  const apart = (a: number, b: number) => {
    const d = (((a - b) % teeth) + teeth) % teeth
    return Math.min(d, teeth - d)
  }
  const first = [...free].sort((a, b) => apart(a, (from / TURN) * teeth) - apart(b, (from / TURN) * teeth))[0]!
  const second = [...free].sort((a, b) => apart(b, first) - apart(a, first))[0]!
  const least = (k: number) => Math.min(apart(k, first), apart(k, second))
  const third = [...free].sort((a, b) => least(b) - least(a))[0]!
  return [first, second, third]
}
