/** A source of chance that can be seeded, so that the same question always gets the same answer. */
export type Random = {
  /** Uniform in [0, 1). */
  next(): number
  /** Standard normal, by the polar method (Marsaglia & Bray 1964). */
  normal(): number
  /** Whole number in [0, below). */
  below(below: number): number
}

/**
 * A seeded source. Mixing of the seeds after the finaliser of MurmurHash3 (public domain); steps are a 32-bit Weyl
 * sequence through the same kind of mixer. Not for secrets.
 * @param seeds any whole numbers; each one matters
 */
export function randomFrom(...seeds: number[]): Random {
  let state = 0x9e3779b9
  for (const seed of seeds) state = mix(state ^ (seed | 0)) + 0x6d2b79f5
  let spare: number | null = null
  const next = () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  return {
    next,
    below: below => Math.floor(next() * below),
    normal() {
      if (spare !== null) {
        const kept = spare
        spare = null
        return kept
      }
      for (;;) {
        const u = 2 * next() - 1
        const v = 2 * next() - 1
        const s = u * u + v * v
        if (s === 0 || s >= 1) continue
        const scale = Math.sqrt((-2 * Math.log(s)) / s)
        spare = v * scale
        return u * scale
      }
    },
  }
}

function mix(h: number): number {
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return (h ^ (h >>> 16)) | 0
}
