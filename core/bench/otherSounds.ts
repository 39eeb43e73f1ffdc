import { randomFrom } from '../quantity/random'
import type { Recording } from '../hearing/bands'

/*
 * Chains at a stand by another synthesiser than Practice's: links as struck bars, a rub as scraping that swells with
 * each link, a workshop around it. For benches of what hears; it shares nothing with how Practice's sounds are made.
 */

export type Workshop = { snrDb: number; seconds: number; rateHz?: number }
export type Chain = {
  cadenceRpm: number
  ringTeeth: number
  sprocketTeeth: number
  /** 0 clean; 1 just heard; 3 loud. */
  rub: number
  /** Once a turn, what is not the gears: of the wheel, or of the cranks. */
  once?: 'wheel' | 'crank'
  skips?: number
  /** A shift in the middle of it, and how long the chain clatters until it lies on the next sprocket, s. */
  shiftTakesS?: number
}

export type Random = ReturnType<typeof randomFrom>

/** What can be laid into a track: a struck bar that dies away, and a scrape that swells and falls. */
export function soundsOn(out: Float32Array, rateHz: number, random: Random) {
  const n = out.length
  const strike = (s: number, loud: number, hz: number, dies: number) => {
    const from = Math.round(s * rateHz)
    const many = Math.round(6 * dies * rateHz)
    for (let i = 0; i < many && from + i < n; i++)
      out[from + i]! += loud * Math.sin((2 * Math.PI * hz * i) / rateHz) * Math.exp(-i / (dies * rateHz))
  }
  /** Noise around a pitch: a carrier whose phase wanders. */
  const rasp = (s: number, long: number, loud: number, hz: number, wide: number) => {
    const from = Math.round(s * rateHz)
    const many = Math.round(long * rateHz)
    let turn = random.next() * 6
    for (let i = 0; i < many && from + i < n; i++) {
      turn += (2 * Math.PI * hz) / rateHz + wide * random.normal()
      out[from + i]! += loud * Math.sin(turn) * Math.sin((Math.PI * i) / many) ** 2
    }
  }
  return { strike, rasp }
}

export function otherSound(chain: Chain, workshop: Workshop, seed: number): Recording {
  const rateHz = workshop.rateHz ?? 22_050
  const random = randomFrom(seed, 901)
  const n = Math.round(workshop.seconds * rateHz)
  const out = new Float32Array(n)
  // each bike rings at its own pitches
  const modes = Array.from({ length: 3 }, () => ({
    hz: 850 + 1700 * random.next(),
    dies: 0.0012 + 0.002 * random.next(),
    loud: 0.3 + random.next(),
  }))
  const scrape = { middle: 3000 + 2200 * random.next(), wide: 0.5 + 0.5 * random.next() }
  const hiss = 0.1 + 0.15 * random.next()
  const nominal = 60 / chain.cadenceRpm / chain.ringTeeth
  let phase = 0
  let links = 0
  let at = random.next() * nominal
  const wobble = 0.012 + 0.01 * random.next()
  const { strike, rasp } = soundsOn(out, rateHz, random)
  while (at < workshop.seconds) {
    const loud = 0.08 * (0.7 + 0.6 * random.next())
    for (const m of modes) strike(at, loud * m.loud, m.hz * (1 + 0.01 * random.normal()), m.dies)
    rasp(at, 0.004, hiss * loud, 3500 + 1500 * random.next(), scrape.wide)
    if (chain.rub > 0)
      rasp(
        at + 0.2 * nominal,
        0.45 * nominal,
        0.055 * chain.rub * (0.7 + 0.6 * random.next()),
        scrape.middle,
        scrape.wide,
      )
    if (chain.once) {
      const per = chain.once === 'wheel' ? chain.sprocketTeeth : chain.ringTeeth
      if (links % per < 2) rasp(at, 0.9 * nominal, 0.22, 3600, scrape.wide)
    }
    links++
    phase += 1
    // legs push twice a turn
    at += nominal * (1 + wobble * Math.sin((4 * Math.PI * phase) / chain.ringTeeth) + 0.004 * random.normal())
  }
  for (let i = 0; i < (chain.skips ?? 0); i++) {
    const s = (0.1 + 0.8 * random.next()) * workshop.seconds
    for (const hz of [140, 230, 330]) strike(s, 0.5, hz, 0.02)
  }
  if (chain.shiftTakesS !== undefined) {
    const from = workshop.seconds * (0.3 + 0.3 * random.next())
    strike(from, 0.2, 2800, 0.0015) // the lever
    const loud = 0.12 + 0.1 * random.next()
    for (let s = from + 0.02; s < from + chain.shiftTakesS; s += 0.018 + 0.05 * random.next()) {
      const rising = 0.6 + (0.8 * (s - from)) / chain.shiftTakesS
      strike(s, loud * rising * (0.5 + random.next()), 700 + 1500 * random.next(), 0.004 + 0.004 * random.next())
      rasp(s, 0.02, 0.06 * rising, 2500 + 2000 * random.next(), scrape.wide)
    }
  }
  return { samples: inTheShop(out, workshop.snrDb, rateHz, random), rateHz }
}

/**
 * A compressor's hum, air, and now and then something put down.
 * @param like how loud the room is beside this, where the sound itself is next to nothing
 */
export function inTheShop(
  clean: Float32Array,
  snrDb: number,
  rateHz: number,
  random: Random,
  like: Float32Array = clean,
): Float32Array {
  const n = clean.length
  const noise = new Float32Array(n)
  // Kellet's published economy filter: white noise to pink
  let [p0, p1, p2] = [0, 0, 0]
  for (let i = 0; i < n; i++) {
    const white = random.normal()
    p0 = 0.99765 * p0 + white * 0.099046
    p1 = 0.963 * p1 + white * 0.2965164
    p2 = 0.57 * p2 + white * 1.0526913
    noise[i] = p0 + p1 + p2 + white * 0.1848 + 2 * Math.sin((2 * Math.PI * 100 * i) / rateHz)
  }
  for (let k = 0; k < n / rateHz / 4; k++) {
    const from = random.below(n)
    const hz = 300 + 1500 * random.next()
    for (let i = 0; i < 0.08 * rateHz && from + i < n; i++)
      noise[from + i]! += 12 * Math.exp(-i / (0.015 * rateHz)) * Math.sin((2 * Math.PI * hz * i) / rateHz)
  }
  const power = (of: Float32Array) => of.reduce((s, v) => s + v * v, 0) / n
  const gain = Math.sqrt(power(like) / power(noise) / 10 ** (snrDb / 10))
  return clean.map((v, i) => v + gain * noise[i]!)
}
