import { randomFrom } from '../quantity/random'
import type { Heard } from '../response/heard'
import { HEARING } from '../response/parameters'
import { addBurst, burstOf, type BurstKind } from './bursts'
import { linksPerSecond, sprocketTurnsPerSecond, type Turning } from './rates'

/*
 * What a chain at the stand sounds like, made from where its pulley stands (model, section 7): the beat of its links; a
 * rub on a neighbour once a link; a late shift; two landings where it jumps; a knock where worn teeth skip; the rattle
 * of a small gap.
 */

export type Stereo = { left: Float32Array; right: Float32Array; rate: number }
export const RATE_HZ = 44_100

const LINK: BurstKind = { fromHz: 900, toHz: 2200, ringsMs: 1.6, loud: 0.045 }
const RUB: BurstKind = { fromHz: 2000, toHz: 6000, ringsMs: 6, loud: 0.05 }
const LANDING: BurstKind = { fromHz: 500, toHz: 3500, ringsMs: 9, loud: 0.3 }
const CLATTER: BurstKind = { fromHz: 1200, toHz: 5000, ringsMs: 5, loud: 0.16 }
const KNOCK: BurstKind = { fromHz: 110, toHz: 420, ringsMs: 24, loud: 0.5 }
const LEVER: BurstKind = { fromHz: 1500, toHz: 4200, ringsMs: 4, loud: 0.12 }
const RATTLE: BurstKind = { fromHz: 200, toHz: 800, ringsMs: 9, loud: 0.08 }
/** A few of each, so that no two links sound quite alike. */
const VARIANTS = 12

/** How it runs once the shift is over. */
export type Running = Turning & {
  /** Error of the pulley at the sprocket it runs on, pitches, + inboard, the bike's asymmetry taken off. */
  z: number
  sharpness: number
  /** A cassette's end has no neighbour on one side. */
  end: 'smallest' | 'largest' | null
  worn: boolean
  /** B gap, tip to tip, mm; null where it is not small. */
  gapMm: number | null
}

/** How loud the rub is: none until just before the threshold, then growing with how far past it the pulley stands. */
export function rubLevel({ z, sharpness, end }: Pick<Running, 'z' | 'sharpness' | 'end'>): number {
  const side = z > 0 ? 'in' : 'out'
  const limit =
    side === 'in' && end === 'largest'
      ? HEARING.largestRough
      : side === 'out' && end === 'smallest'
        ? HEARING.smallestRough
        : HEARING.rub
  const past = Math.abs(z) - limit * sharpness
  return Math.min(3, Math.max(0, 0.6 + past / (2 * HEARING.width)))
}

/** From 4 mm of gap up nothing rattles; below, the more the nearer. `model` */
export const QUIET_GAP_MM = 4

function variants(kind: BurstKind, seed: number, salt: number): Float32Array[] {
  const random = randomFrom(seed, salt)
  return Array.from({ length: VARIANTS }, () => burstOf(kind, RATE_HZ, random))
}

/**
 * Left and right of the picture from behind: outboard is on the right. Gains of both ears, `x` from −1 (inboard) to 1.
 */
const pan = (x: number): [number, number] => [Math.cos(((1 + x) * Math.PI) / 4), Math.sin(((1 + x) * Math.PI) / 4)]

/** A sound in the making. */
function mixer(samples: number, loop: boolean) {
  const [left, right] = [new Float32Array(samples), new Float32Array(samples)]
  return {
    sound: { left, right, rate: RATE_HZ } as Stereo,
    add(burst: Float32Array, seconds: number, gain: number, x: number): void {
      const [l, r] = pan(x)
      addBurst(left, burst, seconds * RATE_HZ, gain * l, loop)
      addBurst(right, burst, seconds * RATE_HZ, gain * r, loop)
    },
  }
}

/**
 * The chain as it runs on, over whole turns of the sprocket so that it can be looped without a seam.
 * @param seconds about how long
 */
