/*
 * A recording taken apart into bands, and how loud each is from moment to moment.
 */

/** One ear's samples. */
export type Recording = { samples: Float32Array; rateHz: number }
/** How loud a band is, so many times a second. */
export type Envelope = { level: Float32Array; rateHz: number }

/** Bands that tell things apart (model, section 7): the links’ click, a rub’s hiss, a small gap’s rattle, a knock. */
export const BANDS = {
  link: { fromHz: 900, toHz: 2200 },
  rub: { fromHz: 2600, toHz: 6500 },
  rattle: { fromHz: 200, toHz: 800 },
  knock: { fromHz: 90, toHz: 420 },
} as const
export type BandName = keyof typeof BANDS

/** What is listened to reaches no higher than the rub's band: a recording of twice that and a little is enough. */
const ENOUGH_HZ = 20_000
/** Every second sample of a recording that is finer than is needed, each the mean of two. */
export function thinned(recording: Recording): Recording {
  const { samples, rateHz } = recording
  if (rateHz < 2 * ENOUGH_HZ) return recording
  const half = new Float32Array(samples.length >> 1)
  for (let i = 0; i < half.length; i++) half[i] = (samples[2 * i]! + samples[2 * i + 1]!) / 2
  return { samples: half, rateHz: rateHz / 2 }
}

/** Envelopes are kept this often a second: links come up to a hundred times. */
export const ENVELOPE_HZ = 1000

/**
 * The root mean square of a band, a thousand times a second. Two-pole band-passes, twice over: Bristow-Johnson’s
 * published cookbook, constant peak.
 */
export function envelopeOf({ samples, rateHz }: Recording, name: BandName): Envelope {
  const { fromHz, toHz } = BANDS[name]
  const w = (2 * Math.PI * Math.sqrt(fromHz * toHz)) / rateHz
  const alpha = (Math.sin(w) * (toHz - fromHz)) / (2 * Math.sqrt(fromHz * toHz))
  const [b0, a1, a2] = [alpha / (1 + alpha), (-2 * Math.cos(w)) / (1 + alpha), (1 - alpha) / (1 + alpha)]
  const hop = rateHz / ENVELOPE_HZ
  const level = new Float32Array(Math.floor(samples.length / hop))
  let [x1, x2, y1, y2, z1, z2] = [0, 0, 0, 0, 0, 0]
  let at = 0
  for (let i = 0; i < level.length; i++) {
    const end = Math.floor((i + 1) * hop)
    let sum = 0
    const from = at
    for (; at < end; at++) {
      const x = samples[at]!
      const y = b0 * (x - x2) - a1 * y1 - a2 * y2
      const z = b0 * (y - y2) - a1 * z1 - a2 * z2
      x2 = x1
      x1 = x
      y2 = y1
      y1 = y
      z2 = z1
      z1 = z
      sum += z * z
    }
    level[i] = Math.sqrt(sum / Math.max(1, end - from))
  }
  return { level, rateHz: ENVELOPE_HZ }
}
