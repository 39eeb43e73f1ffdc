import type { Recording } from '../hearing/bands'
import { randomFrom } from '../quantity/random'
import { inTheShop, soundsOn, type Workshop } from './otherSounds'

/*
 * Hub gears whose wheel was spun by hand and left to coast, cranks held, in a workshop: pawls over their ratchet as the
 * wheel loses speed to its bearings and the air, or to a gear that drags the cranks along. For benches of what hears.
 */

/**
 * `free`: pawls tick and only bearing and air brake it; `braked`: they tick and something brakes it; `silent`: it runs
 * and nothing ticks; `catches`: pawls that take now and then.
 */
export const COASTINGS = ['free', 'braked', 'silent', 'catches'] as const
export type Coasting = (typeof COASTINGS)[number]
export type Coast = { is: Coasting; turnsPerS: number; ticksATurn: number; stopsInS: number }

export function someCoast(is: Coasting, seed: number): Coast {
  const random = randomFrom(seed, 921)
  return {
    is,
    turnsPerS: 1 + 1.6 * random.next(),
    ticksATurn: 12 + random.below(19),
    stopsInS: is === 'braked' ? 1.5 + 3 * random.next() : 12 + 38 * random.next(),
  }
}

/** When each tick falls, s: the wheel slowed by its bearings, by what is viscous, and by the air. */
function ticksOf(
  { turnsPerS, ticksATurn, stopsInS }: Coast,
  seconds: number,
  random: { next: () => number },
): number[] {
  // what each brakes of it at the start; how much of either a wheel has differs
  const [dry, wet, air] = [0.4 + random.next(), 0.4 * random.next(), 0.3 * random.next()]
  const loss = 1 / stopsInS / (dry + wet + air)
  const out: number[] = []
  const step = 0.0005
  let [speed, turned, next] = [turnsPerS, 0, random.next() / ticksATurn]
  for (let t = 0; t < seconds && speed > 0.02; t += step) {
    const part = speed / turnsPerS
    speed -= turnsPerS * loss * (dry + wet * part + air * part * part) * step
    turned += speed * step
    for (; turned >= next; next += 1 / ticksATurn) out.push(t)
  }
  return out
}

export function coastingSound(coast: Coast, workshop: Workshop, seed: number): Recording {
  const rateHz = workshop.rateHz ?? 22_050
  const random = randomFrom(seed, 922)
  const n = Math.round(workshop.seconds * rateHz)
  const ticking = new Float32Array(n)
  const { strike } = soundsOn(ticking, rateHz, random)
  const modes = Array.from({ length: 3 }, () => ({
    hz: 1100 + 3600 * random.next(),
    dies: 0.0008 + 0.0022 * random.next(),
    loud: 0.3 + random.next(),
  }))
  // two rings of pawls lie one inside the other, and need not fall together
  const second = { late: random.next(), loud: random.next() < 0.5 ? 0 : 0.2 + 0.6 * random.next() }
  const uneven = 0.05 + 0.1 * random.next()
  const ticks = ticksOf(coast, workshop.seconds, random)
  const played = coast.is === 'catches' ? ticks.filter(() => random.next() < 0.12) : ticks
  played.forEach((at, i) => {
    const every = (played[i + 1] ?? at + 0.03) - at
    const loud = 0.12 * (0.7 + 0.6 * random.next())
    const falls = at + uneven * 0.2 * every * random.normal()
    for (const m of modes) {
      strike(falls, loud * m.loud, m.hz * (1 + 0.01 * random.normal()), m.dies)
      if (second.loud) strike(falls + second.late * every, loud * second.loud * m.loud, m.hz * 1.1, m.dies)
    }
    if (coast.is === 'catches') strike(falls, 0.3, 260 + 200 * random.next(), 0.02)
  })
  const out = coast.is === 'silent' ? new Float32Array(n) : ticking.slice()
  const { rasp } = soundsOn(out, rateHz, random)
  // tyre and spokes whir whether it ticks or not
  for (let s = 0; s < workshop.seconds; s += 0.25) rasp(s, 0.4, 0.004, 1500 + 1500 * random.next(), 0.8)
  if (coast.is === 'braked')
    for (let s = 0; s < Math.min(coast.stopsInS, workshop.seconds); s += 0.1) rasp(s, 0.12, 0.02, 900, 0.6)
  return { samples: inTheShop(out, workshop.snrDb, rateHz, random, ticking), rateHz }
}