export function runningSound(run: Running, seed: number, seconds = 3): Stereo {
  const turns = Math.max(1, Math.round(seconds * sprocketTurnsPerSecond(run)))
  const links = turns * run.sprocketTeeth
  const every = 1 / linksPerSecond(run)
  const { sound, add } = mixer(Math.round(links * every * RATE_HZ), true)
  const random = randomFrom(seed, 71)
  const [link, rub, knock, rattle] = [
    variants(LINK, seed, 72),
    variants(RUB, seed, 73),
    variants(KNOCK, seed, 74),
    variants(RATTLE, seed, 75),
  ]
  const level = rubLevel(run)
  const side = run.z > 0 ? -0.7 : 0.7
  const tight = run.gapMm === null ? 0 : Math.max(0, (QUIET_GAP_MM - run.gapMm) / QUIET_GAP_MM)
  // a worn sprocket lets the chain ride up, and drop, about once in two turns
  const skipsAt = new Set<number>()
  if (run.worn)
    for (let t = 0; t < turns; t++)
      if (turns < 3 || random.next() < 0.55) skipsAt.add(t * run.sprocketTeeth + random.below(run.sprocketTeeth))
  for (let i = 0; i < links; i++) {
    const at = i * every
    add(link[i % VARIANTS]!, at, 0.8 + 0.3 * random.next(), 0)
    if (level > 0) add(rub[random.below(VARIANTS)]!, at + 0.3 * every, level * (0.7 + 0.6 * random.next()), side)
    if (tight > 0) {
      const swell = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / run.sprocketTeeth)
      add(rattle[random.below(VARIANTS)]!, at + 0.5 * every, tight * swell, 0)
    }
    if (skipsAt.has(i)) add(knock[random.below(VARIANTS)]!, at, 1, 0)
  }
  return sound
}

/**
 * How long the sound of a shift lasts, s: a late one clatters until it is done, one that does not come is only the
 * lever's click.
 */
const LASTS: Record<Heard, number> = {
  clean: 0.45,
  'rubs-in': 0.45,
  'rubs-out': 0.45,
  slow: 1.3,
  none: 0.5,
  jumps: 0.7,
  off: 0.9,
  skips: 0.45,
}

/** The shift itself, before the chain runs on: what happened of it, as it sounds. */
export function shiftSound(heard: Heard, run: Turning & { inward: boolean }, seed: number): Stereo {
  const seconds = LASTS[heard]
  const every = 1 / linksPerSecond(run)
  const { sound, add } = mixer(Math.round(seconds * RATE_HZ), false)
  const random = randomFrom(seed, 81)
  const [link, landing, clatter, knock] = [
    variants(LINK, seed, 82),
    variants(LANDING, seed, 83),
    variants(CLATTER, seed, 84),
    variants(KNOCK, seed, 85),
  ]
  for (let i = 0; i * every < seconds; i++) add(link[i % VARIANTS]!, i * every, 0.8 + 0.3 * random.next(), 0)
  const way = run.inward ? -0.4 : 0.4
  const land = (at: number, loud = 1) => add(landing[random.below(VARIANTS)]!, at, loud, way)
  switch (heard) {
    case 'none':
      break
    case 'slow':
      for (let at = 0.12; at < 1; at += every * (0.6 + 1.6 * random.next()))
        add(clatter[random.below(VARIANTS)]!, at, 0.25 + 0.85 * at, way)
      land(1.05)
      break
    case 'jumps':
      land(0.12)
      land(0.12 + 6 * every, 0.9)
      break
    case 'off':
      land(0.12)
      for (let at = 0.2; at < 0.8; at += 0.03 + 0.05 * random.next())
        add(knock[random.below(VARIANTS)]!, at, 0.4 + 0.5 * random.next(), run.inward ? -1 : 1)
      break
    default:
      land(0.12, 0.8)
  }
  return sound
}

/** The lever's own click, with which every shift begins, whatever the chain then makes of it. */
export function leverSound(seed: number): Stereo {
  const { sound, add } = mixer(Math.round(0.05 * RATE_HZ), false)
  add(burstOf(LEVER, RATE_HZ, randomFrom(seed, 91)), 0, 1, 0)
  return sound
}

/** How loud it is: root mean square of both ears. */
export const loudness = ({ left, right }: Stereo): number =>
  Math.sqrt((left.reduce((s, x) => s + x * x, 0) + right.reduce((s, x) => s + x * x, 0)) / (2 * left.length))
