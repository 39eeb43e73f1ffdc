import type { Recording } from '../hearing/bands'
import { randomFrom } from '../quantity/random'
import { inTheShop, soundsOn, type Random, type Workshop } from './otherSounds'

/*
 * What else comes evenly in a workshop and is no wheel that coasts: for benches of what hears one.
 */

export const NOT_A_WHEEL = ['beeps', 'a machine', 'a chain pedalled', 'music', 'speech'] as const
export type NotAWheel = (typeof NOT_A_WHEEL)[number]

/** A sound laid into a track, as long as the workshop is listened to. */
export function soundOf(is: NotAWheel, workshop: Workshop, seed: number): Recording {
  const rateHz = workshop.rateHz ?? 22_050
  const random = randomFrom(seed, 931)
  const out = new Float32Array(Math.round(workshop.seconds * rateHz))
  const { strike } = soundsOn(out, rateHz, random)
  const ticks = (perS: number, uneven: number) => {
    const hz = 900 + 2500 * random.next()
    for (let t = 0; t < workshop.seconds; t += (1 + uneven * Math.sin(4 * Math.PI * t)) / perS)
      strike(t, 0.2, hz, 0.0018)
  }
  if (is === 'beeps') beeps(out, rateHz, random)
  if (is === 'a machine') ticks(12 + 60 * random.next(), 0)
  if (is === 'a chain pedalled') ticks(20 + 40 * random.next(), 0.03)
  if (is === 'music') {
    const everyS = 0.2 + 0.3 * random.next()
    for (let t = 0; t < workshop.seconds; t += everyS) {
      const hz = 300 * 2 ** (2 * random.next())
      for (const overtone of [1, 2, 3, 4]) strike(t, 0.1 / overtone, hz * overtone, 0.15)
    }
  }
  if (is === 'speech') {
    for (let t = 0; t < workshop.seconds; t += 0.1 * random.next()) {
      const [long, voiceHz, formantHz] = [
        0.08 + 0.2 * random.next(),
        90 + 120 * random.next(),
        500 + 1800 * random.next(),
      ]
      for (let s = 0; s < long; s += 1 / voiceHz) strike(t + s, 0.2 * Math.sin((Math.PI * s) / long), formantHz, 0.0027)
      t += long
    }
  }
  return { samples: inTheShop(out, workshop.snrDb, rateHz, random), rateHz }
}

function beeps(out: Float32Array, rateHz: number, random: Random): void {
  const [everyS, longS, hz] = [0.25 + random.next(), 0.05 + 0.2 * random.next(), 200 + 2500 * random.next()]
  const square = random.next() < 0.5
  out.forEach((_, i) => {
    const t = i / rateHz
    const tone = Math.sin(2 * Math.PI * hz * t)
    if (t % everyS < longS) out[i] = 0.3 * (square ? Math.sign(tone) : tone)
  })
}
