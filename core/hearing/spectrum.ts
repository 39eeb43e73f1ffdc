import FFT from 'fft.js'

/*
 * What comes again in an envelope: its power by frequency, and how plainly a beat stands in it with its overtones.
 */

/** The next power of two, as a Fourier transform wants it. */
export const sizeFor = (samples: number): number => 2 ** Math.ceil(Math.log2(samples))

/** Power by frequency, from 0 to half the rate: the mean taken off, a Hann window, zeros to `size`, a power of two. */
export function powerOf(level: Float32Array, size: number): Float64Array {
  const mean = level.reduce((s, v) => s + v, 0) / level.length
  const input = new Float64Array(size)
  for (let i = 0; i < level.length; i++)
    input[i] = (level[i]! - mean) * (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / level.length))
  const fft = new FFT(size)
  const out = fft.createComplexArray()
  fft.realTransform(out, input)
  return Float64Array.from({ length: size / 2 }, (_, k) => out[2 * k]! ** 2 + out[2 * k + 1]! ** 2)
}

/** The ground that a beat stands out of: the middle of its powers. */
export const groundOf = (power: Float64Array): number => Float64Array.from(power).sort()[power.length >> 1]! || 1e-12

/**
 * How plainly a beat stands: where it and its overtones add up, and those of half of it do not.
 * @param at how far the power at a frequency stands out of its ground, as a logarithm
 */
export const beatScore = (at: (hz: number) => number, hz: number): number =>
  at(hz) + 0.8 * at(2 * hz) + 0.6 * at(3 * hz) - 0.7 * at(hz / 2) - 0.5 * at(1.5 * hz)
