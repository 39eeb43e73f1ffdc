import { randomFrom } from '../quantity/random'
import { bandOf, gapsShown, lead, type Led } from '../sight/plane'
import { endsOf } from '../sight/rim'
import { render } from './render'
import { cameraBehind, sightBike, weatherOf } from './sightBench'

/** How near to the plane a hand is led by what the live picture says. */
export type LeadScore = { hands: number; told: number; within1: number; within2: number; rmsDeg: number }

const SIZE = { width: 1920, height: 1440 } as const
const LOOKS_A_SECOND = 5
/** A hand rocks through this fast, and back slower, °/s; it is not told for longer than this: it gives up, s. */
const ROCK = { through: 4, back: 1.5, mostS: 30 } as const

/**
 * Hands that rock a camera through the plane and come back until they are told to stop; a look shakes by half a degree,
 * is held a few per cent nearer or farther, and not just in its box.
 */
export function scoreLead(hands: number, first: number): LeadScore {
  const stopped: number[] = []
  for (let i = 0; i < hands; i++) {
    const seed = first + i
    const random = randomFrom(seed, 621)
    const bike = sightBike(seed)
    const weather = weatherOf(randomFrom(seed, 622), seed)
    let side = random.next() < 0.5 ? -1 : 1
    let deg = side * (4 + 4 * random.next())
    let led: Led | null = null
    let speed: number = ROCK.through
    for (let t = 0; t < ROCK.mostS * LOOKS_A_SECOND; t++) {
      const viewDeg = deg + 0.5 * random.normal()
      const camera = cameraBehind(bike, viewDeg, randomFrom(seed, 623), SIZE.width, SIZE.height)
      const { upper, lower } = endsOf(camera.lens, camera.pose, bike.discs[bike.teeth.length - 1]!)
      const high = Math.hypot(upper[0] - lower[0], upper[1] - lower[1]) * (1 + 0.03 * random.normal())
      const [u, v] = [0, 1].map(k => (upper[k]! + lower[k]!) / 2 + 0.04 * high * random.normal())
      const seen = render(bike.discs, camera.lens, camera.pose, { ...weather, seed: seed + t }, bandOf([u!, v!], high))
      led = lead(led, gapsShown(seen))
      if (led.there) {
        stopped.push(viewDeg)
        break
      }
      // through, out on the other side, then back slowly, and to and fro
      if (deg * side < -5) {
        side = -side
        speed = ROCK.back
      }
      deg -= (side * speed) / LOOKS_A_SECOND
    }
  }
  const share = (most: number) => stopped.filter(d => Math.abs(d) <= most).length / stopped.length
  return {
    hands,
    told: stopped.length,
    within1: share(1),
    within2: share(2),
    rmsDeg: Math.sqrt(stopped.reduce((s, d) => s + d * d, 0) / stopped.length),
  }
}
